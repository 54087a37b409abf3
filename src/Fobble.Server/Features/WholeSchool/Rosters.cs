using System.Globalization;
using Fobble.Core.Calendars;
using Fobble.Core.People;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Formats.Fonts;
using Fobble.Formats.Rosters;
using Fobble.Server.Demo;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.WholeSchool;

/// <param name="CantBe">Why it can't be done as it is; null where it can.</param>
public sealed record ProposalView(string Id, ProposalKind Kind, string Sentence, string? CantBe);

/// <param name="Children">How many there are on the list, of all classes.</param>
public sealed record RosterTaken(string FileName, DateTimeOffset At, int Children);

/// <summary>A file that came later, and was not taken.</summary>
public sealed record RosterRefused(string FileName, DateTimeOffset At, IReadOnlyList<RosterFaultRow> Faults);

/// <param name="Office">Which of the list's it is; null where the list has no such class, and its children are not compared.</param>
public sealed record ComparedClass(int Id, string Name, OfficeClass? Office);

/// <param name="Taken">The list that is compared; null where none has come.</param>
/// <param name="Refused">A newer file that could not be read; null where there is none.</param>
/// <param name="Proposals">To be decided.</param>
/// <param name="LeftSo">How many somebody has said to leave.</param>
/// <param name="Caution">What speaks against the list as a whole.</param>
/// <param name="Classes">Of the school.</param>
/// <param name="Free">Classes of the list that are none here.</param>
/// <param name="Open">Children here whom the list does not have: one that is new on it may be one of them.</param>
/// <param name="Watched">The folder from which lists come by themselves; null where there is none.</param>
/// <param name="StandIn">In the demo, a made-up office can be asked for its next list.</param>
public sealed record RosterView(
    RosterTaken? Taken,
    RosterRefused? Refused,
    IReadOnlyList<ProposalView> Proposals,
    int LeftSo,
    string? Caution,
    IReadOnlyList<ComparedClass> Classes,
    IReadOnlyList<OfficeClass> Free,
    IReadOnlyList<ChildOfSchool> Open,
    string? Watched,
    bool StandIn
);

public sealed record RosterAnswers(IReadOnlyList<RosterAnswer> Answers);

/// <param name="Key">Of the list's classes.</param>
public sealed record OfficeClassOf(string Key);

/// <summary>What the school's office has, held against what is here: a list proposes, whoever leads the school decides, and nothing goes by a file.</summary>
internal static class Rosters
{
    private const int LongestFileName = 120;

    public static void Map(IEndpointRouteBuilder school)
    {
        var roster = school.MapGroup("/roster");
        roster.MapGet("/", GetAsync);
        roster.MapGet("/file", FileAsync).WithTrace(TraceKind.RosterOut);
        roster.MapPost("/", BringInAsync).Accepts<byte[]>("application/zip").WithTrace(TraceKind.RosterIn);
        roster.MapPost("/answers", AnswerAsync).WithTrace(TraceKind.RosterDecided);
        roster.MapDelete("/left-so", LookAgainAsync).WithTrace(TraceKind.RosterDecided);
        roster.MapPut("/classes/{classId:int}", LinkAsync).WithTrace(TraceKind.RosterDecided);
        roster.MapPost("/stand-in", StandInAsync).WithTrace(TraceKind.RosterIn);
    }

    private static async Task<Ok<RosterView>> GetAsync(HttpContext http, FobbleDb db, FobbleSettings settings, TimeProvider clock, CancellationToken stop) =>
        TypedResults.Ok(await ViewAsync(db, await ChildrenOfSchool.SchoolAsync(db, http, stop), settings, clock, stop));

    private static async Task<RosterView> ViewAsync(FobbleDb db, Data.Model.School school, FobbleSettings settings, TimeProvider clock, CancellationToken stop)
    {
        var row = await db.Rosters.AsNoTracking().FirstOrDefaultAsync(r => r.SchoolId == school.Id, stop);
        var compared = row?.List is { } list ? await CompareAsync(db, school, list, clock, stop) : null;
        var office = row?.List?.Classes.Where(c => compared!.Classes.ContainsKey(c.Key)).ToDictionary(c => compared!.Classes[c.Key]) ?? [];
        var classes = await Taught(db, school.Id).Select(c => new { c.Id, c.Name }).ToListAsync(stop);
        var open = compared?.Proposals.Where(p => !row!.LeftSo.Contains(p.Id)).ToList() ?? [];
        return new(
            row?.List is null ? null : new(row.FileName, row.At, row.List.Children.Count),
            row?.FaultyAt is { } at ? new(row.FaultyName, at, row.Faults) : null,
            [.. open.Select(p => new ProposalView(p.Id, p.Kind, p.Sentence, p.CantBe))],
            (compared?.Proposals.Count ?? 0) - open.Count,
            compared?.Caution,
            [.. classes.Select(c => new ComparedClass(c.Id, c.Name, office.GetValueOrDefault(c.Id)))],
            [.. row?.List?.Classes.Except(office.Values) ?? []],
            [.. compared?.Open.Select(c => new ChildOfSchool(c.Id, c.Naming.Whole, c.Naming.Born)) ?? []],
            settings.Roster,
            settings.Demo
        );
    }

    private static IQueryable<SchoolClass> Taught(FobbleDb db, int schoolId) =>
        db.Classes.Where(c => c.SchoolId == schoolId && c.ArchivedOn == null).OrderBy(c => c.Name);

    private static async Task<RosterComparison> CompareAsync(FobbleDb db, Data.Model.School school, OfficeList list, TimeProvider clock, CancellationToken stop)
    {
        var classes = await db
            .Classes.Where(c => c.SchoolId == school.Id)
            .Select(c => new ClassHere(c.Id, c.Name, c.OfficeKey, c.ArchivedOn == null))
            .ToListAsync(stop);
        var children = await db
            .Children.Where(c => c.Class!.SchoolId == school.Id)
            .OrderBy(c => c.GivenName)
            .ThenBy(c => c.FamilyName)
            .Select(c => new ChildHere(c.Id, new(c.GivenName, c.FamilyName, c.Born, c.Mark), c.ClassId, c.LeftOn != null, c.OfficeKey))
            .ToListAsync(stop);
        var compared = Roster.Compare(list, classes, children, SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow()));
        return compared with { Proposals = [.. compared.Proposals.Select(p => p with { CantBe = p.CantBe ?? Unprinted(p.Naming) })] };
    }

    private static string? Unprinted(Naming? naming) =>
        naming is not null && NameFonts.Missing(naming.Whole).Count > 0
            ? Phrase("No font at hand has all letters of this name: write it here as it may be printed, on the class’s list or the child’s page.")
            : null;

    private static async Task<Results<Ok<RosterView>, ProblemHttpResult>> BringInAsync(
        HttpContext http,
        string? name,
        FobbleDb db,
        Decisions decisions,
        FobbleSettings settings,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        if (await UploadedFile.ReadAsync(http.Request.Body, OneRosterReader.LargestZip, stop) is not { } file)
        {
            return UploadedFile.TooLarge(Phrase("a list of the office"), OneRosterReader.LargestZip);
        }

        var school = await ChildrenOfSchool.SchoolAsync(db, http, stop);
        await TakeAsync(decisions, school, string.Concat((name ?? "").Where(c => !char.IsControl(c)).Take(LongestFileName)), file, null, clock, stop);
        return TypedResults.Ok(await ViewAsync(db, school, settings, clock, stop));
    }

    /// <summary>Keeps a list in the place of the one before, or what is wrong with it beside that one.</summary>
    /// <param name="seen">What the folder knows the file by; null where it came another way.</param>
    internal static async Task TakeAsync(
        Decisions decisions,
        Data.Model.School school,
        string name,
        byte[] file,
        string? seen,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var reading = OneRosterReader.Read(file, SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow()));
        await decisions.DecideAsync(
            async db =>
            {
                var row = await db.Rosters.FindAsync([school.Id], stop);
                if (row is null)
                {
                    row = new() { SchoolId = school.Id };
                    db.Rosters.Add(row);
                }

                row.Seen = seen ?? row.Seen;
                row.Faults = [.. reading.Faults.Select(f => new RosterFaultRow(f.File, f.Row, f.Column, f.Reason))];
                if (!reading.CanBeTaken)
                {
                    (row.FaultyName, row.FaultyAt) = (name, clock.GetUtcNow());
                    return;
                }

                (row.FaultyName, row.FaultyAt) = ("", null);
                (row.List, row.FileName, row.At) = (reading.List, name, clock.GetUtcNow());

                // What it does not propose any more is asked again should it come back.
                var proposed = (await CompareAsync(db, school, reading.List, clock, stop)).Proposals.Select(p => p.Id).ToHashSet();
                row.LeftSo = [.. row.LeftSo.Where(proposed.Contains)];
            },
            stop
        );
    }

    private static async Task<Ok<RosterView>> AnswerAsync(
        RosterAnswers request,
        HttpContext http,
        FobbleDb db,
        Decisions decisions,
        FobbleSettings settings,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var school = await decisions.DecideAsync(
            async inside =>
            {
                var asked = await ChildrenOfSchool.SchoolAsync(inside, http, stop);
                var row = await inside.Rosters.FirstOrDefaultAsync(r => r.SchoolId == asked.Id && r.List != null, stop);
                RefusedException.Unless(row is not null, "answers", Phrase("There is no list yet."));
                var compared = await CompareAsync(inside, asked, row!.List!, clock, stop);
                var answers = compared.Checked(request.Answers);
                row.LeftSo = [.. row.LeftSo.Concat(answers.Where(a => !a.Answer.Do).Select(a => a.Proposal.Id)).Distinct()];
                await KeepClassesAsync(inside, compared.Classes, stop);
                await DoAsync(inside, asked, [.. answers.Where(a => a.Answer.Do)], clock, stop);
                return asked;
            },
            stop
        );
        return TypedResults.Ok(await ViewAsync(db, school, settings, clock, stop));
    }

    private static async Task DoAsync(
        FobbleDb db,
        Data.Model.School school,
        IReadOnlyList<(Proposal Proposal, RosterAnswer Answer)> answers,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var today = SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow());
        var keptUntil = Retention.UsuallyUntil(await ChildrenOfSchool.CalendarAsync(db, school.Id, stop), today);
        foreach (var (proposal, answer) in answers)
        {
            if ((answer.SameAs ?? proposal.ChildId) is not { } id)
            {
                db.Children.Add(
                    new()
                    {
                        ClassId = proposal.ClassId!.Value,
                        GivenName = proposal.Naming!.GivenName.Trim(),
                        FamilyName = proposal.Naming.FamilyName.Trim(),
                        Born = proposal.Naming.Born,
                        OfficeKey = proposal.Key,
                    }
                );
                continue;
            }

            var child = await db.Children.SingleAsync(c => c.Id == id, stop);
            if (proposal.Key is { } key && child.OfficeKey != key)
            {
                // A key is one child's.
                await db
                    .Children.Where(c => c.OfficeKey == key && c.Class!.SchoolId == school.Id)
                    .ExecuteUpdateAsync(c => c.SetProperty(x => x.OfficeKey, (string?)null), stop);
                child.OfficeKey = key;
            }

            if (proposal is { Kind: ProposalKind.Moved or ProposalKind.CameBack, ClassId: { } to })
            {
                if (child.ClassId != to)
                {
                    await Moving.LeaveGroupsAsync(db, id, today, stop);
                }

                await Moving.ToAsync(db, child, to, today, stop);
            }
            else if (proposal.Kind == ProposalKind.Left)
            {
                await Moving.LeaveGroupsAsync(db, id, today, stop);
                Moving.Away(child, today, keptUntil);
            }
            else if (proposal is { Kind: ProposalKind.Renamed, Naming: { } naming })
            {
                var kept = naming.Checked(today);
                (child.GivenName, child.FamilyName, child.Born) = (kept.GivenName, kept.FamilyName, kept.Born);
            }
        }
    }

    // Which class is which is kept with the first decision: a name may change afterwards, here or there.
    private static async Task KeepClassesAsync(FobbleDb db, IReadOnlyDictionary<string, int> classes, CancellationToken stop)
    {
        foreach (var (key, id) in classes)
        {
            await db.Classes.Where(c => c.Id == id && c.OfficeKey != key).ExecuteUpdateAsync(c => c.SetProperty(x => x.OfficeKey, key), stop);
        }
    }

    private static async Task<Ok<RosterView>> LookAgainAsync(
        HttpContext http,
        FobbleDb db,
        Decisions decisions,
        FobbleSettings settings,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var school = await decisions.DecideAsync(
            async inside =>
            {
                var asked = await ChildrenOfSchool.SchoolAsync(inside, http, stop);
                if (await inside.Rosters.FindAsync([asked.Id], stop) is { } row)
                {
                    row.LeftSo = [];
                }

                return asked;
            },
            stop
        );
        return TypedResults.Ok(await ViewAsync(db, school, settings, clock, stop));
    }

    private static async Task<NoContent> LinkAsync(ClassId classId, OfficeClassOf request, HttpContext http, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(
            async db =>
            {
                var schoolId = await WholeSchoolFeature.LedByAsync(db, http, stop);
                var list = await db.Rosters.Where(r => r.SchoolId == schoolId).Select(r => r.List).FirstOrDefaultAsync(stop);
                RefusedException.Unless(list?.Classes.Any(c => c.Key == request.Key) == true, "key", Phrase("The list has no such class."));
                var room = await Taught(db, schoolId).FirstOrDefaultAsync(c => c.Id == classId.Value, stop);
                RefusedException.Unless(room is not null, "classId", Phrase("This class is in the archive."));
                RefusedException.Unless(
                    !await Taught(db, schoolId).AnyAsync(c => c.Id != classId.Value && c.OfficeKey == request.Key, stop),
                    "key",
                    Phrase("Another class here is this one of the list already.")
                );
                room!.OfficeKey = request.Key;
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<RosterView>, NotFound>> StandInAsync(
        HttpContext http,
        FobbleDb db,
        IServiceProvider services,
        RosterFolder folder,
        FobbleSettings settings,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        if (services.GetService<StandInOffice>() is not { } office)
        {
            return TypedResults.NotFound();
        }

        var school = await ChildrenOfSchool.SchoolAsync(db, http, stop);
        await office.PutNextAsync(settings.Roster!, SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow()), stop);
        await folder.LookAsync(stop);
        await folder.LookAsync(stop);
        return TypedResults.Ok(await ViewAsync(db, school, settings, clock, stop));
    }

    private static async Task<FileContentHttpResult> FileAsync(HttpContext http, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var school = await ChildrenOfSchool.SchoolAsync(db, http, stop);
        var today = SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow());
        var calendar = await ChildrenOfSchool.CalendarAsync(db, school.Id, stop);
        var classes = await Taught(db, school.Id).ToListAsync(stop);
        var children = await db
            .Children.Where(c => c.Class!.SchoolId == school.Id && c.Class.ArchivedOn == null && c.LeftOn == null)
            .OrderBy(c => c.Id)
            .ToListAsync(stop);
        var members = await db
            .Memberships.Include(m => m.Adult)
            .Where(m => m.Class!.SchoolId == school.Id && m.Class.ArchivedOn == null && (m.From == null || (m.From <= today && m.Until >= today)))
            .ToListAsync(stop);
        var (began, ends) = (calendar.YearBegan(today), calendar.YearEnds(today));
        string KeyOf(int id) => classes.Find(c => c.Id == id)!.OfficeKey ?? Ours("class", id);
        RosterSchool whole = new(
            Ours("school", school.Id),
            school.Name,
            began,
            ends,
            [.. calendar.Terms.Where(t => t.First >= began && t.Last <= ends).Select(t => (t.Name, t.First, t.Last))],
            new(
                [.. classes.Select(c => new OfficeClass(KeyOf(c.Id), c.Name))],
                [.. children.Select(c => new OfficeChild(c.OfficeKey ?? Ours("child", c.Id), c.GivenName, c.FamilyName, c.Born, [KeyOf(c.ClassId)]))]
            ),
            [
                .. members
                    .GroupBy(m => m.AdultId)
                    .OrderBy(g => g.Key)
                    .Select(g =>
                    {
                        var (name, email) = (g.First().Adult!.FullName.Split(' '), g.First().Adult!.Email ?? "");
                        return new RosterAdult(
                            Ours("adult", g.Key),
                            string.Join(' ', name[..^1]),
                            name[^1],
                            email,
                            g.Any(m => m.Role != ClassRole.Assistant),
                            [.. g.Select(m => (KeyOf(m.ClassId), m.Role == ClassRole.LeadTeacher))]
                        );
                    }),
            ]
        );
        return TypedResults.File(
            OneRosterWriter.Write(whole, today),
            "application/zip",
            string.Create(CultureInfo.InvariantCulture, $"classes-{today:yyyy-MM-dd}.zip")
        );
    }

    private static string Ours(string what, int id) => string.Create(CultureInfo.InvariantCulture, $"fobble-{what}-{id}");
}
