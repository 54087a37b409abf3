using Fobble.Core.Calendars;
using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.SetUp;

/// <summary>Stores what a new school starts with.</summary>
internal static class Beginnings
{
    /// <param name="zone">IANA name of the school's time zone.</param>
    /// <param name="locale">How the school writes dates, as a BCP 47 tag.</param>
    public static async Task AddClassAsync(FobbleDb db, string schoolName, string className, string zone, string locale, Adult lead, DateOnly today)
    {
        var school = new School
        {
            Name = schoolName,
            TimeZone = zone,
            Locale = locale,
        };
        db.Schools.Add(school);
        db.SchoolLeads.Add(new SchoolLead { School = school, AdultId = lead.Id });
        await db.SaveChangesAsync();
        db.Terms.AddRange(
            UsualYear
                .Terms(locale, today)
                .Select(t => new TermRow
                {
                    SchoolId = school.Id,
                    Name = t.Name,
                    Season = t.Season,
                    First = t.First,
                    Last = t.Last,
                })
        );
        await AddClassAsync(db, school, className, lead.Id);
    }

    /// <summary>A class of a school that is there. No child goes into it yet.</summary>
    /// <param name="like">A class whose ways and timetable it begins with; null for the usual ones.</param>
    public static async Task<SchoolClass> AddClassAsync(FobbleDb db, School school, string name, int leadId, SchoolClass? like = null)
    {
        var newClass = new SchoolClass { Name = name, YearWord = Wording.UsualIn(school.Locale).Year };
        if (like is not null)
        {
            newClass.BeginLike(like);
        }

        newClass.SchoolId = school.Id;
        newClass.Members.Add(new Membership { AdultId = leadId, Role = ClassRole.LeadTeacher });
        db.Classes.Add(newClass);
        await db.SaveChangesAsync();
        var slots = like is null ? [] : await SlotsLikeAsync(db, like, newClass.Id, leadId);
        db.LessonSlots.AddRange(slots.Count > 0 ? slots : UsualSlots(newClass.Id, [leadId]));
        await db.SaveChangesAsync();
        return newClass;
    }

    // Those of its lead: whoever else helps here takes lessons once they belong to the class.
    private static async Task<List<LessonSlotRow>> SlotsLikeAsync(FobbleDb db, SchoolClass like, int classId, int leadId)
    {
        var first = await db
            .Memberships.Where(m => m.ClassId == like.Id && m.Role == ClassRole.LeadTeacher)
            .OrderBy(m => m.AdultId)
            .Select(m => m.AdultId)
            .FirstAsync();
        var slots = await db.LessonSlots.AsNoTracking().Where(s => s.ClassId == like.Id && s.AdultId == first && !s.Retired).ToListAsync();
        return
        [
            .. slots.Select(s => new LessonSlotRow
            {
                ClassId = classId,
                Kind = s.Kind,
                Weekday = s.Weekday,
                Start = s.Start,
                Minutes = s.Minutes,
                AdultId = leadId,
                Where = s.Where,
            }),
        ];
    }

    /// <param name="adults">Ids of the class's adults, the lead first.</param>
    public static IEnumerable<LessonSlotRow> UsualSlots(int classId, IReadOnlyList<int> adults) =>
        UsualWeek
            .Lessons(adults.Count)
            .Select(l => new LessonSlotRow
            {
                ClassId = classId,
                Kind = l.Kind,
                Weekday = l.Weekday,
                Start = l.Start,
                Minutes = l.Minutes,
                AdultId = adults[l.Adult],
                Where = l.Where,
            });
}
