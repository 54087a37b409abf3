using Fobble.Core.Calendars;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Rooms;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Security;

/// <summary>What an adult is in a class today.</summary>
/// <param name="Archived">The class can be read and no more written.</param>
/// <param name="Until">When it is to be asked anew; null for who belongs to the class for good.</param>
internal sealed record Member(ClassRole Role, bool Archived, DateTimeOffset? Until);

/// <summary>Asks who belongs to a class: the one place that knows that cover counts on its days only, by the school's clock.</summary>
internal sealed class Members(FobbleDb db, TimeProvider clock)
{
    /// <summary>The classes that an adult has something to do with on a day, to be asked within another question.</summary>
    public static IQueryable<int> ClassesOf(FobbleDb db, AdultId adult, DateOnly day)
    {
        var id = adult.Value;
        return db.Memberships.Where(m => m.AdultId == id && (m.From == null || (m.From <= day && day <= m.Until))).Select(m => m.ClassId);
    }

    /// <returns>Null for who has nothing to do with the class today.</returns>
    public async Task<Member?> TodayAsync(ClassId classId, AdultId adult, CancellationToken stop)
    {
        var held = await db
            .Memberships.Where(m => m.ClassId == classId.Value && m.AdultId == adult.Value)
            .Select(m => new
            {
                m.Role,
                m.From,
                m.Until,
                Archived = m.Class!.ArchivedOn != null,
                School = m.Class.School!,
            })
            .AsNoTracking()
            .FirstOrDefaultAsync(stop);
        if (held is null)
        {
            return null;
        }

        var zone = SchoolZones.Of(held.School, clock);
        return Covering.Counts(held.From, held.Until, zone.DayOf(clock.GetUtcNow()))
            ? new Member(held.Role, held.Archived, held.Until is { } last ? zone.StartOf(last.AddDays(1)) : null)
            : null;
    }
}
