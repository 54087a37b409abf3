using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.GuessJar;
using Fobble.Core.People;
using Fobble.Core.Portraits;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Formats.Fonts;
using Fobble.Server.Hosting;
using Fobble.Server.Rooms;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.ChildPage;

/// <summary>Everything about one child on one page.</summary>
internal sealed class ChildPageFeature : IFeature
{
    /// <summary>The newest ones come with the page; the rest is asked for when someone scrolls that far.</summary>
    private const int SeenWithPage = 60;
    private const int MostGroups = 12;

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/children/{childId:int}", GetAsync);
        ofClass.MapGet("/children/{childId:int}/observations", ObservationsAsync);
        ofClass.MapPut("/children/{childId:int}/photos-allowed", AllowPhotosAsync).RequireAuthorization(Policies.Lead).WithTrace(TraceKind.ConsentChanged);
        ofClass.MapPost("/children/{childId:int}/erase", EraseAsync).RequireAuthorization(Policies.Lead).WithTrace(TraceKind.ChildErased);
        var naming = ofClass.MapGroup("/children/{childId:int}/name").RequireAuthorization(Policies.Lead);
        naming.MapGet("/", NamingAsync);
        naming.MapPut("/", NameAsync).WithTrace(TraceKind.ChildNamed);
    }

    private static async Task<Results<Ok<ChildView>, NotFound>> GetAsync(ClassRoom room, ChildId childId, CancellationToken stop)
    {
        var names = await room.ChildrenAsync(stop);
        if (names.FirstOrDefault(c => c.Id == childId.Value) is not { } named)
        {
            return TypedResults.NotFound();
        }

        var today = room.Today;
        var calendar = await room.CalendarAsync(stop);
        var child = (await room.ChildRowsAsync(stop)).First(c => c.Id == childId.Value);
        var evidence = await room.EvidenceAsync(stop);
        var id = childId.Value;
        ChildPortrait portrait = new(evidence, room.Library, childId);
        var started = await room.Seen().Where(o => o.ChildId == id).OrderBy(o => o.Day).Select(o => (DateOnly?)o.Day).FirstOrDefaultAsync(stop);
        var from = started is { } begun && begun > calendar.YearBegan(today) ? begun : calendar.YearBegan(today);
        var away = await room.Db.Absences.Where(a => a.ChildId == id && a.Day >= from).OrderByDescending(a => a.Day).Select(a => a.Day).ToListAsync(stop);
        var check = await room
            .Db.BaselineChecks.Where(c => c.ChildId == id)
            .OrderByDescending(c => c.StartedAt)
            .Select(c => new { c.Id, c.EndedAt })
            .FirstOrDefaultAsync(stop);
        return TypedResults.Ok(
            new ChildView(
                id,
                named.Name,
                child.Born,
                child.Mark,
                ShortNames.AlikeTo(ClassRoom.Listed(child), [.. (await room.ChildRowsAsync(stop)).Select(ClassRoom.Listed)]).Count > 1,
                child.PhotosAllowed,
                check?.Id,
                check?.EndedAt,
                [.. portrait.WeeksFrom(from).Select(w => new ChildBead(w.Monday, w.Seen, [.. w.Secured.Select(s => room.Map[s].Short)]))],
                [
                    .. portrait.NextSteps.Select(n => new ChildStep(
                        n.Skill.Value,
                        room.Map[n.Skill].Short,
                        room.Map[n.Skill].ICan,
                        (int)n.Mark.Strength,
                        n.Mark.LookAgain,
                        n.Guess,
                        n.Because,
                        n.Activity?.Id.Value,
                        n.Activity?.Name,
                        n.Activity?.Easier
                    )),
                ],
                [.. portrait.Shown.Select(s => new ChildShown(s.Representation, s.Alone, s.Seen))],
                [.. portrait.Slips.Select(s => new ChildSlip(s.Skill.Value, room.Map[s.Skill].Short, s.Slip.Text, s.Times, s.Last))],
                [.. portrait.Bonds.Select(b => new ChildBond(b.Whole, b.Part, b.Other, b.Known, b.Last))],
                [
                    .. room
                        .Map.Strands.Select(t => new ChildStrand(
                            t.Id,
                            t.Name,
                            [.. room.Map.Skills.Where(s => s.Strand == t.Id).Select(s => SkillOf(evidence, childId, s))]
                        ))
                        .Where(t => t.Skills.Count > 0),
                ],
                await JarsAsync(room, id, stop),
                await GroupsAsync(room, childId, names, today, stop),
                away,
                calendar.SchoolDaysBetween(from.AddDays(-1), today),
                await SeenAsync(room, childId, 0, SeenWithPage, stop),
                await room.Seen().CountAsync(o => o.ChildId == id, stop)
            )
        );
    }

    /// <summary>More of them, the newest first.</summary>
    private static async Task<Results<Ok<IReadOnlyList<SeenOnce>>, NotFound>> ObservationsAsync(
        ClassRoom room,
        ChildId childId,
        int? skip,
        CancellationToken stop
    ) =>
        await room.NameOfAsync(childId, stop) is not null
            ? TypedResults.Ok(await SeenAsync(room, childId, Math.Max(0, skip ?? 0), 200, stop))
            : TypedResults.NotFound();

    private static async Task<Results<NoContent, NotFound>> AllowPhotosAsync(
        ClassRoom room,
        ChildId childId,
        PhotosAllowed request,
        Decisions decisions,
        CancellationToken stop
    )
    {
        var found = await decisions.DecideAsync(
            async db =>
            {
                if (await db.Children.FirstOrDefaultAsync(c => c.Id == childId.Value && c.ClassId == room.Id.Value, stop) is not { } child)
                {
                    return false;
                }

                child.PhotosAllowed = request.Allowed;
                if (!request.Allowed)
                {
                    // The family has taken its word back: what was taken goes.
                    await db.Photos.Where(p => db.Observations.Any(o => o.Id == p.ObservationId && o.ChildId == childId.Value)).ExecuteDeleteAsync(stop);
                }

                return true;
            },
            stop
        );
        return found ? TypedResults.NoContent() : TypedResults.NotFound();
    }

    // The whole name is for whoever may change it.
    private static async Task<Results<Ok<Naming>, NotFound>> NamingAsync(ClassRoom room, ChildId childId, CancellationToken stop) =>
        (await room.ChildRowsAsync(stop)).FirstOrDefault(c => c.Id == childId.Value) is { } child
            ? TypedResults.Ok(new Naming(child.GivenName, child.FamilyName, child.Born, child.Mark))
            : TypedResults.NotFound();

    private static async Task<Results<NoContent, NotFound>> NameAsync(
        ClassRoom room,
        ChildId childId,
        Naming request,
        Decisions decisions,
        CancellationToken stop
    )
    {
        var naming = request.Checked(room.Today);
        RefusedException.Unless(
            NameFonts.Missing(naming.Whole).Count == 0,
            "givenName",
            Phrase("No font at hand has all letters of this name: write it as it may be printed.")
        );
        var found = await decisions.DecideAsync(
            async db =>
                await db
                    .Children.Where(c => c.Id == childId.Value && c.ClassId == room.Id.Value)
                    .ExecuteUpdateAsync(
                        c =>
                            c.SetProperty(x => x.GivenName, naming.GivenName)
                                .SetProperty(x => x.FamilyName, naming.FamilyName)
                                .SetProperty(x => x.Born, naming.Born)
                                .SetProperty(x => x.Mark, naming.Mark),
                        stop
                    ) > 0,
            stop
        );
        return found ? TypedResults.NoContent() : TypedResults.NotFound();
    }

    private static async Task<Results<Ok<Erasure>, NotFound>> EraseAsync(
        ClassRoom room,
        ChildId childId,
        EraseChild request,
        Decisions decisions,
        Erasing erasing,
        CancellationToken stop
    )
    {
        if ((await room.ChildRowsAsync(stop)).FirstOrDefault(c => c.Id == childId.Value) is not { } child)
        {
            return TypedResults.NotFound();
        }

        new Naming(child.GivenName, child.FamilyName, child.Born, child.Mark).CheckErasing(request.Name);
        var erasure = await decisions.DecideAsync(
            async db =>
                await erasing.EraseAsync(db, room.Id.Value, childId.Value, room.Today, stop) is { } left
                    ? new Erasure(
                        left.Observations,
                        await db.Observations.CountAsync(
                            o => o.Note != null && o.Note.Contains(child.GivenName) && db.Children.Any(c => c.Id == o.ChildId && c.ClassId == left.ClassId),
                            stop
                        ),
                        OnDisk: false
                    )
                    : null,
            stop
        );
        if (erasure is null)
        {
            return TypedResults.NotFound();
        }

        // What this request has read of the child is let go of first: it would keep the log as it was.
        await room.LeaveAsync();
        return TypedResults.Ok(erasure with { OnDisk = await erasing.EmptyLogAsync(stop) });
    }

    private static async Task<IReadOnlyList<ChildJar>> JarsAsync(ClassRoom room, int child, CancellationToken stop)
    {
        var rows = await room
            .Db.JarRounds.Where(r => r.ClassId == room.Id.Value && r.Guesses.Any(g => g.ChildId == child))
            .OrderBy(r => r.Filled)
            .Select(r => new
            {
                r.Filled,
                r.Guesses.First(g => g.ChildId == child).Guess,
                r.Counted,
            })
            .ToListAsync(stop);
        return
        [
            .. rows.Select(r => new ChildJar(r.Filled, r.Guess, r.Counted, r.Counted is > 0 and var counted ? new GuessError(r.Guess, counted).Signed : null)),
        ];
    }

    private static async Task<IReadOnlyList<SeenOnce>> SeenAsync(ClassRoom room, ChildId childId, int skip, int take, CancellationToken stop)
    {
        var rows = await room.Seen()
            .Where(o => o.ChildId == childId.Value)
            .OrderByDescending(o => o.At)
            .Skip(skip)
            .Take(take)
            .Select(SeenRecord.Projection)
            .ToListAsync(stop);
        return [.. rows.Select(r => SeenRecord.InWords(r, room))];
    }

    private static ChildSkill SkillOf(ClassEvidence evidence, ChildId child, Skill skill)
    {
        var mark = evidence[child, skill.Id];
        return new(
            skill.Id.Value,
            skill.Short,
            (int)mark.Strength,
            mark.LookAgain,
            evidence.IsReady(child, skill.Id),
            evidence.IsInferred(child, skill.Id),
            evidence.StepsOf(child, skill.Id) is [.., var last] ? last.Day : null
        );
    }

    private static async Task<IReadOnlyList<ChildGroup>> GroupsAsync(
        ClassRoom room,
        ChildId childId,
        IReadOnlyList<ChildName> names,
        DateOnly today,
        CancellationToken stop
    )
    {
        var child = childId.Value;
        var sessions = await room.SessionsInForce()
            .Where(s => s.Day <= today && s.Members.Any(m => m.ChildId == child))
            .OrderByDescending(s => s.Day)
            .Take(MostGroups)
            .ToListAsync(stop);
        var byId = names.ToDictionary(n => n.Id, n => n.Name);
        return
        [
            .. sessions.Select(s => new ChildGroup(
                s.Id,
                s.Day,
                room.Map.Has(new(s.Skill)) ? room.Map[new(s.Skill)].Short : s.Skill,
                [.. s.Members.Where(m => m.ChildId != child && byId.ContainsKey(m.ChildId)).Select(m => byId[m.ChildId])],
                s.Members.First(m => m.ChildId == child).Reason
            )),
        ];
    }
}
