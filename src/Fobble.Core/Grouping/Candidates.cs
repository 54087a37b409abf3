using Fobble.Core.Approaches;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>A group that met.</summary>
/// <param name="Week">Weeks of groups lie in the past by number; the same number means the same week.</param>
public sealed record PastGroup(DateOnly Day, int Week, SkillId Skill, IReadOnlyList<ChildId> Children);

/// <summary>Everything that worth is worked out from.</summary>
/// <param name="Focus">Focus skills of the week the groups are for.</param>
/// <param name="Past">Groups of the term so far, in order of time.</param>
/// <param name="AwayIn">Slots in which a child can't be; children that can be everywhere are left out.</param>
/// <param name="Excluded">Children who have had their turn in this week or are not to be grouped.</param>
public sealed record GroupingBrief(
    ClassEvidence Evidence,
    DateOnly ForDay,
    IReadOnlyList<SkillId> Focus,
    IReadOnlyList<PastGroup> Past,
    IReadOnlyDictionary<ChildId, IReadOnlySet<int>> AwayIn,
    IReadOnlySet<ChildId> Excluded
)
{
    /// <summary>Whether groups are of one next step, or have one who has it among those who nearly do.</summary>
    public GroupWay Way { get; init; }

    /// <summary>Skills that something can be done for in a group; null for all.</summary>
    public IReadOnlySet<SkillId>? Teachable { get; init; }

    public GroupWeights Weights { get; init; } = GroupWeights.Usual;

    /// <summary>Children who need an adult close by while working.</summary>
    public IReadOnlySet<ChildId> NeedAdultNear { get; init; } = new HashSet<ChildId>();

    /// <summary>What is not to be an aim of a child again: it has just had its turn with it.</summary>
    public IReadOnlySet<(ChildId Child, SkillId Skill)> Done { get; init; } = new HashSet<(ChildId, SkillId)>();

    /// <summary>Groups in other parts of the same week, held or planned: who is in one has a turn, and not the same aim twice.</summary>
    public IReadOnlyList<PastGroup> Beside { get; init; } = [];

    /// <summary>Aims that children have already in the groups that are planned and may stay as they are.</summary>
    public IReadOnlySet<(ChildId Child, SkillId Skill)> Planned { get; init; } = new HashSet<(ChildId, SkillId)>();

    /// <summary>Whether a child is on a skill elsewhere in the week, or has just been.</summary>
    internal bool IsDone(ChildId child, SkillId skill) => Done.Contains((child, skill)) || Beside.Any(g => g.Skill == skill && g.Children.Contains(child));

    /// <summary>The children of each group of the last weeks, and of the week's other parts: who meets again costs points.</summary>
    public IReadOnlyList<IReadOnlyList<ChildId>> MetLately => [.. Candidates.MetLately(Past), .. Beside.Select(g => g.Children)];

    internal IReadOnlyList<DateOnly> TurnsBeside(ChildId child) => [.. Beside.Where(g => g.Children.Contains(child)).Select(g => g.Day)];
}

/// <summary>Works out what each child could do in a group and what it is worth (rule R13). Numbers are settings in one place.</summary>
public static class Candidates
{
    /// <summary>Points for each school day since the child was last in a group.</summary>
    public const int FairnessADay = 5;

    /// <summary>The most points that waiting brings.</summary>
    public const int MostFairness = 50;

    /// <summary>Points for an aim that is to look again at what a child had.</summary>
    public const int LookAgainBase = 50;

    /// <summary>Weeks back in which two children who shared a group count as having met.</summary>
    public const int WeeksRemembered = 3;

    /// <summary>Of one who has it, in a mixed group: somewhat more than a usual next step of the child's own, so that a group that can have one has one.</summary>
    public const int ShowsBase = 110;

    /// <summary>A further turn in the week is worth so many points less than the first: who has none goes first.</summary>
    public const int FurtherTurn = 30;

    /// <summary>Points for an aim that a child has already in groups that are planned.</summary>
    public const int StayWorth = 3;

    /// <summary>Base points from which nearness is told: a weight draws the others away from it, or towards it.</summary>
    private const int MiddleBase = 80;

    /// <summary>A skill is shown by one child to so many who are on their way with it.</summary>
    private const int FewestToShow = 2;
    private const double UrgencyEach = 0.1;
    private const int MostWaiting = 5;
    private const double UrgencyOfFocus = 0.2;
    private static readonly IReadOnlySet<int> Nowhere = new HashSet<int>();

    /// <summary>The children who can be in a group, in the class's order.</summary>
    public static IReadOnlyList<Candidate> From(GroupingBrief brief)
    {
        ArgumentNullException.ThrowIfNull(brief);
        var map = brief.Evidence.Map;
        var skills = map.Skills.Where(s => brief.Teachable?.Contains(s.Id) ?? true).ToList();
        var urgency = skills.ToDictionary(s => s.Id, s => UrgencyOf(s.Id, brief));
        var shown = skills
            .Where(s =>
                brief.Way == GroupWay.Mixed
                && brief.Evidence.Children.Count(c => brief.Evidence.IsReady(c, s.Id) && brief.Evidence[c, s.Id].Strength >= Strength.Tried) >= FewestToShow
            )
            .Select(s => s.Id)
            .ToHashSet();
        return
        [
            .. brief
                .Evidence.Children.Where(c => !brief.Excluded.Contains(c))
                .Select(child =>
                {
                    var elsewhere = brief.TurnsBeside(child);
                    var (fairness, less) = elsewhere.Count > 0 ? (0, FurtherTurn) : (FairnessOf(child, brief), 0);
                    var worths = skills
                        .Where(s => !brief.IsDone(child, s.Id))
                        .Select(s => (s.Id, Base: BaseOf(child, s.Id, brief), Shows: shown.Contains(s.Id) && Has(child, s.Id, brief.Evidence)))
                        .Where(w => w.Base > 0 || w.Shows)
                        .ToDictionary(
                            w => w.Id,
                            w =>
                                WorthOf(w.Shows ? ShowsBase : w.Base, less, urgency[w.Id], fairness) with
                                {
                                    Shows = w.Shows,
                                    Stay = brief.Planned.Contains((child, w.Id)) ? GroupWeights.Of(StayWorth, brief.Weights.Stay) : 0,
                                }
                        );
                    return new Candidate(child, worths, fairness, brief.AwayIn.GetValueOrDefault(child, Nowhere), SlipsOf(child, worths.Keys, brief.Evidence))
                    {
                        Reach = ReachOf(child, worths.Keys, brief.Evidence),
                        NeedsAdultNear = brief.NeedAdultNear.Contains(child),
                        Elsewhere = elsewhere,
                    };
                }),
        ];
    }

    /// <summary>The children of each group of the last weeks.</summary>
    public static IReadOnlyList<IReadOnlyList<ChildId>> MetLately(IReadOnlyList<PastGroup> past)
    {
        var weeks = past.Select(p => p.Week).Distinct().OrderDescending().Take(WeeksRemembered).ToHashSet();
        return [.. past.Where(p => weeks.Contains(p.Week)).Select(p => p.Children)];
    }

    /// <summary>School days since the child's last group; null if there was none.</summary>
    public static int? DaysSinceGroup(ChildId child, GroupingBrief brief) =>
        brief.Past.LastOrDefault(p => p.Children.Contains(child)) is { } last ? brief.Evidence.Calendar.SchoolDaysBetween(last.Day, brief.ForDay) : null;

    /// <summary>Skills that wait for this one: they need it, directly or not, and are of this season or an earlier one.</summary>
    public static int Waiting(SkillId skill, GroupingBrief brief)
    {
        var map = brief.Evidence.Map;
        var season = brief.Evidence.Calendar.SeasonOf(brief.ForDay);
        return Math.Min(MostWaiting, map.Skills.Count(s => s.When <= season && map.AllNeeds(s.Id).Contains(skill)));
    }

    /// <summary>It is a focus of the week, or a focus needs it.</summary>
    public static bool ServesFocus(SkillId skill, GroupingBrief brief) =>
        brief.Focus.Any(focus => focus == skill || brief.Evidence.Map.AllNeeds(focus).Contains(skill));

    /// <summary>The child is secure in the skill; showing it to others is another look as well, where one is due.</summary>
    public static bool Has(ChildId child, SkillId skill, ClassEvidence evidence)
    {
        ArgumentNullException.ThrowIfNull(evidence);
        return evidence[child, skill].Strength >= Strength.Secure;
    }

    private static Worth WorthOf(int points, int less, double urgency, int fairness) =>
        new(Math.Max(1, points - less), (int)Math.Round(points * urgency), fairness);

    private static int FairnessOf(ChildId child, GroupingBrief brief) =>
        GroupWeights.Of(DaysSinceGroup(child, brief) is { } days ? Math.Min(MostFairness, FairnessADay * days) : MostFairness, brief.Weights.Turns);

    private static double UrgencyOf(SkillId skill, GroupingBrief brief) =>
        ((UrgencyEach * Waiting(skill, brief)) + (ServesFocus(skill, brief) ? UrgencyOfFocus : 0)) * brief.Weights.Lessons / 100;

    private static int BaseOf(ChildId child, SkillId skill, GroupingBrief brief)
    {
        var mark = brief.Evidence[child, skill];
        if (!brief.Evidence.IsReady(child, skill))
        {
            return mark.Doubt == Doubt.MayHaveFaded ? GroupWeights.Of(LookAgainBase, brief.Weights.LookAgain) : 0;
        }

        var usual = mark.Strength switch
        {
            Strength.Prompted => 100,
            Strength.Nearly => 90,
            Strength.Tried => 80,
            _ => 60,
        };
        return Math.Max(1, MiddleBase + GroupWeights.Of(usual - MiddleBase, brief.Weights.Near));
    }

    private static Dictionary<SkillId, string> SlipsOf(ChildId child, IEnumerable<SkillId> skills, ClassEvidence evidence) =>
        skills
            .Select(s => (Skill: s, Slip: evidence.Seen(child, s) is [.., var last] ? last.SlipId : null))
            .Where(p => p.Slip is not null)
            .ToDictionary(p => p.Skill, p => p.Slip!);

    private static Dictionary<SkillId, int> ReachOf(ChildId child, IEnumerable<SkillId> skills, ClassEvidence evidence) =>
        skills
            .Select(s => (Skill: s, Most: evidence.Seen(child, s) is [.., var last] ? ItemCase.LargestIn(last.Numbers) : null))
            .Where(p => p.Most is not null)
            .ToDictionary(
                p => p.Skill,
                p =>
                    p.Most switch
                    {
                        <= 5 => 5,
                        <= 10 => 10,
                        <= 20 => 20,
                        _ => 100,
                    }
            );
}
