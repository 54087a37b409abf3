using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Core.Standards;
using Fobble.Data;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Planning;

/// <summary>From what shall be taught to a plan: worked out in the background, looked at, taken.</summary>
internal static class DraftEndpoints
{
    private static readonly PlanAsk Usual = new(ScopeSource.Seasons, Season.Summer, [], [], null, [], PlanSettings.Usual.BufferOneIn, PlanSettings.Usual.StartersADay, PlanSettings.Usual.Gaps.Count, [], false, false, 1);

    public static void MapDrafts(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/plan/scope", ScopeAsync);
        var lead = ofClass.MapGroup("/plan/drafts").RequireAuthorization(Policies.Lead);
        lead.MapPost("/", BeginAsync);
        lead.MapGet("/{id:guid}", GetAsync);
        lead.MapDelete("/{id:guid}", CancelAsync);
        lead.MapPost("/{id:guid}/accept", AcceptAsync);
    }

    private static async Task<Results<Ok<ScopeChoices>, ProblemHttpResult>> ScopeAsync(int classId, PlanReader reader, SkillMap map, HttpContext http, CancellationToken stop)
    {
        YearRequest request;
        try
        {
            request = await reader.RequestAsync(classId, Usual with { UpTo = Season.Beyond }, stop);
        }
        catch (FormatException fault)
        {
            return TypedResults.Problem(fault.Message, statusCode: StatusCodes.Status409Conflict, title: "Nothing to plan");
        }

        var scope = YearScope.Of(request);
        var lessons = scope.Problem.Items.ToDictionary(i => i.Skill, i => i.Lessons);
        var why = scope.Problem.Items.ToDictionary(i => i.Skill, i => i.Why).Concat(scope.LeftOut.ToDictionary(l => l.Skill, l => l.Why)).ToDictionary(p => p.Key, p => p.Value);
        int Lessons(IEnumerable<Skill> skills) => skills.SelectMany(s => map.AllNeeds(s.Id).Append(s.Id)).Distinct().Sum(s => lessons.GetValueOrDefault(s));
        return TypedResults.Ok(new ScopeChoices(
            (await reader.CurrentAsync(classId, stop))?.Document.Ask ?? Usual, request.From, request.Until, scope.Problem.Days.Count(d => d.Places > 0), PlanEndpoints.Strands(map),
            [.. Enum.GetValues<Season>().Select(season => new ScopeSeason(season, map.Skills.Count(s => s.When <= season), Lessons(map.Skills.Where(s => s.When <= season))))],
            [.. Framework.Shipped.Select(f => (f.Name, Skills: map.Skills.Where(s => f.Standards.Any(c => s.Standards.Contains(c.Code))).ToList())).Select(f => new ScopeFramework(f.Name, f.Skills.Count, Lessons(f.Skills)))],
            await reader.EarlierPlansAsync(classId, http.User.Adult().Id, stop),
            [.. map.Skills.Where(s => why.ContainsKey(s.Id)).Select(s => new ScopeSkill(s.Id.Value, s.Short, s.Strand, s.When, lessons.GetValueOrDefault(s.Id), s.Lessons, why[s.Id]))]));
    }

    private static async Task<Results<Ok<DraftView>, ValidationProblem>> BeginAsync(int classId, PlanAsk ask, PlanReader reader, Desk<Draft> desk, ClassFacts facts, SkillMap map, HttpContext http, TimeProvider clock, CancellationToken stop)
    {
        Faults faults = new();
        faults.Check("bufferOneIn", ask.BufferOneIn is 0 or (>= 3 and <= 40), "The buffer is none, or one place in 3 to 40.");
        faults.Check("startersADay", ask.StartersADay is >= 0 and <= 4, "There are 0 to 4 starters a day.");
        faults.Check("rounds", ask.Rounds is >= 1 and <= 3, "A skill comes back once to three times.");
        faults.Check("moreOn", ask.MoreOn.All(d => d is not (DayOfWeek.Saturday or DayOfWeek.Sunday)), "Lessons are on weekdays.");
        faults.Check("source", Enum.IsDefined(ask.Source) && (ask.UpTo is null || Enum.IsDefined(ask.UpTo.Value)), "There is no such choice.");
        faults.Check("planId", ask.Source != ScopeSource.Before || (await reader.EarlierPlansAsync(classId, http.User.Adult().Id, stop)).Any(p => p.Id == ask.PlanId), "There is no such plan to copy.");
        if (!faults.None)
        {
            return faults.ToProblem("The plan can’t be made like that.");
        }

        try
        {
            var draft = desk.Begin(new(classId, ask, clock.GetUtcNow(), await reader.RequestAsync(classId, ask, stop)));
            return TypedResults.Ok(View(draft, map, await facts.ApproachAsync(classId, stop)));
        }
        catch (FormatException fault)
        {
            return Faults.One("source", fault.Message);
        }
    }

    private static async Task<Results<Ok<DraftView>, NotFound>> GetAsync(int classId, Guid id, Desk<Draft> desk, ClassFacts facts, SkillMap map, CancellationToken stop) =>
        desk.Find(classId, id) is { } draft ? TypedResults.Ok(View(draft, map, await facts.ApproachAsync(classId, stop))) : TypedResults.NotFound();

    private static Results<NoContent, NotFound> CancelAsync(int classId, Guid id, Desk<Draft> desk)
    {
        if (desk.Find(classId, id) is not { } draft)
        {
            return TypedResults.NotFound();
        }

        draft.Cancel();
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound, ProblemHttpResult>> AcceptAsync(int classId, Guid id, Desk<Draft> desk, PlanReader reader, PlanWriter writer, FobbleDb db, HttpContext http, CancellationToken stop)
    {
        if (desk.Find(classId, id) is not { } draft)
        {
            return TypedResults.NotFound();
        }

        if (draft is not { State: JobState.Done, Plan: { } plan })
        {
            return TypedResults.Problem("This plan is not ready to be taken.", statusCode: StatusCodes.Status409Conflict, title: "Not ready");
        }

        // What the plan before had for days that are past stays: it tells what was meant.
        var past = (await reader.CurrentAsync(classId, stop))?.Document;
        var kept = past?.Plan.Lessons.Where(l => l.Day < draft.From).ToList() ?? [];
        var document = new PlanDocument(draft.Ask, past?.From ?? draft.From, draft.Until, plan with { Lessons = [.. kept, .. plan.Lessons], Reviews = [.. past?.Plan.Reviews.Where(r => r.Day < draft.From) ?? [], .. plan.Reviews] });
        var skills = plan.Lessons.Select(l => l.Skill).Distinct().Count();
        await writer.KeepAsync(classId, http.User.Adult().Id, document, $"{(past is null ? "Planned" : "Planned anew")} from {Words.Date(draft.From)}: {skills} skills in {plan.Lessons.Count} lessons.", null, stop);
        desk.Forget(draft);
        return TypedResults.NoContent();
    }

    private static DraftView View(Draft draft, SkillMap map, Core.Approaches.Approach approach)
    {
        var usual = draft.Scope?.Problem.Items.Where(i => i.Why.Length > 0).Select(i => $"{map[i.Skill].Short}: {i.Why}").ToList() ?? [];
        return new(
            draft.Id, draft.State, draft.Progress, draft.Doing, draft.Ask,
            draft.Fit is { } fit ? View(fit) : null,
            [.. draft.Ways.Select(w => new WayOutView(w.Way.Kind, w.Way.Title, w.Way.Loses, w.Gains, w.Fit.Fits && w.Plan.Unplaced.Count == 0, [.. w.Way.Dropped.Select(s => map[s].Short)], Taken(draft.Ask, w.Way)))],
            draft is { State: JobState.Done, Plan: { } plan }
                ? new(
                    PlanViews.Of(plan.Lessons, map, approach, draft.From), [.. plan.Missed.Select(m => $"{map[m.Skill].Short}: {m.Why}")],
                    [.. plan.Unplaced.Select(u => $"{map[new(u.Key)].Short}: {Words.Count(u.Value, "lesson", "lessons")} without a place")],
                    $"{plan.Lessons.Select(l => l.Skill).Distinct().Count()} skills in {plan.Lessons.Count} lessons, {plan.Reviews.Count} starters{(plan.Missed.Count == 0 ? "" : $", {Words.Count(plan.Missed.Count, "starter", "starters")} without a place")}: the best of {plan.Settings.Tries} tries and {plan.Settings.Steps.ToString("N0", System.Globalization.CultureInfo.InvariantCulture)} changes.")
                : null,
            [.. draft.Scope?.LeftOut.Select(l => $"{map[l.Skill].Short}: {l.Why}") ?? []],
            usual);
    }

    internal static FitView View(Fit fit) => new(fit.Lessons, fit.Room, fit.Buffer, fit.Over, fit.ReviewsOver, fit.Sentence);

    private static PlanAsk Taken(PlanAsk ask, WayOut way) => ask with
    {
        BufferOneIn = way.Settings.BufferOneIn,
        Rounds = way.Settings.Gaps.Count,
        MoreOn = way.Settings.MoreOn,
        Shorter = way.Settings.Shorter,
        Dropped = [.. ask.Dropped.Concat(way.Dropped.Select(s => s.Value)).Distinct()],
    };
}
