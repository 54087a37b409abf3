using Fobble.Core.Calendars;
using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Data;
using Fobble.Data.Model;

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
        var newClass = new SchoolClass
        {
            Name = className,
            School = school,
            YearWord = Wording.UsualIn(locale).Year,
        };
        newClass.Members.Add(new Membership { AdultId = lead.Id, Role = ClassRole.LeadTeacher });
        db.Classes.Add(newClass);
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
        db.LessonSlots.AddRange(UsualSlots(newClass.Id, [lead.Id]));
        await db.SaveChangesAsync();
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
