using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Planning;

/// <summary>Re-planning: what would move, why, before and after; and taking it.</summary>
internal static class RevisionEndpoints
{
    private const int MostDays = 60;

    public static void MapRevisions(this IEndpointRouteBuilder ofClass)
    {
        var lead = ofClass.MapGroup("/plan/revision").RequireAuthorization(Policies.Lead);
        lead.MapPost("/", PreviewAsync);
        lead.MapPost("/accept", AcceptAsync);
    }

    /// <summary>Works a revision out without keeping anything.</summary>
    private static async Task<Results<Ok<RevisionView>, ProblemHttpResult, ValidationProblem>> PreviewAsync(
        int classId, RevisePlan wanted, PlanReader reader, ClassFacts facts, SkillMap map, CancellationToken stop)
    {
        if (await reader.CurrentAsync(classId, stop) is not { } stored)
        {
            return PlanEndpoints.NoPlan();
        }

        if (Check(wanted, stored, map) is { } fault)
        {
            return fault;
        }

        var (revision, revised) = await ReviseAsync(classId, wanted, stored, reader, facts, map, stop);
        if (revised is null)
        {
            return CannotHold();
        }

        var approach = await facts.ApproachAsync(classId, stop);
        return TypedResults.Ok(new RevisionView(
            stored.Row.Version, revised.Sentence, revised.ProvenFewest,
            [.. revised.Moves.Select(m => new MoveView(m.Lesson.Skill.Value, map[m.Lesson.Skill].Short, map[m.Lesson.Skill].Strand, m.Lesson.Number, m.Was, m.Is, m.Why))],
            PlanViews.Of(stored.Document.Plan.Lessons.Where(l => l.Day >= revision.From || revision.Lost.Contains(l)), map, approach, revision.From),
            PlanViews.Of(revised.Lessons, map, approach, revision.From),
            [.. revised.Room.Select(r => $"{map[r.Skill].Short}, lesson {r.Number}")]));
    }

    /// <summary>The same once more, on the plan it was looked at with, and kept: lost days go into the class's calendar.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult, ValidationProblem>> AcceptAsync(
        int classId, AcceptRevision accepted, PlanReader reader, PlanWriter writer, ClassFacts facts, SkillMap map, FobbleDb db, HttpContext http, CancellationToken stop)
    {
        if (await reader.CurrentAsync(classId, stop) is not { } stored)
        {
            return PlanEndpoints.NoPlan();
        }

        if (stored.Row.Version != accepted.Version)
        {
            return TypedResults.Problem("Someone changed the plan in the meantime. Look at the revision again.", statusCode: StatusCodes.Status409Conflict, title: "The plan has changed");
        }

        var wanted = accepted.Revision;
        if (Check(wanted, stored, map) is { } fault)
        {
            return fault;
        }

        var (revision, revised) = await ReviseAsync(classId, wanted, stored, reader, facts, map, stop);
        if (revised is null)
        {
            return CannotHold();
        }

        var lost = revision.Lost.ToHashSet();
        IReadOnlyList<PlanLesson> lessons = [.. stored.Document.Plan.Lessons.Where(l => l.Day < revision.From && !lost.Contains(l)), .. revised.Lessons];
        var school = await db.Classes.Where(c => c.Id == classId).Select(c => c.SchoolId).SingleAsync(stop);
        var calendar = await facts.CalendarAsync(classId, stop);
        var newDays = wanted.LostDays.Where(d => CanBeLost(calendar, d)).Distinct().Order().ToList();
        await writer.KeepAsync(classId, http.User.Adult().Id, LoseAndFollowAsync, $"{What(wanted, map)} {revised.Sentence}", null, stop);
        return TypedResults.NoContent();

        // The days first, so that no starter is put on one of them.
        async Task<PlanDocument> LoseAndFollowAsync()
        {
            db.Closures.AddRange(newDays.Select(d => new ClosureRow { SchoolId = school, ClassId = classId, Kind = ClosureKind.NoLessons, Name = wanted.Why.Trim(), First = d, Last = d }));
            await db.SaveChangesAsync(stop);
            facts.Forget(classId);
            var next = await writer.WithLessonsAsync(classId, stored.Document, lessons, stop);
            return next with { Plan = next.Plan with { Unplaced = revised.Room.GroupBy(r => r.Skill.Value).ToDictionary(g => g.Key, g => g.Count()) } };
        }
    }

    // A day that is closed, or without lessons, already is not lost once more.
    private static bool CanBeLost(SchoolCalendar calendar, DateOnly day) => calendar.IsSchoolDay(day) && calendar.Different(day) is null or { Kind: ClosureKind.HalfDay };

    private static ProblemHttpResult CannotHold() =>
        TypedResults.Problem("What is held can’t stay where it is: let go of one of the lessons that are held or pinned.", statusCode: StatusCodes.Status409Conflict, title: "Can’t be held");

    private static ValidationProblem? Check(RevisePlan wanted, StoredPlan stored, SkillMap map)
    {
        Faults faults = new();
        faults.Check("why", wanted.LostDays.Count == 0 || wanted.Why.Trim().Length is > 0 and <= 60, "Say in a few words what the days were lost to.");
        faults.Check("lostDays", wanted.LostDays.Count <= MostDays && wanted.LostDays.All(d => d >= stored.Document.From && d <= stored.Document.Until), "Lost days lie within the plan.");
        faults.Check("changes", wanted.Changes.All(c => map.Has(new(c.Skill)) && c.Lessons is >= -5 and <= 5), "There is no such skill, or more than five lessons are asked for.");
        faults.Check("aim", Enum.IsDefined(wanted.Aim), "There is no such choice.");
        return faults.None ? null : faults.ToProblem("The plan can’t be revised like that.");
    }

    private static async Task<(Revision Revision, Revised? Revised)> ReviseAsync(int classId, RevisePlan wanted, StoredPlan stored, PlanReader reader, ClassFacts facts, SkillMap map, CancellationToken stop)
    {
        var setting = await reader.SettingAsync(classId, stored.Document, stop);
        var calendar = setting.Timetable.Calendar;
        var lostDays = wanted.LostDays.Where(d => CanBeLost(calendar, d)).Distinct().Select(d => new Closure(wanted.Why.Trim(), d, d) { Kind = ClosureKind.NoLessons });
        var after = (await facts.TimetableAsync(classId, stop)).On(new SchoolCalendar(calendar.Terms, [.. calendar.Closures, .. lostDays]));
        var gone = PlanWatch.LessonsWithoutRoom(setting with { Timetable = after }).Where(l => l.Day < setting.From).ToList();
        Revision revision = new(
            stored.Document.Plan, after, map, setting.From, setting.Until, gone,
            [.. wanted.Changes.Where(c => c.Lessons != 0).Select(c => new LessonChange(new(c.Skill), c.Lessons, c.Lessons > 0 ? $"{map[new(c.Skill)].AtStart} gets {Words.More(c.Lessons, "lesson", "lessons")}." : "The class has it already."))],
            [.. wanted.Held.Select(h => new LessonName(new(h.Skill), h.Number))], wanted.Aim);
        return (revision, await Task.Run(() => PlanRevision.Revise(revision, stop), stop));
    }

    private static string What(RevisePlan wanted, SkillMap map)
    {
        List<string> parts = [];
        if (wanted.LostDays.Count > 0)
        {
            parts.Add($"{Words.Count(wanted.LostDays.Count, "day", "days")} lost to “{wanted.Why.Trim()}”");
        }

        parts.AddRange(wanted.Changes.Where(c => c.Lessons != 0).Select(c => c.Lessons > 0 ? $"{Words.More(c.Lessons, "lesson", "lessons")} for {map[new(c.Skill)].InSentence}" : $"{Words.Number(-c.Lessons)} fewer for {map[new(c.Skill)].InSentence}"));
        return parts.Count == 0 ? "Lessons without a day put back." : $"{Words.Capital(Words.List(parts))}.";
    }
}
