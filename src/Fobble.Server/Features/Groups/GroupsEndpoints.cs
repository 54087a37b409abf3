using System.Security.Claims;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

internal static class GroupsEndpoints
{
    public static void MapGroups(this IEndpointRouteBuilder ofClass)
    {
        var groups = ofClass.MapGroup("/weeks/{day}/groups");
        groups.MapGet("/", GetAsync);
        groups.MapPost("/proposal", ProposeAsync).RequireAuthorization(Policies.Lead);
        groups.MapPost("/prices", PricesAsync).RequireAuthorization(Policies.Lead);
        groups.MapPost("/accept", AcceptAsync).RequireAuthorization(Policies.Lead);
        ofClass.MapPost("/pair-wishes", AddWishAsync).RequireAuthorization(Policies.Lead);
        ofClass.MapDelete("/pair-wishes/{first:int}/{second:int}", RemoveWishAsync).RequireAuthorization(Policies.Lead);
    }

    /// <summary>The groups accepted for the week; none if nobody has accepted any.</summary>
    private static async Task<Ok<GroupsView>> GetAsync(int classId, DateOnly day, GroupingRound.Reader reader, CancellationToken stop)
    {
        var round = await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop);
        return TypedResults.Ok(round.ViewAccepted());
    }

    private static async Task<Results<Ok<GroupsView>, ValidationProblem, ProblemHttpResult>> ProposeAsync(int classId, DateOnly day, GroupWishes wishes, GroupingRound.Reader reader, CancellationToken stop)
    {
        if (FaultOf(wishes) is { } fault)
        {
            return fault;
        }

        var round = await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop);
        if (round.OpenSlots.Count == 0)
        {
            return TypedResults.Problem(
                "This week has no free place for a small group: look at the closures and the timetable in Set-up.", statusCode: StatusCodes.Status409Conflict, title: "No place for groups");
        }

        return TypedResults.Ok(round.ViewProposal(Grouper.Form(round.ProblemFor(wishes))));
    }

    private static async Task<Results<Ok<IReadOnlyList<PriceView>>, ValidationProblem>> PricesAsync(int classId, DateOnly day, PricesRequest request, GroupingRound.Reader reader, CancellationToken stop)
    {
        var round = await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop);
        if ((FaultOf(request.Wishes) ?? round.FaultOf(request.Groups)) is { } fault)
        {
            return fault;
        }

        var prices = HandMove.Prices(round.ProblemFor(request.Wishes), round.Formed(request.Groups), new ChildId(request.ChildId), round.Brief, round.NameOf);
        return TypedResults.Ok<IReadOnlyList<PriceView>>([.. prices.Select(p => new PriceView(p.To, p.Price, p.Breaks, p.Reason))]);
    }

    /// <summary>Takes the groups as they stand, moved by hand or not: the teacher decides. Sessions already held stay.</summary>
    private static async Task<Results<Ok<GroupsView>, ValidationProblem>> AcceptAsync(
        int classId, DateOnly day, AcceptRequest request, GroupingRound.Reader reader, ClaimsPrincipal user, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var monday = SchoolCalendar.MondayOf(day);
        var round = await reader.ReadAsync(classId, monday, stop);
        if ((FaultOf(request.Wishes) ?? round.FaultOf(request.Groups)) is { } fault)
        {
            return fault;
        }

        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var cycle = new GroupCycle { ClassId = classId, Monday = monday, AcceptedAt = clock.GetUtcNow(), AcceptedBy = user.AdultId() };
        cycle.Sessions.AddRange(round.ToSessions(round.Formed(request.Groups)));
        db.GroupCycles.Add(cycle);
        await db.SaveChangesAsync(stop);
        var kept = round.Run.Select(s => s.Id).ToList();
        await db.GroupSessions.Where(s => kept.Contains(s.Id)).ExecuteUpdateAsync(s => s.SetProperty(x => x.CycleId, cycle.Id), stop);
        await transaction.CommitAsync(stop);
        db.ChangeTracker.Clear();
        return TypedResults.Ok((await reader.ReadAsync(classId, monday, stop)).ViewAccepted());
    }

    private static async Task<Results<NoContent, ValidationProblem>> AddWishAsync(int classId, NewPairWish request, FobbleDb db, CancellationToken stop)
    {
        var (first, second) = (Math.Min(request.First, request.Second), Math.Max(request.First, request.Second));
        if (first == second || await db.Children.CountAsync(c => c.ClassId == classId && (c.Id == first || c.Id == second), stop) != 2)
        {
            return Faults.One("first", "Choose two different children of this class.");
        }

        var wish = await db.PairWishes.FindAsync([first, second], stop);
        if (wish is null)
        {
            db.PairWishes.Add(new PairWish { FirstId = first, SecondId = second, Together = request.Together });
        }
        else
        {
            wish.Together = request.Together;
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemoveWishAsync(int classId, int first, int second, FobbleDb db, CancellationToken stop)
    {
        await db.PairWishes.Where(w => w.First!.ClassId == classId && w.FirstId == Math.Min(first, second) && w.SecondId == Math.Max(first, second)).ExecuteDeleteAsync(stop);
        return TypedResults.NoContent();
    }

    private static ValidationProblem? FaultOf(GroupWishes wishes) =>
        wishes is { MinSize: >= 2, MaxSize: <= 6 } && wishes.MinSize <= wishes.MaxSize ? null : Faults.One("minSize", "A group has two to six children, and the smallest size is not above the largest.");
}
