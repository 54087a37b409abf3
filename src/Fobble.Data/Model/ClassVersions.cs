namespace Fobble.Data.Model;

/// <summary>
/// How often the parts of a class have changed. Kept by triggers in the database, so that nobody who writes can forget it; a decision that rests on a part
/// checks that it still has the number it had when it was read.
/// </summary>
public sealed class ClassVersionRow
{
    public int ClassId { get; set; }

    /// <summary>Sets of small groups and who is in them.</summary>
    public long Groups { get; set; }

    /// <summary>Days as they are worked out: lessons, starters, activities.</summary>
    public long Week { get; set; }

    /// <summary>Terms, closures, timetable, adults' hours.</summary>
    public long Calendar { get; set; }

    /// <summary>Whatever changes the record other than by adding to it: withdrawals, erasures, children who come or go, checks.</summary>
    public long Record { get; set; }

    /// <summary>Sequence of the observation that came in last.</summary>
    public long LastSeen { get; set; }
}
