using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>How a plan is made anew: with as few moves as can be, or so that lessons lie near the weeks they are meant for.</summary>
public enum RevisionAim
{
    MoveLeast,
    KeepTheAims,
}

/// <summary>A skill that gets more lessons, or fewer.</summary>
/// <param name="Lessons">How many more; below zero: how many less.</param>
public sealed record LessonChange(SkillId Skill, int Lessons, string Why);

/// <summary>A lesson by its name.</summary>
public sealed record LessonName(SkillId Skill, int Number);

/// <summary>What has happened to a plan.</summary>
/// <param name="From">First day that may be changed; what lies before is past.</param>
/// <param name="Lost">Lessons of the past that were not given, to be given again.</param>
/// <param name="Changes">Skills that need longer, or are there already.</param>
/// <param name="Held">Lessons that shall stay where they are, besides the pinned ones.</param>
public sealed record Revision(
    YearPlan Plan,
    Timetable Timetable,
    SkillMap Map,
    DateOnly From,
    DateOnly Until,
    IReadOnlyList<PlanLesson> Lost,
    IReadOnlyList<LessonChange> Changes,
    IReadOnlyList<LessonName> Held,
    RevisionAim Aim
);

/// <summary>A lesson that moves, comes in or goes out, and why.</summary>
public sealed record PlanMove(LessonName Lesson, DateOnly? Was, DateOnly? Is, string Why);

/// <param name="Lessons">All lessons of the revised plan from the first day that could be changed.</param>
/// <param name="Room">Lessons that find no room any more.</param>
public sealed record Revised(
    IReadOnlyList<PlanLesson> Lessons,
    IReadOnlyList<PlanMove> Moves,
    IReadOnlyList<LessonName> Room,
    bool ProvenFewest,
    string Sentence
);

/// <summary>Revises a plan after lost days, or when a skill needs longer or is there already; the past and what is pinned stay.</summary>
public static class PlanRevision
{
    private const int AimMoveCost = 2;
    private const int Steps = 150_000;

    /// <returns>Null where what is held can't hold together.</returns>
    public static Revised? Revise(Revision revision, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(revision);
        var days = YearScope.DaysOf(revision.Timetable, revision.From, revision.Until, revision.Plan.Settings);
        var index = days.Select((d, i) => (d.Day, i)).ToDictionary(p => p.Day, p => p.i);
        var (problem, lessons, names) = Collect(revision, days, index);
        var lost = Enumerable.Range(0, days.Count).Count(i => days[i].Places < revision.Plan.On(days[i].Day).Count());
        if (Replanner.FewestMoves(problem, lessons, lost, stop) is not { } found)
        {
            return null;
        }

        var placed = found.Days;
        if (revision.Aim == RevisionAim.KeepTheAims && placed.All(d => d is not null))
        {
            placed = KeepAims(problem, lessons, placed, revision.Plan.Settings.Seed, stop);
        }

        return Describe(revision, days, problem, lessons, names, placed, found.ProvenFewest && revision.Aim == RevisionAim.MoveLeast);
    }

    // The lessons to come, those of the past that reach into them, and those that were lost, by skill in order.
    private static (PlanProblem Problem, List<FreeLesson> Lessons, List<Told> Names) Collect(
        Revision revision,
        IReadOnlyList<PlanDay> days,
        Dictionary<DateOnly, int> index
    )
    {
        var calendar = revision.Timetable.Calendar;
        var lostNames = revision.Lost.Select(l => new LessonName(l.Skill, l.Number)).ToHashSet();
        var held = revision.Held.ToHashSet();
        List<FreeLesson> lessons = [];
        List<Told> names = [];
        List<PlanItem> items = [];
        var open = revision
            .Plan.Lessons.Where(l => l.Day >= revision.From || lostNames.Contains(new(l.Skill, l.Number)))
            .Select(l => l.Skill)
            .Concat(revision.Changes.Where(c => c.Lessons > 0).Select(c => c.Skill))
            .Distinct()
            .Order()
            .ToList();
        foreach (var skill in open)
        {
            var own = revision.Plan.Lessons.Where(l => l.Skill == skill).OrderBy(l => l.Number).ToList();
            var past = own.Where(l => l.Day < revision.From && !lostNames.Contains(new(skill, l.Number))).ToList();
            var coming = own.Where(l => l.Day >= revision.From).ToList();
            var change = revision.Changes.Where(c => c.Skill == skill).Sum(c => c.Lessons);
            coming = change < 0 ? [.. coming.Take(Math.Max(0, coming.Count + change))] : coming;
            var again = own.Count(l => lostNames.Contains(new(skill, l.Number))) + Math.Max(0, change);
            if (coming.Count + again == 0)
            {
                continue;
            }

            var item = items.Count;
            var firstNumber = past.Select(l => l.Number).DefaultIfEmpty((own.FirstOrDefault()?.Number ?? 1) - 1).Max() + 1;
            var near = past.Where(l => calendar.SchoolDaysBetween(l.Day, revision.From) < PlanSettings.Span)
                .Select(l => -calendar.SchoolDaysBetween(l.Day, revision.From))
                .ToList();

            // Only if it goes on without a break does the past tie the lessons to come.
            near = change > 0 && coming.Count == 0 ? [] : near;
            foreach (var day in near)
            {
                lessons.Add(new(item, day, true));
                names.Add(new(new(skill, 0), null));
            }

            // A day that has been closed since the plan was made is none of the days any more: its lesson best lies near to where it was.
            var wasDays = coming.ConvertAll<(int? Was, int? Near, DateOnly? Gone, bool Held)>(l =>
                index.TryGetValue(l.Day, out var at)
                    ? (at, null, null, l.Pinned || held.Contains(new(skill, l.Number)))
                    : (null, Math.Min(days.Count - 1, days.Count(d => d.Day < l.Day)), l.Day, false)
            );
            for (var k = 0; k < again; k++)
            {
                wasDays.Insert(lostNames.Count > 0 && change == 0 ? 0 : wasDays.Count, (null, null, null, false));
            }

            lessons.AddRange(wasDays.Select(d => new FreeLesson(item, d.Was, d.Held, d.Near)));
            names.AddRange(wasDays.Select((d, k) => new Told(new(skill, firstNumber + k), d.Gone)));
            var target = wasDays.Select(d => d.Was ?? d.Near).OfType<int>().DefaultIfEmpty(0).First();
            items.Add(new(skill, revision.Map[skill].Strand, past.Count, near.Count + wasDays.Count, target, target, [], false, ""));
        }

        var planned = items.Select(i => i.Skill).ToHashSet();
        var before = revision.Plan.Lessons.GroupBy(l => l.Skill).ToDictionary(g => g.Key, g => (First: g.Min(l => l.Day), Last: g.Max(l => l.Day)));
        Dictionary<SkillId, HashSet<SkillId>> kept = [];
        items = items.ConvertAll(i => i with { Needs = [.. Needs(i.Skill).Order()] });
        return (new(days, items, revision.Plan.Settings), lessons, names);

        // What follows from other prerequisites is left out: the solver has the less to look at. One that the plan had in the wrong order already, by
        // hand, is not put right behind the teacher's back.
        IEnumerable<SkillId> Needs(SkillId skill)
        {
            var all = Kept(skill);
            return all.Where(n => !all.Any(m => m != n && Kept(m).Contains(n)));
        }

        HashSet<SkillId> Kept(SkillId skill) =>
            kept.TryGetValue(skill, out var known)
                ? known
                : kept[skill] = revision.Map.AllNeeds(skill).Where(n => planned.Contains(n) && !WrongAlready(n, skill)).ToHashSet();

        bool WrongAlready(SkillId need, SkillId skill) =>
            before.TryGetValue(need, out var first) && before.TryGetValue(skill, out var then) && first.Last >= then.First;
    }

    // Annealing from the fewest moves, where each lesson off its old day costs little and its distance from there what it costs in a plan.
    private static List<int?> KeepAims(PlanProblem problem, List<FreeLesson> lessons, IReadOnlyList<int?> placed, ulong seed, CancellationToken stop)
    {
        var open = Enumerable.Range(0, lessons.Count).Where(i => !(lessons[i].Was < 0)).ToList();
        List<PlanItem> items = [.. problem.Items.Select((item, i) => item with { Lessons = open.Count(l => lessons[l].Item == i) })];
        var inside = problem with { Items = items };
        LessonGrid grid = new(inside) { MoveCost = AimMoveCost };
        foreach (var i in open.OrderBy(i => placed[i]))
        {
            var place = Enumerable.Range(0, grid.Count).First(p => grid.DayOf(p) == placed[i]!.Value && grid[p] == LessonGrid.Empty);
            grid.Put(place, lessons[i].Item);
            if (lessons[i].Held || lessons.Any(l => l.Item == lessons[i].Item && l.Was < 0))
            {
                grid.Pin(place);
            }
        }

        grid.Remember([.. items.Select((_, item) => open.Where(i => lessons[i].Item == item).Select(i => lessons[i].Was ?? -1).ToArray())]);
        Annealer.Improve(grid, inside, seed, Steps, null, stop);
        var result = placed.ToList();
        foreach (var own in open.GroupBy(i => lessons[i].Item))
        {
            var places = grid.PlacesOf(own.Key);
            var k = 0;
            foreach (var i in own)
            {
                result[i] = grid.DayOf(places[k++]);
            }
        }

        return [.. Replanner.Matched(lessons, result)];
    }

    private static Revised Describe(
        Revision revision,
        IReadOnlyList<PlanDay> days,
        PlanProblem problem,
        List<FreeLesson> lessons,
        List<Told> told,
        IReadOnlyList<int?> placed,
        bool proven
    )
    {
        var names = told.ConvertAll(t => t.Name);
        List<PlanLesson> plan = [];
        List<PlanMove> moves = [];
        List<LessonName> room = [];
        var coming = Enumerable.Range(0, lessons.Count).Where(i => !(lessons[i].Was < 0)).ToList();
        foreach (var own in coming.GroupBy(i => lessons[i].Item))
        {
            var first = own.Min(i => names[i].Number);
            var of = first + own.Count() - 1;
            foreach (var (i, order) in own.OrderBy(i => placed[i] ?? int.MaxValue).Select((i, order) => (i, order)))
            {
                var old = lessons[i].Was is { } was ? days[was].Day : told[i].Gone;
                var before = revision.Plan.Lessons.FirstOrDefault(l => l.Skill == names[i].Skill && l.Day == old);
                LessonName name = new(names[i].Skill, before?.Number ?? first + order);
                if (placed[i] is not { } at)
                {
                    room.Add(name);
                    moves.Add(new(name, old, null, Phrase("There is no room for it before the end of the plan.")));
                    continue;
                }

                var (day, number) = (days[at].Day, first + order);
                var why = day == old ? "" : WhyMoved(revision, days, lessons, told, placed, problem, i);
                plan.Add(
                    new(
                        day,
                        day == old ? before?.Place ?? 0 : 9,
                        name.Skill,
                        number,
                        of,
                        before?.Stage == LessonStage.Check && of == first ? LessonStage.Check : YearPlanner.StageOf(number, of, false),
                        day == old ? before?.Reason ?? "" : why
                    )
                    {
                        Pinned = day == old && before?.Pinned == true,
                        Note = before?.Note ?? "",
                    }
                );
                if (day != old)
                {
                    moves.Add(new(name, old, day, why));
                }
            }
        }

        // What went out: lessons that a change made needless.
        foreach (var change in revision.Changes.Where(c => c.Lessons < 0))
        {
            var left = revision.Plan.Lessons.Where(l => l.Skill == change.Skill && l.Day >= revision.From).OrderBy(l => l.Number).ToList();
            moves.AddRange(left.Skip(Math.Max(0, left.Count + change.Lessons)).Select(l => new PlanMove(new(l.Skill, l.Number), l.Day, null, change.Why)));
        }

        var moved = moves.Count(m => m.Was is not null && m.Is is not null);
        var come = moves.Count(m => m.Was is null && m.Is is not null);
        var gone = moves.Count(m => m.Is is null) - room.Count;
        List<string> parts = [];
        parts.AddRange(
            moved > 0 || (come == 0 && gone == 0)
                ? [moved == 0 ? Phrase("nothing has to move") : Words.Count(moved, Phrase("lesson moves"), Phrase("lessons move"))]
                : []
        );
        parts.AddRange(come > 0 ? [Words.Count(come, Phrase("comes in"), Phrase("come in"))] : []);
        parts.AddRange(gone > 0 ? [Words.Count(gone, Phrase("goes out"), Phrase("go out"))] : []);
        var sentence =
            $"{Words.Capital(Words.List(parts))}{(proven && moved > 0 ? Phrase(": no arrangement within reach moves fewer") : "")}.{(room.Count > 0 ? Phrase($" For {Words.Count(room.Count, "lesson", "lessons")} there is no room any more.") : "")}";
        return new(PlanByHand.Renumbered(plan), [.. moves.OrderBy(m => m.Was ?? m.Is)], room, proven, sentence);
    }

    private static string WhyMoved(
        Revision revision,
        IReadOnlyList<PlanDay> days,
        List<FreeLesson> lessons,
        List<Told> told,
        IReadOnlyList<int?> placed,
        PlanProblem problem,
        int i
    )
    {
        var names = told.ConvertAll(t => t.Name);
        var (lesson, name, day) = (lessons[i], names[i], placed[i]!.Value);
        var map = revision.Map;
        if (told[i].Gone is { } gone)
        {
            return DayIsGone(gone);
        }

        if (lesson.Was is not { } was)
        {
            return revision.Changes.FirstOrDefault(c => c.Skill == name.Skill && c.Lessons > 0)?.Why ?? Phrase("Its lesson was lost and is given now.");
        }

        if (days[was].Places == 0)
        {
            return DayIsGone(days[was].Day);
        }

        // Who has its old place now?
        var taker = Enumerable.Range(0, lessons.Count).FirstOrDefault(k => k != i && placed[k] == was && lessons[k].Was != was, -1);
        if (taker >= 0)
        {
            return Phrase($"Makes room for {map[names[taker].Skill].InSentence}, lesson {names[taker].Number}.");
        }

        var need = Enumerable
            .Range(0, lessons.Count)
            .Where(k => problem.Items[lesson.Item].Needs.Contains(names[k].Skill) && placed[k] is not null && lessons[k].Was != placed[k])
            .OrderByDescending(k => placed[k])
            .FirstOrDefault(-1);
        if (need >= 0 && placed[need] >= was)
        {
            return Phrase($"Needs {map[names[need].Skill].InSentence} first, which is on {Words.Date(days[placed[need]!.Value].Day)} now.");
        }

        var own = Enumerable.Range(0, lessons.Count).Any(k => k != i && lessons[k].Item == lesson.Item && lessons[k].Was != placed[k]);
        return own ? Phrase("Stays together with the other lessons of its skill.")
            : day > was ? Phrase("Leaves the days before free for what had to move.")
            : Phrase("Comes earlier into a free place.");

        string DayIsGone(DateOnly old) => Phrase($"{revision.Timetable.Calendar.Different(old)?.Name ?? "No lesson"} on {Words.Date(old)}: its day is gone.");
    }

    /// <param name="Gone">The day it had, where that is no school day any more.</param>
    private sealed record Told(LessonName Name, DateOnly? Gone);
}
