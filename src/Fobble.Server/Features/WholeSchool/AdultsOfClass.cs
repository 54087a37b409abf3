using System.ComponentModel.DataAnnotations;
using Fobble.Core.Calendars;
using Fobble.Core.People;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Rooms;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.WholeSchool;

/// <param name="FullName">Not looked at for an adult who has an account.</param>
/// <param name="From">First and last day of cover, at the school; null for who belongs to the class for good.</param>
/// <param name="InPlaceOf">Of cover: the adult of the class who is away on these days, and whose lessons it takes; null for none.</param>
public sealed record NewAdult(string FullName, string Email, ClassRole Role, DateOnly? From = null, DateOnly? Until = null, int? InPlaceOf = null);

public sealed record NewRole(ClassRole Role);

/// <summary>Who belongs to the class, and as what. A class has a lead teacher at any time; who belongs to it no more sees it no more, at once.</summary>
internal static class AdultsOfClass
{
    public static void Map(IEndpointRouteBuilder school)
    {
        var adults = school.MapGroup("/classes/{classId:int}/adults");
        adults.MapPost("/", AddAsync).WithTrace(TraceKind.AdultAdded);
        adults.MapPut("/{adultId:int}", SetRoleAsync).WithTrace(TraceKind.RoleChanged);
        adults.MapDelete("/{adultId:int}", EndAsync).WithTrace(TraceKind.AdultTakenOut);
    }

    private static async Task<Ok<Invitation>> AddAsync(
        ClassId classId,
        NewAdult request,
        HttpContext http,
        UserManager<Adult> adults,
        Decisions decisions,
        Invitations invitations,
        OpenConnections connections,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        RefusedException.Unless(Enum.IsDefined(request.Role), "role", Phrase("There is no such role."));
        var invited = await decisions.DecideAsync(
            async db =>
            {
                var adult = await adults.FindByEmailAsync(request.Email.Trim()) ?? await MakeAsync(request, adults);
                Traces.Of(http, adult);
                var cover = request.Role == ClassRole.Cover;
                if (cover)
                {
                    var school = await db.Classes.Where(c => c.Id == classId.Value).Select(c => c.School!).SingleAsync(stop);
                    Covering.Check(request.From, request.Until, SchoolZones.Of(school, clock).DayOf(clock.GetUtcNow()));
                }

                var member = await MemberAsync(db, classId, new(adult.Id), stop);
                // Who covers already is given other days.
                RefusedException.Unless(
                    member is null || (cover && member.Role == ClassRole.Cover),
                    "email",
                    Phrase($"{adult.FullName} belongs to this class already.")
                );
                if (member is null)
                {
                    member = new Membership { ClassId = classId.Value, AdultId = adult.Id };
                    db.Memberships.Add(member);
                }

                member.Role = request.Role;
                (member.From, member.Until) = cover ? (request.From, request.Until) : (null, null);
                member.InPlaceOfId = cover ? await CheckedAsync(db, classId, request.InPlaceOf, stop) : null;
                // Who has never come in is asked once more.
                var asked = adult.PasswordHash is null ? await invitations.AskAsync(db, adult, http, stop) : null;
                return (Asked: asked, Devices: await DevicesAsync(db, new(adult.Id), stop));
            },
            stop
        );
        invited.Devices.ForEach(connections.Close);
        return TypedResults.Ok(invited.Asked is null ? new Invitation(Mailed: false, Address: null) : await invitations.SendAsync(invited.Asked));
    }

    private static async Task<int?> CheckedAsync(FobbleDb db, ClassId classId, int? inPlaceOf, CancellationToken stop)
    {
        RefusedException.Unless(
            inPlaceOf is null || await db.Memberships.AnyAsync(m => m.ClassId == classId.Value && m.AdultId == inPlaceOf && m.Role != ClassRole.Cover, stop),
            "inPlaceOf",
            Phrase("Cover is in the place of somebody who belongs to the class.")
        );
        return inPlaceOf;
    }

    // Without a password nobody comes in: the adult chooses one.
    private static async Task<Adult> MakeAsync(NewAdult request, UserManager<Adult> adults)
    {
        RefusedException.Unless(!string.IsNullOrWhiteSpace(request.FullName), "fullName", Phrase("The name is missing."));
        RefusedException.Unless(new EmailAddressAttribute().IsValid(request.Email.Trim()), "email", Phrase("This is no e-mail address."));
        var adult = new Adult
        {
            FullName = request.FullName.Trim(),
            UserName = request.Email.Trim(),
            Email = request.Email.Trim(),
        };
        var created = await adults.CreateAsync(adult);
        RefusedException.Unless(created.Succeeded, "email", string.Join(" ", created.Errors.Select(e => e.Description)));
        return adult;
    }

    private static async Task<Results<NoContent, NotFound>> SetRoleAsync(
        ClassId classId,
        AdultId adultId,
        NewRole request,
        Decisions decisions,
        OpenConnections connections,
        CancellationToken stop
    )
    {
        RefusedException.Unless(Enum.IsDefined(request.Role), "role", Phrase("There is no such role."));
        var devices = await decisions.DecideAsync(
            async db =>
            {
                if (await MemberAsync(db, classId, adultId, stop) is not { } member)
                {
                    return null;
                }

                await CheckLeadAsync(db, classId, adultId, request.Role, stop);
                RefusedException.Unless(
                    request.Role != ClassRole.Cover || member.Role == ClassRole.Cover,
                    "role",
                    Phrase("Cover is for some days: take the adult out, and add them again for these.")
                );
                member.Role = request.Role;
                if (request.Role != ClassRole.Cover)
                {
                    (member.From, member.Until, member.InPlaceOfId) = (null, null, null);
                }

                return await DevicesAsync(db, adultId, stop);
            },
            stop
        );
        return Told(devices, connections);
    }

    /// <param name="takesOver">Who takes the lessons that are the adult's in the timetable; needed where there are any.</param>
    private static async Task<Results<NoContent, NotFound>> EndAsync(
        ClassId classId,
        AdultId adultId,
        int? takesOver,
        Decisions decisions,
        OpenConnections connections,
        CancellationToken stop
    )
    {
        var devices = await decisions.DecideAsync(
            async db =>
            {
                if (await MemberAsync(db, classId, adultId, stop) is not { } member)
                {
                    return null;
                }

                await CheckLeadAsync(db, classId, adultId, null, stop);
                var lessons = await db.LessonSlots.Where(s => s.ClassId == classId.Value && s.AdultId == adultId.Value && !s.Retired).ToListAsync(stop);
                if (lessons.Count > 0)
                {
                    RefusedException.Unless(
                        takesOver is { } other
                            && other != adultId.Value
                            && await db.Memberships.AnyAsync(
                                m => m.ClassId == classId.Value && m.AdultId == other && m.Role != ClassRole.MathsLead && m.Role != ClassRole.Cover,
                                stop
                            ),
                        "takesOver",
                        Phrase($"Say who takes {Words.Count(lessons.Count, "lesson", "lessons")} of the timetable.")
                    );
                    lessons.ForEach(s => s.AdultId = takesOver!.Value);
                }

                db.Memberships.Remove(member);

                // Who stood in for them helps on, and takes the lessons of nobody.
                await db
                    .Memberships.Where(m => m.ClassId == classId.Value && m.InPlaceOfId == adultId.Value)
                    .ExecuteUpdateAsync(m => m.SetProperty(x => x.InPlaceOfId, (int?)null), stop);
                await db.AdultHours.Where(h => h.ClassId == classId.Value && h.AdultId == adultId.Value).ExecuteDeleteAsync(stop);
                await db.AdultGroups.Where(g => g.ClassId == classId.Value && g.AdultId == adultId.Value).ExecuteDeleteAsync(stop);
                await db
                    .AdultWishes.Where(w => w.AdultId == adultId.Value && db.Children.Any(c => c.Id == w.ChildId && c.ClassId == classId.Value))
                    .ExecuteDeleteAsync(stop);
                return await DevicesAsync(db, adultId, stop);
            },
            stop
        );
        return Told(devices, connections);
    }

    private static Task<Membership?> MemberAsync(FobbleDb db, ClassId classId, AdultId adult, CancellationToken stop) =>
        db.Memberships.FirstOrDefaultAsync(m => m.ClassId == classId.Value && m.AdultId == adult.Value, stop);

    private static async Task CheckLeadAsync(FobbleDb db, ClassId classId, AdultId adult, ClassRole? becomes, CancellationToken stop)
    {
        if (becomes != ClassRole.LeadTeacher)
        {
            Answerable.CheckClass(
                await db.Memberships.Where(m => m.ClassId == classId.Value && m.Role == ClassRole.LeadTeacher).Select(m => m.AdultId).ToListAsync(stop),
                adult.Value
            );
        }
    }

    private static Task<List<string>> DevicesAsync(FobbleDb db, AdultId adult, CancellationToken stop) =>
        db.SignedIn.Where(s => s.AdultId == adult.Value).Select(s => s.Id).ToListAsync(stop);

    // What listens to the class asks anew whether it may.
    private static Results<NoContent, NotFound> Told(List<string>? devices, OpenConnections connections)
    {
        devices?.ForEach(connections.Close);
        return devices is null ? TypedResults.NotFound() : TypedResults.NoContent();
    }
}
