using Fobble.Core.Planning;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Week;
using Fobble.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Planning;

/// <summary>Adds versions of a plan; days that were worked out already follow.</summary>
internal sealed class PlanWriter(FobbleDb db, ClassFacts facts, PlanReader reader, WeekMaker weeks, TimeProvider clock)
{
    /// <summary>Puts a plan in force: a new version on top of the one before. All of it or nothing.</summary>
    public Task KeepAsync(int classId, int adultId, PlanDocument document, string what, int? backTo, CancellationToken stop) =>
        KeepAsync(classId, adultId, () => Task.FromResult(document), what, backTo, stop);

    /// <param name="make">Makes the plan, and whatever else belongs to the same decision, within the transaction.</param>
    public async Task KeepAsync(int classId, int adultId, Func<Task<PlanDocument>> make, string what, int? backTo, CancellationToken stop)
    {
        var year = await reader.YearAsync(classId, stop);
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var document = await make();
        var last = await db.YearPlans.Where(p => p.ClassId == classId && p.Year == year).MaxAsync(p => (int?)p.Version, stop) ?? 0;
        db.YearPlans.Add(new YearPlanRow { ClassId = classId, Year = year, Version = last + 1, At = clock.GetUtcNow(), AdultId = adultId, What = what, BackTo = backTo, Document = document.Write() });
        await db.SaveChangesAsync(stop);
        facts.Forget(classId);
        await weeks.FollowAsync(classId, await reader.FirstOpenDayAsync(classId, stop), stop);
        await transaction.CommitAsync(stop);
    }

    /// <summary>The same plan with other lessons: starters follow, and stay where they can.</summary>
    public async Task<PlanDocument> WithLessonsAsync(int classId, PlanDocument document, IReadOnlyList<PlanLesson> lessons, CancellationToken stop)
    {
        var from = await reader.FirstOpenDayAsync(classId, stop);
        var request = (await reader.RequestAsync(classId, document.Ask, stop)) with { Until = document.Until };
        var days = YearScope.DaysOf(request);
        var (reviews, missed) = YearPlanner.ReviewsOf(lessons, days, request, document.Plan.Reviews);
        return document with { Plan = document.Plan with { Lessons = lessons, Reviews = [.. document.Plan.Reviews.Where(r => r.Day < from), .. reviews], Missed = missed } };
    }
}
