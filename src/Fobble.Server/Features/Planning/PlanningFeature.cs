using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Planning;

/// <summary>The plan of the year in force, and changing it by hand.</summary>
internal sealed class PlanningFeature : IFeature
{
    private const int LongestNote = 300;
    private const int VersionsShown = 12;

    public void AddServices(IServiceCollection services)
    {
        services.AddScoped<PlanReader>();
        services.AddScoped<PlanWriter>();
    }

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/plan", GetAsync);
        ofClass.MapGet("/plan/lessons/{skill}/{number:int}/days", PricesAsync);
        var lead = ofClass.MapGroup("/").RequireAuthorization(Policies.Lead);
        lead.MapPost("/plan/moves", MoveAsync);
        lead.MapPut("/plan/lessons", ChangeAsync);
        lead.MapPost("/plan/undo", UndoAsync);
        ofClass.MapDrafts();
        ofClass.MapRevisions();
        ofClass.MapCoverage();
        ofClass.MapPlanPages();
    }

    private static async Task<Ok<PlanView>> GetAsync(ClassRoom room, PlanReader reader, CancellationToken stop)
    {
        var (map, approach) = (room.Map, room.Approach);
        var stored = await room.PlanAsync(stop);
        var from = await room.FirstOpenDayAsync(stop);
        var timetable = await room.TimetableAsync(stop);
        var settings = stored?.Document.Plan.Settings ?? PlanSettings.Usual;
        var year = await room.YearAsync(stop);
        var weeks = PlanViews.Weeks(timetable, settings, year, await room.YearEndsAsync(stop));
        var taught = await room.TaughtAsync(from, stop);
        var given = taught.Select(t => (t.Day, t.Skill.Value)).ToHashSet();
        List<LessonView> lessons =
        [
            .. PlanViews
                .Of(stored?.Document.Plan.Lessons ?? [], map, approach, from)
                .Select(l => l with { Given = l.Past && given.Contains((l.Day, l.Skill)) }),
        ];
        lessons.InsertRange(0, PlanViews.Given([.. taught.Where(t => t.Day >= year)], map, lessons.Select(l => (l.Day, l.Skill)).ToHashSet()));
        if (stored is null)
        {
            return TypedResults.Ok(new PlanView(null, false, room.Today, from, weeks, Strands(room), lessons, [], [], "", [], []));
        }

        var plan = stored.Document.Plan;
        var names = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Id, c => c.Name);
        var suggestions = PlanWatch.Look(await reader.SettingAsync(stored.Document, stop), await room.EvidenceAsync(stop));
        var versions = await room
            .Db.YearPlans.Where(p => p.ClassId == room.Id.Value && p.Year == year)
            .OrderByDescending(p => p.Version)
            .Take(VersionsShown)
            .Join(room.Db.Users, p => p.AdultId, a => a.Id, (p, a) => new PlanVersion(p.Version, p.At, a.FullName, p.What))
            .ToListAsync(stop);
        return TypedResults.Ok(
            new PlanView(
                versions[0],
                (stored.BackTo ?? stored.Version) > 1,
                room.Today,
                from,
                weeks,
                Strands(room),
                lessons,
                [
                    .. plan
                        .Reviews.Where(r => map.Has(r.Skill))
                        .Select(r => new ReviewView(r.Skill.Value, map[r.Skill].Short, map[r.Skill].Strand, r.Day, r.Round, r.Reason)),
                ],
                [.. plan.Missed.Where(m => map.Has(m.Skill)).Select(m => $"{map[m.Skill].Short}: {m.Why}")],
                PlanViews.Margin(plan, weeks, from),
                [
                    .. suggestions.Select(s => new SuggestionView(
                        s.Kind,
                        s.Skill?.Value,
                        s.Skill is { } skill ? map[skill].Short : null,
                        s.Lessons,
                        s.Days,
                        [.. s.Children.Select(c => names.GetValueOrDefault(c.Value, ""))],
                        s.Next is { } next ? map[next].Short : null,
                        s.Sentence
                    )),
                ],
                versions
            )
        );
    }

    internal static IReadOnlyList<PlanStrand> Strands(ClassRoom room) => [.. room.Map.Strands.Select(s => new PlanStrand(s.Id, s.Name))];

    internal static ProblemHttpResult NoPlan() =>
        TypedResults.Problem(Phrase("There is no plan for this year yet."), statusCode: StatusCodes.Status409Conflict, title: Phrase("No plan"));

    /// <summary>What each day would mean for a lesson: asked as it is picked up.</summary>
    private static async Task<Results<Ok<IReadOnlyList<DayPriceView>>, NotFound>> PricesAsync(
        ClassRoom room,
        string skill,
        int number,
        PlanReader reader,
        CancellationToken stop
    )
    {
        if (await room.PlanAsync(stop) is not { } stored || stored.Document.Plan.Find(new(skill), number) is null)
        {
            return TypedResults.NotFound();
        }

        var prices = PlanByHand.Prices(await reader.SettingAsync(stored.Document, stop), new(new(skill), number));
        return TypedResults.Ok<IReadOnlyList<DayPriceView>>([
            .. prices.Select(p => new DayPriceView(p.Day, p.Refused, p.Advice, p.With is { } with ? room.Map[with.Skill].Short : null)),
        ]);
    }

    private static async Task<Results<NoContent, ProblemHttpResult, NotFound>> MoveAsync(
        ClassRoom room,
        MoveLesson move,
        PlanReader reader,
        PlanWriter writer,
        HttpContext http,
        CancellationToken stop
    )
    {
        if (await room.PlanAsync(stop) is not { } stored)
        {
            return NoPlan();
        }

        await Expected.PlanVersion(room, move.Version).CheckAsync(room.Db, stop);
        LessonName name = new(new(move.Skill), move.Number);
        if (stored.Document.Plan.Find(name.Skill, name.Number) is not { } lesson)
        {
            return TypedResults.NotFound();
        }

        var setting = await reader.SettingAsync(stored.Document, stop);
        var price = PlanByHand.Prices(setting, name).FirstOrDefault(p => p.Day == move.Day);
        if (price is not { Refused: null } || PlanByHand.Move(setting, name, move.Day) is not { } lessons)
        {
            throw new RefusedException("day", price?.Refused ?? Phrase("There is no school that day, or it is past."));
        }

        RefusedException.Unless(price.Advice.Count == 0 || move.Anyway, "anyway", string.Join(" ", price.Advice));
        var document = await writer.WithLessonsAsync(stored.Document, lessons, null, stop);
        await writer.KeepAsync(
            http.User.AdultId(),
            new(
                move.Version,
                document,
                Phrase($"{room.Map[name.Skill].Short}, lesson {name.Number}: from {Words.Date(lesson.Day)} to {Words.Date(move.Day)}, by hand.")
            ),
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult, NotFound>> ChangeAsync(
        ClassRoom room,
        ChangeLesson change,
        PlanWriter writer,
        HttpContext http,
        CancellationToken stop
    )
    {
        if (await room.PlanAsync(stop) is not { } stored)
        {
            return NoPlan();
        }

        await Expected.PlanVersion(room, change.Version).CheckAsync(room.Db, stop);
        if (stored.Document.Plan.Find(new(change.Skill), change.Number) is not { } lesson)
        {
            return TypedResults.NotFound();
        }

        RefusedException.Unless((change.Note?.Length ?? 0) <= LongestNote, "note", Phrase($"A note has at most {LongestNote} letters."));
        var changed = lesson with { Pinned = change.Pinned ?? lesson.Pinned, Note = change.Note?.Trim() ?? lesson.Note };
        var document = stored.Document with
        {
            Plan = stored.Document.Plan with { Lessons = [.. stored.Document.Plan.Lessons.Select(l => l == lesson ? changed : l)] },
        };
        var what =
            changed.Pinned != lesson.Pinned
                ? changed.Pinned
                    ? Phrase("pinned")
                    : Phrase("let go")
                : Phrase("a note");
        await writer.KeepAsync(
            http.User.AdultId(),
            new(change.Version, document, Phrase($"{room.Map[lesson.Skill].Short}, lesson {lesson.Number}: {what}.")),
            stop
        );
        return TypedResults.NoContent();
    }

    /// <summary>Back to the version before: as a version of its own, so that nothing is lost.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> UndoAsync(
        ClassRoom room,
        UndoPlan undo,
        PlanWriter writer,
        HttpContext http,
        CancellationToken stop
    )
    {
        if (await room.PlanAsync(stop) is not { } stored)
        {
            return NoPlan();
        }

        await Expected.PlanVersion(room, undo.Version).CheckAsync(room.Db, stop);
        var stands = stored.BackTo ?? stored.Version;
        var versions = room.Db.YearPlans.Where(p => p.ClassId == room.Id.Value && p.Year == stored.Year);
        var before = await versions.Where(p => p.Version < stands).OrderByDescending(p => p.Version).FirstOrDefaultAsync(stop);
        if (before is null)
        {
            return TypedResults.Problem(
                Phrase("This is the first version: there is nothing to undo."),
                statusCode: StatusCodes.Status409Conflict,
                title: Phrase("Nothing to undo")
            );
        }

        var undone = await versions.Where(p => p.Version == stands).Select(p => p.What).FirstAsync(stop);
        await writer.KeepAsync(
            http.User.AdultId(),
            new(undo.Version, PlanDocument.Read(before.Document), Phrase($"Undone: {undone}"), before.BackTo ?? before.Version),
            stop
        );
        return TypedResults.NoContent();
    }
}
