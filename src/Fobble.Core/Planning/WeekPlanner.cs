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
        List<PlannedDay> days = [];
        StarterPlanner starters = new(request);
        foreach (var day in evidence.Calendar.DaysOfWeek(request.Monday).Where(d => d >= request.From))
        {
            var focus = FocusFor(day, request, taught);
            var used = days.Select(d => d.Focus.Activity).ToList();
            var activities = request.Library.For(focus.Skill, Place.Carpet);
            var activity = activities.FirstOrDefault(a => !used.Contains(a.Id)) ?? activities[(focus.Number - 1) % activities.Count];
            focus = focus with { Activity = activity.Id };
            taught.Add(new TaughtLesson(day, focus.Skill));
            days.Add(new PlannedDay(day, focus, starters.For(day, focus.Skill), TransitionFor(days.Count, request), ChoiceFor(days.Count, request)));
        }

        return new WeekPlan(request.Monday, days);
    }

    private static FocusLesson FocusFor(DateOnly day, WeekRequest request, List<TaughtLesson> taught)
    {
        var served = request.Library.ServedIn(Place.Carpet);
        var best = request.Evidence.Map.Skills.Where(skill => served.Contains(skill.Id)).Select(skill => Weigh(skill, day, request, taught)).MaxBy(w => w.Score)!;
        var skill = best.Skill;
        var number = Math.Min(best.Given + 1, skill.Lessons);
        var stage = number == 1 ? LessonStage.Introduce : number == skill.Lessons ? LessonStage.Apply : LessonStage.Practise;
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

        // What must not be chosen as long as anything else can be: unready first of all, then known, then already taught in full.
        score -= inPlace ? 0 : 4000;
        score -= known >= KnownBy ? 2000 : 0;
        score -= finished ? 1000 : 0;
        return new Weighed(skill, score, given.Count, ready, known, recent && !finished, shown);
    }

    private static bool IsInPlace(SkillId need, ClassEvidence evidence, List<TaughtLesson> taught) =>
        evidence.Share(child => evidence[child, need].Strength >= Strength.Nearly) >= InPlaceWith
        || taught.Count(t => t.Skill == need) >= evidence.Map[need].Lessons;

    private static ActivityId TransitionFor(int index, WeekRequest request)
    {
        var ranked = RankedByTaught(Place.Transition, request);
        return ranked[index % ranked.Count].Id;
    }

    // Centres come only from what the class has met: at least one of an activity's skills is there with half of the children.
    private static ActivityId? ChoiceFor(int index, WeekRequest request)
    {
        var ranked = RankedByTaught(Place.Choice, request).Where(a => MetBy(a, request) >= 0.5).ToList();
        return ranked.Count == 0 ? null : ranked[index % ranked.Count].Id;
    }

    private static List<Activity> RankedByTaught(Place place, WeekRequest request) =>
        [.. request.Library.Activities.Where(a => a.Places.Contains(place)).OrderByDescending(a => MetBy(a, request))];

    private static double MetBy(Activity activity, WeekRequest request) =>
        activity.Skills.Max(s => request.Evidence.Share(child => request.Evidence[child, s.Skill].Strength >= Strength.Prompted));

    private sealed record Weighed(Skill Skill, double Score, int Given, double Ready, double Known, bool CarriesOn, bool Shown)
    {
        public string Reason(ClassEvidence evidence)
        {
            var of = evidence.Children.Count;
            var ready = (int)Math.Round(Ready * of);
            var known = (int)Math.Round(Known * of);
            var start = CarriesOn ? $"Carries on from lesson {Words.Number(Given)}" : Given > 0 && Given >= Skill.Lessons ? "Comes back once more" : "New this week";
            var have = known == 0 ? "nobody has it yet" : $"{known} {(known == 1 ? "has" : "have")} it";
            var needs = Skill.Needs.Count == 0 ? "" : $" What it needs, {Words.List([.. Skill.Needs.Select(n => evidence.Map[n].InSentence)])}, {(Shown ? "is there with most of the class" : "has been taught")}.";
            return $"{start}: {ready} of {of} are ready for it and {have}.{(Score < -3000 ? " Not everything it needs is in place, but nothing else is nearer." : needs)}";
        }
    }
}
