using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>
/// Plans one week: each day the focus that most of the class is ready for and few have, never before what it needs is in place;
/// started skills are carried on within ten school days, and strands change from day to day.
/// </summary>
public static class WeekPlanner
{
    /// <summary>A skill that this share of the class has is not a focus any more.</summary>
    public const double KnownBy = 0.8;

    /// <summary>A prerequisite is in place when this share of the class has it, or when its lessons were given.</summary>
    public const double InPlaceWith = 0.6;

    /// <summary>Minutes for a change-over.</summary>
    public const int TransitionMinutes = 5;

    /// <summary>Minutes that a centre is made for: children come and go.</summary>
    public const int ChoiceMinutes = 15;

    private const int CarryOnWithin = 10;
    private const int ContinueBonus = 40;
    private const int AheadOfSeasonCost = 40;
    private const int WorthOfEachOpened = 3;

    /// <summary>A plan for every school day of the week from the first one asked for; none if the school is closed.</summary>
    public static WeekPlan Plan(WeekRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        var evidence = request.Evidence;
        var taught = request.Taught.ToList();
        var chooser = request.Chooser();
        List<PlannedDay> days = [];
        StarterPlanner starters = new(request, chooser);
        foreach (var day in evidence.Calendar.DaysOfWeek(request.Monday).Where(d => d >= request.From && request.Timetable?.CarpetPlaces(d) != 0))
        {
            // What the year's plan has; in a place that it keeps free, or without one, what the class needs most.
            List<FocusLesson> lessons = [.. (request.Year?.On(day) ?? []).Select(l => new FocusLesson(l.Skill, l.Number, l.Of, l.Stage, default, l.Reason))];
            if (lessons.Count == 0)
            {
                lessons.Add(request.Year is not null && AgainFor(day, request, taught) is { } again ? again : FocusFor(day, request, taught));
            }

            taught.AddRange(lessons.Select(l => new TaughtLesson(day, l.Skill)));
            var firstStarters = starters.For(day, [.. lessons.Select(l => l.Skill)]);
            var minutes = CarpetMinutes(day, request) - firstStarters.Sum(s => StarterPlanner.MinutesOf(request.Library[s.Activity]));
            lessons = lessons.ConvertAll(l => WithActivity(l, day, minutes, request, chooser));
            days.Add(
                new PlannedDay(day, lessons[0], firstStarters, TransitionFor(day, request, chooser), ChoiceFor(day, request, chooser))
                {
                    More = [.. lessons.Skip(1)],
                }
            );
        }

        return new WeekPlan(request.Monday, days);
    }

    /// <summary>Minutes of the day's first whole-class lesson; the usual twenty where the timetable is not known.</summary>
    public static int CarpetMinutes(DateOnly day, WeekRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        return request.Timetable?.On(day).FirstOrDefault(s => s.Kind == SlotKind.Carpet)?.Minutes ?? UsualWeek.CarpetMinutes;
    }

    private static FocusLesson WithActivity(FocusLesson lesson, DateOnly day, int minutes, WeekRequest request, ActivityChooser chooser)
    {
        var ranked = chooser.Rank(new(Place.Carpet, lesson.Skill, lesson.Stage, day, minutes));
        var pinned = request.Pinned.FirstOrDefault(p => p.Day == day && p.Place == Place.Carpet && p.Skill == lesson.Skill);
        var chosen = ranked.FirstOrDefault(r => r.Activity.Id == pinned?.Activity) ?? ranked[0];
        chooser.Use(chosen.Activity.Id, day);
        return lesson with { Activity = chosen.Activity.Id, ActivityReason = chosen.Reason };
    }

    // A place that the year's plan keeps free: something taught that most children need once more; null where nothing was taught yet.
    private static FocusLesson? AgainFor(DateOnly day, WeekRequest request, List<TaughtLesson> taught)
    {
        var evidence = request.Evidence;
        var served = request.Library.ServedIn(Place.Carpet);
        var best = taught
            .Where(t =>
                t.Day < day && !request.Year!.Lessons.Any(l => l.Day >= day && l.Skill == t.Skill) && served.Contains(t.Skill) && evidence.Map.Has(t.Skill)
            )
            .Select(t => t.Skill)
            .Distinct()
            .Select(s =>
                (Skill: s, Due: evidence.InDoubt(s), Ready: evidence.Children.Count(c => evidence.IsReady(c, s)), Last: taught.FindLastIndex(t => t.Skill == s))
            )
            .OrderByDescending(s => s.Due + s.Ready)
            .ThenByDescending(s => s.Last)
            .FirstOrDefault();
        if (best.Skill == default)
        {
            return null;
        }

        var lessons = evidence.Map[best.Skill].Lessons;
        return new(
            best.Skill,
            lessons,
            lessons,
            LessonStage.Check,
            default,
            Phrase(
                $"A place that the plan keeps free: {evidence.Map[best.Skill].InSentence} once more, {Words.Count(best.Due, "child is", "children are")} due another look and {Words.Count(best.Ready, "does", "do")} not have it yet."
            )
        );
    }

    private static FocusLesson FocusFor(DateOnly day, WeekRequest request, List<TaughtLesson> taught)
    {
        var served = request.Library.ServedIn(Place.Carpet);
        var best = request.Evidence.Map.Skills.Where(skill => served.Contains(skill.Id)).Select(skill => Weigh(skill, day, request, taught)).Max()!;
        var skill = best.Skill;
        var number = Math.Min(best.Given + 1, skill.Lessons);
        var stage =
            number == 1 ? LessonStage.Introduce
            : number == skill.Lessons ? LessonStage.Apply
            : LessonStage.Practise;
        return new FocusLesson(skill.Id, number, skill.Lessons, stage, default, best.Reason(request.Evidence));
    }

    private static Weighed Weigh(Skill skill, DateOnly day, WeekRequest request, List<TaughtLesson> taught)
    {
        var evidence = request.Evidence;
        var given = taught.Where(t => t.Skill == skill.Id).ToList();
        var last = given.Count > 0 ? given[^1].Day : (DateOnly?)null;
        var recent = last is { } then && evidence.Calendar.SchoolDaysBetween(then, day) <= CarryOnWithin;
        var finished = given.Count >= skill.Lessons;
        var ready = evidence.Share(child => evidence.IsReady(child, skill.Id));
        var known = evidence.Share(child => evidence[child, skill.Id].Strength >= Strength.Nearly);
        var shown = skill.Needs.All(need => evidence.Share(child => evidence[child, need].Strength >= Strength.Nearly) >= InPlaceWith);
        var inPlace = shown || skill.Needs.All(need => IsInPlace(need, evidence, taught));

        // Children whose prerequisites were taught but not yet seen count half: they may well be ready by then.
        var score = 100 * (inPlace && !shown ? ready + ((1 - known - ready) / 2) : ready);
        score += recent && !finished ? ContinueBonus : 0;
        score += WorthOfEachOpened * Math.Min(5, evidence.Map.Opens(skill.Id).Count);
        score -= AheadOfSeasonCost * Math.Max(0, skill.When - evidence.Calendar.SeasonOf(day));
        score += ApproachWeight.Of(skill, taught.Count > 0 ? evidence.Map[taught[^1].Skill].Strand : null, request.Approach);
        var start =
            finished ? Start.ComesBack
            : recent ? Start.CarriesOn
            : given.Count > 0 ? Start.GoesOn
            : Start.New;
        return new Weighed(skill, inPlace, known >= KnownBy, start, score, given.Count, ready, known, shown);
    }

    private static bool IsInPlace(SkillId need, ClassEvidence evidence, List<TaughtLesson> taught) =>
        evidence.Share(child => evidence[child, need].Strength >= Strength.Nearly) >= InPlaceWith
        || taught.Count(t => t.Skill == need) >= evidence.Map[need].Lessons;

    private static ActivityId TransitionFor(DateOnly day, WeekRequest request, ActivityChooser chooser) =>
        Pick(chooser.Rank(new(Place.Transition, null, null, day, TransitionMinutes)), Place.Transition, day, request, chooser)!.Value;

    // Centres come only from what a small group has worked on, and half of the class has met.
    private static ActivityId? ChoiceFor(DateOnly day, WeekRequest request, ActivityChooser chooser) =>
        Pick(chooser.Rank(new(Place.Choice, null, null, day, ChoiceMinutes), request.TaughtInGroups), Place.Choice, day, request, chooser);

    private static ActivityId? Pick(IReadOnlyList<RankedActivity> ranked, Place place, DateOnly day, WeekRequest request, ActivityChooser chooser)
    {
        var pinned = request.Pinned.FirstOrDefault(p => p.Day == day && p.Place == place);
        var chosen = ranked.FirstOrDefault(r => r.Activity.Id == pinned?.Activity) ?? (ranked.Count > 0 ? ranked[0] : null);
        if (chosen is not null)
        {
            chooser.Use(chosen.Activity.Id, day);
        }

        return chosen?.Activity.Id;
    }

    /// <summary>How a focus begins that day.</summary>
    private enum Start
    {
        New,

        /// <summary>Its last lesson was within ten school days.</summary>
        CarriesOn,

        /// <summary>Begun, and left for longer than that.</summary>
        GoesOn,

        /// <summary>All its lessons were given.</summary>
        ComesBack,
    }

    /// <param name="InPlace">Whether what it needs is there with most of the class, or was taught.</param>
    /// <param name="KnownByMost">Whether most have it already.</param>
    /// <param name="Score">What speaks for it among those that are alike in what comes first.</param>
    /// <param name="Shown">Whether what it needs was seen with most of the class.</param>
    private sealed record Weighed(Skill Skill, bool InPlace, bool KnownByMost, Start Start, double Score, int Given, double Ready, double Known, bool Shown)
        : IComparable<Weighed>
    {
        // What must not be chosen as long as anything else can be: unready first of all, then known, then already taught in full.
        private (bool, bool, bool, double) Standing => (InPlace, !KnownByMost, Start != Start.ComesBack, Score);

        // Of two that are alike the first in the order of the map.
        public int CompareTo(Weighed? other) => other is null ? 1 : Standing.CompareTo(other.Standing);

        public string Reason(ClassEvidence evidence)
        {
            var of = evidence.Children.Count;
            var ready = (int)Math.Round(Ready * of);
            var known = (int)Math.Round(Known * of);
            var start = Start switch
            {
                Start.CarriesOn => Phrase($"Carries on from lesson {Words.Number(Given)}"),
                Start.GoesOn => Phrase($"Goes on after a while from lesson {Words.Number(Given)}"),
                Start.ComesBack => Phrase("Comes back once more"),
                _ => Phrase("New this week"),
            };
            var have = known == 0 ? Phrase("nobody has it yet") : Phrase($"{known} {(known == 1 ? "has" : "have")} it");
            var needs =
                !InPlace ? Phrase(" Not everything it needs is in place, but nothing else is nearer.")
                : KnownByMost ? Phrase(" Most have it already, but nothing else is ready to be taught.")
                : Skill.Needs.Count == 0 ? ""
                : Phrase(
                    $" What it needs, {Words.List([.. Skill.Needs.Select(n => evidence.Map[n].InSentence)])}, {(Shown ? "is there with most of the class" : "has been taught")}."
                );
            var open = ready == 0 ? Phrase("nobody is ready for it yet") : Phrase($"{ready} of {of} {(ready == 1 ? "is" : "are")} ready for it");
            return Phrase($"{start}: {open} and {have}.{needs}");
        }
    }
}
