using System.Globalization;
using System.Security.Claims;
using Fobble.Core.Evidence;
using Fobble.Core.People;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Formats.Records;
using Fobble.Formats.SkillMaps;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Records;

/// <summary>A child's file to hand on, and taking one in. Photos stay behind: agreeing to them is each school's own affair.</summary>
internal static class ChildFiles
{
    private const int LargestFile = 20_000_000;

    public static void Map(IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/children/{childId:int}/file", WriteAsync).RequireAuthorization(Policies.Lead).WithTrace(TraceKind.ChildFileOut);
        var taking = ofClass.MapGroup("/child-file").RequireAuthorization(Policies.Lead);
        taking.MapGet("/schema", () => TypedResults.Text(ChildFile.Schema, "application/schema+json"));
        taking.MapPost("/preview", PreviewAsync).Accepts<IFormFile>("application/json");
        taking.MapPost("/", TakeAsync).Accepts<IFormFile>("application/json").WithTrace(TraceKind.ChildFileIn);
    }

    private static async Task<Results<FileContentHttpResult, NotFound>> WriteAsync(ClassRoom room, ChildId childId, CancellationToken stop)
    {
        if ((await room.ChildRowsAsync(stop)).FirstOrDefault(c => c.Id == childId.Value) is not { } child)
        {
            return TypedResults.NotFound();
        }

        var evidence = await room.EvidenceAsync(stop);
        var rows = await room.Seen()
            .Where(o => o.ChildId == childId.Value)
            .OrderBy(o => o.At)
            .Select(o => new
            {
                Row = o,
                By = o.SeenBy ?? o.Adult!.FullName,
                Withdrawn = o.Withdrawal == null ? null : new FileWithdrawal(o.Withdrawal.At, o.Withdrawal.Adult!.FullName, o.Withdrawal.Why),
            })
            .ToListAsync(stop);
        var checks = await room.Db.BaselineChecks.Where(c => c.ChildId == childId.Value && c.EndedAt != null).OrderBy(c => c.EndedAt).ToListAsync(stop);
        ChildFile file = new(
            ChildFile.FormatName,
            ChildFile.CurrentVersion,
            room.Today,
            new(room.SchoolName, room.Name),
            new(child.GivenName, child.FamilyName, child.Born),
            [
                .. room
                    .Map.Skills.Where(s => evidence[childId, s.Id].Strength > Strength.NotSeen)
                    .Select(s => (s, judged: evidence.Judgement(childId, s.Id)))
                    .Select(p => new FileSkill(p.s.Id.Value, p.s.ICan, (int)p.judged.Strength, p.judged.LookAgain, p.judged.SecureSince)),
            ],
            [
                .. rows.Select(r => new FileObservation(
                    r.Row.Id,
                    r.Row.Skill,
                    r.Row.At,
                    r.Row.Day,
                    r.By,
                    r.Row.Setting,
                    r.Row.Support,
                    r.Row.Representation,
                    r.Row.Numbers,
                    r.Row.Slip,
                    r.Row.Strategy,
                    r.Row.Day < room.NotesFrom ? null : r.Row.Note,
                    r.Withdrawn
                )),
            ],
            [.. checks.Select(c => new FileCheck(room.Zone.DayOf(c.EndedAt!.Value), c.Inferred, c.Strand))]
        );
        return TypedResults.File(
            file.Write(),
            "application/json",
            string.Create(CultureInfo.InvariantCulture, $"child-{childId}-{room.Today:yyyy-MM-dd}.json")
        );
    }

    private static async Task<Results<Ok<ChildFilePreview>, ProblemHttpResult>> PreviewAsync(ClassRoom room, HttpRequest request, CancellationToken stop) =>
        await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is { } bytes
            ? TypedResults.Ok((await MatchAsync(room.Db, room, ChildFile.Read(bytes, room.Today), stop)).Preview)
            : UploadedFile.TooLarge(Phrase("a child’s file"), LargestFile);

    private static async Task<Results<Ok<TakenChild>, UnprocessableEntity<ChildFilePreview>, ProblemHttpResult>> TakeAsync(
        ClassRoom room,
        HttpRequest request,
        ClaimsPrincipal user,
        Decisions decisions,
        CancellationToken stop
    )
    {
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } bytes)
        {
            return UploadedFile.TooLarge(Phrase("a child’s file"), LargestFile);
        }

        // Read before the lock is taken: a large one takes seconds, and nobody could tap meanwhile.
        var read = ChildFile.Read(bytes, room.Today);
        var (preview, taken) = await decisions.DecideAsync(
            async db =>
            {
                var (file, joins, seen) = await MatchAsync(db, room, read, stop);
                return (seen, file is null ? (int?)null : await KeepAsync(db, room, file, joins, user.AdultId(), stop));
            },
            stop
        );
        return taken is { } id ? TypedResults.Ok(new TakenChild(id)) : TypedResults.UnprocessableEntity(preview);
    }

    private static async Task<int> KeepAsync(FobbleDb db, ClassRoom room, ChildFile file, Child? joins, AdultId adult, CancellationToken stop)
    {
        var child = joins
            ?? db.Children.Add(
                new Child
                {
                    ClassId = room.Id.Value,
                    GivenName = file.Child.GivenName.Trim(),
                    FamilyName = file.Child.FamilyName.Trim(),
                    Born = file.Child.Born,
                }
            ).Entity;
        await db.SaveChangesAsync(stop);
        var known = ObservationWriter.Known(db, [.. file.Observations.Select(o => IdHere(room, o.Id))], stop: stop);
        List<FileObservation> others = [.. file.Observations.Where(o => !known.ContainsKey(IdHere(room, o.Id)))];
        ObservationWriter.Add(
            db,
            [
                .. others.Select(seen => new ObservationRow
                {
                    Id = IdHere(room, seen.Id),
                    ChildId = child.Id,
                    Skill = seen.Skill,
                    At = seen.At,
                    Day = seen.Day,
                    AdultId = adult.Value,
                    SeenBy = seen.SeenBy,
                    Setting = seen.Setting,
                    Support = seen.Support,
                    Representation = seen.Representation,
                    Numbers = seen.Numbers,
                    Slip = seen.Slip,
                    Strategy = seen.Strategy,
                    Note = seen.Note,
                }),
            ],
            stop: stop
        );
        db.Withdrawals.AddRange(
            others
                .Where(seen => seen.Withdrawn is not null)
                .Select(seen => new Withdrawal
                {
                    ObservationId = IdHere(room, seen.Id),
                    AdultId = adult.Value,
                    At = seen.Withdrawn!.At,
                    Why = $"{seen.Withdrawn.Why} ({seen.Withdrawn.By})",
                })
        );
        foreach (var check in file.Checks)
        {
            var day = room.Zone.At(check.Day, new TimeOnly(12, 0));
            if (!await db.BaselineChecks.AnyAsync(c => c.ChildId == child.Id && c.EndedAt == day && c.Strand == check.Strand, stop))
            {
                db.BaselineChecks.Add(
                    new()
                    {
                        ClassId = room.Id.Value,
                        ChildId = child.Id,
                        Strand = check.Strand,
                        StartedAt = day,
                        EndedAt = day,
                        StartedBy = adult.Value,
                        Inferred = new(check.Inferred),
                    }
                );
            }
        }

        return child.Id;
    }

    private static async Task<(ChildFile? File, Child? Joins, ChildFilePreview Preview)> MatchAsync(
        FobbleDb db,
        ClassRoom room,
        (ChildFile? File, IReadOnlyList<string> Faults) read,
        CancellationToken stop
    )
    {
        var (file, faults) = read;
        if (file is null)
        {
            return (null, null, new("", "", "", null, 0, 0, 0, null, faults, false));
        }

        var (given, family) = (file.Child.GivenName.Trim(), file.Child.FamilyName.Trim());
        ListedName named = new(given, family, Born: file.Child.Born);
        var alike = (await db.Children.Where(c => c.ClassId == room.Id.Value && c.LeftOn == null).OrderBy(c => c.Id).ToListAsync(stop))
            .Where(c => ShortNames.AlikeTo(named, [ClassRoom.Listed(c)]).Count > 0)
            .Where(c => c.Born == named.Born || c.Born is null || named.Born is null)
            .ToList();
        var sure = alike.Where(c => c.Born is not null && c.Born == named.Born).ToList();
        var joins = sure.Count == 1 ? sure[0] : alike.FirstOrDefault();
        if (sure.Count != 1 && alike.Count > 1)
        {
            // A record must not be given to the wrong child of two.
            var reason = Phrase(
                $"There are {Words.Number(alike.Count)} children called {named.Given} {named.Family} in this class, and nothing says whose file this is."
            );
            return (null, null, new($"{given} {family}".Trim(), file.From.School, file.From.Class, file.Made, 0, 0, 0, null, [reason], false));
        }

        var known = ObservationWriter.Known(db, [.. file.Observations.Select(o => IdHere(room, o.Id))], stop: stop);
        return (
            file,
            joins,
            new(
                $"{given} {family}".Trim(),
                file.From.School,
                file.From.Class,
                file.Made,
                file.Observations.Count - known.Count,
                known.Count,
                file.Observations.Select(o => o.Skill).Distinct().Count(s => !room.Map.Has(new(s))),
                joins?.Id,
                [],
                true
            )
        );
    }

    // The class the child leaves may be kept on the same server: the record gets ids of its own here, and the same ones when the file is taken again.
    private static Guid IdHere(ClassRoom room, Guid there) =>
        NameUuid.Of(NameUuid.Url, string.Create(CultureInfo.InvariantCulture, $"urn:fobble:handed-on|{room.Id.Value}|{there}"));
}
