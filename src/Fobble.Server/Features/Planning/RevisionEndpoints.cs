using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Planning;

/// <summary>Re-planning: what would move, why, before and after; and taking it.</summary>
internal static class RevisionEndpoints
{
    private const int MostDays = 60;

    public static void MapRevisions(this IEndpointRouteBuilder ofClass)
    {
        var lead = ofClass.MapGroup("/plan/revision").RequireAuthorization(Policies.Lead);
        lead.MapPost("/", PreviewAsync);
        lead.MapPost("/accept", AcceptAsync);
    }

    /// <summary>Works a revision out without keeping anything.</summary>
    private static async Task<Results<Ok<RevisionView>, ProblemHttpResult>> PreviewAsync(
        ClassRoom room,
        RevisePlan wanted,
        PlanReader reader,
        Solving solving,
        CancellationToken stop
    )
    {
        if (await room.PlanAsync(stop) is not { } stored)
        {
            return PlanningFeature.NoPlan();
        }

        var (map, approach) = (room.Map, room.Approach);
        var (revision, revised, _) = await ReviseAsync(room, wanted, stored, reader, solving, stop);
        return revised is null
            ? CannotHold()
            : TypedResults.Ok(
                new RevisionView(
                    stored.Version,
                    revised.Sentence,
                    revised.ProvenFewest,
                    [
                        .. revised.Moves.Select(m => new MoveView(
                            m.Lesson.Skill.Value,
                            map[m.Lesson.Skill].Short,
                            map[m.Lesson.Skill].Strand,
                            m.Lesson.Number,
                            m.Was,
                            m.Is,
                            m.Why
                        )),
                    ],
                    PlanViews.Of(stored.Document.Plan.Lessons.Where(l => l.Day >= revision.From || revision.Lost.Contains(l)), map, approach, revision.From),
                    PlanViews.Of(revised.Lessons, map, approach, revision.From),
                    [.. revised.Room.Select(r => Phrase($"{map[r.Skill].Short}, lesson {r.Number}"))]
                )
            );
    }

    /// <summary>The same once more, on the plan it was looked at with, and kept: lost days go into the class's calendar.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> AcceptAsync(
        ClassRoom room,
        AcceptRevision accepted,
        PlanReader reader,
        PlanWriter writer,
        Solving solving,
        HttpContext http,
        CancellationToken stop
    )
    {
        if (await room.PlanAsync(stop) is not { } stored)
        {
            return PlanningFeature.NoPlan();
        }

        // Looked at before the solver begins, and again when it is kept: seconds lie between.
        await Expected.PlanVersion(room, accepted.Version).CheckAsync(room.Db, stop);
        var wanted = accepted.Revision;
        var (revision, revised, lostDays) = await ReviseAsync(room, wanted, stored, reader, solving, stop);
        if (revised is null)
        {
            return CannotHold();
        }

        var lost = revision.Lost.ToHashSet();
        IReadOnlyList<PlanLesson> lessons = [.. stored.Document.Plan.Lessons.Where(l => l.Day < revision.From && !lost.Contains(l)), .. revised.Lessons];
        var next = await writer.WithLessonsAsync(stored.Document, lessons, revision.Timetable, stop);
        next = next with { Plan = next.Plan with { Unplaced = revised.Room.GroupBy(r => r.Skill.Value).ToDictionary(g => g.Key, g => g.Count()) } };
        await writer.KeepAsync(http.User.AdultId(), new(accepted.Version, next, $"{What(wanted, room.Map)} {revised.Sentence}", Lost: lostDays), stop);
        return TypedResults.NoContent();
    }

    private static ProblemHttpResult CannotHold() =>
        TypedResults.Problem(
            Phrase("What is held can’t stay where it is: let go of one of the lessons that are held or pinned."),
            statusCode: StatusCodes.Status409Conflict,
            title: Phrase("Can’t be held")
        );

    private static async Task<(Revision Revision, Revised? Revised, IReadOnlyList<Closure> LostDays)> ReviseAsync(
        ClassRoom room,
        RevisePlan wanted,
        StoredPlan stored,
        PlanReader reader,
        Solving solving,
        CancellationToken stop
    )
    {
        Check(wanted, stored, room.Map);
        var setting = await reader.SettingAsync(stored.Document, stop);
        var calendar = setting.Timetable.Calendar;

        // A day that has no lessons already is not lost once more.
        List<Closure> lostDays =
        [
            .. wanted.LostDays.Where(calendar.HasLessons).Distinct().Order().Select(d => new Closure(wanted.Why.Trim(), d, d) { Kind = ClosureKind.NoLessons }),
        ];
        var after = setting.Timetable.On(new SchoolCalendar(calendar.Terms, [.. calendar.Closures, .. lostDays]));
        var gone = PlanWatch.LessonsWithoutRoom(setting with { Timetable = after }).Where(l => l.Day < setting.From).ToList();
        Revision revision = new(
            stored.Document.Plan,
            after,
            room.Map,
            setting.From,
            setting.Until,
            gone,
            [
                .. wanted
                    .Changes.Where(c => c.Lessons != 0)
                    .Select(c => new LessonChange(
                        new(c.Skill),
                        c.Lessons,
                        c.Lessons > 0
                            ? Phrase($"{room.Map[new(c.Skill)].AtStart} gets {Words.More(c.Lessons, "lesson", "lessons")}.")
                            : Phrase("The class has it already.")
                    )),
            ],
            [.. wanted.Held.Select(h => new LessonName(new(h.Skill), h.Number))],
            wanted.Aim
        );
        return (revision, await solving.RunAsync(room.Id, until => PlanRevision.Revise(revision, until), stop), lostDays);
    }

    private static void Check(RevisePlan wanted, StoredPlan stored, SkillMap map)
    {
        Refusals refusals = new();
        refusals.Check(
            "why",
            wanted.LostDays.Count == 0 || wanted.Why.Trim().Length is > 0 and <= 60,
            Phrase("Say in a few words what the days were lost to.")
        );
        refusals.Check(
            "lostDays",
            wanted.LostDays.Count <= MostDays && wanted.LostDays.All(d => d >= stored.Document.From && d <= stored.Document.Until),
            Phrase("Lost days lie within the plan.")
        );
        refusals.Check(
            "changes",
            wanted.Changes.All(c => map.Has(new(c.Skill)) && c.Lessons is >= -5 and <= 5),
            Phrase("There is no such skill, or more than five lessons are asked for.")
        );
        refusals.Check("aim", Enum.IsDefined(wanted.Aim), Phrase("There is no such choice."));
        refusals.ThrowIfAny();
    }

    private static string What(RevisePlan wanted, SkillMap map)
    {
        List<string> parts = [];
        if (wanted.LostDays.Count > 0)
        {
            parts.Add(Phrase($"{Words.Count(wanted.LostDays.Count, "day", "days")} lost to “{wanted.Why.Trim()}”"));
        }

        parts.AddRange(
            wanted
                .Changes.Where(c => c.Lessons != 0)
                .Select(c =>
                    c.Lessons > 0
                        ? Phrase($"{Words.More(c.Lessons, "lesson", "lessons")} for {map[new(c.Skill)].InSentence}")
                        : Phrase($"{Words.Number(-c.Lessons)} fewer for {map[new(c.Skill)].InSentence}")
                )
        );
        return parts.Count == 0 ? Phrase("Lessons without a day put back.") : $"{Words.Capital(Words.List(parts))}.";
    }
}
