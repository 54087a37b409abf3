using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Data;
using Fobble.Data.Model;

namespace Fobble.Server.Features.SetUp;

/// <summary>What a new school starts with, so that a week can be planned at once: three terms and a usual timetable, both to be changed in Set-up.</summary>
internal static class Beginnings
{
    public static async Task AddClassAsync(FobbleDb db, string schoolName, string className, Adult lead, DateOnly today)
    {
        var school = new School { Name = schoolName };
        var newClass = new SchoolClass { Name = className, School = school };
        newClass.Members.Add(new Membership { AdultId = lead.Id, Role = ClassRole.LeadTeacher });
        db.Classes.Add(newClass);
        await db.SaveChangesAsync();
        db.Terms.AddRange(UsualTerms(school.Id, today));
        db.LessonSlots.AddRange(UsualSlots(newClass.Id, [lead.Id]));
        await db.SaveChangesAsync();
    }

    /// <summary>Three terms of the school year that holds today; July and August belong to the year to come.</summary>
    public static IEnumerable<TermRow> UsualTerms(int schoolId, DateOnly today)
    {
        var year = today.Month >= 8 ? today.Year : today.Year - 1;
        yield return new TermRow { SchoolId = schoolId, Name = "Autumn", Season = Season.Autumn, First = new(year, 9, 1), Last = new(year, 12, 20) };
        yield return new TermRow { SchoolId = schoolId, Name = "Spring", Season = Season.Spring, First = new(year + 1, 1, 5), Last = new(year + 1, 3, 31) };
        yield return new TermRow { SchoolId = schoolId, Name = "Summer", Season = Season.Summer, First = new(year + 1, 4, 14), Last = new(year + 1, 7, 31) };
    }

    /// <summary>Carpet at half past nine, two small groups after it and choice time, with the adults taking groups in turn.</summary>
    public static IEnumerable<LessonSlotRow> UsualSlots(int classId, IReadOnlyList<int> adults) =>
        Enumerable.Range(1, 5).Select(d => (DayOfWeek)d).SelectMany(day => new LessonSlotRow[]
        {
            new() { ClassId = classId, Kind = SlotKind.Carpet, Weekday = day, Start = new(9, 15), Minutes = 20, AdultId = adults[0], Where = "Carpet" },
            new() { ClassId = classId, Kind = SlotKind.Group, Weekday = day, Start = new(9, 40), Minutes = 15, AdultId = adults[0], Where = "Round table" },
            new() { ClassId = classId, Kind = SlotKind.Group, Weekday = day, Start = adults.Count > 1 ? new(9, 40) : new(10, 0), Minutes = 15, AdultId = adults[^1], Where = "Window table" },
            new() { ClassId = classId, Kind = SlotKind.Choice, Weekday = day, Start = new(10, 15), Minutes = 30, AdultId = adults[^1], Where = "Centres" },
        });
}
