using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Week;

/// <summary>How far a day has come: a bead on the string.</summary>
public enum DayState
{
    Closed,
    Open,
    Planned,
    Taught,
    Recorded,
}

public sealed record NamedActivity(string Id, string Name);

public sealed record WeekFocus(string Skill, string Short, string ICan, int Number, int Of, LessonStage Stage, NamedActivity Activity, string Reason);

public sealed record WeekStarter(string Skill, string Short, NamedActivity Activity, string Reason);

/// <param name="SessionId">The group that has the slot, if groups were accepted.</param>
public sealed record WeekSlot(int SlotId, SlotKind Kind, TimeOnly Start, int Minutes, string Adult, string Where, int? SessionId, string? Skill, IReadOnlyList<string> Children);

public sealed record WeekDay(DateOnly Day, DayState State, string? Closed, WeekFocus? Focus, IReadOnlyList<WeekStarter> Starters, NamedActivity? Transition, NamedActivity? Choice, IReadOnlyList<WeekSlot> Slots);

public sealed record WeekView(DateOnly Monday, string? Term, bool Planned, IReadOnlyList<WeekDay> Days);

internal static class WeekEndpoints
{
    public static void MapWeek(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/weeks/{day}", GetAsync);
        ofClass.MapPost("/weeks/{day}/plan", PlanAsync).RequireAuthorization(Policies.Lead);
    }

    private static async Task<Ok<WeekView>> GetAsync(int classId, DateOnly day, WeekReader reader, CancellationToken stop) =>
        TypedResults.Ok(await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop));

    /// <summary>Plans the days of the week that are not past, anew if they were planned before.</summary>
    private static async Task<Results<Ok<WeekView>, ProblemHttpResult>> PlanAsync(
        int classId, DateOnly day, WeekReader reader, ClassFacts facts, FobbleDb db, ActivityLibrary library, TimeProvider clock, CancellationToken stop)
    {
        var (monday, today) = (SchoolCalendar.MondayOf(day), clock.Today());
        var children = await facts.ChildrenAsync(classId, stop);
        var calendar = await facts.CalendarAsync(classId, stop);
        var open = calendar.DaysOfWeek(monday).Where(d => d >= today).ToList();
        if (children.Count == 0 || open.Count == 0)
        {
            var why = children.Count == 0 ? "The class has no children yet; import the class list first." : "This week has no school day left to plan.";
            return TypedResults.Problem(why, statusCode: StatusCodes.Status409Conflict, title: "Nothing to plan");
        }

        var taught = await db.PlannedDays.Where(d => d.ClassId == classId && d.Day < open[0]).OrderBy(d => d.Day).Select(d => new TaughtLesson(d.Day, new SkillId(d.FocusSkill))).ToListAsync(stop);
        var evidence = await facts.EvidenceAsync(classId, today, stop);
        var plan = WeekPlanner.Plan(new WeekRequest(evidence, monday, taught, library) { From = open[0], Approach = await facts.ApproachAsync(classId, stop) });
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        await db.PlannedDays.Where(d => d.ClassId == classId && open.Contains(d.Day)).ExecuteDeleteAsync(stop);
        db.PlannedDays.AddRange(plan.Days.Select(d => ToRow(classId, d)));
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        return TypedResults.Ok(await reader.ReadAsync(classId, monday, stop));
    }

    public static PlannedDayRow ToRow(int classId, PlannedDay day)
    {
        var row = new PlannedDayRow
        {
            ClassId = classId,
            Day = day.Day,
            FocusSkill = day.Focus.Skill.Value,
            FocusNumber = day.Focus.Number,
            FocusOf = day.Focus.Of,
            Stage = day.Focus.Stage,
            FocusActivity = day.Focus.Activity.Value,
            Reason = day.Focus.Reason,
            Transition = day.Transition.Value,
            Choice = day.Choice?.Value,
        };
        row.Starters.AddRange(day.Starters.Select(s => new PlannedStarterRow { Skill = s.Skill.Value, Activity = s.Activity.Value, Reason = s.Reason }));
        return row;
    }
}
