using System.Globalization;
using System.Security.Claims;
using Fobble.Core.Evidence;
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
        ofClass.MapGet("/children/{childId:int}/file", WriteAsync).RequireAuthorization(Policies.Lead);
        var taking = ofClass.MapGroup("/child-file").RequireAuthorization(Policies.Lead);
        taking.MapGet("/schema", () => TypedResults.Text(ChildFile.Schema, "application/schema+json"));
        taking.MapPost("/preview", PreviewAsync).Accepts<IFormFile>("application/json");
        taking.MapPost("/", TakeAsync).Accepts<IFormFile>("application/json");
    }

    private static async Task<Results<FileContentHttpResult, NotFound>> WriteAsync(int classId, int childId, ClassFacts facts, SkillMap map, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        if (await db.Children.AsNoTracking().Include(c => c.Class).ThenInclude(c => c!.School).FirstOrDefaultAsync(c => c.Id == childId && c.ClassId == classId, stop) is not { } child)
        {
            return TypedResults.NotFound();
        }

        var evidence = await facts.EvidenceAsync(classId, clock.Today(), stop);
        var rows = await db.Observations.AsNoTracking().Where(o => o.ChildId == childId).OrderBy(o => o.At)
            .Select(o => new { Row = o, By = o.SeenBy ?? o.Adult!.FullName, Withdrawn = o.Withdrawal == null ? null : new FileWithdrawal(o.Withdrawal.At, o.Withdrawal.Adult!.FullName, o.Withdrawal.Why) }).ToListAsync(stop);
        var checks = await db.BaselineChecks.AsNoTracking().Where(c => c.ChildId == childId && c.EndedAt != null).OrderBy(c => c.EndedAt).ToListAsync(stop);
        ChildId id = new(childId);
        ChildFile file = new(
            ChildFile.FormatName, ChildFile.CurrentVersion, clock.Today(), new(child.Class!.School!.Name, child.Class.Name), new(child.GivenName, child.FamilyName, child.Born),
            [.. map.Skills.Where(s => evidence[id, s.Id].Strength > Strength.NotSeen).Select(s => (s, judged: evidence.Judgement(id, s.Id))).Select(p => new FileSkill(p.s.Id.Value, p.s.ICan, (int)p.judged.Strength, p.judged.LookAgain, p.judged.SecureSince))],
            [
                .. rows.Select(r => new FileObservation(
                    r.Row.Id, r.Row.Skill, r.Row.At, r.Row.Day, r.By, r.Row.Setting, r.Row.Support, r.Row.Representation, r.Row.Numbers, r.Row.Slip, r.Row.Strategy, r.Row.Note, r.Withdrawn)),
            ],
            [.. checks.Select(c => new FileCheck(DateOnly.FromDateTime(c.EndedAt!.Value.LocalDateTime), c.Inferred, c.Strand))]);
        return TypedResults.File(file.Write(), "application/json", string.Create(CultureInfo.InvariantCulture, $"child-{childId}-{clock.Today():yyyy-MM-dd}.json"));
    }

    private static async Task<Results<Ok<ChildFilePreview>, ProblemHttpResult>> PreviewAsync(int classId, HttpRequest request, SkillMap map, FobbleDb db, TimeProvider clock, CancellationToken stop) =>
        await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is { } bytes
            ? TypedResults.Ok((await ReadAsync(classId, bytes, map, db, clock, stop)).Preview) : UploadedFile.TooLarge("a child’s file", LargestFile);

    private static async Task<Results<Ok<TakenChild>, UnprocessableEntity<ChildFilePreview>, ProblemHttpResult>> TakeAsync(
        int classId, HttpRequest request, ClaimsPrincipal user, SkillMap map, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } bytes)
        {
            return UploadedFile.TooLarge("a child’s file", LargestFile);
        }

        var (file, child, preview) = await ReadAsync(classId, bytes, map, db, clock, stop);
        if (file is null)
        {
            return TypedResults.UnprocessableEntity(preview);
        }

        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var adult = user.AdultId();
        if (child is null)
        {
            child = new Child { ClassId = classId, GivenName = file.Child.GivenName.Trim(), FamilyName = file.Child.FamilyName.Trim(), Born = file.Child.Born };
            db.Children.Add(child);
            await db.SaveChangesAsync(stop);
        }

        var known = await RecordsEndpoints.KnownAsync(file.Observations.Select(o => IdHere(classId, o.Id)), db, stop);
        foreach (var seen in file.Observations.Where(o => !known.ContainsKey(IdHere(classId, o.Id))))
        {
            db.Observations.Add(new ObservationRow
            {
                Id = IdHere(classId, seen.Id), ChildId = child.Id, Skill = seen.Skill, At = seen.At, Day = seen.Day, AdultId = adult, SeenBy = seen.SeenBy, Setting = seen.Setting, Support = seen.Support,
                Representation = seen.Representation, Numbers = seen.Numbers, Slip = seen.Slip, Strategy = seen.Strategy, Note = seen.Note,
                Withdrawal = seen.Withdrawn is { } gone ? new() { AdultId = adult, At = gone.At, Why = $"{gone.Why} ({gone.By})" } : null,
            });
        }

        foreach (var check in file.Checks)
        {
            DateTimeOffset day = new(check.Day.ToDateTime(new TimeOnly(12, 0)), clock.LocalTimeZone.GetUtcOffset(check.Day.ToDateTime(new TimeOnly(12, 0))));
            if (!await db.BaselineChecks.AnyAsync(c => c.ChildId == child.Id && c.EndedAt == day && c.Strand == check.Strand, stop))
            {
                db.BaselineChecks.Add(new() { ClassId = classId, ChildId = child.Id, Strand = check.Strand, StartedAt = day, EndedAt = day, StartedBy = adult, Inferred = new(check.Inferred) });
            }
        }

        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        return TypedResults.Ok(new TakenChild(child.Id));
    }

    private static async Task<(ChildFile? File, Child? Joins, ChildFilePreview Preview)> ReadAsync(int classId, byte[] bytes, SkillMap map, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var (file, faults) = ChildFile.Read(bytes, clock.Today());
        if (file is null)
        {
            return (null, null, new("", "", "", null, 0, 0, 0, null, faults, false));
        }

        var (given, family) = (file.Child.GivenName.Trim(), file.Child.FamilyName.Trim());
        var joins = await db.Children.FirstOrDefaultAsync(c => c.ClassId == classId && c.GivenName == given && c.FamilyName == family && (c.Born == file.Child.Born || c.Born == null || file.Child.Born == null), stop);
        var known = await RecordsEndpoints.KnownAsync(file.Observations.Select(o => IdHere(classId, o.Id)), db, stop);
        return (file, joins, new(
            $"{given} {family}".Trim(), file.From.School, file.From.Class, file.Made, file.Observations.Count - known.Count, known.Count, file.Observations.Select(o => o.Skill).Distinct().Count(s => !map.Has(new(s))), joins?.Id, [], true));
    }

    // The class the child leaves may be kept on the same server: the record gets ids of its own here, and the same ones when the file is taken again.
    private static Guid IdHere(int classId, Guid there) => NameUuid.Of(NameUuid.Url, string.Create(CultureInfo.InvariantCulture, $"urn:fobble:handed-on|{classId}|{there}"));
}
