using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>
/// All that one child was seen to do, read once from first to last, and what follows whatever day it is: its style, each skill's strength and belief, and how they
/// came about. The skills are judged together at the end of each day on which something was seen.
/// </summary>
public sealed class ChildRecord
{
    private readonly SkillMap _map;
    private readonly SchoolCalendar _calendar;
    private readonly EvidenceSettings _settings;
    private readonly StrengthRule _rule;
    private readonly SkillsTogether _together;
    private readonly Standing?[] _standings;
    private readonly bool[] _borne;
    private readonly double[] _evidence;
    private readonly bool[] _seen;
    private Earlier? _earlier;
    private double _weight;
    private double _weightAlone;

    /// <param name="observations">The child's, none withdrawn, in order of time; those of skills that the map does not have are passed over.</param>
    /// <param name="said">What an adult said of skills in a check without seeing them.</param>
    /// <param name="foreseen">Told of each observation with the chance to be seen alone that everything up to the day before gave it.</param>
    public ChildRecord(
        SkillMap map,
        SkillsTogether together,
        SchoolCalendar calendar,
        EvidenceSettings settings,
        IEnumerable<Observation> observations,
        IReadOnlyList<SaidOfSkill>? said = null,
        Action<Observation, double>? foreseen = null
    )
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(together);
        ArgumentNullException.ThrowIfNull(settings);
        (_map, _together, _calendar, _settings, _rule) = (map, together, calendar, settings, new(settings));
        (_standings, _borne) = (new Standing?[map.All.Count], new bool[map.All.Count]);
        (_evidence, _seen) = (new double[map.All.Count], new bool[map.All.Count]);
        Array.Fill(_evidence, 1);
        foreach (var (skill, there) in said ?? [])
        {
            _evidence[map.IndexOf(skill)] = there ? settings.Together.MostAMessageSays : 1 / settings.Together.MostAMessageSays;
        }

        All = together.Judge(_evidence, _seen);
        Read(observations, foreseen);
    }

    // Goes on from where another stood before its last day.
    private ChildRecord(ChildRecord other, Earlier from, IEnumerable<Observation> observations)
    {
        (_map, _together, _calendar, _settings, _rule) = (other._map, other._together, other._calendar, other._settings, other._rule);
        (_standings, _borne) = ([.. from.Standings.Select(s => s?.Copy())], [.. from.Borne]);
        (_evidence, _seen) = ([.. from.Evidence], [.. from.Seen]);
        (_weight, _weightAlone, All) = (from.Weight, from.WeightAlone, from.All);
        Read(observations, null);
    }

    /// <summary>How much of what the child has it shows without a nod, 0 to 1.</summary>
    public double Style => ((_settings.StyleWeight * _settings.UsualStyle) + _weightAlone) / (_settings.StyleWeight + _weight);

    /// <summary>All skills together, as they stand after the last observation.</summary>
    public Marginals All { get; private set; }

    /// <summary>What is known of one skill, by its place in the map; null where nothing was seen.</summary>
    public Standing? this[int skill] => _standings[skill];

    /// <summary>Whether something that builds on a skill, near or far, is secure.</summary>
    public bool IsBorne(int skill) => _borne[skill];

    /// <summary>
    /// The record of what was seen up to now, read from the last day on instead of from the first: as it would be, read from the first. Null where that can't be, since something of
    /// before that day has come or gone.
    /// </summary>
    /// <param name="before">What this record was read from.</param>
    internal ChildRecord? GoneOn(IReadOnlyList<Observation> before, IReadOnlyList<Observation> now)
    {
        if (_earlier is not { } earlier)
        {
            return null;
        }

        var from = 0;
        while (from < now.Count && now[from].Day < earlier.LastDay)
        {
            if (from >= before.Count || !ReferenceEquals(before[from], now[from]))
            {
                return null;
            }

            from++;
        }

        var comes = now.Skip(from);
        return comes.Concat(before.Skip(from)).All(o => o.Day >= earlier.LastDay) ? new(this, earlier, comes) : null;
    }

    private void Read(IEnumerable<Observation> observations, Action<Observation, double>? foreseen)
    {
        List<IGrouping<DateOnly, Observation>> days = [.. observations.Where(o => _map.Has(o.Skill)).GroupBy(o => o.Day)];
        foreach (var day in days)
        {
            if (foreseen is not null)
            {
                Foresee(day, foreseen);
            }

            if (day == days[^1] && days.TrueForAll(d => d.Key <= day.Key))
            {
                _earlier = new(day.Key, [.. _standings.Select(s => s?.Copy())], [.. _borne], [.. _evidence], [.. _seen], _weight, _weightAlone, All);
            }

            foreach (var observation in day)
            {
                var skill = _map.IndexOf(observation.Skill);
                See(observation, skill);
                (_evidence[skill], _seen[skill]) = (_standings[skill]!.Own.Ratio, true);
            }

            All = _together.Judge(_evidence, _seen);
            NoteStrengths(day.Key);
        }
    }

    private void Foresee(IGrouping<DateOnly, Observation> day, Action<Observation, double> foreseen)
    {
        double[] faded = [.. _standings.Select(s => s?.Own.RatioOn(day.Key) ?? 1)];
        var held = _together.Judge(faded, _seen).Held;
        var alone = _settings.For(Support.Alone, Style);
        foreach (var observation in day)
        {
            var has = held[_map.IndexOf(observation.Skill)];
            foreseen(observation, (has * alone.IfHas) + ((1 - has) * alone.IfNot));
        }
    }

    // Worth noticing for style is only how the child showed what it has.
    private void See(Observation observation, int skill)
    {
        var standing = _standings[skill] ??= new(_settings, _calendar);
        standing.Add(observation, _map.All[skill], Style);
        if (observation.Support is Support.Alone or Support.Prompted)
        {
            var had = All.Held[skill] * All.Held[skill];
            _weight += had;
            _weightAlone += observation.Support == Support.Alone ? had : 0;
        }
    }

    // From the last skill to the first: what is secure bears out what it needs.
    private void NoteStrengths(DateOnly day)
    {
        Array.Clear(_borne);
        for (var skill = _standings.Length - 1; skill >= 0; skill--)
        {
            if (_standings[skill] is { } standing)
            {
                var strength = _rule.Of(_map.All[skill], standing.Seen, All.Held[skill], _borne[skill]);
                if (strength == Strength.Secure)
                {
                    standing.FirstSecure ??= day;

                    // Kept is what was done alone again; what is only borne out has not been.
                    var kept = standing.LastAlone is { } again && _calendar.SchoolDaysBetween(standing.FirstSecure.Value, again) >= _settings.KeptAfter;
                    strength = kept ? Strength.Kept : Strength.Secure;
                }

                standing.Note(day, strength);
            }

            if (_borne[skill] || _standings[skill] is { Strength: >= Strength.Secure })
            {
                foreach (var need in _map.All[skill].Needs)
                {
                    _borne[_map.IndexOf(need)] = true;
                }
            }
        }
    }

    /// <summary>Where a record stood before its last day.</summary>
    private sealed record Earlier(
        DateOnly LastDay,
        Standing?[] Standings,
        bool[] Borne,
        double[] Evidence,
        bool[] Seen,
        double Weight,
        double WeightAlone,
        Marginals All
    );
}

/// <summary>What was seen of one skill, and what it came to.</summary>
public sealed class Standing(EvidenceSettings settings, SchoolCalendar calendar)
{
    private List<Observation> _seen = [];
    private List<StrengthStep> _steps = [];
    private BeliefModel _own = new(settings, calendar);

    /// <summary>In order of time.</summary>
    public IReadOnlyList<Observation> Seen => _seen;

    /// <summary>By itself, without the other skills.</summary>
    public BeliefModel Own => _own;

    public Strength Strength => _steps.Count > 0 ? _steps[^1].Strength : Strength.NotSeen;

    /// <summary>Each change, on the day after which it was so.</summary>
    public IReadOnlyList<StrengthStep> Steps => _steps;

    public DateOnly? FirstSecure { get; internal set; }

    public DateOnly? LastAlone { get; private set; }

    /// <summary>One that goes on by itself.</summary>
    internal Standing Copy()
    {
        var copy = (Standing)MemberwiseClone();
        (copy._seen, copy._steps) = ([.. _seen], [.. _steps]);
        return copy;
    }

    internal void Add(Observation observation, Skill skill, double style)
    {
        _seen.Add(observation);
        _own.See(observation, skill, style);
        LastAlone = observation.Counted(skill) == Support.Alone ? observation.Day : LastAlone;
    }

    internal void Note(DateOnly day, Strength strength)
    {
        if (strength != Strength)
        {
            _steps.Add(new(day, strength));
        }
    }
}
