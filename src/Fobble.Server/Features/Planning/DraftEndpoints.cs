using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Core.Standards;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Planning;

/// <summary>From what shall be taught to a plan: worked out in the background, looked at, taken.</summary>
internal static class DraftEndpoints
{
    public static void MapDrafts(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/plan/scope", ScopeAsync);
        ofClass.MapPost("/plan/fit", FitAsync).RequireAuthorization(Policies.Lead);
        var lead = ofClass.MapGroup("/plan/drafts").RequireAuthorization(Policies.Lead);
        lead.MapPost("/", BeginAsync);
        lead.MapGet("/{id:guid}", Get);
        lead.MapDelete("/{id:guid}", Cancel);
        lead.MapPost("/{id:guid}/accept", AcceptAsync);
    }

    private static async Task<Ok<ScopeChoices>> ScopeAsync(ClassRoom room, PlanReader reader, HttpContext http, CancellationToken stop)
    {
        var map = room.Map;
        var request = await reader.RequestAsync(PlanAsk.Usual with { UpTo = Season.Beyond }, stop);
        var scope = YearScope.Of(request);
        var lessons = scope.Problem.Items.ToDictionary(i => i.Skill, i => i.Lessons);
        var why = scope
            .Problem.Items.ToDictionary(i => i.Skill, i => i.Why)
            .Concat(scope.LeftOut.ToDictionary(l => l.Skill, l => l.Why))
            .ToDictionary(p => p.Key, p => p.Value);
        int Lessons(IEnumerable<Skill> skills) => skills.SelectMany(s => map.AllNeeds(s.Id).Append(s.Id)).Distinct().Sum(s => lessons.GetValueOrDefault(s));
        var current = (await room.PlanAsync(stop))?.Document.Ask;
        var offered = await reader.OfferedAsync(current ?? PlanAsk.Usual, stop);
        return TypedResults.Ok(
            new ScopeChoices(
                offered.Ask,
                current is null || offered.Waiting.Count > 0 ? offered.Sentence : null,
                request.From,
                request.Until,
                scope.Problem.Days.Count(d => d.Places > 0),
                PlanningFeature.Strands(room),
                [
                    .. Enum.GetValues<Season>()
                        .Select(season => new ScopeSeason(season, map.Skills.Count(s => s.When <= season), Lessons(map.Skills.Where(s => s.When <= season)))),
                ],
                [
                    .. Framework
                        .Shipped.Select(f => (f.Name, Skills: map.Skills.Where(s => f.Standards.Any(c => s.Standards.Contains(c.Code))).ToList()))
                        .Select(f => new ScopeFramework(f.Name, f.Skills.Count, Lessons(f.Skills))),
                ],
                await reader.EarlierPlansAsync(http.User.AdultId(), stop),
                [
                    .. map
                        .Skills.Where(s => why.ContainsKey(s.Id))
                        .Select(s => new ScopeSkill(
                            s.Id.Value,
                            s.Short,
                            s.Strand,
                            s.When,
                            lessons.GetValueOrDefault(s.Id),
                            s.Lessons,
                            why[s.Id],
                            [.. map.AllNeeds(s.Id).Select(n => n.Value)]
                        )),
                ]
            )
        );
    }

    /// <summary>Whether it would fit, counted at once: asked while someone chooses.</summary>
    private static async Task<Ok<FitView>> FitAsync(ClassRoom room, PlanAsk ask, PlanReader reader, HttpContext http, CancellationToken stop)
    {
        await CheckAsync(ask, reader, http, stop);
        return TypedResults.Ok(View(Fit.Of(YearScope.Of(await reader.RequestAsync(ask, stop)).Problem)));
    }

    private static async Task CheckAsync(PlanAsk ask, PlanReader reader, HttpContext http, CancellationToken stop)
    {
        var earlier = await reader.EarlierPlansAsync(http.User.AdultId(), stop);
        if (ask.Faults(id => earlier.Any(p => p.Id == id)) is { Count: > 0 } faults)
        {
            throw new RefusedException(faults);
        }
    }

    private static async Task<Ok<DraftView>> BeginAsync(
        ClassRoom room,
        PlanAsk ask,
        PlanReader reader,
        JobQueue jobs,
        HttpContext http,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        await CheckAsync(ask, reader, http, stop);
        var was = (await room.PlanAsync(stop))?.Version ?? 0;
        return TypedResults.Ok(
            View(jobs.Begin(new Draft(room.Id, http.User.AdultId(), ask, was, clock.GetUtcNow(), await reader.RequestAsync(ask, stop))), room)
        );
    }

    private static Results<Ok<DraftView>, NotFound> Get(ClassRoom room, Guid id, JobQueue jobs) =>
        jobs.Find<Draft>(room.Id, id) is { } draft ? TypedResults.Ok(View(draft, room)) : TypedResults.NotFound();

    private static Results<NoContent, NotFound> Cancel(ClassRoom room, Guid id, JobQueue jobs)
    {
        if (jobs.Find<Draft>(room.Id, id) is not { } draft)
        {
            return TypedResults.NotFound();
        }

        draft.Cancel();
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound, ProblemHttpResult>> AcceptAsync(
        ClassRoom room,
        Guid id,
        AcceptDraft accepted,
        JobQueue jobs,
        PlanWriter writer,
        HttpContext http,
        CancellationToken stop
    )
    {
        if (jobs.Find<Draft>(room.Id, id) is not { } draft)
        {
            return TypedResults.NotFound();
        }

        if (draft is not { State: JobState.Done, Plan: { } plan })
        {
            return TypedResults.Problem(Phrase("This plan is not ready to be taken."), statusCode: StatusCodes.Status409Conflict, title: Phrase("Not ready"));
        }

        // What the plan before had for days that are past stays: it tells what was meant.
        await Expected.PlanVersion(room, accepted.Version).CheckAsync(room.Db, stop);
        var past = (await room.PlanAsync(stop))?.Document;
        var kept = past?.Plan.Lessons.Where(l => l.Day < draft.From).ToList() ?? [];
        var document = new PlanDocument(
            draft.Ask,
            past?.From ?? draft.From,
            draft.Until,
            plan with
            {
                Lessons = [.. kept, .. plan.Lessons],
                Reviews = [.. past?.Plan.Reviews.Where(r => r.Day < draft.From) ?? [], .. plan.Reviews],
            }
        );
        var skills = plan.Lessons.Select(l => l.Skill).Distinct().Count();
        await writer.KeepAsync(
            http.User.AdultId(),
            new(
                accepted.Version,
                document,
                Phrase($"{(past is null ? "Planned" : "Planned anew")} from {Words.Date(draft.From)}: {skills} skills in {plan.Lessons.Count} lessons.")
            ),
            stop
        );
        jobs.Forget(draft);
        return TypedResults.NoContent();
    }

    private static DraftView View(Draft draft, ClassRoom room)
    {
        var map = room.Map;
        var usual = draft.Scope?.Problem.Items.Where(i => i.Why.Length > 0).Select(i => $"{map[i.Skill].Short}: {i.Why}").ToList() ?? [];
        return new(
            draft.Id,
            draft.State,
            draft.Progress,
            draft.Doing,
            draft.Ask,
            draft.Fit is { } fit ? View(fit) : null,
            [
                .. draft.Ways.Select(w => new WayOutView(
                    w.Way.Kind,
                    w.Way.Title,
                    w.Way.Loses,
                    w.Gains,
                    w.Fit.Fits && w.Plan.Unplaced.Count == 0,
                    [.. w.Way.Dropped.Select(s => map[s].Short)],
                    draft.Ask.With(w.Way)
                )),
            ],
            draft is { State: JobState.Done, Plan: { } plan }
                ? new(
                    PlanViews.Of(plan.Lessons, map, room.Approach, draft.From),
                    [.. plan.Missed.Select(m => $"{map[m.Skill].Short}: {m.Why}")],
                    [.. plan.Unplaced.Select(u => Phrase($"{map[new(u.Key)].Short}: {Words.Count(u.Value, "lesson", "lessons")} without a place"))],
                    Phrase(
                        $"{plan.Lessons.Select(l => l.Skill).Distinct().Count()} skills in {plan.Lessons.Count} lessons, {plan.Reviews.Count} starters{(plan.Missed.Count == 0 ? "" : $", {Words.Count(plan.Missed.Count, "starter", "starters")} without a place")}: the best of {plan.Settings.Tries} tries and {plan.Settings.Steps.ToString("N0", System.Globalization.CultureInfo.InvariantCulture)} changes."
                    )
                )
                : null,
            [.. draft.Scope?.LeftOut.Select(l => $"{map[l.Skill].Short}: {l.Why}") ?? []],
            usual,
            draft.Was
        );
    }

    internal static FitView View(Fit fit) => new(fit.Lessons, fit.Room, fit.Buffer, fit.Over, fit.ReviewsOver, fit.Sentence);
}
