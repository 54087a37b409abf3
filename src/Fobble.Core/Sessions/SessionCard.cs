using System.Globalization;
using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.Sessions;

/// <summary>An amount to set out.</summary>
public sealed record SetOut(CupboardItem Item, int Amount);

/// <summary>Something to look for, and the slip it reveals where it is one.</summary>
public sealed record LookFor(string Text, string? SlipId);

/// <summary>Everything an adult needs to run one session, on one page.</summary>
public sealed record SessionCard(
    Skill Skill,
    Activity Activity,
    string Aim,
    IReadOnlyList<Item> Items,
    IReadOnlyList<SetOut> SetOut,
    IReadOnlyList<LookFor> LookFor,
    IReadOnlyList<Caution> Cautions
)
{
    /// <summary>When numerals and signs come in with this skill, as the class has it; null where the skill is not shown in both ways.</summary>
    public string? Signs { get; init; }

    /// <summary>What the sheet is for in this lesson; null where the class uses none.</summary>
    public string? Sheet { get; init; }
}

/// <summary>Makes session cards. The same session (by its seed) and the same history give the same card.</summary>
public static class SessionCards
{
    /// <summary>Items for each child of the group.</summary>
    public const int ItemsEach = 2;

    /// <summary>Items on a card at least.</summary>
    public const int FewestItems = 6;
    private const int LatelySchoolDays = 10;
    private const int LongSchoolDays = 15;

    /// <summary>The seed of a session: class, day, place in the timetable (0 for the carpet) and skill name it for good.</summary>
    public static ulong SeedFor(ClassId classId, DateOnly day, int place, SkillId skill) =>
        SeededRandom.SeedOf(string.Create(CultureInfo.InvariantCulture, $"{classId.Value}|{day:O}|{place}|{skill}"));

    /// <param name="children">Who will be there; empty for the whole class on the carpet.</param>
    public static SessionCard Make(
        SkillId skillId,
        Activity activity,
        IReadOnlyList<ChildId> children,
        ClassEvidence evidence,
        Approach approach,
        ClassCares cares,
        ulong seed
    )
    {
        ArgumentNullException.ThrowIfNull(activity);
        ArgumentNullException.ThrowIfNull(evidence);
        var skill = evidence.Map[skillId];
        var setting = activity.For(skillId) ?? throw new ArgumentException($"{activity.Name} does not serve {skillId}.", nameof(activity));
        var who = children.Count > 0 ? children : evidence.Children;
        var count = children.Count > 0 ? Math.Max(FewestItems, ItemsEach * children.Count) : FewestItems;
        var items = ItemSetMaker.Make(
            new ItemRequest(setting.Items, setting.Range, count, HistoryOf(who, skillId, evidence), seed)
            {
                Approach = approach,
                Zero = evidence.Map.KnowsZero(skillId),
            }
        );
        var setOut = activity.Materials.Select(m => new SetOut(m.Item, m.Amount.For(setting.Range.High, who.Count))).ToList();
        return new SessionCard(
            skill,
            activity,
            skill.ICan,
            items,
            setOut,
            [.. skill.LookFor.Concat(activity.LookFor).Distinct().Select(t => new LookFor(t, null)), .. skill.Slips.Select(s => new LookFor(s.Text, s.Id))],
            Cautions.For(activity.Items, cares)
        )
        {
            Signs = SignsFor(skill, approach),
            Sheet = approach.Sheets switch
            {
                SheetUse.None => null,
                SheetUse.EveryLesson => Phrase($"In this lesson, for every child: {activity.Sheet}"),
                _ => children.Count == 0 ? null : Phrase($"Afterwards, as a record: {activity.Sheet}"),
            },
        };
    }

    private static string? SignsFor(Skill skill, Approach approach) =>
        !skill.ShownIn.Contains(Representation.Symbols) || skill.ShownIn.Count == 1 ? null
        : approach.Symbols == SymbolsWhen.FromTheStart ? Phrase("Lay numerals and signs beside the things each time.")
        : Phrase("Numerals and signs only where it is sure with objects, fingers and drawings.");

    /// <summary>What these children's record of the skill says about its cases.</summary>
    public static ItemHistory HistoryOf(IReadOnlyList<ChildId> children, SkillId skillId, ClassEvidence evidence)
    {
        ArgumentNullException.ThrowIfNull(evidence);
        return HistoryOf(children, [evidence.Map[skillId]], evidence);
    }

    /// <summary>What a child's whole record says, for a sheet that is not made for one skill: a bond missed under a lid is practised on paper as well.</summary>
    public static ItemHistory HistoryOf(ChildId child, ClassEvidence evidence)
    {
        ArgumentNullException.ThrowIfNull(evidence);
        return HistoryOf([child], evidence.Map.Skills, evidence);
    }

    private static ItemHistory HistoryOf(IReadOnlyList<ChildId> children, IReadOnlyList<Skill> skills, ClassEvidence evidence)
    {
        var seen = children.SelectMany(c => skills.SelectMany(s => evidence.Seen(c, s.Id))).ToList();
        int Ago(Observation o) => evidence.Calendar.SchoolDaysBetween(o.Day, evidence.Today);
        var missed = seen.Where(o => o.Numbers is not null && o.Support >= Support.Together && Ago(o) <= LatelySchoolDays).Select(o => o.Numbers!).ToHashSet();
        var old = seen.Where(o => o.Numbers is not null)
            .GroupBy(o => o.Numbers!)
            .Where(g => g.All(o => Ago(o) > LongSchoolDays))
            .Select(g => g.Key)
            .ToHashSet();
        var confusions = skills
            .SelectMany(s => s.Slips)
            .Where(s => s.Confuses is not null && seen.Any(o => o.SlipId == s.Id))
            .Select(s => s.Confuses!.Value)
            .Distinct()
            .ToList();
        return new ItemHistory(missed, old, confusions);
    }
}
