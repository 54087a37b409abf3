using Fobble.Core.Grouping;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>What a class asks of its groups: sizes, weights, pairs, adults, times out. Kept for the class until it is changed.</summary>
internal static class GroupWishEndpoints
{
    public static void MapGroupWishes(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/group-wishes", async (int classId, GroupWishReader reader, CancellationToken stop) => TypedResults.Ok(await reader.ViewAsync(classId, stop))).RequireAuthorization(Policies.Lead);
        var lead = ofClass.MapGroup("/").RequireAuthorization(Policies.Lead);
        lead.MapPut("/group-wishes", SetAsync);
        lead.MapPost("/pair-wishes", AddPairAsync);
        lead.MapDelete("/pair-wishes/{first:int}/{second:int}", RemovePairAsync);
        lead.MapPost("/adult-wishes", AddAdultAsync);
        lead.MapDelete("/adult-wishes/{childId:int}/{adultId:int}", RemoveAdultAsync);
        lead.MapPost("/times-out", AddTimeOutAsync);
        lead.MapDelete("/times-out/{id:int}", RemoveTimeOutAsync);
        lead.MapPut("/children/{childId:int}/near-adult", SetNearAdultAsync);
        lead.MapPut("/adults/{adultId:int}/groups", SetAdultAsync);
    }

    private static async Task<Results<NoContent, ValidationProblem>> SetAsync(int classId, GroupSettingsChange change, FobbleDb db, CancellationToken stop)
    {
        Faults faults = new();
        faults.Check("minSize", change is { MinSize: >= 2, MaxSize: <= 6 } && change.MinSize <= change.MaxSize, "A group has two to six children, and the smallest size is not above the largest.");
        faults.Check("mostNearAdult", change.MostNearAdult is null or (>= 1 and <= 6), "At most one to six children in a group, or no limit.");
        faults.Check("mostAtOnce", change.MostAtOnce is null or (>= 1 and <= 10), "One to ten groups at a time, or no limit.");
        faults.Check("weights", change.Weights.All(w => GroupWeights.All.Any(k => k.Key == w.Key) && GroupWeights.Steps.Contains(w.Value)), "There is no such weight, or no such step.");
        if (!faults.None)
        {
            return faults.ToProblem("Groups can’t be formed like that.");
        }

        var weights = GroupWeights.All.Aggregate(GroupWeights.Usual, (all, w) => change.Weights.TryGetValue(w.Key, out var percent) ? w.With(all, percent) : all);
        GroupSettingsRow row = new()
        {
            ClassId = classId, MinSize = change.MinSize, MaxSize = change.MaxSize, EveryoneOnce = change.EveryoneOnce, MostNearAdult = change.MostNearAdult, MostAtOnce = change.MostAtOnce,
            Near = weights.Near, Lessons = weights.Lessons, Turns = weights.Turns, LookAgain = weights.LookAgain, Company = weights.Company, Slips = weights.Slips, Numbers = weights.Numbers,
        };
        if (await db.GroupSettings.FindAsync([classId], stop) is { } stored)
        {
            db.Entry(stored).CurrentValues.SetValues(row);
        }
        else
        {
            db.GroupSettings.Add(row);
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem>> AddPairAsync(int classId, NewPairWish request, FobbleDb db, CancellationToken stop)
    {
        var (first, second) = (Math.Min(request.First, request.Second), Math.Max(request.First, request.Second));
        if (first == second || await db.Children.CountAsync(c => c.ClassId == classId && (c.Id == first || c.Id == second), stop) != 2)
        {
            return Faults.One("first", "Choose two different children of this class.");
        }

        var wish = await db.PairWishes.FindAsync([first, second], stop);
        if (wish is null)
        {
            db.PairWishes.Add(new PairWish { FirstId = first, SecondId = second, Together = request.Together, Until = request.Until });
        }
        else
        {
            (wish.Together, wish.Until) = (request.Together, request.Until);
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemovePairAsync(int classId, int first, int second, FobbleDb db, CancellationToken stop)
    {
        await db.PairWishes.Where(w => w.First!.ClassId == classId && w.FirstId == Math.Min(first, second) && w.SecondId == Math.Max(first, second)).ExecuteDeleteAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem>> AddAdultAsync(int classId, NewAdultWish request, FobbleDb db, CancellationToken stop)
    {
        if (!await IsOursAsync(classId, request.ChildId, db, stop))
        {
            return NoSuchChild();
        }

        if (!await db.Memberships.AnyAsync(m => m.ClassId == classId && m.AdultId == request.AdultId, stop))
        {
            return NoSuchAdult();
        }

        if (await db.AdultWishes.FindAsync([request.ChildId, request.AdultId], stop) is { } stored)
        {
            stored.With = request.With;
        }
        else
        {
            db.AdultWishes.Add(new() { ChildId = request.ChildId, AdultId = request.AdultId, With = request.With });
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemoveAdultAsync(int classId, int childId, int adultId, FobbleDb db, CancellationToken stop)
    {
        await db.AdultWishes.Where(w => w.Child!.ClassId == classId && w.ChildId == childId && w.AdultId == adultId).ExecuteDeleteAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem>> AddTimeOutAsync(int classId, NewTimeOut request, FobbleDb db, CancellationToken stop)
    {
        if (!await IsOursAsync(classId, request.ChildId, db, stop))
        {
            return NoSuchChild();
        }

        if (request.Until <= request.From || request.Weekday is DayOfWeek.Saturday or DayOfWeek.Sunday)
        {
            return Faults.One("until", "A time out of class is on a weekday and ends after it begins.");
        }

        db.TimesOut.Add(new() { ChildId = request.ChildId, Weekday = request.Weekday, From = request.From, Until = request.Until });
        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemoveTimeOutAsync(int classId, int id, FobbleDb db, CancellationToken stop)
    {
        await db.TimesOut.Where(t => t.Child!.ClassId == classId && t.Id == id).ExecuteDeleteAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound>> SetNearAdultAsync(int classId, int childId, NearAdultChange change, FobbleDb db, CancellationToken stop) =>
        await db.Children.Where(c => c.Id == childId && c.ClassId == classId).ExecuteUpdateAsync(c => c.SetProperty(x => x.NeedsAdultNear, change.Near), stop) == 1 ? TypedResults.NoContent() : TypedResults.NotFound();

    private static async Task<Results<NoContent, ValidationProblem>> SetAdultAsync(int classId, int adultId, AdultGroupsChange change, SkillMap map, FobbleDb db, CancellationToken stop)
    {
        if (!await db.Memberships.AnyAsync(m => m.ClassId == classId && m.AdultId == adultId, stop))
        {
            return NoSuchAdult();
        }

        Faults faults = new();
        faults.Check("strands", change.Strands.All(s => map.Skills.Any(k => k.Strand == s)), "There is no such strand.");
        faults.Check("most", change.Most is null or (>= 0 and <= 50), "At most 0 to 50 groups a week, or no limit.");
        if (!faults.None)
        {
            return faults.ToProblem("The adult’s groups can’t be kept like that.");
        }

        await db.AdultGroups.Where(a => a.ClassId == classId && a.AdultId == adultId).ExecuteDeleteAsync(stop);
        if (change.Strands.Count > 0 || change.Most is not null)
        {
            db.AdultGroups.Add(new() { ClassId = classId, AdultId = adultId, Strands = [.. change.Strands.Distinct()], Most = change.Most });
            await db.SaveChangesAsync(stop);
        }

        return TypedResults.NoContent();
    }

    private static Task<bool> IsOursAsync(int classId, int childId, FobbleDb db, CancellationToken stop) => db.Children.AnyAsync(c => c.Id == childId && c.ClassId == classId, stop);

    private static ValidationProblem NoSuchChild() => Faults.One("childId", "Choose a child of this class.");

    private static ValidationProblem NoSuchAdult() => Faults.One("adultId", "This adult does not belong to the class.");
}
