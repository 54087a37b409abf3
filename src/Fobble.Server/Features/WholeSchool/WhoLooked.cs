using System.Globalization;
using System.Text;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Formats.Csv;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.WholeSchool;

/// <param name="What">A sentence without its subject, like "printed the family page of child 12 of Robins".</param>
public sealed record TraceView(int Id, DateTimeOffset At, string Who, string What);

/// <param name="Newest">The newest first.</param>
/// <param name="More">There are older ones that fit.</param>
/// <param name="KeptDays">For how many days a trace is kept.</param>
public sealed record TracesView(IReadOnlyList<TraceView> Newest, bool More, int KeptDays);

/// <summary>Who signed in, took something out or changed what the school answers for; for whoever leads it. Looking here leaves a trace, too.</summary>
internal static class WhoLooked
{
    private const int APage = 100;

    public static void Map(IEndpointRouteBuilder school)
    {
        school.MapGet("/traces", GetAsync);
        school.MapGet("/traces/file", FileAsync).WithTrace(TraceKind.TracesRead);
    }

    /// <param name="find">Letters of a name, a class or what was done; null for all.</param>
    /// <param name="before">Only those before this one.</param>
    private static async Task<Ok<TracesView>> GetAsync(HttpContext http, FobbleDb db, string? find, int? before, CancellationToken stop)
    {
        var fitting = await (await AllAsync(http, db, before ?? int.MaxValue, stop))
            .Where(t => string.IsNullOrWhiteSpace(find) || Fits(t, find.Trim()))
            .Take(APage + 1)
            .ToListAsync(stop);
        return TypedResults.Ok(new TracesView([.. fitting.Take(APage)], fitting.Count > APage, Traces.Kept.Days));
    }

    private static async Task<FileContentHttpResult> FileAsync(HttpContext http, FobbleDb db, CancellationToken stop)
    {
        IEnumerable<IReadOnlyList<string>> lines =
        [
            [Phrase("When"), Phrase("Who"), Phrase("What")],
            .. await (await AllAsync(http, db, int.MaxValue, stop))
                .Select(t => (IReadOnlyList<string>)[t.At.ToString("u", CultureInfo.InvariantCulture), t.Who, t.What])
                .ToListAsync(stop),
        ];
        return TypedResults.File(Encoding.UTF8.GetBytes(CsvTable.Write(lines)), "text/csv", "traces.csv");
    }

    // The newest first, read as far as somebody asks for more. Names of classes and adults are those of today: what a trace keeps of them is which.
    private static async Task<IAsyncEnumerable<TraceView>> AllAsync(HttpContext http, FobbleDb db, int before, CancellationToken stop)
    {
        var schoolId = await WholeSchoolFeature.LedByAsync(db, http, stop);
        var classes = await db.Classes.ToDictionaryAsync(c => c.Id, c => c.Name, stop);
        var adults = await db.Users.ToDictionaryAsync(u => u.Id, u => u.FullName, stop);
        return db
            .Traces.AsNoTracking()
            .Where(t => t.Id < before && (t.SchoolId == schoolId || t.SchoolId == null))
            .OrderByDescending(t => t.Id)
            .AsAsyncEnumerable()
            .Select(t => new TraceView(
                t.Id,
                t.At,
                t.Who.Length > 0 ? t.Who : Phrase("somebody"),
                Sentence(
                    t.Kind,
                    classes.GetValueOrDefault(t.ClassId ?? 0) ?? Phrase("a class"),
                    adults.GetValueOrDefault(t.AboutId ?? 0) ?? Phrase("an adult"),
                    t.ChildId ?? 0
                )
            ));
    }

    private static bool Fits(TraceView trace, string find) => $"{trace.Who} {trace.What}".Contains(find, StringComparison.CurrentCultureIgnoreCase);

    private static string Sentence(TraceKind kind, string room, string adult, int child) =>
        kind switch
        {
            TraceKind.SignedIn => Phrase("signed in"),
            TraceKind.SignInRefused => Phrase("tried to sign in, and was refused"),
            TraceKind.PasswordByLink => Phrase("chose a password by a link"),
            TraceKind.LinkMade => Phrase($"made a link to a new password for {adult}"),
            TraceKind.Invited => Phrase($"invited {adult} again"),
            TraceKind.AdultAdded => Phrase($"added {adult} to {room}, or gave them other days"),
            TraceKind.RoleChanged => Phrase($"changed what {adult} is in {room}"),
            TraceKind.AdultTakenOut => Phrase($"took {adult} out of {room}"),
            TraceKind.SchoolLeadChanged => Phrase($"changed whether {adult} leads the school"),
            TraceKind.ClassMade => Phrase("made a class"),
            TraceKind.ClassRenamed => Phrase($"renamed {room}"),
            TraceKind.ClassArchived => Phrase($"put {room} into the archive, or took it out"),
            TraceKind.PlaceChanged => Phrase("changed where the school is"),
            TraceKind.TermsChanged => Phrase("changed the terms"),
            TraceKind.ClosuresChanged => Phrase($"changed closures or trips, from {room}"),
            TraceKind.MapChanged => Phrase("changed the skill map"),
            TraceKind.FamilyPagePrinted => Phrase($"printed the family page of child {child} of {room}"),
            TraceKind.SummaryPrinted => Phrase($"printed the summary of {room}"),
            TraceKind.GroupsPrinted => Phrase($"printed the groups of {room}"),
            TraceKind.PlanPrinted => Phrase($"printed the plan of {room}"),
            TraceKind.PackPrinted => Phrase($"printed the pack of {room}"),
            TraceKind.GroupsFileOut => Phrase($"took out the groups of {room} as a file"),
            TraceKind.ChildFileOut => Phrase($"took out the file of child {child} of {room}"),
            TraceKind.RecordsOut => Phrase($"took out the records of {room}"),
            TraceKind.LessonsOut => Phrase($"took out the lessons of {room} for a calendar"),
            TraceKind.ClassListIn => Phrase($"brought a class list into {room}"),
            TraceKind.ChildFileIn => Phrase($"brought the file of a child into {room}"),
            TraceKind.RecordsIn => Phrase($"brought records into {room}"),
            TraceKind.ConsentChanged => Phrase($"changed the consent to photos of child {child} of {room}"),
            TraceKind.ChildNamed => Phrase($"changed the name or the day of birth of child {child} of {room}"),
            TraceKind.TracesRead => Phrase("took out these traces as a file"),
            TraceKind.ChildErased => Phrase($"erased child {child} of {room}"),
            TraceKind.SecondStepChanged => Phrase("put in a second step at sign-in, or took it out"),
            TraceKind.SecondStepTakenOut => Phrase($"took out {adult}’s second step at sign-in"),
            TraceKind.AllOfChildOut => Phrase($"took out all that is kept of child {child}"),
            TraceKind.AllOfSchoolOut => Phrase("took out all that is kept of the school"),
            TraceKind.RosterIn => Phrase("brought in a list of the school’s office"),
            TraceKind.RosterDecided => Phrase("decided about what the office’s list proposes"),
            TraceKind.RosterOut => Phrase("took out who is in which class, for an office"),
            TraceKind.CalendarAddressChanged => Phrase($"made or withdrew an address for calendar programs, of {room}"),
            TraceKind.BackupTaken => Phrase("had a backup taken"),
            TraceKind.NewYear => Phrase("took the school into a new year"),
            TraceKind.NewYearUndone => Phrase("took the new year back"),
            TraceKind.ChildMoved => Phrase($"moved child {child} to {room}"),
            TraceKind.ChildLeft => Phrase($"wrote down that child {child} has left"),
            _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, null),
        };
}
