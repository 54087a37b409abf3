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

/// <param name="How">What kind of lesson it is, in words: with objects, with drawing and talk …</param>
/// <param name="ActivityReason">Why this activity; empty where it was chosen before reasons were kept.</param>
public sealed record WeekFocus(string Skill, string Short, string ICan, int Number, int Of, LessonStage Stage, string How, NamedActivity Activity, string Reason, string ActivityReason, bool Pinned);

public sealed record WeekStarter(string Skill, string Short, NamedActivity Activity, string Reason, bool Pinned);

/// <param name="SessionId">The group that has the slot, if groups were accepted.</param>
public sealed record WeekSlot(int SlotId, SlotKind Kind, TimeOnly Start, int Minutes, string Adult, string Where, int? SessionId, string? Skill, IReadOnlyList<string> Children);

/// <param name="Closed">What is different about the day, closed or not.</param>
/// <param name="More">Further whole-class lessons.</param>
/// <param name="Coming">What the year's plan has for a day that is not worked out yet.</param>
/// <param name="Minutes">Whether the whole-class lesson's parts go into its minutes.</param>
/// <param name="Note">The teacher's words on the day's lessons.</param>
public sealed record WeekDay(
    DateOnly Day, DayState State, string? Closed, WeekFocus? Focus, IReadOnlyList<WeekFocus> More, IReadOnlyList<WeekStarter> Starters, NamedActivity? Transition, bool TransitionPinned,
    NamedActivity? Choice, bool ChoicePinned, IReadOnlyList<WeekSlot> Slots, IReadOnlyList<string> Coming, string? Minutes, bool TooLong, IReadOnlyList<string> Notes);

/// <param name="Jar">What the week's guess jar asks for.</param>
public sealed record WeekView(DateOnly Monday, string? Term, bool Planned, string Jar, IReadOnlyList<WeekDay> Days);

/// <summary>An activity that would do instead, with what speaks for it.</summary>
public sealed record Alternative(NamedActivity Activity, string Reason, bool Chosen);

/// <param name="Place">Which part of the day.</param>
/// <param name="Skill">For a starter or a lesson: on what.</param>
/// <param name="Activity">What shall be done; pins it. Null to let go of the pin.</param>
public sealed record SwapActivity(Place Place, string? Skill, string? Activity);

internal static class WeekEndpoints
{
    public static void MapWeek(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/weeks/{day}", GetAsync);
        ofClass.MapPost("/weeks/{day}/plan", PlanAsync).RequireAuthorization(Policies.Lead);
        ofClass.MapGet("/days/{day}/alternatives", AlternativesAsync);
        ofClass.MapPut("/days/{day}/activity", SwapAsync).RequireAuthorization(Policies.Lead);
    }

    private static async Task<Ok<WeekView>> GetAsync(int classId, DateOnly day, WeekReader reader, CancellationToken stop) =>
        TypedResults.Ok(await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop));

    /// <summary>Plans the days of the week that are not past, anew if they were planned before.</summary>
    private static async Task<Results<Ok<WeekView>, ProblemHttpResult>> PlanAsync(
        int classId, DateOnly day, WeekReader reader, WeekMaker maker, ClassFacts facts, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var (monday, today) = (SchoolCalendar.MondayOf(day), clock.Today());
        var children = await facts.ChildrenAsync(classId, stop);
        var timetable = await facts.TimetableAsync(classId, stop);
        var open = timetable.Calendar.DaysOfWeek(monday).Where(d => d >= today && timetable.CarpetPlaces(d) > 0).ToList();
        if (children.Count == 0 || open.Count == 0)
        {
            var why = children.Count == 0 ? "The class has no children yet; import the class list first." : "This week has no day left with a whole-class lesson.";
            return TypedResults.Problem(why, statusCode: StatusCodes.Status409Conflict, title: "Nothing to plan");
        }

        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        await maker.PlanAsync(classId, monday, open[0], stop);
        await transaction.CommitAsync(stop);
        return TypedResults.Ok(await reader.ReadAsync(classId, monday, stop));
    }

    /// <summary>What could be done in a part of a planned day, the best first.</summary>
    private static async Task<Results<Ok<IReadOnlyList<Alternative>>, NotFound>> AlternativesAsync(int classId, DateOnly day, Place place, string? skill, WeekMaker maker, FobbleDb db, CancellationToken stop)
    {
        if (await RowAsync(classId, day, db.PlannedDays.AsNoTracking(), stop) is not { } row || PartOf(row, place, skill) is not { } chosen)
        {
            return TypedResults.NotFound();
        }

        return TypedResults.Ok<IReadOnlyList<Alternative>>([.. (await RankAsync(classId, row, place, skill, maker, stop)).Select(r => new Alternative(new(r.Activity.Id.Value, r.Activity.Name), r.Reason, r.Activity.Id.Value == chosen))]);
    }

    /// <summary>Puts another activity in its place, pinned so that it stays when the week is planned anew.</summary>
    private static async Task<Results<NoContent, NotFound, ValidationProblem>> SwapAsync(int classId, DateOnly day, SwapActivity swap, WeekMaker maker, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        if (await RowAsync(classId, day, db.PlannedDays, stop) is not { } row || PartOf(row, swap.Place, swap.Skill) is not { } chosen)
        {
            return TypedResults.NotFound();
        }

        if (day < clock.Today())
        {
            return Faults.One("day", "That day is past.");
        }

        var next = swap.Activity ?? chosen;
        var ranked = await RankAsync(classId, row, swap.Place, swap.Skill, maker, stop);
        if (swap.Activity is not null && ranked.FirstOrDefault(r => r.Activity.Id.Value == next) is null)
        {
            return Faults.One("activity", "This activity is not made for that.");
        }

        var reason = ranked.FirstOrDefault(r => r.Activity.Id.Value == next)?.Reason ?? "";
        switch (swap.Place)
        {
            case Place.Carpet when row.More.FirstOrDefault(m => m.Skill == swap.Skill) is { } more:
                (more.Activity, more.ActivityReason) = (next, reason);
                break;
            case Place.Carpet:
                (row.FocusActivity, row.ActivityReason, row.FocusPinned) = (next, reason, swap.Activity is not null);
                break;
            case Place.Choice:
                (row.Choice, row.ChoicePinned) = (next, swap.Activity is not null);
                break;
            case Place.Transition:
                (row.Transition, row.TransitionPinned) = (next, swap.Activity is not null);
                break;
            default:
                var starter = row.Starters.First(s => s.Skill == swap.Skill);
                (starter.Activity, starter.Pinned) = (next, swap.Activity is not null);
                break;
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static Task<PlannedDayRow?> RowAsync(int classId, DateOnly day, IQueryable<PlannedDayRow> rows, CancellationToken stop) =>
        rows.Include(d => d.Starters).Include(d => d.More).FirstOrDefaultAsync(d => d.ClassId == classId && d.Day == day, stop);

    // What is done in that part of the day now; null where the day has no such part.
    private static string? PartOf(PlannedDayRow row, Place place, string? skill) => place switch
    {
        Place.Carpet => row.FocusSkill == skill ? row.FocusActivity : row.More.FirstOrDefault(m => m.Skill == skill)?.Activity,
        Place.Starter => row.Starters.FirstOrDefault(s => s.Skill == skill)?.Activity,
        Place.Transition => row.Transition,
        Place.Choice => row.Choice,
        _ => null,
    };

    private static async Task<IReadOnlyList<RankedActivity>> RankAsync(int classId, PlannedDayRow row, Place place, string? skill, WeekMaker maker, CancellationToken stop)
    {
        var request = await maker.RequestAsync(classId, SchoolCalendar.MondayOf(row.Day), row.Day, stop);
        var chooser = request.Chooser();
        var minutes = WeekPlanner.CarpetMinutes(row.Day, request) - row.Starters.Sum(s => StarterPlanner.MinutesOf(request.Library[new(s.Activity)]));
        return place switch
        {
            Place.Carpet => chooser.Rank(new(place, new(skill!), row.FocusSkill == skill ? row.Stage : row.More.First(m => m.Skill == skill).Stage, row.Day, minutes)),
            Place.Starter => StarterPlanner.Ranked(chooser, new(skill!), row.Day),
            Place.Transition => chooser.Rank(new(place, null, null, row.Day, WeekPlanner.TransitionMinutes)),
            _ => chooser.Rank(new(place, null, null, row.Day, WeekPlanner.ChoiceMinutes), request.TaughtInGroups),
        };
    }
}
