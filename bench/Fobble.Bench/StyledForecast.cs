using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>
/// Forecasts by style alone, or by style and skills judged together. Style: how much of what a child has it shows without a nod, learned from all its skills.
/// </summary>
internal sealed class StyledForecast(SkillMap map, SchoolCalendar calendar, TogetherModel? together) : IForecast
{
    private const double Prior = 0.20;
    private readonly Dictionary<ChildId, Record> _children = [];
    private readonly Dictionary<ChildId, double> _levels = [];

    public double Alone(Observation next)
    {
        var record = Of(next.Child);
        var held = Held(next)[map.IndexOf(next.Skill)];
        return (held * 0.9 * record.Style) + ((1 - held) * 0.10 * record.Style / 0.8);
    }

    public void See(Observation seen)
    {
        var (record, held) = (Of(seen.Child), Held(seen)[map.IndexOf(seen.Skill)]);
        if (seen.Support is Support.Alone or Support.Prompted)
        {
            record.Weight += held * held;
            record.WeightAlone += seen.Support == Support.Alone ? held * held : 0;
        }

        record.Seen.Add(seen);
        record.Day = null;
    }

    /// <summary>Chance that the child holds each skill, before <paramref name="next"/>.</summary>
    public double[] Held(Observation next)
    {
        var record = Of(next.Child);
        if (record.Day == next.Day)
        {
            return record.Held;
        }

        var settings = Styled(record.Style);
        var models = new BeliefModel?[map.All.Count];
        foreach (var o in record.Seen)
        {
            var model = models[map.IndexOf(o.Skill)] ?? new BeliefModel(settings, calendar);
            model.See(o, map[o.Skill]);
            models[map.IndexOf(o.Skill)] = model;
        }

        double[] beliefs = [.. models.Select(m => m?.On(next.Day) ?? Prior)];
        record.Day = next.Day;
        record.Held = together is null ? beliefs : Together(next.Child, beliefs, [.. models.Select(m => m is not null)]);
        return record.Held;
    }

    private double[] Together(ChildId child, double[] beliefs, bool[] seen)
    {
        double[] evidence = [.. beliefs.Select((b, i) => seen[i] ? Ratio(Math.Clamp(b, 1e-4, 1 - 1e-4)) : 1)];
        var level = together!.Run(evidence, seen, 0).Level;
        _levels[child] = level;
        return together.Run(evidence, seen, TogetherModel.Shift(level, TogetherModel.OfClass(_levels.Values))).Held;

        static double Ratio(double b) => b / (1 - b) / (Prior / (1 - Prior));
    }

    private EvidenceSettings Styled(double style)
    {
        var rest = (1 - (0.10 * style / 0.8)) / 0.90;
        return EvidenceSettings.Default with
        {
            Alone = new(0.9 * style, 0.10 * style / 0.8),
            Prompted = new(0.9 * (1 - style), 0.25 * rest),
            Together = new(0.06, 0.30 * rest),
            NotYet = new(0.04, 0.35 * rest),
            LearnTaught = together is null ? 0.10 : 0.06,
            LearnChoice = together is null ? 0.03 : 0.02,
        };
    }

    private Record Of(ChildId child)
    {
        if (!_children.TryGetValue(child, out var record))
        {
            _children[child] = record = new();
        }

        return record;
    }

    private sealed class Record
    {
        public List<Observation> Seen { get; } = [];

        public double Weight { get; set; }

        public double WeightAlone { get; set; }

        public double Style => (6.4 + WeightAlone) / (8 + Weight);

        /// <summary>For which day <see cref="Held"/> was worked out; null where something was seen since.</summary>
        public DateOnly? Day { get; set; }

        public double[] Held { get; set; } = [];
    }
}
