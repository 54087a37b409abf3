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
    /// <param name="along">Those who help in that class help in this one as well, at the times they are used to.</param>
    public static async Task<SchoolClass> AddClassAsync(FobbleDb db, School school, string name, int leadId, SchoolClass? like = null, bool along = false)
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
        if (like is not null && along)
        {
            slots.AddRange(await HelpersAlongAsync(db, like, newClass, leadId));
        }

        db.LessonSlots.AddRange(slots.Count > 0 ? slots : UsualSlots(newClass.Id, [leadId]));
        await db.SaveChangesAsync();
        return newClass;
    }

    // Whoever helps there for good, with lessons and hours.
    private static async Task<List<LessonSlotRow>> HelpersAlongAsync(FobbleDb db, SchoolClass like, SchoolClass newClass, int leadId)
    {
        var helpers = await db
            .Memberships.AsNoTracking()
            .Where(m => m.ClassId == like.Id && m.AdultId != leadId && (m.Role == ClassRole.Assistant || m.Role == ClassRole.MathsLead))
            .ToListAsync();
        newClass.Members.AddRange(helpers.Select(m => new Membership { AdultId = m.AdultId, Role = m.Role }));
        var ids = helpers.ConvertAll(m => m.AdultId);
        var hours = await db.AdultHours.AsNoTracking().Where(h => h.ClassId == like.Id && ids.Contains(h.AdultId)).ToListAsync();
        db.AdultHours.AddRange(
            hours.Select(h => new AdultHoursRow
            {
                ClassId = newClass.Id,
                AdultId = h.AdultId,
                Weekday = h.Weekday,
                From = h.From,
                Until = h.Until,
            })
        );
        var slots = await db.LessonSlots.AsNoTracking().Where(s => s.ClassId == like.Id && ids.Contains(s.AdultId) && !s.Retired).ToListAsync();
        return slots.ConvertAll(s => Copy(s, newClass.Id, s.AdultId));
    }

    private static LessonSlotRow Copy(LessonSlotRow slot, int classId, int adultId) =>
        new()
        {
            ClassId = classId,
            Kind = slot.Kind,
            Weekday = slot.Weekday,
            Start = slot.Start,
            Minutes = slot.Minutes,
            AdultId = adultId,
            Where = slot.Where,
        };

    // Those of its lead: whoever else helps here takes lessons once they belong to the class.
    private static async Task<List<LessonSlotRow>> SlotsLikeAsync(FobbleDb db, SchoolClass like, int classId, int leadId)
    {
        var first = await db
            .Memberships.Where(m => m.ClassId == like.Id && m.Role == ClassRole.LeadTeacher)
            .OrderBy(m => m.AdultId)
            .Select(m => m.AdultId)
            .FirstAsync();
        var slots = await db.LessonSlots.AsNoTracking().Where(s => s.ClassId == like.Id && s.AdultId == first && !s.Retired).ToListAsync();
        return slots.ConvertAll(s => Copy(s, classId, leadId));
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
