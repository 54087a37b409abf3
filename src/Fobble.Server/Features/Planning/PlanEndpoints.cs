using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Planning;

/// <summary>The plan of the year in force, and changing it by hand.</summary>
internal static class PlanEndpoints
{
    private const int LongestNote = 300;
    private const int VersionsShown = 12;

    public static void MapPlanning(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/plan", GetAsync);
        ofClass.MapGet("/plan/lessons/{skill}/{number:int}/days", PricesAsync);
        var lead = ofClass.MapGroup("/").RequireAuthorization(Policies.Lead);
        lead.MapPost("/plan/moves", MoveAsync);
        lead.MapPut("/plan/lessons", ChangeAsync);
        lead.MapPost("/plan/undo", UndoAsync);
        ofClass.MapDrafts();
        ofClass.MapRevisions();
        ofClass.MapCoverage();
        ofClass.MapPlanPages();
    }

    private static async Task<Ok<PlanView>> GetAsync(int classId, PlanReader reader, ClassFacts facts, SkillMap map, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var today = clock.Today();
        var stored = await reader.CurrentAsync(classId, stop);
        var from = await reader.FirstOpenDayAsync(classId, stop);
        var timetable = await facts.TimetableAsync(classId, stop);
        var approach = await facts.ApproachAsync(classId, stop);
        var settings = stored?.Document.Plan.Settings ?? PlanSettings.Usual;
        var year = await reader.YearAsync(classId, stop);
        var weeks = PlanViews.Weeks(timetable, settings, year, timetable.Calendar.YearEnds(today));
        var taught = await reader.TaughtAsync(classId, from, stop);
        var given = taught.Select(t => (t.Day, t.Skill.Value)).ToHashSet();
        List<LessonView> lessons = [.. PlanViews.Of(stored?.Document.Plan.Lessons ?? [], map, approach, from).Select(l => l with { Given = l.Past && given.Contains((l.Day, l.Skill)) })];
        lessons.InsertRange(0, PlanViews.Given([.. taught.Where(t => t.Day >= year)], map, lessons.Select(l => (l.Day, l.Skill)).ToHashSet()));
        if (stored is null)
        {
            return TypedResults.Ok(new PlanView(null, false, today, from, weeks, Strands(map), lessons, [], [], "", [], []));
        }

        var plan = stored.Document.Plan;
        var names = (await facts.ChildrenAsync(classId, stop)).ToDictionary(c => c.Id, c => c.Name);
        var suggestions = PlanWatch.Look(await reader.SettingAsync(classId, stored.Document, stop), await facts.EvidenceAsync(classId, today, stop));
        var versions = await db.YearPlans.Where(p => p.ClassId == classId && p.Year == year).OrderByDescending(p => p.Version).Take(VersionsShown)
            .Join(db.Users, p => p.AdultId, a => a.Id, (p, a) => new PlanVersion(p.Version, p.At, a.FullName, p.What)).ToListAsync(stop);
        return TypedResults.Ok(new PlanView(
            versions[0], (stored.Row.BackTo ?? stored.Row.Version) > 1, today, from, weeks, Strands(map), lessons,
            [.. plan.Reviews.Where(r => map.Has(r.Skill)).Select(r => new ReviewView(r.Skill.Value, map[r.Skill].Short, map[r.Skill].Strand, r.Day, r.Round, r.Reason))],
            [.. plan.Missed.Where(m => map.Has(m.Skill)).Select(m => $"{map[m.Skill].Short}: {m.Why}")],
            PlanViews.Margin(plan, weeks, from),
            [.. suggestions.Select(s => new SuggestionView(s.Kind, s.Skill?.Value, s.Skill is { } skill ? map[skill].Short : null, s.Lessons, s.Days, [.. s.Children.Select(c => names.GetValueOrDefault(c.Value, ""))], s.Next is { } next ? map[next].Short : null, s.Sentence))],
            versions));
    }

    internal static IReadOnlyList<PlanStrand> Strands(SkillMap map) => [.. map.Strands.Select(s => new PlanStrand(s.Id, s.Name))];

    internal static ProblemHttpResult NoPlan() => TypedResults.Problem("There is no plan for this year yet.", statusCode: StatusCodes.Status409Conflict, title: "No plan");

    /// <summary>What each day would mean for a lesson: asked as it is picked up.</summary>
    private static async Task<Results<Ok<IReadOnlyList<DayPriceView>>, NotFound>> PricesAsync(int classId, string skill, int number, PlanReader reader, SkillMap map, CancellationToken stop)
    {
        if (await reader.CurrentAsync(classId, stop) is not { } stored || stored.Document.Plan.Find(new(skill), number) is null)
        {
            return TypedResults.NotFound();
        }

        var prices = PlanByHand.Prices(await reader.SettingAsync(classId, stored.Document, stop), new(new(skill), number));
        return TypedResults.Ok<IReadOnlyList<DayPriceView>>([.. prices.Select(p => new DayPriceView(p.Day, p.Refused, p.Advice, p.With is { } with ? map[with.Skill].Short : null))]);
    }

    private static async Task<Results<NoContent, ProblemHttpResult, ValidationProblem, NotFound>> MoveAsync(
        int classId, MoveLesson move, PlanReader reader, PlanWriter writer, SkillMap map, HttpContext http, CancellationToken stop)
    {
        if (await reader.CurrentAsync(classId, stop) is not { } stored)
        {
            return NoPlan();
        }

        LessonName name = new(new(move.Skill), move.Number);
        if (stored.Document.Plan.Find(name.Skill, name.Number) is not { } lesson)
        {
            return TypedResults.NotFound();
        }

        var setting = await reader.SettingAsync(classId, stored.Document, stop);
        var price = PlanByHand.Prices(setting, name).FirstOrDefault(p => p.Day == move.Day);
        if (price is not { Refused: null } || PlanByHand.Move(setting, name, move.Day) is not { } lessons)
        {
            return Faults.One("day", price?.Refused ?? "There is no school that day, or it is past.");
        }

        if (price.Advice.Count > 0 && !move.Anyway)
        {
            return Faults.One("anyway", string.Join(" ", price.Advice));
        }

        var document = await writer.WithLessonsAsync(classId, stored.Document, lessons, stop);
        await writer.KeepAsync(classId, http.User.Adult().Id, document, $"{map[name.Skill].Short}, lesson {name.Number}: from {Words.Date(lesson.Day)} to {Words.Date(move.Day)}, by hand.", null, stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult, ValidationProblem, NotFound>> ChangeAsync(
        int classId, ChangeLesson change, PlanReader reader, PlanWriter writer, SkillMap map, HttpContext http, CancellationToken stop)
    {
        if (await reader.CurrentAsync(classId, stop) is not { } stored)
        {
            return NoPlan();
        }

        if (stored.Document.Plan.Find(new(change.Skill), change.Number) is not { } lesson)
        {
            return TypedResults.NotFound();
        }

        if (change.Note.Length > LongestNote)
        {
            return Faults.One("note", $"A note has at most {LongestNote} letters.");
        }

        var changed = lesson with { Pinned = change.Pinned, Note = change.Note.Trim() };
        var document = stored.Document with { Plan = stored.Document.Plan with { Lessons = [.. stored.Document.Plan.Lessons.Select(l => l == lesson ? changed : l)] } };
        var what = changed.Pinned != lesson.Pinned ? changed.Pinned ? "pinned" : "let go" : "a note";
        await writer.KeepAsync(classId, http.User.Adult().Id, document, $"{map[lesson.Skill].Short}, lesson {lesson.Number}: {what}.", null, stop);
        return TypedResults.NoContent();
    }

    /// <summary>Back to the version before: as a version of its own, so that nothing is lost.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> UndoAsync(int classId, PlanReader reader, PlanWriter writer, FobbleDb db, HttpContext http, CancellationToken stop)
    {
        if (await reader.CurrentAsync(classId, stop) is not { } stored)
        {
            return NoPlan();
        }

        var stands = stored.Row.BackTo ?? stored.Row.Version;
        var before = await db.YearPlans.AsNoTracking().Where(p => p.ClassId == classId && p.Year == stored.Row.Year && p.Version < stands).OrderByDescending(p => p.Version).FirstOrDefaultAsync(stop);
        if (before is null)
        {
            return TypedResults.Problem("This is the first version: there is nothing to undo.", statusCode: StatusCodes.Status409Conflict, title: "Nothing to undo");
        }

        var undone = await db.YearPlans.Where(p => p.ClassId == classId && p.Year == stored.Row.Year && p.Version == stands).Select(p => p.What).FirstAsync(stop);
        await writer.KeepAsync(classId, http.User.Adult().Id, PlanDocument.Read(before.Document), $"Undone: {undone}", before.BackTo ?? before.Version, stop);
        return TypedResults.NoContent();
    }
}
