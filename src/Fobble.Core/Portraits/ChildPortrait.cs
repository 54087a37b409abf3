using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Skills;

namespace Fobble.Core.Portraits;

/// <summary>What a child could do next, with something to do it with.</summary>
/// <param name="Guess">Rests on what a check inferred and nobody has seen.</param>
/// <param name="Opens">How many later skills wait for it.</param>
public sealed record NextStep(SkillId Skill, Mark Mark, bool Guess, int Opens, string Because, Activity? Activity);

/// <summary>A skill that it would be good to see of a child now, and why.</summary>
public sealed record DueSkill(SkillId Skill, string Why);

/// <summary>How often a child was seen with one representation, and how often it was alone.</summary>
public sealed record ShownWith(Representation Representation, int Alone, int Seen);

/// <summary>A slip that came more than once of late.</summary>
public sealed record RecurringSlip(SkillId Skill, Slip Slip, int Times, DateOnly Last);

/// <summary>One school week of a child: how often it was seen, and what became secure.</summary>
public sealed record ChildWeek(DateOnly Monday, int Seen, IReadOnlyList<SkillId> Secured);

/// <summary>A bond, its parts in no order, and whether the child knew it when last asked.</summary>
public sealed record KnownBond(int Whole, int Part, bool Known, DateOnly Last)
{
    public int Other => Whole - Part;
}

/// <summary>Everything the record says about one child, ready to be understood at a glance.</summary>
public sealed class ChildPortrait(ClassEvidence evidence, ActivityLibrary library, ChildId child)
{
    private const int MostSteps = 6;
    private const int MostSlips = 6;
    private const int RecurringDays = 40;

    private IEnumerable<Observation> All => evidence.Map.All.SelectMany(s => evidence.Seen(child, s.Id));

    /// <summary>Begun ones first, then what most later skills wait for.</summary>
    public IReadOnlyList<NextStep> NextSteps =>
        [
            .. evidence
                .Map.Skills.Where(s => evidence.IsReady(child, s.Id))
                .Select(s => new NextStep(
                    s.Id,
                    evidence[child, s.Id],
                    evidence.IsReadyByGuess(child, s.Id),
                    evidence.Map.AllOpens(s.Id),
                    evidence.ReadyBecause(child, s.Id),
                    library.For(s.Id, Place.Group) is [var first, ..] ? first : null
                ))
                .OrderByDescending(n => n.Mark.Strength > Strength.NotSeen)
                .ThenByDescending(n => n.Opens)
                .ThenBy(n => evidence.Map.IndexOf(n.Skill))
                .Take(MostSteps),
        ];

    /// <summary>What it would be good to see when the child is met by chance: marks in doubt first, at most half, then next steps.</summary>
    public IReadOnlyList<DueSkill> Due(int most) =>
        [
            .. evidence
                .AllInDoubt.Where(l => l.Child == child)
                .Take(most / 2)
                .Select(l => new DueSkill(l.Skill, Phrase("look again")))
                .Concat(
                    NextSteps.Select(n => new DueSkill(
                        n.Skill,
                        n.Guess ? Phrase("a guess to confirm")
                            : n.Mark.Strength > Strength.NotSeen ? Phrase("under way")
                            : Phrase("ready")
                    ))
                )
                .DistinctBy(d => d.Skill)
                .Take(most),
        ];

    /// <summary>From objects to symbols.</summary>
    public IReadOnlyList<ShownWith> Shown =>
        [
            .. Enum.GetValues<Representation>()
                .Select(r => (r, seen: All.Where(o => o.Representation == r).ToList()))
                .Select(p => new ShownWith(p.r, p.seen.Count(o => o.Counted(evidence.Map[o.Skill]) == Support.Alone), p.seen.Count)),
        ];

    public IReadOnlyList<RecurringSlip> Slips =>
        [
            .. All.Where(o => o.SlipId is not null && evidence.Calendar.SchoolDaysBetween(o.Day, evidence.Today) <= RecurringDays)
                .GroupBy(o => (o.Skill, o.SlipId))
                .Where(g => g.Count() > 1)
                .Select(g => (slip: evidence.Map[g.Key.Skill].Slips.FirstOrDefault(s => s.Id == g.Key.SlipId), g))
                .Where(p => p.slip is not null)
                .Select(p => new RecurringSlip(p.g.Key.Skill, p.slip!, p.g.Count(), p.g.Max(o => o.Day)))
                .OrderByDescending(s => s.Times)
                .ThenByDescending(s => s.Last)
                .Take(MostSlips),
        ];

    /// <summary>Bonds that were asked for, from the numbers noted with skills about parts and wholes.</summary>
    public IReadOnlyList<KnownBond> Bonds =>
        [
            .. All.Select(o => (o, bond: ItemCase.Read(o.Numbers)?.Bond()))
                .Where(p => p.bond is not null)
                .GroupBy(p => (Whole: p.bond!.Value.Total, Part: Math.Min(p.bond.Value.First, p.bond.Value.Second)))
                .Select(g => (g.Key, last: g.MaxBy(p => p.o.At).o))
                .Select(p => new KnownBond(p.Key.Whole, p.Key.Part, p.last.Counted(evidence.Map[p.last.Skill]) == Support.Alone, p.last.Day))
                .OrderBy(b => b.Whole)
                .ThenBy(b => b.Part),
        ];

    /// <summary>The string of the year: every week with school from the first one that is asked for to this one.</summary>
    public IReadOnlyList<ChildWeek> WeeksFrom(DateOnly first)
    {
        var seen = All.ToLookup(o => SchoolCalendar.MondayOf(o.Day));
        var secured = evidence
            .Map.Skills.SelectMany(s => evidence.StepsOf(child, s.Id).Where(step => step.Strength == Strength.Secure).Take(1).Select(step => (s.Id, step.Day)))
            .ToLookup(p => SchoolCalendar.MondayOf(p.Day), p => p.Id);
        List<ChildWeek> weeks = [];
        for (var monday = SchoolCalendar.MondayOf(first); monday <= evidence.Today; monday = monday.AddDays(7))
        {
            if (Enumerable.Range(0, 5).Any(d => evidence.Calendar.IsSchoolDay(monday.AddDays(d))))
            {
                weeks.Add(new(monday, seen[monday].Count(), [.. secured[monday]]));
            }
        }

        return weeks;
    }

    /// <summary>Strand by strand: secure skills, and those under way.</summary>
    public IReadOnlyList<(Strand Strand, IReadOnlyList<SkillId> Secure, IReadOnlyList<SkillId> Begun)> ByStrand =>
        [
            .. evidence.Map.Strands.Select(strand =>
            {
                var own = evidence.Map.Skills.Where(s => s.Strand == strand.Id).Select(s => s.Id).ToList();
                return (
                    strand,
                    (IReadOnlyList<SkillId>)[.. own.Where(s => evidence[child, s].Strength >= Strength.Secure)],
                    (IReadOnlyList<SkillId>)[.. own.Where(s => evidence[child, s].Strength is > Strength.NotSeen and < Strength.Secure)]
                );
            }),
        ];
}
