using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Week;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Planning;

/// <summary>A plan to put in force on top of the version that an adult looked at.</summary>
/// <param name="Was">The version it was made from; 0 for none.</param>
/// <param name="What">What was done, in a sentence.</param>
/// <param name="BackTo">The earlier version that it goes back to; null if it is not an undo.</param>
/// <param name="Lost">Days that the class loses with it.</param>
internal sealed record NextPlan(int Was, PlanDocument Document, string What, int? BackTo = null, IReadOnlyList<Closure>? Lost = null);

/// <summary>Adds versions of a plan; days that were worked out already follow.</summary>
internal sealed class PlanWriter(ClassRoom room, Decisions decisions, PlanReader reader, WeekMaker weeks, TimeProvider clock)
{
    /// <summary>
    /// Puts a plan in force: a new version on top of the one that was looked at. All of it or nothing; what follows from it for days that were worked out is
    /// worked out before anything is kept, and again if those days have changed by then.
    /// </summary>
    /// <exception cref="ChangedMeanwhileException">Another version took its place in the meantime.</exception>
    public async Task KeepAsync(AdultId adult, NextPlan next, CancellationToken stop)
    {
        await decisions.SettleAsync(
            Parts.Week | Parts.Calendar,
            () => weeks.FollowAsync(next.Document.Plan, next.Lost ?? [], stop),
            async (db, week) =>
            {
                await Expected.PlanVersion(room, next.Was).CheckAsync(db, stop);
                var year = await room.YearAsync(stop);
                db.YearPlans.Add(
                    new YearPlanRow
                    {
                        ClassId = room.Id.Value,
                        Year = year,
                        Version = next.Was + 1,
                        At = clock.GetUtcNow(),
                        AdultId = adult.Value,
                        What = next.What,
                        BackTo = next.BackTo,
                        Document = next.Document.Write(),
                    }
                );
                db.Closures.AddRange(
                    (next.Lost ?? []).Select(c => new ClosureRow
                    {
                        SchoolId = room.SchoolId,
                        ClassId = room.Id.Value,
                        Kind = c.Kind,
                        Name = c.Name,
                        First = c.First,
                        Last = c.Last,
                    })
                );
                await week.KeepAsync(db, stop);
                return true;
            },
            stop
        );
    }

    /// <summary>The same plan with other lessons: starters follow, and stay where they can.</summary>
    /// <param name="timetable">Where days are lost with it, the timetable without them; null for the class's own.</param>
    public async Task<PlanDocument> WithLessonsAsync(PlanDocument document, IReadOnlyList<PlanLesson> lessons, Timetable? timetable, CancellationToken stop)
    {
        var from = await room.FirstOpenDayAsync(stop);
        var request = (await reader.RequestAsync(document.Ask, stop)) with { Until = document.Until };
        request = timetable is null ? request : request with { Timetable = timetable };
        var (reviews, missed) = YearPlanner.ReviewsOf(lessons, YearScope.DaysOf(request), request, document.Plan.Reviews);
        return document with
        {
            Plan = document.Plan with { Lessons = lessons, Reviews = [.. document.Plan.Reviews.Where(r => r.Day < from), .. reviews], Missed = missed },
        };
    }
}
