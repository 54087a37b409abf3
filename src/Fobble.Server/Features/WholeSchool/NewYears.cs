using Fobble.Core.Calendars;
using Fobble.Core.People;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.WholeSchool;

/// <param name="Like">A class whose ways, timetable and cupboard it begins with; null for the usual ones.</param>
/// <param name="Along">Those who help in that class help in this one.</param>
public sealed record ClassOfNewYear(string Name, int LeadId, int? Like, bool Along);

/// <param name="Ends">Classes that end: they can be read from then on.</param>
/// <param name="Places">Of every child of those: to which of the new classes, counted from 0, or away.</param>
/// <param name="NotesOfBefore">Notes and photos of before are seen in the new classes.</param>
/// <param name="KeptUntil">Until when the records of those who leave are kept.</param>
public sealed record NewYear(
    DateOnly BeginsOn,
    IReadOnlyList<int> Ends,
    IReadOnlyList<ClassOfNewYear> Classes,
    IReadOnlyList<Going> Places,
    bool NotesOfBefore,
    DateOnly KeptUntil
);

/// <summary>The school goes into a new year: classes end and can be read, children go up with their records, repeat, or leave. All of it or nothing; taken back for a day.</summary>
internal static class NewYears
{
    public static readonly TimeSpan MayBeUndone = TimeSpan.FromDays(1);

    private const int MostClasses = 60;

    public static void Map(IEndpointRouteBuilder school)
    {
        school.MapPost("/new-year", BeginAsync).WithTrace(TraceKind.NewYear);
        school.MapDelete("/new-year", UndoAsync).WithTrace(TraceKind.NewYearUndone);
    }

    /// <summary>The one that can still be undone.</summary>
    public static async Task<NewYearRow?> LastAsync(FobbleDb db, int schoolId, TimeProvider clock, CancellationToken stop)
    {
        var since = clock.GetUtcNow() - MayBeUndone;
        return await db
            .NewYears.Where(y => y.SchoolId == schoolId && y.UndoneAt == null && y.At > since)
            .OrderByDescending(y => y.Id)
            .FirstOrDefaultAsync(stop);
    }

    private static async Task<NoContent> BeginAsync(NewYear request, HttpContext http, Decisions decisions, TimeProvider clock, CancellationToken stop)
    {
        await decisions.DecideAsync(
            async db =>
            {
                var school = await ChildrenOfSchool.SchoolAsync(db, http, stop);
                var today = SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow());
                var ends = await EndingAsync(db, school.Id, request, stop);
                var children = await db.Children.Where(c => request.Ends.Contains(c.ClassId) && c.LeftOn == null).ToListAsync(stop);
                GoingUp.Check(children.ToDictionary(c => c.Id, c => $"{c.GivenName} {c.FamilyName}".Trim()), request.Places, request.Classes.Count);
                Retention.Check(request.KeptUntil, today);
                await AddTermsAsync(db, school, request.BeginsOn, today, stop);
                var upTo = await ChildrenOfSchool.LastSeenAsync(db, stop);
                ends.ForEach(c => (c.ArchivedOn, c.ArchivedUpTo) = (today, upTo));

                // Their names are free from here on.
                await db.SaveChangesAsync(stop);
                NewYearRow year = new()
                {
                    SchoolId = school.Id,
                    At = clock.GetUtcNow(),
                    BeginsOn = request.BeginsOn,
                    Ended = [.. request.Ends],
                };
                List<SchoolClass> made = [];
                foreach (var (asked, i) in request.Classes.Select((c, i) => (c, i)))
                {
                    made.Add(await MakeAsync(db, school, asked, i, request, ends, stop));
                }

                await PlaceAsync(db, request, children, ends, made, year, today, stop);
                year.Made = [.. made.Select(c => c.Id)];
                db.NewYears.Add(year);
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<List<SchoolClass>> EndingAsync(FobbleDb db, int schoolId, NewYear request, CancellationToken stop)
    {
        var ends = await db.Classes.Where(c => request.Ends.Contains(c.Id) && c.SchoolId == schoolId && c.ArchivedOn == null).ToListAsync(stop);
        RefusedException.Unless(
            ends.Count > 0 && ends.Count == request.Ends.Count,
            "ends",
            Phrase("Say which classes end: those of the school that are not in the archive yet.")
        );
        RefusedException.Unless(request.Classes.Count <= MostClasses, "classes", Phrase($"{MostClasses} classes at the most."));
        return ends;
    }

    // A plan needs days: where nobody has put in the new year's terms, the usual ones stand there until somebody puts them right.
    private static async Task AddTermsAsync(FobbleDb db, Data.Model.School school, DateOnly beginsOn, DateOnly today, CancellationToken stop)
    {
        var begun = await db.NewYears.Where(y => y.SchoolId == school.Id && y.UndoneAt == null).Select(y => y.BeginsOn).ToListAsync(stop);
        var next = NextYear.Of(await ChildrenOfSchool.CalendarAsync(db, school.Id, stop), today, begun, school.Locale);
        RefusedException.Unless(next.BeginsOn == beginsOn, "beginsOn", Phrase("The terms have been changed meanwhile: look once more when the year begins."));
        RefusedException.Unless(
            today >= next.MayBeginFrom,
            "beginsOn",
            Phrase($"That year is still far away: it can be begun from {Words.Date(next.MayBeginFrom)} on.")
        );
        db.Terms.AddRange(
            next.Terms.Select(t => new TermRow
            {
                SchoolId = school.Id,
                Name = t.Name,
                Season = t.Season,
                First = t.First,
                Last = t.Last,
            })
        );
    }

    private static async Task<SchoolClass> MakeAsync(
        FobbleDb db,
        Data.Model.School school,
        ClassOfNewYear asked,
        int place,
        NewYear request,
        List<SchoolClass> ends,
        CancellationToken stop
    )
    {
        try
        {
            var name = await WholeSchoolFeature.CheckedNameAsync(db, school.Id, asked.Name, null, stop);
            RefusedException.Unless(
                await WholeSchoolFeature.Adults(db, school.Id).AnyAsync(a => a.Id == asked.LeadId, stop),
                "leadId",
                Phrase("The lead teacher has to be one of the school's adults.")
            );
            var like = asked.Like is { } id ? await db.Classes.AsNoTracking().FirstOrDefaultAsync(c => c.Id == id && c.SchoolId == school.Id, stop) : null;
            RefusedException.Unless(asked.Like is null || like is not null, "like", Phrase("There is no such class."));
            var made = await Beginnings.AddClassAsync(db, school, name, asked.LeadId, like, asked.Along);
            (made.BeginsOn, made.WithoutNotesOfBefore) = (request.BeginsOn, !request.NotesOfBefore);
            if (like is not null && ends.Exists(e => e.Id == like.Id))
            {
                // The room stays, and what stands in its cupboard.
                var stock = await db.Stock.AsNoTracking().Where(s => s.ClassId == like.Id).ToListAsync(stop);
                stock.ForEach(s => s.ClassId = made.Id);
                db.Stock.AddRange(stock);
            }

            return made;
        }
        catch (RefusedException refused)
        {
            throw new RefusedException([.. refused.Reasons.Select(r => new Refused($"{place}.{r.Field}", r.Sentence))]);
        }
    }

    private static async Task PlaceAsync(
        FobbleDb db,
        NewYear request,
        List<Child> children,
        List<SchoolClass> ends,
        List<SchoolClass> made,
        NewYearRow year,
        DateOnly today,
        CancellationToken stop
    )
    {
        List<StayRow> stays = [];
        var places = request.Places.ToDictionary(p => p.Child, p => p.To);
        foreach (var child in children)
        {
            if (places[child.Id] is not { } to)
            {
                Moving.Away(child, today, request.KeptUntil);
                year.Left.Add(child.Id);
                continue;
            }

            // What has to be kept in mind about the things that are set out goes with those it may be about.
            var from = ends.Find(e => e.Id == child.ClassId)!;
            made[to].Mouths |= from.Mouths;
            made[to].Allergies = [.. made[to].Allergies.Union(from.Allergies).Order()];
            stays.Add((await Moving.ToAsync(db, child, made[to].Id, today, stop))!);
        }

        await db.SaveChangesAsync(stop);
        year.Stays = [.. stays.Select(s => s.Id)];
    }

    private static async Task<Results<NoContent, NotFound>> UndoAsync(HttpContext http, Decisions decisions, TimeProvider clock, CancellationToken stop)
    {
        var found = await decisions.DecideAsync(
            async db =>
            {
                var school = await ChildrenOfSchool.SchoolAsync(db, http, stop);
                if (await LastAsync(db, school.Id, clock, stop) is not { } year)
                {
                    return false;
                }

                year.UndoneAt = clock.GetUtcNow();
                await BackAsync(db, year, stop);
                await db
                    .Classes.Where(c => year.Ended.Contains(c.Id))
                    .ExecuteUpdateAsync(c => c.SetProperty(x => x.ArchivedOn, (DateOnly?)null).SetProperty(x => x.ArchivedUpTo, (long?)null), stop);
                foreach (var made in await db.Classes.Where(c => year.Made.Contains(c.Id)).ToListAsync(stop))
                {
                    await PutAwayAsync(db, made, SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow()), stop);
                }

                return true;
            },
            stop
        );
        return found ? TypedResults.NoContent() : TypedResults.NotFound();
    }

    // A child that has been moved on meanwhile stays where it is.
    private static async Task BackAsync(FobbleDb db, NewYearRow year, CancellationToken stop)
    {
        foreach (
            var stay in await db.Stays.Include(s => s.Child).Where(s => year.Stays.Contains(s.Id) && year.Made.Contains(s.Child!.ClassId)).ToListAsync(stop)
        )
        {
            await db.BaselineChecks.Where(c => c.ChildId == stay.ChildId).ExecuteUpdateAsync(c => c.SetProperty(x => x.ClassId, stay.ClassId), stop);
            stay.Child!.ClassId = stay.ClassId;
            db.Stays.Remove(stay);
        }

        await db.Stays.Where(s => year.Made.Contains(s.ClassId)).ExecuteDeleteAsync(stop);
        foreach (var child in await db.Children.Where(c => year.Left.Contains(c.Id) && year.Ended.Contains(c.ClassId)).ToListAsync(stop))
        {
            (child.LeftOn, child.KeptUntil) = (null, null);
        }

        await db.SaveChangesAsync(stop);
    }

    // What somebody has begun in a new class is not thrown away: it can be read. Who came into it otherwise keeps it open.
    private static async Task PutAwayAsync(FobbleDb db, SchoolClass made, DateOnly today, CancellationToken stop)
    {
        if (await db.Children.AnyAsync(c => c.ClassId == made.Id, stop))
        {
            return;
        }

        var begun =
            await db.YearPlans.AnyAsync(p => p.ClassId == made.Id, stop)
            || await db.GroupSets.AnyAsync(g => g.ClassId == made.Id, stop)
            || await db.PlannedDays.AnyAsync(d => d.ClassId == made.Id, stop)
            || await db.JarRounds.AnyAsync(j => j.ClassId == made.Id, stop);
        if (begun)
        {
            (made.ArchivedOn, made.ArchivedUpTo) = (today, await ChildrenOfSchool.LastSeenAsync(db, stop));
        }
        else
        {
            db.Classes.Remove(made);
        }
    }
}
