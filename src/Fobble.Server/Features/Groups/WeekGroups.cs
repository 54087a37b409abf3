using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Planning;
using Fobble.Core.Sessions;
using Fobble.Core.SettingOut;
using Fobble.Core.Skills;
using Fobble.Data.Model;

namespace Fobble.Server.Features.Groups;

/// <summary>A set of groups that was accepted for a week.</summary>
internal sealed record KeptSet(GroupSetRow Row, IReadOnlyList<KeptGroup> Groups)
{
    public DateOnly Monday => Row.Monday;
}

/// <summary>What the groups of a week are formed from, read once.</summary>
/// <param name="Today">The school's day.</param>
/// <param name="Sets">The sets in force, this week's first, then those before it.</param>
/// <param name="Held">Groups of the week that were held; they stay as they are.</param>
/// <param name="Slots">All places for groups of the week.</param>
/// <param name="Open">Those that are still to come and not taken by a group that was held.</param>
internal sealed record WeekFacts(
    ClassId ClassId,
    DateOnly Monday,
    DateOnly Today,
    SkillMap Map,
    ActivityLibrary Library,
    IReadOnlyList<ChildName> Children,
    StoredWishes Wishes,
    IReadOnlyList<KeptSet> Sets,
    IReadOnlyList<KeptGroup> Held,
    IReadOnlyList<GroupSlotView> Slots,
    IReadOnlyList<GroupSlotView> Open,
    IReadOnlyList<Core.Cupboard.StockLine> Stock,
    Timetable Timetable,
    GroupingBrief Brief
)
{
    /// <summary>Who takes a place on a day: its own adult, or who stands in.</summary>
    public int AdultOn(int slot, DateOnly day) => Timetable.StandsIn(slot, day)?.AdultId ?? Wishes.Places.GetValueOrDefault(slot).Id;

    /// <summary>The part of the week that these are about; null for all of it.</summary>
    public WeekPart? Part { get; init; }

    /// <summary>Groups of the whole week that were held.</summary>
    public IReadOnlyList<KeptGroup> AllHeld { get; init; } = Held;

    /// <summary>The adult of each group of the week that stands anyhow, held or in another part.</summary>
    public IReadOnlyList<int> TakenBy { get; init; } = [];
}

/// <summary>
/// The groups of one class and week: turns requests into the core's terms and its results into views.
/// </summary>
internal sealed class WeekGroups(WeekFacts facts)
{
    private readonly Dictionary<ChildId, string> _names = facts.Children.ToDictionary(c => new ChildId(c.Id), c => c.Name);
    private readonly Dictionary<SkillId, Activity> _activities = [];
    private readonly KeptSet? _accepted = facts.Sets.FirstOrDefault(c => c.Monday == facts.Monday);
    private IReadOnlySet<(SkillId, SkillId)>? _clashes;

    public DateOnly Monday => facts.Monday;

    /// <summary>Groups that were held and stay, by their sessions.</summary>
    public IReadOnlyList<SessionId> HeldSessions => [.. facts.Held.Select(h => h.Group.Id)];

    /// <summary>Names the set that is in force, and how often its groups have changed.</summary>
    public string Version => GroupsVersion.Of(_accepted?.Row);

    public IReadOnlyList<GroupSlotView> OpenSlots => facts.Open;

    /// <summary>The stretches of the week in which a child has one turn at most.</summary>
    public IReadOnlyList<WeekPart> Parts =>
        WeekParts.Of([.. facts.Slots.Select(s => s.Day)], facts.Children.Count, facts.Wishes.Settings.MaxSize, facts.Wishes.Settings.TurnsAWeek);

    /// <summary>One part of the week, beside the groups of the others.</summary>
    /// <param name="beside">As they stand on a board; null for those that are accepted. What was held stands beside it anyhow.</param>
    public WeekGroups In(WeekPart part, IReadOnlyList<ChosenGroup>? beside)
    {
        List<int> places = [.. Enumerable.Range(0, facts.Open.Count).Where(i => part.Has(facts.Open[i].Day))];
        var others = beside is null
            ? (_accepted?.Groups ?? []).Where(g => !part.Has(g.Row.Day)).Select(g => (g.Row.SlotId, g.Met)).ToList()
            :
            [
                .. facts.Held.Where(h => !part.Has(h.Row.Day)).Select(h => (h.Row.SlotId, h.Met)),
                .. beside
                    .Where(g => !part.Has(g.Day))
                    .Select(g => (g.SlotId, new PastGroup(g.Day, AcceptedGroup.WeekOf(g.Day), new(g.Skill), [.. g.Children.Select(c => new ChildId(c))]))),
            ];
        var held = facts.Held.Where(h => part.Has(h.Row.Day)).ToList();
        return new(
            facts with
            {
                Part = part,
                Open = [.. places.Select(i => facts.Open[i])],
                Held = held,
                TakenBy = [.. others.Select(o => facts.AdultOn(o.SlotId, o.Item2.Day)).Concat(held.Select(h => facts.AdultOn(h.Row.SlotId, h.Row.Day)))],
                Brief = facts.Brief with
                {
                    // Who had no turn in the first part has waited until the second.
                    ForDay = places.Count > 0 ? places.Min(i => facts.Open[i].Day) : facts.Brief.ForDay,
                    AwayIn = facts.Brief.AwayIn.ToDictionary(
                        a => a.Key,
                        a => (IReadOnlySet<int>)Enumerable.Range(0, places.Count).Where(i => a.Value.Contains(places[i])).ToHashSet()
                    ),
                    Excluded = held.SelectMany(h => h.Group.Children).ToHashSet(),
                    Beside = [.. others.Select(o => o.Item2)],
                },
            }
        );
    }

    /// <summary>The part that is asked about.</summary>
    /// <exception cref="RefusedException">The week has no such part, or the groups beside it can't be.</exception>
    public WeekGroups In(GroupsAsk ask)
    {
        var part = Parts.FirstOrDefault(p => p.Number == ask.Part) ?? throw new RefusedException("part", Phrase("The week has no such part."));
        if (ask.Beside is { } beside && FaultOf([.. beside.Where(g => !part.Has(g.Day))], inTurns: false) is { } fault)
        {
            throw fault;
        }

        return In(part, ask.Beside);
    }

    public GroupingBrief Brief => facts.Brief;

    /// <summary>Sessions of the set in force that are still to come.</summary>
    public IReadOnlyList<GroupSession> Coming =>
        [.. (_accepted?.Groups ?? []).Where(g => !facts.Held.Contains(g) && IndexOf(g.Row.SlotId, g.Row.Day) >= 0).Select(g => g.Row)];

    public GroupNames Names =>
        new(
            NameOf,
            skill => facts.Map[skill].InSentence,
            adult =>
                facts.Wishes.Places.Values.FirstOrDefault(p => p.Id == adult).Name
                ?? facts.Slots.Select(s => facts.Timetable.StandsIn(s.SlotId, s.Day)).FirstOrDefault(s => s?.AdultId == adult)?.Adult
                ?? Phrase("an adult who has left"),
            slot => Phrase($"{Words.Weekday(facts.Open[slot].Day)} {Words.Clock(facts.Open[slot].Start)} with {facts.Open[slot].Adult}")
        );

    /// <summary>Groups chosen for the week by its parts, each beside those before it.</summary>
    /// <exception cref="RefusedException">They can't be.</exception>
    public IReadOnlyList<(WeekGroups Part, IReadOnlyList<ChosenGroup> Groups)> Divided(IReadOnlyList<ChosenGroup> groups)
    {
        if (FaultOf(groups, inTurns: false) is { } fault)
        {
            throw fault;
        }

        List<(WeekGroups Part, IReadOnlyList<ChosenGroup> Groups)> parts =
        [
            .. Parts.Select(p => (In(p, [.. groups.Where(g => g.Day < p.From)]), (IReadOnlyList<ChosenGroup>)[.. groups.Where(g => p.Has(g.Day))])),
        ];
        parts.ForEach(p => p.Part.Check(GroupsAsk.Nothing, p.Groups));
        return parts;
    }

    /// <summary>The free places in the core's terms; those that overlap in time are of one moment.</summary>
    public IReadOnlyList<GroupSlot> Places =>
        PlaceInWeek.InMoments([.. facts.Open.Select(s => new PlaceInWeek(new(s.SlotId), s.Day, s.Start, s.Minutes, new(facts.AdultOn(s.SlotId, s.Day))))]);

    /// <summary>This week, or part of it, among several.</summary>
    public WeekAhead Ahead => new(AcceptedGroup.WeekOf(Monday), facts.Open[0].Day, Places, Brief.AwayIn) { Excluded = Brief.Excluded, Beside = Brief.Beside };

    private GroupRules Rules(IEnumerable<Wish> wishes) =>
        new()
        {
            MinSize = facts.Wishes.Settings.MinSize,
            MaxSize = facts.Wishes.Settings.MaxSize,
            EveryoneOnce = facts.Wishes.Settings.EveryoneOnce,
            MostAtOnce = facts.Wishes.Settings.MostAtOnce,
            Weights = facts.Wishes.Weights,
            Clashes = Clashes(),
            Wishes = [.. wishes.Select(w => w is MostForAdultWish most ? most.Beside(facts.TakenBy) : w)],
        };

    /// <summary>The rules as they are kept for the class.</summary>
    public GroupRules OwnRules => Rules(facts.Wishes.InForce(Monday, facts.Map));

    public GroupingProblem ProblemFor(GroupsAsk ask)
    {
        // Nothing can be asked for who has had a turn, or is taken to be away.
        bool IsOpen(int child) => !ask.Without.Contains(child) && !Brief.Excluded.Contains(new(child));
        IEnumerable<Wish> wishes =
        [
            .. facts.Wishes.InForce(Monday, facts.Map),
            .. ask.Seats.Where(s => IsOpen(s.ChildId)).Select(s => new SeatWish(new(s.ChildId), IndexOf(s.SlotId, s.Day))),
            .. ask.Aims.Select(a => new AimWish(new(a.Skill), IndexOf(a.SlotId, a.Day))),
            .. ask.Turns.Where(IsOpen).Select(t => new TurnWish(new(t))),
            .. ask.Work.Where(w => IsOpen(w.ChildId)).Select(w => new WorkWish(new(w.ChildId), new(w.Skill))),
        ];
        return new(
            [.. Candidates.From(Brief).Where(c => !ask.Without.Contains(c.Child.Value))],
            Places,
            Rules(wishes.Where(w => !ask.LetGo.Contains(w.Key)).DistinctBy(w => w.Key)),
            Brief.MetLately
        )
        {
            Standing =
            [
                .. Coming.Select(s => new FormedGroup(
                    new SkillId(s.Skill),
                    IndexOf(s.SlotId, s.Day),
                    [.. s.Members.Select(m => new ChildId(m.ChildId)).Order()]
                )),
            ],
            Fixed = Formed([.. ask.Kept.Select(g => g with { Children = [.. g.Children.Except(ask.Without)] })]),
        };
    }

    public IReadOnlyList<FormedGroup> Formed(IReadOnlyList<ChosenGroup> groups) =>
        [.. groups.Select(g => new FormedGroup(new SkillId(g.Skill), IndexOf(g.SlotId, g.Day), [.. g.Children.Select(c => new ChildId(c)).Order()]))];

    /// <summary>Refuses what can't be asked, and groups that can't be (not merely unwise ones).</summary>
    /// <exception cref="RefusedException">It can't.</exception>
    public void Check(GroupsAsk ask, IReadOnlyList<ChosenGroup> groups)
    {
        if ((FaultOf(ask) ?? FaultOf(groups)) is { } fault)
        {
            throw fault;
        }
    }

    public void CheckChild(int child) => RefusedException.Unless(IsOurs(child), "childId", Phrase("The child is not in this class."));

    /// <summary>What makes an ask impossible: places, skills or children that do not exist, or a child in two groups that stay.</summary>
    private RefusedException? FaultOf(GroupsAsk ask) =>
        FaultOf(ask.Kept)
        ?? (
            ask.Seats.Any(s => IndexOf(s.SlotId, s.Day) < 0) || ask.Aims.Any(a => IndexOf(a.SlotId, a.Day) < 0) ? NoSuchPlace()
            : ask.Aims.Select(a => a.Skill).Concat(ask.Work.Select(w => w.Skill)).Any(s => !facts.Map.Has(new SkillId(s))) ? NoSuchSkill()
            : ask.Seats.Select(s => s.ChildId).Concat(ask.Turns).Concat(ask.Work.Select(w => w.ChildId)).Concat(ask.Without).Any(c => !IsOurs(c))
                ? NoSuchChild()
            : null
        );

    /// <summary>What makes chosen groups impossible (not merely unwise): places, skills or children that do not exist, or a child twice.</summary>
    /// <param name="inTurns">They are of one part of the week, where each child has one turn.</param>
    private RefusedException? FaultOf(IReadOnlyList<ChosenGroup> groups, bool inTurns = true)
    {
        var placed = groups.SelectMany(g => g.Children).ToList();
        return groups.Any(g => IndexOf(g.SlotId, g.Day) < 0) ? NoSuchPlace()
            : groups.GroupBy(g => (g.SlotId, g.Day)).Any(g => g.Count() > 1) ? new RefusedException("slotId", Phrase("Two groups stand in the same place."))
            : groups.Any(g => !facts.Map.Has(new SkillId(g.Skill))) ? NoSuchSkill()
            : placed.Any(c => !IsOurs(c)) ? NoSuchChild()
            : !inTurns ? null
            : placed.Distinct().Count() != placed.Count ? new RefusedException("children", Phrase("A child is in two groups."))
            : placed.Any(c => Brief.Excluded.Contains(new ChildId(c)))
                ? new RefusedException("children", Phrase("A child has had a turn in this week already."))
            : null;
    }

    private bool IsOurs(int child) => _names.ContainsKey(new ChildId(child));

    public int IndexOf(int slotId, DateOnly day) => facts.Open.ToList().FindIndex(s => s.SlotId == slotId && s.Day == day);

    public IEnumerable<GroupSession> ToSessions(IReadOnlyList<FormedGroup> groups) =>
        groups
            .Where(g => g.Children.Count > 0)
            .Select(g =>
            {
                var slot = facts.Open[g.Slot];
                var session = new GroupSession
                {
                    ClassId = facts.ClassId.Value,
                    Day = slot.Day,
                    SlotId = slot.SlotId,
                    Skill = g.Skill.Value,
                    Activity = ActivityFor(g.Skill).Id.Value,
                    Seed = (long)SessionCards.SeedFor(facts.ClassId, slot.Day, slot.SlotId, g.Skill),
                    Reason = Reasons.ForGroup(g, Brief),
                };
                session.Members.AddRange(g.Children.Select(c => new GroupMember { ChildId = c.Value, Reason = Reasons.ForPlaced(c, g.Skill, Brief) }));
                return session;
            });

    public GroupsView ViewProposal(GroupingResult result)
    {
        var candidates = Candidates.From(Brief);
        var before = facts.Sets.Count > 0 ? facts.Sets[0] : null;
        var changes = before is null
            ? []
            : GroupChanges.Between(TurnsBefore(before), before.Row.AcceptedAt, result.Groups, Brief).Where(c => !Brief.Excluded.Contains(c.Child));
        return new GroupsView(
            Monday,
            false,
            [
                .. facts
                    .Held.Select(h => ViewOf(h.Row))
                    .Concat(result.Groups.Select(ViewOf))
                    .OrderBy(g => g.Slot.Day)
                    .ThenBy(g => g.Slot.Start)
                    .ThenBy(g => g.Slot.SlotId),
            ],
            [.. result.Unplaced.Select(c => new PlacedChild(c.Value, NameOf(c), Reasons.ForUnplaced(c, Brief, candidates)))],
            result.ProvenBest,
            $"{Reasons.ForResult(result)} {Reasons.ForFurtherTurns(result, candidates)}".TrimEnd(),
            result.Score,
            [.. changes.Select(c => new ChangeView(c.Child.Value, NameOf(c.Child), ShortOf(c.From), ShortOf(c.To), c.Why))],
            before?.Monday,
            [.. result.Conflict.Select(ViewOf)],
            PartViews(),
            facts.Part?.Number,
            Version
        );
    }

    public GroupsView ViewAccepted()
    {
        var sessions = _accepted?.Groups.Select(g => g.Row).ToList() ?? [];
        var placed = sessions.SelectMany(s => s.Members.Select(m => m.ChildId)).ToHashSet();
        var candidates = Candidates.From(Brief);
        return new GroupsView(
            Monday,
            _accepted is not null,
            [.. sessions.Select(ViewOf).OrderBy(g => g.Slot.Day).ThenBy(g => g.Slot.Start).ThenBy(g => g.Slot.SlotId)],
            _accepted is null
                ? []
                :
                [
                    .. _names
                        .Where(n => !placed.Contains(n.Key.Value))
                        .Select(n => new PlacedChild(n.Key.Value, n.Value, Reasons.ForUnplaced(n.Key, Brief, candidates))),
                ],
            false,
            _accepted is null ? Phrase("No groups have been accepted for this week yet.") : Phrase("Accepted."),
            0,
            [],
            null,
            [],
            PartViews(),
            null,
            Version
        );
    }

    // What a proposal is told against: the groups that stand where it would, else each child's last turn before it.
    private IReadOnlyList<PastGroup> TurnsBefore(KeptSet before)
    {
        List<PastGroup> standing = [.. (_accepted?.Groups ?? []).Where(g => facts.Part?.Has(g.Row.Day) != false).Select(g => g.Group.Met(_ => false))];
        return standing.Count > 0
            ? standing
            :
            [
                .. before
                    .Groups.Select(g => g.Group.Met(_ => false))
                    .Concat(Brief.Beside)
                    .Where(g => facts.Part is not { } part || g.Day < part.From)
                    .OrderByDescending(g => g.Day),
            ];
    }

    private IReadOnlyList<PartView> PartViews() =>
        [.. Parts.Select(p => new PartView(p.Number, p.Name, p.From, p.Until, facts.Slots.Any(s => p.Has(s.Day) && IsStillToCome(s)), Again(p)))];

    private bool IsStillToCome(GroupSlotView slot) => slot.Day >= facts.Today && !facts.AllHeld.Any(h => h.Row.SlotId == slot.SlotId && h.Row.Day == slot.Day);

    private string? Again(WeekPart part) =>
        _accepted is null
            ? null
            : WeekParts.WorthAskingAgain(
                part,
                [.. _accepted.Groups.Select(g => g.Group)],
                _accepted.Row.AcceptedAt,
                [.. facts.AllHeld.Select(h => h.Group)],
                Brief.Evidence
            );

    private string NameOf(ChildId child) => _names.GetValueOrDefault(child, "?");

    private WishView ViewOf(Wish wish)
    {
        var slot = wish switch
        {
            SeatWish seat => facts.Open[seat.Slot],
            AimWish aim => facts.Open[aim.Slot],
            _ => null,
        };
        var child = wish switch
        {
            SeatWish seat => seat.Child.Value,
            TurnWish turn => turn.Child.Value,
            WorkWish work => work.Child.Value,
            _ => (int?)null,
        };
        return new(wish.Key, Words.Stopped(Words.Capital(wish.InWords(Names))), child, slot?.SlotId, slot?.Day);
    }

    private GroupView ViewOf(FormedGroup group) =>
        new(
            facts.Open[group.Slot],
            group.Skill.Value,
            facts.Map[group.Skill].Short,
            facts.Map[group.Skill].ICan,
            ActivityFor(group.Skill).Name,
            Reasons.ForGroup(group, Brief),
            [
                .. group
                    .Children.Select(c => new PlacedChild(
                        c.Value,
                        NameOf(c),
                        Reasons.ForPlaced(c, group.Skill, Brief),
                        (int)Brief.Evidence[c, group.Skill].Strength
                    ))
                    .OrderBy(c => c.Name, StringComparer.InvariantCultureIgnoreCase),
            ],
            null,
            false
        );

    private GroupView ViewOf(GroupSession session)
    {
        var skill = facts.Map[new SkillId(session.Skill)];
        var slot = facts.Slots.FirstOrDefault(s => s.SlotId == session.SlotId && s.Day == session.Day) ?? new(session.SlotId, session.Day, default, 0, "", "");
        return new GroupView(
            slot,
            session.Skill,
            skill.Short,
            skill.ICan,
            facts.Library[new ActivityId(session.Activity)].Name,
            session.Reason,
            [
                .. session
                    .Members.Select(m => new PlacedChild(m.ChildId, NameOf(new(m.ChildId)), m.Reason, (int)Brief.Evidence[new(m.ChildId), skill.Id].Strength))
                    .OrderBy(c => c.Name, StringComparer.InvariantCultureIgnoreCase),
            ],
            session.Id,
            facts.Held.Any(h => h.Row.Id == session.Id)
        );
    }

    private Activity ActivityFor(SkillId skill)
    {
        if (!_activities.TryGetValue(skill, out var chosen))
        {
            _activities[skill] = chosen = GroupActivities.For(
                skill,
                facts.Library,
                facts.Sets.SelectMany(s => s.Groups.Select(g => (s.Monday, g.Group.Skill, new ActivityId(g.Row.Activity)))),
                Monday
            );
        }

        return chosen;
    }

    // Where nothing has been counted in the cupboard, nothing is known to be short.
    private IReadOnlySet<(SkillId, SkillId)> Clashes() =>
        _clashes ??=
            facts.Stock.Count == 0
                ? new HashSet<(SkillId, SkillId)>()
                : AtOnce.Clashes(
                    [
                        .. facts
                            .Map.Skills.Select(s => s.Id)
                            .Where(s => facts.Library.For(s, Place.Group).Count > 0)
                            .Select(s => (s, Activity: ActivityFor(s)))
                            .Select(p =>
                                (
                                    p.s,
                                    new Use(
                                        Monday,
                                        default,
                                        p.Activity.Minutes,
                                        "",
                                        Phrase("Small group"),
                                        p.Activity,
                                        p.Activity.For(p.s)!,
                                        facts.Wishes.Settings.MaxSize,
                                        1,
                                        [],
                                        true
                                    )
                                )
                            ),
                    ],
                    facts.Stock
                );

    private string? ShortOf(SkillId? skill) => skill is { } id ? facts.Map[id].Short : null;

    private static RefusedException NoSuchPlace() => new("slotId", Phrase("A group stands in a place that the week does not have, or that is taken."));

    private static RefusedException NoSuchSkill() => new("skill", Phrase("There is no such skill."));

    private static RefusedException NoSuchChild() => new("children", Phrase("A child is not in this class."));
}
