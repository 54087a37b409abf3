using Fobble.Core.Calendars;
using Fobble.Core.People;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.WholeSchool;

/// <param name="Name">Its whole name: whoever leads the school says where which child goes.</param>
public sealed record ChildOfSchool(int Id, string Name, DateOnly? Born);

/// <param name="LeadId">Its first lead teacher.</param>
public sealed record ClassWithChildren(int Id, string Name, int LeadId, IReadOnlyList<ChildOfSchool> Children);

/// <param name="Due">It is time to look whether the record is still needed.</param>
public sealed record ChildThatLeft(int Id, string Name, int ClassId, string From, DateOnly LeftOn, DateOnly KeptUntil, bool Due);

/// <param name="From">From this day on it can be begun.</param>
/// <param name="Terms">Usual terms that are put into the calendar with the new year; empty where it has them.</param>
public sealed record YearToCome(DateOnly BeginsOn, DateOnly From, IReadOnlyList<Term> Terms);

/// <param name="Until">Until when it can be undone.</param>
public sealed record YearBegun(DateOnly BeginsOn, DateTimeOffset Until);

/// <param name="Left">Who has left, the one that is due first in front.</param>
/// <param name="UsuallyKeptUntil">Until when the record of who leaves today is usually kept.</param>
/// <param name="Begun">The new year that can still be undone; null where there is none.</param>
public sealed record ChildrenOfSchoolView(
    IReadOnlyList<ClassWithChildren> Classes,
    IReadOnlyList<ChildThatLeft> Left,
    DateOnly UsuallyKeptUntil,
    YearToCome Next,
    YearBegun? Begun
);

public sealed record ChildLeaves(DateOnly KeptUntil);

public sealed record EraseChildThatLeft(string Name);

/// <summary>Where the school's children are: moved to another class, gone, back again. Names only: what a child was seen to do is for the adults of its class.</summary>
internal static class ChildrenOfSchool
{
    public static void Map(IEndpointRouteBuilder school)
    {
        school.MapGet("/children", GetAsync);
        school.MapPut("/children/{childId:int}/class/{classId:int}", MoveAsync).WithTrace(TraceKind.ChildMoved);
        school.MapPost("/children/{childId:int}/leave", LeaveAsync).WithTrace(TraceKind.ChildLeft);
        school.MapPost("/children/{childId:int}/erase", EraseAsync).WithTrace(TraceKind.ChildErased);
    }

    private static async Task<Ok<ChildrenOfSchoolView>> GetAsync(HttpContext http, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var school = await SchoolAsync(db, http, stop);
        var today = SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow());
        var calendar = await CalendarAsync(db, school.Id, stop);
        var classes = await db
            .Classes.Where(c => c.SchoolId == school.Id && c.ArchivedOn == null)
            .OrderBy(c => c.Name)
            .Select(c => new
            {
                c.Id,
                c.Name,
                LeadId = c.Members.Where(m => m.Role == ClassRole.LeadTeacher).OrderBy(m => m.AdultId).Select(m => m.AdultId).FirstOrDefault(),
            })
            .ToListAsync(stop);
        var children = await db
            .Children.AsNoTracking()
            .Where(c => c.Class!.SchoolId == school.Id)
            .OrderBy(c => c.GivenName)
            .ThenBy(c => c.FamilyName)
            .Select(c => new { Child = c, From = c.Class!.Name })
            .ToListAsync(stop);
        var begun = await NewYears.LastAsync(db, school.Id, clock, stop);
        var next = NextYear.Of(
            calendar,
            today,
            await db.NewYears.Where(y => y.SchoolId == school.Id && y.UndoneAt == null).Select(y => y.BeginsOn).ToListAsync(stop),
            school.Locale
        );
        return TypedResults.Ok(
            new ChildrenOfSchoolView(
                [
                    .. classes.Select(c => new ClassWithChildren(
                        c.Id,
                        c.Name,
                        c.LeadId,
                        [
                            .. children
                                .Where(x => x.Child.ClassId == c.Id && x.Child.LeftOn is null)
                                .Select(x => new ChildOfSchool(x.Child.Id, NameOf(x.Child), x.Child.Born)),
                        ]
                    )),
                ],
                [
                    .. children
                        .Where(x => x.Child.LeftOn is not null)
                        .OrderBy(x => x.Child.KeptUntil)
                        .Select(x => new ChildThatLeft(
                            x.Child.Id,
                            NameOf(x.Child),
                            x.Child.ClassId,
                            x.From,
                            x.Child.LeftOn!.Value,
                            x.Child.KeptUntil!.Value,
                            x.Child.KeptUntil < today
                        )),
                ],
                Retention.UsuallyUntil(calendar, today),
                new(next.BeginsOn, next.MayBeginFrom, next.Terms),
                begun is null ? null : new(begun.BeginsOn, begun.At + NewYears.MayBeUndone)
            )
        );
    }

    private static async Task<Results<NoContent, NotFound>> MoveAsync(
        ChildId childId,
        ClassId classId,
        HttpContext http,
        Decisions decisions,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var found = await decisions.DecideAsync(
            async db =>
            {
                var school = await SchoolAsync(db, http, stop);
                if (await ChildAsync(db, school.Id, childId, stop) is not { } child)
                {
                    return false;
                }

                RefusedException.Unless(
                    await db.Classes.AnyAsync(c => c.Id == classId.Value && c.ArchivedOn == null, stop),
                    "classId",
                    Phrase("This class is in the archive: nobody goes into it.")
                );
                var today = SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow());
                if (child.ClassId != classId.Value)
                {
                    await Moving.LeaveGroupsAsync(db, child.Id, today, stop);
                }

                await Moving.ToAsync(db, child, classId.Value, today, stop);
                return true;
            },
            stop
        );
        return found ? TypedResults.NoContent() : TypedResults.NotFound();
    }

    private static async Task<Results<NoContent, NotFound>> LeaveAsync(
        ChildId childId,
        ChildLeaves request,
        HttpContext http,
        Decisions decisions,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var found = await decisions.DecideAsync(
            async db =>
            {
                var school = await SchoolAsync(db, http, stop);
                if (await ChildAsync(db, school.Id, childId, stop) is not { } child)
                {
                    return false;
                }

                var today = SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow());
                Retention.Check(request.KeptUntil, today);
                await Moving.LeaveGroupsAsync(db, child.Id, today, stop);
                Moving.Away(child, child.LeftOn ?? today, request.KeptUntil);
                return true;
            },
            stop
        );
        return found ? TypedResults.NoContent() : TypedResults.NotFound();
    }

    // Who is in a class is erased there.
    private static async Task<Results<NoContent, NotFound>> EraseAsync(
        ChildId childId,
        EraseChildThatLeft request,
        HttpContext http,
        Decisions decisions,
        Erasing erasing,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var found = await decisions.DecideAsync(
            async db =>
            {
                var school = await SchoolAsync(db, http, stop);
                if (await ChildAsync(db, school.Id, childId, stop) is not { LeftOn: not null } child)
                {
                    return false;
                }

                new Naming(child.GivenName, child.FamilyName, child.Born, child.Mark).CheckErasing(request.Name);
                db.Entry(child).State = EntityState.Detached;
                await erasing.EraseAsync(db, child.ClassId, child.Id, SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow()), stop);
                return true;
            },
            stop
        );
        if (!found)
        {
            return TypedResults.NotFound();
        }

        await erasing.EmptyLogAsync(stop);
        return TypedResults.NoContent();
    }

    internal static async Task<Data.Model.School> SchoolAsync(FobbleDb db, HttpContext http, CancellationToken stop)
    {
        var id = await WholeSchoolFeature.LedByAsync(db, http, stop);
        return await db.Schools.SingleAsync(s => s.Id == id, stop);
    }

    /// <summary>Sequence of the observation that came in last.</summary>
    internal static async Task<long> LastSeenAsync(FobbleDb db, CancellationToken stop) => await db.Observations.MaxAsync(o => (long?)o.Sequence, stop) ?? 0;

    internal static async Task<SchoolCalendar> CalendarAsync(FobbleDb db, int schoolId, CancellationToken stop) =>
        new(await db.Terms.Where(t => t.SchoolId == schoolId).Select(t => new Term(t.Name, t.Season, t.First, t.Last)).ToListAsync(stop), []);

    private static Task<Child?> ChildAsync(FobbleDb db, int schoolId, ChildId child, CancellationToken stop) =>
        db.Children.FirstOrDefaultAsync(c => c.Id == child.Value && c.Class!.SchoolId == schoolId, stop);

    private static string NameOf(Child child) => new Naming(child.GivenName, child.FamilyName, child.Born, child.Mark).Whole;
}
