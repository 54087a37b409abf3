using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Strategies;

/// <summary>Collects steps; carries each thought out as it is added, so that a wrong one cannot be written.</summary>
internal sealed class Workings(int a, Operation operation, int b)
{
    private readonly List<StrategyStep> _steps = [];
    private Terms _terms = Terms.Of(a, operation, b);

    public IReadOnlyList<StrategyStep> Steps => _steps;

    public Workings Then(Thought thought, string says, Picture picture)
    {
        _terms = _terms.After(thought);
        _steps.Add(new(thought, says, picture, _terms.ToString()));
        return this;
    }
}

/// <summary>Ten frames on the table, counters named for life: <c>a-1</c> … for the first amount, <c>b-1</c> … for the second.</summary>
internal sealed class FrameTable(FrameStyle style, int frames = 2)
{
    private readonly List<FrameCounter> _counters = [];

    public FrameTable Put(int number, int frame, string name = "a")
    {
        var role = name == "a" ? ShapeRole.CounterA : ShapeRole.CounterB;
        for (var i = 0; i < number; i++)
        {
            var key = $"{name}-{_counters.Count(c => c.Key.StartsWith(name, StringComparison.Ordinal)) + 1}";
            _counters.Add(new(key, role, frame, Lying(frame)));
        }

        return this;
    }

    /// <summary>A number over as many frames as it fills, from <paramref name="first"/> on.</summary>
    public FrameTable Fill(int number, int first = 0, string name = "a")
    {
        for (var frame = first; number > 0; frame++)
        {
            Put(Math.Min(10, number), frame, name);
            number -= 10;
        }

        return this;
    }

    /// <summary>Slides the last counters of one frame to the next free places of another.</summary>
    public FrameTable Slide(int number, int from, int to)
    {
        for (var i = 0; i < number; i++)
        {
            var last = _counters.Where(c => c.Frame == from).MaxBy(c => c.Place)!;
            _counters[_counters.IndexOf(last)] = last with { Frame = to, Place = Lying(to) };
        }

        return this;
    }

    /// <summary>Crosses out the last counters, of one frame or of all, that are not crossed out yet.</summary>
    public FrameTable CrossOut(int number, int? frame = null)
    {
        foreach (
            var counter in _counters
                .Where(c => c.Mark == CounterMark.None && (frame is null || c.Frame == frame))
                .OrderByDescending(c => (c.Frame * 10) + c.Place)
                .Take(number)
                .ToList()
        )
        {
            _counters[_counters.IndexOf(counter)] = counter with { Mark = CounterMark.Crossed };
        }

        return this;
    }

    public Picture Picture()
    {
        var perFrame = Enumerable.Range(0, frames).Select(f => NumberWords.Of(_counters.Count(c => c.Frame == f && c.Mark == CounterMark.None)));
        return Frames.Board([.. _counters], frames, 10, style, Phrase($"Ten frames with {string.Join(" and ", perFrame)}"));
    }

    private int Lying(int frame) => _counters.Count(c => c.Frame == frame);
}
