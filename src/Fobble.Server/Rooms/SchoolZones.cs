using Fobble.Core.Calendars;
using Fobble.Data.Model;

namespace Fobble.Server.Rooms;

internal static class SchoolZones
{
    /// <summary>The school's own zone; the server's where none is set, or it is one that this machine does not know.</summary>
    public static SchoolZone Of(School school, TimeProvider clock) => SchoolZone.Named(school.TimeZone) ?? new(clock.LocalTimeZone);
}
