using System.Globalization;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Reports;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Formats.Print;
using Fobble.Formats.Records;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.Records;
using Fobble.Server.Rooms;
using Fobble.Server.Security;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;

namespace Fobble.Server.Features.WholeSchool;

public sealed record TakeOutSchool(string Password);

/// <param name="Address">Where the file is got, by the same adult, within minutes.</param>
public sealed record SchoolToTakeOut(string Address);

/// <summary>
/// All that is kept, in forms that any program reads, as a zip: of one child, for a family that asks to see it, and of the school, for leaving or for another use of its
/// data. A page to read, observations for a spreadsheet, every table as JSON with its schema, photos. It is no backup: that is the database itself.
/// </summary>
internal static class TakenOut
{
    private static readonly TimeSpan ToFetchIn = TimeSpan.FromMinutes(5);

    public static void Map(IEndpointRouteBuilder school)
    {
        school.MapGet("/children/{childId:int}/everything", ChildAsync).WithTrace(TraceKind.AllOfChildOut);
        school.MapPost("/everything", AskAsync).WithTrace(TraceKind.AllOfSchoolOut);
        school.MapGet("/everything/{ticket}", SchoolAsync);
    }

    private static async Task<Results<PushStreamHttpResult, NotFound>> ChildAsync(
        ChildId childId,
        HttpContext http,
        FobbleDb db,
        ClassRooms rooms,
        CancellationToken stop
    )
    {
        var schoolId = await WholeSchoolFeature.LedByAsync(db, http, stop);
        var child = await db.Children.AsNoTracking().FirstOrDefaultAsync(c => c.Id == childId.Value && c.Class!.SchoolId == schoolId, stop);
        if (child is null)
        {
            return TypedResults.NotFound();
        }

        // The room's snapshot: all of it is of one moment.
        var room = await rooms.OpenAsync(new(child.ClassId), stop);
        var name = $"{child.GivenName} {child.FamilyName}".Trim();
        var lines = await RecordsFeature.LinesAsync(room.Db.Observations.Where(o => o.ChildId == child.Id), _ => name, room.Zone, notesFrom: null, stop);
        PlainPages pages = new(
            Phrase($"What is kept of {name}"),
            Phrase($"{room.SchoolName}, {Words.Date(room.Today)} {room.Today.Year}"),
            room.Today,
            await PartsAsync(room, child, lines, stop)
        );
        return Zip(http, string.Create(CultureInfo.InvariantCulture, $"child-{child.Id}-{room.Today:yyyy-MM-dd}.zip"), async zip =>
        {
            await AddAsync(zip, "read-me.txt", ReadMe, stop);
            await AddAsync(zip, "what-is-kept.pdf", SheetWriter.Pdf(pages.ToSheet(room.UsualPaper), Ink.Saving), stop);
            await AddAsync(zip, "observations.csv", ObservationCsv.Write(lines, room.Map), stop);
            await AddTablesAsync<Child>(zip, room.Db, child.Id, stop);
        });
    }

    /// <summary>Whoever takes a whole school out says the password once more: a page that was left open is not enough.</summary>
    private static async Task<Ok<SchoolToTakeOut>> AskAsync(
        TakeOutSchool request,
        HttpContext http,
        UserManager<Adult> adults,
        SignInTries tries,
        IDataProtectionProvider protection
    )
    {
        var adult = await OwnAccount.CheckPasswordAsync(request.Password, "password", http, adults, tries);
        var ticket = Tickets(protection).Protect($"{adult.Id}", ToFetchIn);
        return TypedResults.Ok(new SchoolToTakeOut($"/api/school/everything/{ticket}"));
    }

    private static async Task<Results<PushStreamHttpResult, NotFound>> SchoolAsync(
        string ticket,
        HttpContext http,
        FobbleDb db,
        ClassRooms rooms,
        IDataProtectionProvider protection,
        CancellationToken stop
    )
    {
        if (!IsFor(http.User.AdultId(), ticket, protection))
        {
            return TypedResults.NotFound();
        }

        var schoolId = await WholeSchoolFeature.LedByAsync(db, http, stop);
        var classes = await db.Classes.Where(c => c.SchoolId == schoolId).OrderBy(c => c.Id).Select(c => c.Id).ToListAsync(stop);
        var first = await rooms.OpenAsync(new(classes[0]), stop);
        return Zip(http, string.Create(CultureInfo.InvariantCulture, $"school-{first.Today:yyyy-MM-dd}.zip"), async zip =>
        {
            await AddAsync(zip, "read-me.txt", ReadMe, stop);
            foreach (var id in classes)
            {
                await using var room = await rooms.OpenAsync(new(id), stop);
                var children = await room.Children().ToListAsync(stop);
                var names = children.ToDictionary(c => c.Id, c => $"{c.GivenName} {c.FamilyName}".Trim());
                var lines = await RecordsFeature.LinesAsync(room.Seen(), child => names[child], room.Zone, notesFrom: null, stop);
                var summary = ClassSummary.Of(
                    $"{room.Name}, {room.SchoolName}",
                    await room.EvidenceAsync(stop),
                    (await room.CalendarAsync(stop)).TermBegan(room.Today)
                );
                await AddAsync(zip, $"classes/{id}/observations.csv", ObservationCsv.Write(lines, room.Map), stop);
                await AddAsync(zip, $"classes/{id}/summary.pdf", SheetWriter.Pdf(summary.ToSheet(room.UsualPaper), Ink.Saving), stop);
            }

            var adults = await WholeSchoolFeature
                .Adults(first.Db, schoolId)
                .OrderBy(a => a.Id)
                .Select(a => new
                {
                    id = a.Id,
                    fullName = a.FullName,
                    email = a.Email,
                })
                .ToListAsync(stop);
            await AddAsync(zip, "adults.json", JsonSerializer.Serialize(adults), stop);
            await AddTablesAsync<School>(zip, first.Db, schoolId, stop);
        });
    }

    private static string ReadMe =>
        string.Join(
            "\n\n",
            Phrase("All that is kept, as it is kept, in forms that any program reads."),
            Phrase(
                "*.pdf: to be read. *.csv: for a spreadsheet. tables/*.json: every table; tables/schema.json says what stands in them (JSON Schema). photos: each by the id of its observation."
            ),
            Phrase(
                "Not in here: passwords and whatever else opens something; what is worked out from these facts anew each time; paper, and files that were taken out before."
            ),
            Phrase("It names children. Keep it as you would their files, and delete it when it has done its work.")
        ) + "\n";

    private static async Task AddTablesAsync<TRoot>(ZipArchive zip, FobbleDb db, int id, CancellationToken stop)
    {
        IReadOnlyList<IEntityType> tables = Everything.TablesOf(db.Model, typeof(TRoot));
        await AddAsync(zip, "tables/schema.json", Everything.SchemaOf(tables), stop);
        foreach (var table in tables)
        {
            await using var to = await zip.CreateEntry($"tables/{table.GetTableName()}.json").OpenAsync(stop);
            await Everything.WriteAsync<TRoot>(db, table, id, to, stop);
        }

        await foreach (var photo in Everything.PhotosOf<TRoot>(db, id).AsAsyncEnumerable().WithCancellation(stop))
        {
            await AddAsync(zip, $"photos/{photo.ObservationId}.jpg", photo.Jpeg, stop);
        }
    }

    private static async Task<IReadOnlyList<(string, IReadOnlyList<string>)>> PartsAsync(
        ClassRoom room,
        Child child,
        List<ObservationLine> lines,
        CancellationToken stop
    )
    {
        var db = room.Db;
        string Day(DateOnly day) => $"{Words.Date(day)} {day.Year}";
        Skill? SkillOf(ObservationLine line) => room.Map.Has(line.Skill) ? room.Map[line.Skill] : null;
        List<string> who =
        [
            Phrase($"{child.GivenName} {child.FamilyName}, in {room.Name}."),
            .. child.Born is { } born ? [Phrase($"Born {Day(born)}.")] : Array.Empty<string>(),
            child.PhotosAllowed
                ? Phrase("The family has agreed to photos of what the child makes.")
                : Phrase("The family has not agreed to photos of what the child makes."),
            .. child.LeftOn is { } left ? [Phrase($"Left on {Day(left)}.")] : Array.Empty<string>(),
        ];
        List<string> arranged = child.NeedsAdultNear ? [Phrase("An adult sits close by.")] : [];
        // Who the other child is belongs to the other child.
        var pairs = await db.PairWishes.CountAsync(w => w.FirstId == child.Id || w.SecondId == child.Id, stop);
        if (pairs > 0)
        {
            arranged.Add(Phrase($"Kept apart from, or together with, {Words.Count(pairs, "other child", "other children")}."));
        }

        foreach (
            var wish in await db
                .AdultWishes.Where(w => w.ChildId == child.Id)
                .Join(db.Users, w => w.AdultId, u => u.Id, (w, u) => new { w.With, u.FullName })
                .ToListAsync(stop)
        )
        {
            arranged.Add(wish.With ? Phrase($"In groups with {wish.FullName} only.") : Phrase($"Not in groups with {wish.FullName}."));
        }

        var outOf = await db.TimesOut.Where(t => t.ChildId == child.Id).OrderBy(t => t.Weekday).ThenBy(t => t.From).ToListAsync(stop);
        arranged.AddRange(outOf.Select(t => Phrase($"Out of class each {Words.NameOf(t.Weekday)}, {Words.Clock(t.From)} to {Words.Clock(t.Until)}.")));
        var away = await db.Absences.Where(a => a.ChildId == child.Id).OrderBy(a => a.Day).Select(a => a.Day).ToListAsync(stop);
        var checks = await db.BaselineChecks.Where(c => c.ChildId == child.Id).OrderBy(c => c.StartedAt).ToListAsync(stop);
        var groups = await db.GroupMembers.CountAsync(m => m.ChildId == child.Id, stop);
        var guesses = await db.JarGuesses.CountAsync(g => g.ChildId == child.Id, stop);
        List<string> others =
        [
            .. away.Count > 0 ? [Phrase($"Away: {string.Join("; ", away.Select(Day))}.")] : Array.Empty<string>(),
            .. checks.Select(c => Phrase($"A check on {Day(room.Zone.DayOf(c.StartedAt))}.")),
            .. groups > 0 ? [Phrase($"A place in {Words.Count(groups, "group", "groups")}.")] : Array.Empty<string>(),
            .. guesses > 0 ? [Phrase($"{Words.Capital(Words.Count(guesses, "guess", "guesses"))} at the jar.")] : Array.Empty<string>(),
        ];
        return
        [
            (Phrase("Who"), who),
            (Phrase("What is arranged"), arranged),
            (Phrase("What else is kept"), others),
            (
                Phrase("What was seen"),
                [
                    .. lines.Select(l =>
                        string.Join(
                            " ",
                            new[]
                            {
                                Phrase(
                                    $"{Day(l.Day)}, {SkillOf(l)?.Short ?? l.Skill.Value}: {EvidenceWords.Of(l.Support)}, {EvidenceWords.Of(l.Representation)}; by {l.By}."
                                ),
                                l.Numbers is { } numbers ? Phrase($"Numbers: {ItemCase.InWords(numbers)}.") : "",
                                SkillOf(l)?.Slips.FirstOrDefault(s => s.Id == l.Slip)?.Text is { } slip ? Phrase($"Slip: {slip}.") : "",
                                SkillOf(l)?.Strategies.FirstOrDefault(s => s.Id == l.Strategy)?.Text is { } way ? Phrase($"Way: {way}.") : "",
                                l.Note is { Length: > 0 } note ? Phrase($"“{note}”") : "",
                                l.WithdrawnWhy is { } why ? Phrase($"Taken back: {why}.") : "",
                            }.Where(p => p.Length > 0)
                        )
                    ),
                ]
            ),
        ];
    }

    private static PushStreamHttpResult Zip(HttpContext http, string name, Func<ZipArchive, Task> fill) =>
        TypedResults.Stream(
            async to =>
            {
                // It is written as it is read, whatever its size; what closes an entry (.NET 10.0) writes the last of it without waiting.
                http.Features.GetRequiredFeature<IHttpBodyControlFeature>().AllowSynchronousIO = true;
                await using var zip = await ZipArchive.CreateAsync(to, ZipArchiveMode.Create, leaveOpen: true, Encoding.UTF8);
                await fill(zip);
            },
            "application/zip",
            name
        );

    private static Task AddAsync(ZipArchive zip, string name, string text, CancellationToken stop) => AddAsync(zip, name, Encoding.UTF8.GetBytes(text), stop);

    private static async Task AddAsync(ZipArchive zip, string name, byte[] bytes, CancellationToken stop)
    {
        await using var to = await zip.CreateEntry(name).OpenAsync(stop);
        await to.WriteAsync(bytes, stop);
    }

    private static bool IsFor(AdultId adult, string ticket, IDataProtectionProvider protection)
    {
        try
        {
            return Tickets(protection).Unprotect(ticket) == $"{adult.Value}";
        }
        catch (CryptographicException)
        {
            return false;
        }
    }

    private static ITimeLimitedDataProtector Tickets(IDataProtectionProvider protection) =>
        protection.CreateProtector("all of the school").ToTimeLimitedDataProtector();
}
