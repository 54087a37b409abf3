using System.Diagnostics;
using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>Groups for made-up classes of thirty after nine weeks, ten places in the week, three cycles of groups remembered.</summary>
internal static class GroupingBench
{
    private const int Seeds = 20;

    public static IEnumerable<Figure> Run()
    {
        var map = SkillMapLoader.Shipped();
        var library = ActivityLoader.Shipped(map);
        var monday = new DateOnly(2026, 9, 7);
        var calendar = new SchoolCalendar([new("Autumn", Season.Autumn, monday, new(2027, 7, 16))], []);
        ChildId[] children = [.. Enumerable.Range(1, 30).Select(i => new ChildId(i))];
        Grouper.Form(new GroupingProblem([], GroupSlot.InARow(1), new(), []));
        List<double> times = [];
        List<double> options = [];
        List<int> gaps = [];
        for (ulong seed = 1; seed <= Seeds; seed++)
        {
            var now = new DateTimeOffset(monday.AddDays((7 * 8) + 4).ToDateTime(new(16, 0)), TimeSpan.Zero);
            var history = MadeUpHistory.Play(new(map, library, calendar, children, monday, now, 2, seed));
            var evidence = new ClassEvidence(map, calendar, EvidenceSettings.Default, children, history.Observations, DateOnly.FromDateTime(now.DateTime));
            var past = history.Weeks.SelectMany(w => w.Groups).ToList();
            var brief = new GroupingBrief(evidence, monday.AddDays(7 * 9), [history.Weeks[^1].Plan.Days[0].Focus.Skill], past, new Dictionary<ChildId, IReadOnlySet<int>>(), new HashSet<ChildId>());
            var problem = new GroupingProblem(Candidates.From(brief), GroupSlot.InARow(10), new(), Candidates.MetLately(past));
            var watch = Stopwatch.StartNew();
            var result = Grouper.Form(problem);
            times.Add(watch.Elapsed.TotalMilliseconds);
            options.Add(problem.Children.Average(c => c.Worths.Count));
            gaps.Add(result.ProvenBest ? 0 : result.Bound - result.Score);
        }

        var open = gaps.Where(g => g > 0).ToList();
        yield return new(
            $"groups for 30 children, 10 places, {options.Average():0} options a child, {Seeds} seeds",
            $"median {times.At(0.5):0} ms, worst {times.Max():0} ms; proven best in {Seeds - open.Count} of {Seeds}{(open.Count > 0 ? $", else within {open.Max()} points of some 4,500" : "")}",
            "proven under 1 s");
    }
}
