using Fobble.Core.Calendars;
using Fobble.Core.Grouping;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>The board of one week: ask, price, ask why not, look for others, go on looking, accept.</summary>
internal sealed class GroupsFeature : IFeature
{
    private const int MostOthers = 2;

    public void AddServices(IServiceCollection services)
    {
        services.AddScoped<GroupingReader>();
        services.AddScoped<GroupWishReader>();
        services.AddScoped<GroupHistory>();
        services.AddScoped<DayReform>();
    }

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
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
        jobs.MapGet("/better/{id:guid}", Results<Ok<ImproveView>, NotFound> (ClassRoom room, Guid id, JobQueue queue) =>
            queue.Find<ImproveJob>(room.Id, id) is { } job ? TypedResults.Ok(job.View) : TypedResults.NotFound()
        );
        jobs.MapDelete("/better/{id:guid}", Results<NoContent, NotFound> (ClassRoom room, Guid id, JobQueue queue) =>
            Stop(queue.Find<ImproveJob>(room.Id, id))
        );
        jobs.MapGet("/ahead/{id:guid}", Results<Ok<AheadView>, NotFound> (ClassRoom room, Guid id, JobQueue queue) =>
            queue.Find<AheadJob>(room.Id, id) is { } job ? TypedResults.Ok(job.View) : TypedResults.NotFound()
        );
        jobs.MapDelete("/ahead/{id:guid}", Results<NoContent, NotFound> (ClassRoom room, Guid id, JobQueue queue) => Stop(queue.Find<AheadJob>(room.Id, id)));
        ofClass.MapGroupWishes();
        ofClass.MapLookingBack();
    }

    /// <summary>The groups accepted for the week; none if nobody has accepted any.</summary>
    private static async Task<Ok<GroupsView>> GetAsync(ClassRoom room, DateOnly day, GroupingReader reader, CancellationToken stop) =>
        TypedResults.Ok((await reader.ReadAsync(SchoolCalendar.MondayOf(day), stop)).ViewAccepted());

    private static async Task<Results<Ok<GroupsView>, ValidationProblem, ProblemHttpResult>> ProposeAsync(
        DateOnly day,
        GroupsAsk ask,
        ClassRoom room,
        GroupingReader reader,
        Solving solving,
        CancellationToken stop
    )
    {
        var whole = await reader.ReadAsync(SchoolCalendar.MondayOf(day), stop);
        if (whole.OpenSlots.Count == 0)
        {
            return NoPlace();
        }

        var week = whole.In(ask);
        if (week.OpenSlots.Count == 0)
        {
            return NoPlace();
        }

        week.Check(ask, []);
        var problem = week.ProblemFor(ask);
        return TypedResults.Ok(week.ViewProposal(await solving.RunAsync(room.Id, until => Grouper.Form(problem, until), stop)));
    }

    /// <summary>Sets nearly as good that give at least some children another aim.</summary>
    private static async Task<Results<Ok<OtherSets>, ValidationProblem>> OthersAsync(
        DateOnly day,
        GroupsOnBoard board,
        ClassRoom room,
        GroupingReader reader,
        Solving solving,
        CancellationToken stop
    )
    {
        var week = (await reader.ReadAsync(SchoolCalendar.MondayOf(day), stop)).In(board.Ask);
        week.Check(board.Ask, board.Groups);
        var problem = week.ProblemFor(board.Ask);
        var found = Grouper.AsFound(problem, week.Formed(board.Groups));
        var others = await solving.RunAsync(room.Id, until => Grouper.Others(problem, found, MostOthers, until), stop);
        return TypedResults.Ok(
            new OtherSets(
                [.. others.Select(week.ViewProposal)],
                others.Count > 0 ? null : Phrase($"There is no other set that differs by as much as {Words.Number(problem.LeastUnlike)} children.")
            )
        );
    }

    private static async Task<Results<Ok<IReadOnlyList<PriceView>>, ValidationProblem>> PricesAsync(
        DateOnly day,
        PricesRequest request,
        GroupingReader reader,
        CancellationToken stop
    )
    {
        var week = (await reader.ReadAsync(SchoolCalendar.MondayOf(day), stop)).In(request.Ask);
        week.Check(request.Ask, request.Groups);
        week.CheckChild(request.ChildId);
        var prices = HandMove.Prices(week.ProblemFor(request.Ask), week.Formed(request.Groups), new ChildId(request.ChildId), week.Brief, week.Names);
        return TypedResults.Ok<IReadOnlyList<PriceView>>([.. prices.Select(p => new PriceView(p.To, p.Price, p.Breaks, p.Reason))]);
    }

    private static async Task<Results<Ok<WhyNotView>, ValidationProblem>> WhyNotAsync(
        DateOnly day,
        WhyNotRequest request,
        ClassRoom room,
        GroupingReader reader,
        Solving solving,
        CancellationToken stop
    )
    {
        var week = (await reader.ReadAsync(SchoolCalendar.MondayOf(day), stop)).In(request.Ask);
        week.Check(request.Ask, request.Groups);
        week.CheckChild(request.ChildId);
        var (problem, groups, slot) = (week.ProblemFor(request.Ask), week.Formed(request.Groups), week.IndexOf(request.SlotId, request.Day));
        var answer = await solving.RunAsync(room.Id, until => WhyNot.Ask(problem, groups, new(request.ChildId), slot, week.Brief, week.Names, until), stop);
        return TypedResults.Ok(new WhyNotView(answer.Sentence, answer.Price, answer.Instead is { } instead ? week.ViewProposal(instead) : null));
    }

    /// <summary>Goes on looking in the background, from the groups on the board.</summary>
    private static async Task<Results<Ok<ImproveView>, ValidationProblem>> ImproveAsync(
        ClassRoom room,
        DateOnly day,
        GroupsOnBoard board,
        GroupingReader reader,
        JobQueue queue,
        HttpContext http,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var week = (await reader.ReadAsync(SchoolCalendar.MondayOf(day), stop)).In(board.Ask);
        week.Check(board.Ask, board.Groups);
        var problem = week.ProblemFor(board.Ask);
        return TypedResults.Ok(
            queue
                .Begin(new ImproveJob(room.Id, http.User.AdultId(), clock.GetUtcNow(), week, problem, Grouper.AsFound(problem, week.Formed(board.Groups))))
                .View
        );
    }

    private static async Task<Results<Ok<AheadView>, ValidationProblem, ProblemHttpResult>> AheadAsync(
        ClassRoom room,
        DateOnly day,
        AheadRequest request,
        GroupingReader reader,
        JobQueue queue,
        HttpContext http,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        RefusedException.Unless(
            request.Weeks is >= Rotation.FewestWeeks and <= Rotation.MostWeeks,
            "weeks",
            Phrase($"Groups are planned for {Rotation.FewestWeeks} to {Rotation.MostWeeks} weeks ahead.")
        );
        var weeks = await reader.AheadAsync(SchoolCalendar.MondayOf(day), request.Weeks, stop);
        return weeks.Count == 0 ? NoPlace() : TypedResults.Ok(queue.Begin(new AheadJob(room.Id, http.User.AdultId(), clock.GetUtcNow(), weeks)).View);
    }

    /// <summary>Takes the groups as they stand, moved by hand or not: the teacher decides. Sessions already held stay.</summary>
    private static async Task<Results<Ok<GroupsView>, ValidationProblem, ProblemHttpResult>> AcceptAsync(
        ClassRoom room,
        DateOnly day,
        AcceptRequest request,
        GroupingReader reader,
        Decisions decisions,
        HttpContext http,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var monday = SchoolCalendar.MondayOf(day);
        var week = await reader.ReadAsync(monday, stop);
        await Expected.GroupsOf(room, monday, request.Version).CheckAsync(room.Db, stop);
        var parts = week.Divided(request.Groups);
        var kept = week.HeldSessions.Select(s => s.Value).ToList();
        await decisions.DecideAsync(
            Expected.GroupsOf(room, monday, request.Version),
            async db =>
            {
                var set = new GroupSetRow
                {
                    ClassId = room.Id.Value,
                    Monday = monday,
                    AcceptedAt = clock.GetUtcNow(),
                    AcceptedBy = http.User.AdultId().Value,
                };
                set.Sessions.AddRange(parts.SelectMany(p => p.Part.ToSessions(p.Part.Formed(p.Groups))));
                db.GroupSets.Add(set);
                await db.SaveChangesAsync(stop);
                await db.GroupSessions.Where(s => kept.Contains(s.Id)).ExecuteUpdateAsync(s => s.SetProperty(x => x.SetId, set.Id), stop);
            },
            stop
        );
        await room.AgainAsync(stop);
        return TypedResults.Ok((await reader.ReadAsync(monday, stop)).ViewAccepted());
    }

    private static ProblemHttpResult NoPlace() =>
        TypedResults.Problem(
            Phrase("This week has no free place for a small group: look at the closures and the timetable in Set-up."),
            statusCode: StatusCodes.Status409Conflict,
            title: Phrase("No place for groups")
        );

    private static Results<NoContent, NotFound> Stop(Job? job)
    {
        job?.Cancel();
        return job is null ? TypedResults.NotFound() : TypedResults.NoContent();
    }
}
