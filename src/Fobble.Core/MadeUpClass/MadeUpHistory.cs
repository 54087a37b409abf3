using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Core.Skills;

namespace Fobble.Core.MadeUpClass;

/// <param name="GroupsADay">Small groups that meet each day.</param>
/// <param name="Now">Nothing is made up at or after this moment.</param>
public sealed record HistoryRequest(
    SkillMap Map,
    ActivityLibrary Library,
    SchoolCalendar Calendar,
    IReadOnlyList<ChildId> Children,
    DateOnly From,
    DateTimeOffset Now,
    int GroupsADay,
    ulong Seed
)
{
    /// <summary>How children and adults really are.</summary>
    public MadeUpWorld World { get; init; } = MadeUpWorld.Usual;

    /// <summary>Asked each Monday for a year's plan to follow: gets the class as it stands, the Monday and the lessons given; null while there is none.</summary>
    public Func<ClassEvidence, DateOnly, IReadOnlyList<TaughtLesson>, YearPlan?>? Plan { get; init; }

    /// <summary>Asked each Monday for the groups of the week; null for groups as adults form them without help.</summary>
    public Func<WeekToGroup, IReadOnlyList<PastGroup>>? Groups { get; init; }

    /// <summary>A weekday on which the groups of the rest of the week are asked for anew, with what was seen by then; null for none.</summary>
    public DayOfWeek? AnewOn { get; init; }
}

/// <summary>A week for which groups are to be formed.</summary>
/// <param name="Days">The days that are still to come.</param>
/// <param name="Past">Groups that met before, in order of time, those of the week too.</param>
public sealed record WeekToGroup(
    ClassEvidence Evidence,
    IReadOnlyList<DateOnly> Days,
    int GroupsADay,
    IReadOnlyList<SkillId> Focus,
    IReadOnlyList<PastGroup> Past,
    SeededRandom Random
);

/// <summary>A week as it was planned and taught.</summary>
public sealed record MadeUpWeek(WeekPlan Plan, IReadOnlyList<PastGroup> Groups);

/// <param name="Holds">What each child truly holds at the end: what no adult can see, to measure judgements by.</param>
public sealed record History(
    IReadOnlyList<MadeUpWeek> Weeks,
    IReadOnlyList<Observation> Observations,
    IReadOnlyList<(ChildId Child, DateOnly Day)> Away,
    IReadOnlyDictionary<ChildId, IReadOnlySet<SkillId>> Holds
)
{
    /// <summary>How often each child does alone what it can do without a nod, 0.2 to 0.97.</summary>
    public required IReadOnlyDictionary<ChildId, double> Boldness { get; init; }

    /// <summary>By child and skill, whether the child ever held it.</summary>
    public required IReadOnlySet<(ChildId, SkillId)> EverHeld { get; init; }
}

/// <summary>Plays a class week by week: plans with the real planner, groups, teaches, and records as an adult would. Same seed, same history.</summary>
public static class MadeUpHistory
{
    private const int GroupSize = 4;
    private const int SeenAtChoiceTime = 14;

    public static History Play(HistoryRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        var random = new SeededRandom(request.Seed);
        var children = request.Children.Select(id => new MadeUpChild(id, request.Map, 0.42 + (0.2 * random.NextNormal()), random, request.World)).ToList();
        List<Observation> seen = [];
        List<TaughtLesson> taught = [];
        List<(ChildId, DateOnly)> away = [];
        List<MadeUpWeek> weeks = [];
        Dictionary<ChildId, DateOnly> lastTurn = [];
        var everHeld = children.SelectMany(c => c.Holds.Select(s => (c.Id, s))).ToHashSet();
        var today = DateOnly.FromDateTime(request.Now.DateTime);
        RecordMemory memory = new();
        Check();
        for (var monday = SchoolCalendar.MondayOf(request.From); monday <= today; monday = monday.AddDays(7))
        {
            var evidence = new ClassEvidence(request.Map, request.Calendar, EvidenceSettings.Default, request.Children, seen, monday, memory: memory);
            var plan = WeekPlanner.Plan(new WeekRequest(evidence, monday, taught, request.Library) { Year = request.Plan?.Invoke(evidence, monday, taught) });
            List<PastGroup> groups = [];
            IReadOnlyList<PastGroup>? Formed(ClassEvidence known, DateOnly from) =>
                request.Groups?.Invoke(
                    new(
                        known,
                        [.. plan.Days.Select(d => d.Day).Where(d => d >= from)],
                        request.GroupsADay,
                        [.. plan.Days.Select(d => d.Focus.Skill)],
                        [.. weeks.SelectMany(w => w.Groups), .. groups],
                        random
                    )
                );
            var formed = Formed(evidence, monday);
            foreach (var day in plan.Days)
            {
                if (day.Day.DayOfWeek == request.AnewOn && groups.Count > 0)
                {
                    formed = Formed(
                        new ClassEvidence(request.Map, request.Calendar, EvidenceSettings.Default, request.Children, seen, day.Day, memory: memory),
                        day.Day
                    );
                }

                children.ForEach(c => c.Wake(day.Day, random));
                var here = children.Where(c => !c.IsAway(random)).ToList();
                var past = day.Day < today;
                if (past)
                {
                    away.AddRange(children.Except(here).Select(c => (c.Id, day.Day)));
                    Teach(here, day.Focus.Skill, Setting.Carpet, 8, day.Day);
                    foreach (var starter in day.Starters)
                    {
                        Record(random.Shuffled(here).Take(6), starter.Skill, Setting.Carpet, day.Day, 9.2);
                    }
                }

                if (past)
                {
                    WatchChoiceTime(here, day.Day);
                }

                for (var i = 0; i < (formed?.Count(g => g.Day == day.Day) ?? request.GroupsADay); i++)
                {
                    var (skill, members) = formed is null
                        ? PickGroup(here, evidence, lastTurn, day.Day, random)
                        : Present(formed.Where(g => g.Day == day.Day).ElementAt(i), here);
                    groups.Add(new PastGroup(day.Day, (monday.DayNumber / 7) - 1000, skill, [.. members.Select(m => m.Id).Order()]));
                    foreach (var member in members)
                    {
                        lastTurn[member.Id] = day.Day;
                    }

                    if (past)
                    {
                        Teach(members, skill, Setting.Group, members.Count, day.Day);
                        Record(members, skill, Setting.Group, day.Day, 10.6);
                    }
                }

                everHeld.UnionWith(children.SelectMany(c => c.Holds.Select(s => (c.Id, s))));
                taught.Add(new TaughtLesson(day.Day, day.Focus.Skill));
            }

            weeks.Add(new MadeUpWeek(plan, groups));
        }

        return new History(weeks, [.. seen.OrderBy(o => o.At)], away, children.ToDictionary(c => c.Id, c => c.Holds))
        {
            Boldness = children.ToDictionary(c => c.Id, c => c.Boldness),
            EverHeld = everHeld,
        };

        // At choice time an adult sits by with the clipboard and sees a few children at something they have begun.
        void WatchChoiceTime(IReadOnlyList<MadeUpChild> here, DateOnly day)
        {
            var begun = seen.GroupBy(o => o.Child).ToDictionary(g => g.Key, g => g.Select(o => o.Skill).Distinct().ToList());
            foreach (var child in random.Shuffled(here).Take(SeenAtChoiceTime).Where(c => begun.ContainsKey(c.Id)))
            {
                Record(
                    [child],
                    random.Pick(begun[child.Id].Where(s => !request.World.SeesTheTruth || child.Holds.Contains(s)).DefaultIfEmpty(begun[child.Id][0]).ToList()),
                    Setting.Choice,
                    day,
                    10.9
                );
            }
        }

        // The year begins with a short check of each child, one to one, skill by skill as far as what they need goes: as it is, or as it was seen to be.
        void Check()
        {
            var day = request.Calendar.OnOrAfter(request.From) ?? request.From;
            foreach (var child in children)
            {
                HashSet<SkillId> passed = [];
                foreach (var skill in request.Map.Skills.Where(s => s.Needs.All(request.World.SeesTheTruth ? child.Holds.Contains : passed.Contains)))
                {
                    Record([child], skill.Id, Setting.OneToOne, day, 11);
                    if (seen[^1].Support is Support.Alone or Support.Prompted)
                    {
                        passed.Add(skill.Id);
                    }
                }
            }
        }

        void Teach(IReadOnlyList<MadeUpChild> who, SkillId skill, Setting setting, int recorded, DateOnly day)
        {
            foreach (var child in who)
            {
                child.Teach(skill, setting, day, random);
            }

            Record(random.Shuffled(who).Take(recorded), skill, setting, day, setting == Setting.Carpet ? 9.4 : 10.3);
        }

        void Record(IEnumerable<MadeUpChild> who, SkillId skill, Setting setting, DateOnly day, double hour)
        {
            var items = request.Library.For(skill, Place.Group)[0].For(skill)!;
            var all = ItemCases.All(items.Items, items.Range, request.Seed);
            var cases = request.Map.KnowsZero(skill) ? all : ItemCases.WithoutZero(all);
            foreach (var child in who)
            {
                var at = new DateTimeOffset(day.ToDateTime(TimeOnly.MinValue), request.Now.Offset).AddHours(hour).AddSeconds(random.Next(900));
                seen.Add(child.Show(skill, setting, at, day, random.Pick(cases).Key, random));
            }
        }
    }

    private static (SkillId Skill, IReadOnlyList<MadeUpChild> Members) Present(PastGroup group, List<MadeUpChild> here) =>
        (group.Skill, [.. here.Where(c => group.Children.Contains(c.Id))]);

    // As adults do it without help: those who waited longest, on something the first of them is ready for.
    private static (SkillId Skill, IReadOnlyList<MadeUpChild> Members) PickGroup(
        List<MadeUpChild> here,
        ClassEvidence evidence,
        Dictionary<ChildId, DateOnly> lastTurn,
        DateOnly day,
        SeededRandom random
    )
    {
        var waiting = random.Shuffled(here.Where(c => lastTurn.GetValueOrDefault(c.Id) != day)).OrderBy(c => lastTurn.GetValueOrDefault(c.Id)).ToList();
        var first = waiting[0];
        var options = evidence.Map.Skills.Where(s => evidence.IsReady(first.Id, s.Id)).Take(8).Select(s => s.Id).ToList();
        var skill = options.Count > 0 ? random.Pick(options) : evidence.Map.Skills[^1].Id;
        return (skill, [.. waiting.Where(c => c == first || evidence.IsReady(c.Id, skill)).Take(GroupSize)]);
    }
}
