using System.Security.Claims;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>The board of one week: ask, price, ask why not, look for others, go on looking, accept.</summary>
internal static class GroupsEndpoints
{
    private const int OtherSets = 2;

    public static void MapGroups(this IEndpointRouteBuilder ofClass)
    {
        var groups = ofClass.MapGroup("/weeks/{day}/groups");
        groups.MapGet("/", GetAsync);
        var lead = groups.MapGroup("/").RequireAuthorization(Policies.Lead);
        lead.MapPost("/proposal", ProposeAsync);
        lead.MapPost("/others", OthersAsync);
        lead.MapPost("/prices", PricesAsync);
        lead.MapPost("/why-not", WhyNotAsync);
        lead.MapPost("/better", ImproveAsync);
        lead.MapPost("/accept", AcceptAsync);
        lead.MapPost("/ahead", AheadAsync);
        var jobs = ofClass.MapGroup("/groups").RequireAuthorization(Policies.Lead);
        jobs.MapGet("/better/{id:guid}", Results<Ok<ImproveView>, NotFound> (int classId, Guid id, Desk<ImproveJob> desk) => desk.Find(classId, id) is { } job ? TypedResults.Ok(job.View) : TypedResults.NotFound());
        jobs.MapDelete("/better/{id:guid}", Results<NoContent, NotFound> (int classId, Guid id, Desk<ImproveJob> desk) => Stop(desk, classId, id));
        jobs.MapGet("/ahead/{id:guid}", Results<Ok<AheadView>, NotFound> (int classId, Guid id, Desk<AheadJob> desk) => desk.Find(classId, id) is { } job ? TypedResults.Ok(job.View) : TypedResults.NotFound());
        jobs.MapDelete("/ahead/{id:guid}", Results<NoContent, NotFound> (int classId, Guid id, Desk<AheadJob> desk) => Stop(desk, classId, id));
    }

    /// <summary>The groups accepted for the week; none if nobody has accepted any.</summary>
    private static async Task<Ok<GroupsView>> GetAsync(int classId, DateOnly day, GroupingReader reader, CancellationToken stop) =>
        TypedResults.Ok((await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop)).ViewAccepted());

    private static async Task<Results<Ok<GroupsView>, ValidationProblem, ProblemHttpResult>> ProposeAsync(int classId, DateOnly day, GroupsAsk ask, GroupingReader reader, CancellationToken stop)
    {
        var round = await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop);
        if (round.OpenSlots.Count == 0)
        {
            return NoPlace();
        }

        return round.FaultOf(ask) is { } fault ? fault : TypedResults.Ok(round.ViewProposal(Grouper.Form(round.ProblemFor(ask))));
    }

    /// <summary>Sets nearly as good that give at least some children another aim.</summary>
    private static async Task<Results<Ok<IReadOnlyList<GroupsView>>, ValidationProblem>> OthersAsync(int classId, DateOnly day, GroupsOnBoard board, GroupingReader reader, CancellationToken stop)
    {
        var round = await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop);
        if (FaultOf(round, board.Ask, board.Groups) is { } fault)
        {
            return fault;
        }

        var problem = round.ProblemFor(board.Ask);
        return TypedResults.Ok<IReadOnlyList<GroupsView>>([.. Grouper.Others(problem, Grouper.AsFound(problem, round.Formed(board.Groups)), OtherSets).Select(round.ViewProposal)]);
    }

    private static async Task<Results<Ok<IReadOnlyList<PriceView>>, ValidationProblem>> PricesAsync(int classId, DateOnly day, PricesRequest request, GroupingReader reader, CancellationToken stop)
    {
        var round = await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop);
        if ((FaultOf(round, request.Ask, request.Groups) ?? NotOurs(round, request.ChildId)) is { } fault)
        {
            return fault;
        }

        var prices = HandMove.Prices(round.ProblemFor(request.Ask), round.Formed(request.Groups), new ChildId(request.ChildId), round.Brief, round.Names);
        return TypedResults.Ok<IReadOnlyList<PriceView>>([.. prices.Select(p => new PriceView(p.To, p.Price, p.Breaks, p.Reason))]);
    }

    private static async Task<Results<Ok<WhyNotView>, ValidationProblem>> WhyNotAsync(int classId, DateOnly day, WhyNotRequest request, GroupingReader reader, CancellationToken stop)
    {
        var round = await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop);
        if ((FaultOf(round, request.Ask, request.Groups) ?? NotOurs(round, request.ChildId)) is { } fault)
        {
            return fault;
        }

        var answer = WhyNot.Ask(round.ProblemFor(request.Ask), round.Formed(request.Groups), new(request.ChildId), round.IndexOf(request.SlotId, request.Day), round.Brief, round.Names);
        return TypedResults.Ok(new WhyNotView(answer.Sentence, answer.Price, answer.Instead is { } instead ? round.ViewProposal(instead) : null));
    }

    /// <summary>Goes on looking in the background, from the groups on the board.</summary>
    private static async Task<Results<Ok<ImproveView>, ValidationProblem>> ImproveAsync(int classId, DateOnly day, GroupsOnBoard board, GroupingReader reader, Desk<ImproveJob> desk, TimeProvider clock, CancellationToken stop)
    {
        var round = await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop);
        if (FaultOf(round, board.Ask, board.Groups) is { } fault)
        {
            return fault;
        }

        var problem = round.ProblemFor(board.Ask);
        return TypedResults.Ok(desk.Begin(new(classId, clock.GetUtcNow(), round, problem, Grouper.AsFound(problem, round.Formed(board.Groups)))).View);
    }

    private static async Task<Results<Ok<AheadView>, ValidationProblem, ProblemHttpResult>> AheadAsync(int classId, DateOnly day, AheadRequest request, GroupingReader reader, Desk<AheadJob> desk, TimeProvider clock, CancellationToken stop)
    {
        if (request.Weeks is < 2 or > 8)
        {
            return Faults.One("weeks", "Groups are planned for two to eight weeks ahead.");
        }

        var weeks = await reader.AheadAsync(classId, SchoolCalendar.MondayOf(day), request.Weeks, stop);
        return weeks.Count == 0 ? NoPlace() : TypedResults.Ok(desk.Begin(new(classId, clock.GetUtcNow(), weeks)).View);
    }

    /// <summary>Takes the groups as they stand, moved by hand or not: the teacher decides. Sessions already held stay.</summary>
    private static async Task<Results<Ok<GroupsView>, ValidationProblem>> AcceptAsync(
        int classId, DateOnly day, AcceptRequest request, GroupingReader reader, ClaimsPrincipal user, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var monday = SchoolCalendar.MondayOf(day);
        var round = await reader.ReadAsync(classId, monday, stop);
        if (round.FaultOf(request.Groups) is { } fault)
        {
            return fault;
        }

        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var cycle = new GroupCycle { ClassId = classId, Monday = monday, AcceptedAt = clock.GetUtcNow(), AcceptedBy = user.AdultId() };
        cycle.Sessions.AddRange(round.ToSessions(round.Formed(request.Groups)));
        db.GroupCycles.Add(cycle);
        await db.SaveChangesAsync(stop);
        var kept = round.Held.Select(s => s.Id).ToList();
        await db.GroupSessions.Where(s => kept.Contains(s.Id)).ExecuteUpdateAsync(s => s.SetProperty(x => x.CycleId, cycle.Id), stop);
        await transaction.CommitAsync(stop);
        db.ChangeTracker.Clear();
        return TypedResults.Ok((await reader.ReadAsync(classId, monday, stop)).ViewAccepted());
    }

    private static ValidationProblem? FaultOf(GroupingRound round, GroupsAsk ask, IReadOnlyList<ChosenGroup> groups) => round.FaultOf(ask) ?? round.FaultOf(groups);

    private static ValidationProblem? NotOurs(GroupingRound round, int child) => round.IsOurs(child) ? null : Faults.One("childId", "The child is not in this class.");

    private static ProblemHttpResult NoPlace() => TypedResults.Problem(
        "This week has no free place for a small group: look at the closures and the timetable in Set-up.", statusCode: StatusCodes.Status409Conflict, title: "No place for groups");

    private static Results<NoContent, NotFound> Stop<TJob>(Desk<TJob> desk, int classId, Guid id)
        where TJob : Job
    {
        if (desk.Find(classId, id) is not { } job)
        {
            return TypedResults.NotFound();
        }

        job.Cancel();
        return TypedResults.NoContent();
    }
}
