using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Week;

public sealed record NamedActivity(string Id, string Name);

/// <param name="How">What kind of lesson it is, in words: with objects, with drawing and talk …</param>
/// <param name="ActivityReason">Why this activity; empty where it was chosen before reasons were kept.</param>
public sealed record WeekFocus(
    string Skill,
    string Short,
    string ICan,
    int Number,
    int Of,
    LessonStage Stage,
    string How,
    NamedActivity Activity,
    string Reason,
    string ActivityReason,
    bool Pinned
);

public sealed record WeekStarter(string Skill, string Short, NamedActivity Activity, string Reason, bool Pinned);

/// <summary>A child of a group, and where it stands in the group's aim today.</summary>
public sealed record WeekChild(string Name, int Strength, bool LookAgain);

/// <param name="SessionId">The group that has the slot, if groups were accepted.</param>
public sealed record WeekSlot(
    int SlotId,
    SlotKind Kind,
    TimeOnly Start,
    int Minutes,
    string Adult,
    string Where,
    int? SessionId,
    string? Skill,
    IReadOnlyList<WeekChild> Children
);

/// <param name="Closed">What is different about the day, closed or not.</param>
/// <param name="More">Further whole-class lessons.</param>
/// <param name="Coming">What the year's plan has for a day that is not worked out yet.</param>
/// <param name="Minutes">Whether the whole-class lesson's parts go into its minutes.</param>
/// <param name="Note">The teacher's words on the day's lessons.</param>
public sealed record WeekDay(
    DateOnly Day,
    DayState State,
    string? Closed,
    WeekFocus? Focus,
    IReadOnlyList<WeekFocus> More,
    IReadOnlyList<WeekStarter> Starters,
    NamedActivity? Transition,
    bool TransitionPinned,
    NamedActivity? Choice,
    bool ChoicePinned,
    IReadOnlyList<WeekSlot> Slots,
    IReadOnlyList<string> Coming,
    string? Minutes,
    bool TooLong,
    IReadOnlyList<string> Notes
);

/// <param name="Jar">What the week's guess jar asks for.</param>
public sealed record WeekView(DateOnly Monday, string? Term, bool Planned, string Jar, IReadOnlyList<WeekDay> Days);

/// <summary>An activity that would do instead, with what speaks for it.</summary>
public sealed record Alternative(NamedActivity Activity, string Reason, bool Chosen);

/// <param name="Place">Which part of the day.</param>
/// <param name="Skill">For a starter or a lesson: on what.</param>
/// <param name="Was">What the page showed there: refused with 409 if another adult has chosen something else since.</param>
/// <param name="Activity">What shall be done; pins it. Null to let go of the pin.</param>
public sealed record SwapActivity(Place Place, string? Skill, string Was, string? Activity);

internal sealed class WeekFeature : IFeature
{
    public void AddServices(IServiceCollection services)
    {
        services.AddScoped<WeekReader>();
        services.AddScoped<WeekMaker>();
    }

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/weeks/{day}", GetAsync).WithMetadata(new SameForAll());
        ofClass.MapPost("/weeks/{day}/plan", PlanAsync).RequireAuthorization(Policies.Lead);
        ofClass.MapGet("/days/{day}/alternatives", AlternativesAsync);
        ofClass.MapPut("/days/{day}/activity", SwapAsync).RequireAuthorization(Policies.Lead);
    }

    private static async Task<Ok<WeekView>> GetAsync(ClassRoom room, DateOnly day, WeekReader reader, CancellationToken stop) =>
        TypedResults.Ok(await reader.ReadAsync(SchoolCalendar.MondayOf(day), stop));

    /// <summary>Plans the days of the week that are not past, anew if they were planned before.</summary>
    private static async Task<Results<Ok<WeekView>, ProblemHttpResult>> PlanAsync(
        ClassRoom room,
        DateOnly day,
        WeekReader reader,
        WeekMaker maker,
        Decisions decisions,
        CancellationToken stop
    )
    {
        var monday = SchoolCalendar.MondayOf(day);
        var children = await room.ChildrenAsync(stop);
        var timetable = await room.TimetableAsync(stop);
        var open = timetable.OpenDays(monday, room.Today);
        if (children.Count == 0 || open.Count == 0)
        {
            var why =
                children.Count == 0
                    ? Phrase("The class has no children yet; import the class list first.")
                    : Phrase("This week has no day left with a whole-class lesson.");
            return TypedResults.Problem(why, statusCode: StatusCodes.Status409Conflict, title: Phrase("Nothing to plan"));
        }

        await decisions.SettleAsync(
            Parts.Plan | Parts.Week | Parts.Calendar,
            () => maker.PlanAsync(monday, open[0], stop),
            async (db, days) =>
            {
                await days.KeepAsync(db, stop);
                return true;
            },
            stop
        );
        await room.AgainAsync(stop);
        return TypedResults.Ok(await reader.ReadAsync(monday, stop));
    }

    /// <summary>What could be done in a part of a planned day, the best first.</summary>
    private static async Task<Results<Ok<IReadOnlyList<Alternative>>, NotFound>> AlternativesAsync(
        ClassRoom room,
        DateOnly day,
        Place place,
        string? skill,
        WeekMaker maker,
        CancellationToken stop
    )
    {
        if (await RowAsync(room, day, room.Db.PlannedDays, stop) is not { } row || PartOf(row, place, skill) is not { } chosen)
        {
            return TypedResults.NotFound();
        }

        return TypedResults.Ok<IReadOnlyList<Alternative>>([
            .. (await RankAsync(row, place, skill, maker, stop)).Select(r => new Alternative(
                new(r.Activity.Id.Value, r.Activity.Name),
                r.Reason,
                r.Activity.Id.Value == chosen
            )),
        ]);
    }

    /// <summary>Puts another activity in its place, pinned so that it stays when the week is planned anew.</summary>
    private static async Task<Results<NoContent, NotFound>> SwapAsync(
        ClassRoom room,
        DateOnly day,
        SwapActivity swap,
        WeekMaker maker,
        Decisions decisions,
        CancellationToken stop
    )
    {
        if (await RowAsync(room, day, room.Db.PlannedDays, stop) is not { } shown || PartOf(shown, swap.Place, swap.Skill) is null)
        {
            return TypedResults.NotFound();
        }

        RefusedException.Unless(day >= room.Today, "day", Phrase("That day is past."));
        var next = swap.Activity ?? swap.Was;
        var ranked = await RankAsync(shown, swap.Place, swap.Skill, maker, stop);
        RefusedException.Unless(
            swap.Activity is null || ranked.Any(r => r.Activity.Id.Value == next),
            "activity",
            Phrase("This activity is not made for that.")
        );
        var reason = ranked.FirstOrDefault(r => r.Activity.Id.Value == next)?.Reason ?? "";
        await decisions.DecideAsync(
            async db =>
            {
                var row = await RowAsync(room, day, db.PlannedDays, stop);
                var now = row is null ? null : PartOf(row, swap.Place, swap.Skill);
                if (row is null || now != swap.Was)
                {
                    throw new ChangedMeanwhileException(
                        Phrase("The day has changed since you looked at it."),
                        now is not null && room.Library.Find(new(now)) is { } other
                            ? [Phrase($"There is {other.Name} now.")]
                            : [Phrase("That part of the day is planned anew.")]
                    );
                }

                Put(row, swap, next, reason);
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static void Put(PlannedDayRow row, SwapActivity swap, string next, string reason)
    {
        var pinned = swap.Activity is not null;
        switch (swap.Place)
        {
            case Place.Carpet when row.More.FirstOrDefault(m => m.Skill == swap.Skill) is { } more:
                (more.Activity, more.ActivityReason) = (next, reason);
                break;
            case Place.Carpet:
                (row.FocusActivity, row.ActivityReason, row.FocusPinned) = (next, reason, pinned);
                break;
            case Place.Choice:
                (row.Choice, row.ChoicePinned) = (next, pinned);
                break;
            case Place.Transition:
                (row.Transition, row.TransitionPinned) = (next, pinned);
                break;
            default:
                var starter = row.Starters.First(s => s.Skill == swap.Skill);
                (starter.Activity, starter.Pinned) = (next, pinned);
                break;
        }
    }

    private static Task<PlannedDayRow?> RowAsync(ClassRoom room, DateOnly day, IQueryable<PlannedDayRow> rows, CancellationToken stop) =>
        rows.Include(d => d.Starters).Include(d => d.More).FirstOrDefaultAsync(d => d.ClassId == room.Id.Value && d.Day == day, stop);

    // What is done in that part of the day now; null where the day has no such part.
    private static string? PartOf(PlannedDayRow row, Place place, string? skill) =>
        place switch
        {
            Place.Carpet => row.FocusSkill == skill ? row.FocusActivity : row.More.FirstOrDefault(m => m.Skill == skill)?.Activity,
            Place.Starter => row.Starters.FirstOrDefault(s => s.Skill == skill)?.Activity,
            Place.Transition => row.Transition,
            Place.Choice => row.Choice,
            _ => null,
        };

    private static async Task<IReadOnlyList<RankedActivity>> RankAsync(PlannedDayRow row, Place place, string? skill, WeekMaker maker, CancellationToken stop)
    {
        var request = await maker.RequestAsync(SchoolCalendar.MondayOf(row.Day), row.Day, stop);
        var chooser = request.Chooser();
        var minutes = WeekPlanner.CarpetMinutes(row.Day, request) - row.Starters.Sum(s => StarterPlanner.MinutesOf(request.Library[new(s.Activity)]));
        return place switch
        {
            Place.Carpet => chooser.Rank(
                new(place, new(skill!), row.FocusSkill == skill ? row.Stage : row.More.First(m => m.Skill == skill).Stage, row.Day, minutes)
            ),
            Place.Starter => StarterPlanner.Ranked(chooser, new(skill!), row.Day),
            Place.Transition => chooser.Rank(new(place, null, null, row.Day, WeekPlanner.TransitionMinutes)),
            _ => chooser.Rank(new(place, null, null, row.Day, WeekPlanner.ChoiceMinutes), request.TaughtInGroups),
        };
    }
}
