using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Skills;
using Fobble.Core.Standards;

namespace Fobble.Core.Planning;

public enum ScopeSource
{
    /// <summary>Every skill up to a season.</summary>
    Seasons,

    /// <summary>The skills that reach a published framework's standards.</summary>
    Standards,

    /// <summary>Chosen one by one.</summary>
    Own,

    /// <summary>What an earlier plan had, at the same place in the year.</summary>
    Before,
}

/// <summary>What a plan is asked for. Kept with the plan.</summary>
/// <param name="UpTo">For seasons: the last one whose skills are in.</param>
/// <param name="Frameworks">For standards: names of frameworks.</param>
/// <param name="Skills">For an own choice.</param>
/// <param name="PlanId">For an earlier plan: which.</param>
/// <param name="Dropped">Skills left out of whatever was chosen.</param>
/// <param name="Rounds">How often each skill comes back, 1 to 3.</param>
/// <param name="Thorough">Ten times as many steps.</param>
public sealed record PlanAsk(
    ScopeSource Source,
    Season? UpTo,
    IReadOnlyList<string> Frameworks,
    IReadOnlyList<string> Skills,
    int? PlanId,
    IReadOnlyList<string> Dropped,
    int BufferOneIn,
    int StartersADay,
    int Rounds,
    IReadOnlyList<DayOfWeek> MoreOn,
    bool Shorter,
    bool Thorough,
    int Seed
)
{
    /// <summary>All that a class has a chance to reach by the summer, planned the usual way.</summary>
    public static PlanAsk Usual { get; } =
        new(
            ScopeSource.Seasons,
            Season.Summer,
            [],
            [],
            null,
            [],
            PlanSettings.Usual.BufferOneIn,
            PlanSettings.Usual.StartersADay,
            PlanSettings.Usual.Gaps.Count,
            [],
            false,
            false,
            1
        );

    /// <summary>What can't be asked for.</summary>
    /// <param name="canCopy">Whether the plan to copy is one of those this adult may see.</param>
    public IReadOnlyList<Refused> Faults(Func<int?, bool> canCopy)
    {
        ArgumentNullException.ThrowIfNull(canCopy);
        List<Refused> faults = [];
        void Check(string field, bool holds, string sentence) => faults.AddRange(holds ? [] : [new Refused(field, sentence)]);
        Check("bufferOneIn", BufferOneIn is 0 or (>= 3 and <= 40), Phrase("The buffer is none, or one place in 3 to 40."));
        Check("startersADay", StartersADay is >= 0 and <= 4, Phrase("There are 0 to 4 starters a day."));
        Check("rounds", Rounds is >= 1 and <= 3, Phrase("A skill comes back once to three times."));
        Check("moreOn", MoreOn.All(d => d is not (DayOfWeek.Saturday or DayOfWeek.Sunday)), Phrase("Lessons are on weekdays."));
        Check("source", Enum.IsDefined(Source) && (UpTo is null || Enum.IsDefined(UpTo.Value)), Phrase("There is no such choice."));
        Check("planId", Source != ScopeSource.Before || canCopy(PlanId), Phrase("There is no such plan to copy."));
        return faults;
    }

    /// <summary>The skills that are asked for, with all that they need.</summary>
    /// <param name="before">Skills of the plan to copy, where one is copied.</param>
    /// <exception cref="RefusedException">None is left.</exception>
    public IReadOnlySet<SkillId> SkillsOn(SkillMap map, IEnumerable<SkillId> before)
    {
        ArgumentNullException.ThrowIfNull(map);
        var codes = Framework.Shipped.Where(f => Frameworks.Contains(f.Name)).SelectMany(f => f.Standards.Select(s => s.Code)).ToHashSet();
        var chosen = Source switch
        {
            ScopeSource.Seasons => map.Skills.Where(s => s.When <= (UpTo ?? Season.Summer)).Select(s => s.Id),
            ScopeSource.Standards => map.Skills.Where(s => s.Standards.Any(codes.Contains)).Select(s => s.Id),
            ScopeSource.Before => before,
            _ => Skills.Select(s => new SkillId(s)),
        };
        var dropped = Dropped.Select(s => new SkillId(s)).ToHashSet();
        var skills = chosen
            .Where(s => map.Has(s) && !map[s].Hidden)
            .SelectMany(s => map.AllNeeds(s).Append(s))
            .Where(s => !dropped.Contains(s) && !map.AllNeeds(s).Any(dropped.Contains))
            .ToHashSet();
        return skills.Count > 0 ? skills : throw new RefusedException("source", Phrase("Nothing is chosen: take at least one skill."));
    }

    public PlanSettings SettingsFor(Approach approach)
    {
        ArgumentNullException.ThrowIfNull(approach);
        return PlanSettings.Usual with
        {
            Order = approach.Order,
            BufferOneIn = BufferOneIn,
            StartersADay = StartersADay,
            Gaps = [.. PlanSettings.Usual.Gaps.Take(Rounds)],
            MoreOn = MoreOn,
            Shorter = Shorter,
            Steps = PlanSettings.Usual.Steps * (Thorough ? 10 : 1),
            Seed = (ulong)Seed,
        };
    }

    /// <summary>The same with a way out taken.</summary>
    public PlanAsk With(WayOut way)
    {
        ArgumentNullException.ThrowIfNull(way);
        return this with
        {
            BufferOneIn = way.Settings.BufferOneIn,
            Rounds = way.Settings.Gaps.Count,
            MoreOn = way.Settings.MoreOn,
            Shorter = way.Settings.Shorter,
            Dropped = [.. Dropped.Concat(way.Dropped.Select(s => s.Value)).Distinct()],
        };
    }
}
