using Fobble.Core.Grouping;
using Fobble.Core.Planning;
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
        ofClass
            .MapGet("/group-wishes", async (GroupWishReader reader, CancellationToken stop) => TypedResults.Ok(await reader.ViewAsync(stop)))
            .RequireAuthorization(Policies.Lead);
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

    private static async Task<Results<NoContent, ValidationProblem>> SetAsync(
        ClassRoom room,
        GroupSettingsChange change,
        Decisions decisions,
        CancellationToken stop
    )
    {
        Refusals refusals = new();
        refusals.Check(
            "minSize",
            change is { MinSize: >= GroupRules.Smallest, MaxSize: <= GroupRules.Largest } && change.MinSize <= change.MaxSize,
            Phrase("A group has two to six children, and the smallest size is not above the largest.")
        );
        refusals.Check(
            "mostNearAdult",
            change.MostNearAdult is null or (>= 1 and <= GroupRules.Largest),
            Phrase("At most one to six children in a group, or no limit.")
        );
        refusals.Check("mostAtOnce", change.MostAtOnce is null or (>= 1 and <= 10), Phrase("One to ten groups at a time, or no limit."));
        refusals.Check("turnsAWeek", Enum.IsDefined(change.TurnsAWeek), Phrase("One turn, two, or as places allow."));
        refusals.Check(
            "weights",
            change.Weights.All(w => GroupWeights.All.Any(k => k.Key == w.Key) && GroupWeights.Steps.Contains(w.Value)),
            Phrase("There is no such weight, or no such step.")
        );
        refusals.ThrowIfAny();
        var weights = GroupWeights.All.Aggregate(GroupWeights.Usual, (all, w) =>
            change.Weights.TryGetValue(w.Key, out var percent) ? w.With(all, percent) : all
        );
        GroupSettingsRow row = new()
        {
            ClassId = room.Id.Value,
            MinSize = change.MinSize,
            MaxSize = change.MaxSize,
            EveryoneOnce = change.EveryoneOnce,
            MostNearAdult = change.MostNearAdult,
            MostAtOnce = change.MostAtOnce,
            TurnsAWeek = change.TurnsAWeek,
            Near = weights.Near,
            Lessons = weights.Lessons,
            Turns = weights.Turns,
            LookAgain = weights.LookAgain,
            Company = weights.Company,
            Slips = weights.Slips,
            Numbers = weights.Numbers,
            Stay = weights.Stay,
        };
        await decisions.DecideAsync(
            async db =>
            {
                if (await db.GroupSettings.FindAsync([room.Id.Value], stop) is { } stored)
                {
                    db.Entry(stored).CurrentValues.SetValues(row);
                }
                else
                {
                    db.GroupSettings.Add(row);
                }
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem>> AddPairAsync(
        ClassRoom room,
        NewPairWish request,
        Decisions decisions,
        CancellationToken stop
    )
    {
        var (first, second) = (Math.Min(request.First, request.Second), Math.Max(request.First, request.Second));
        RefusedException.Unless(
            first != second && await IsOursAsync(room, first, stop) && await IsOursAsync(room, second, stop),
            "first",
            Phrase("Choose two different children of this class.")
        );
        await decisions.DecideAsync(
            async db =>
            {
                if (await db.PairWishes.FindAsync([first, second], stop) is { } wish)
                {
                    (wish.Together, wish.Until) = (request.Together, request.Until);
                }
                else
                {
                    db.PairWishes.Add(
                        new PairWish
                        {
                            FirstId = first,
                            SecondId = second,
                            Together = request.Together,
                            Until = request.Until,
                        }
                    );
                }
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemovePairAsync(ClassRoom room, int first, int second, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(
            db =>
                db.PairWishes.Where(w => w.First!.ClassId == room.Id.Value && w.FirstId == Math.Min(first, second) && w.SecondId == Math.Max(first, second))
                    .ExecuteDeleteAsync(stop),
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem>> AddAdultAsync(
        ClassRoom room,
        NewAdultWish request,
        Decisions decisions,
        CancellationToken stop
    )
    {
        await CheckChildAsync(room, request.ChildId, stop);
        await CheckAdultAsync(room, new(request.AdultId), stop);
        await decisions.DecideAsync(
            async db =>
            {
                if (await db.AdultWishes.FindAsync([request.ChildId, request.AdultId], stop) is { } stored)
                {
                    stored.With = request.With;
                }
                else
                {
                    db.AdultWishes.Add(
                        new()
                        {
                            ChildId = request.ChildId,
                            AdultId = request.AdultId,
                            With = request.With,
                        }
                    );
                }
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemoveAdultAsync(ClassRoom room, ChildId childId, AdultId adultId, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(
            db =>
                db.AdultWishes.Where(w => w.Child!.ClassId == room.Id.Value && w.ChildId == childId.Value && w.AdultId == adultId.Value)
                    .ExecuteDeleteAsync(stop),
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem>> AddTimeOutAsync(
        ClassRoom room,
        NewTimeOut request,
        Decisions decisions,
        CancellationToken stop
    )
    {
        await CheckChildAsync(room, request.ChildId, stop);
        SlotRules.CheckSlice(new(request.Weekday, request.From, request.Until), Phrase("Times out of class are"));
        await decisions.DecideAsync(
            db =>
            {
                db.TimesOut.Add(
                    new()
                    {
                        ChildId = request.ChildId,
                        Weekday = request.Weekday,
                        From = request.From,
                        Until = request.Until,
                    }
                );
                return Task.CompletedTask;
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemoveTimeOutAsync(ClassRoom room, int id, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(db => db.TimesOut.Where(t => t.Child!.ClassId == room.Id.Value && t.Id == id).ExecuteDeleteAsync(stop), stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound>> SetNearAdultAsync(
        ClassRoom room,
        ChildId childId,
        NearAdultChange change,
        Decisions decisions,
        CancellationToken stop
    )
    {
        var changed = await decisions.DecideAsync(
            db =>
                db.Children.Where(c => c.Id == childId.Value && c.ClassId == room.Id.Value)
                    .ExecuteUpdateAsync(c => c.SetProperty(x => x.NeedsAdultNear, change.Near), stop),
            stop
        );
        return changed == 1 ? TypedResults.NoContent() : TypedResults.NotFound();
    }

    private static async Task<Results<NoContent, ValidationProblem>> SetAdultAsync(
        ClassRoom room,
        AdultId adultId,
        AdultGroupsChange change,
        Decisions decisions,
        CancellationToken stop
    )
    {
        await CheckAdultAsync(room, adultId, stop);
        Refusals refusals = new();
        refusals.Check("strands", change.Strands.All(s => room.Map.Skills.Any(k => k.Strand == s)), Phrase("There is no such strand."));
        refusals.Check("most", change.Most is null or (>= 0 and <= 50), Phrase("At most 0 to 50 groups a week, or no limit."));
        refusals.ThrowIfAny();
        await decisions.DecideAsync(
            async db =>
            {
                await db.AdultGroups.Where(a => a.ClassId == room.Id.Value && a.AdultId == adultId.Value).ExecuteDeleteAsync(stop);
                if (change.Strands.Count > 0 || change.Most is not null)
                {
                    db.AdultGroups.Add(
                        new()
                        {
                            ClassId = room.Id.Value,
                            AdultId = adultId.Value,
                            Strands = [.. change.Strands.Distinct()],
                            Most = change.Most,
                        }
                    );
                }
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<bool> IsOursAsync(ClassRoom room, int childId, CancellationToken stop) => await room.NameOfAsync(new(childId), stop) is not null;

    private static async Task CheckChildAsync(ClassRoom room, int childId, CancellationToken stop) =>
        RefusedException.Unless(await IsOursAsync(room, childId, stop), "childId", Phrase("Choose a child of this class."));

    private static async Task CheckAdultAsync(ClassRoom room, AdultId adult, CancellationToken stop) =>
        RefusedException.Unless(
            await room.Db.Memberships.AnyAsync(m => m.ClassId == room.Id.Value && m.AdultId == adult.Value, stop),
            "adultId",
            Phrase("This adult does not belong to the class.")
        );
}
