using Fobble.Core.Evidence;

namespace Fobble.Core.Grouping;

/// <summary>How many turns a week a class means to give each child.</summary>
public enum TurnsAWeek
{
    /// <summary>Two where there are places for it, else one.</summary>
    AsPlacesAllow,
    One,
    Two,
}

/// <summary>A stretch of a week in which a child has one turn at most.</summary>
/// <param name="Number">Of the week's parts, from 1.</param>
/// <param name="From">First day of the part on which there is a place for a group.</param>
/// <param name="Until">Last such day.</param>
public sealed record WeekPart(int Number, DateOnly From, DateOnly Until)
{
    public string Name => From == Until ? Words.Weekday(From) : Phrase($"{Words.Weekday(From)} to {Words.Weekday(Until)}");

    public bool Has(DateOnly day) => day >= From && day <= Until;
}

/// <summary>
/// One turn a child and week makes the second group of a day worth little: over a term, two turns, the second worked out when the first is known, gave made-up
/// classes more (<c>./fobble bench turns</c>). So a week with places enough falls into two parts, each with groups of its own; no day is in both.
/// </summary>
public static class WeekParts
{
    /// <summary>Two turns are usual from so many places for each group that one turn for everyone needs.</summary>
    public const double PlacesForTwo = 1.3;

    /// <param name="days">The day of each place for a group in the week.</param>
    /// <param name="children">How many there are to group.</param>
    /// <param name="largest">Children in a group, at most.</param>
    public static IReadOnlyList<WeekPart> Of(IReadOnlyList<DateOnly> days, int children, int largest, TurnsAWeek turns)
    {
        ArgumentNullException.ThrowIfNull(days);
        List<DateOnly> order = [.. days.Distinct().Order()];
        if (order.Count == 0)
        {
            return [];
        }

        var needed = Math.Ceiling(children / (double)largest);
        var two = turns == TurnsAWeek.Two || (turns == TurnsAWeek.AsPlacesAllow && days.Count >= PlacesForTwo * needed);
        if (!two || order.Count == 1)
        {
            return [new(1, order[0], order[^1])];
        }

        // As even as it can be; where two cuts are, the first part is the longer, so that the second is asked for with more seen.
        var cut = Enumerable.Range(1, order.Count - 1).MinBy(i => (Math.Abs(days.Count - (2 * days.Count(d => d < order[i]))), -i));
        return [new(1, order[0], order[cut - 1]), new(2, order[cut], order[^1])];
    }

    /// <summary>
    /// The second half of a week is worth asking for anew once something was seen in the first: says so, else null. What was held is never asked for again.
    /// </summary>
    /// <param name="accepted">The week's groups, as they were accepted at that moment.</param>
    /// <param name="held">Those of the week that were held, of sets that were replaced too.</param>
    public static string? WorthAskingAgain(
        WeekPart part,
        IReadOnlyList<AcceptedGroup> accepted,
        DateTimeOffset at,
        IReadOnlyList<AcceptedGroup> held,
        ClassEvidence evidence
    )
    {
        ArgumentNullException.ThrowIfNull(part);
        ArgumentNullException.ThrowIfNull(evidence);
        if (held.Any(h => part.Has(h.Day)) || !held.Any(h => h.Day < part.From))
        {
            return null;
        }

        var seen = accepted
            .Where(g => part.Has(g.Day))
            .SelectMany(g => g.Children)
            .Distinct()
            .Count(c => evidence.Map.Skills.Any(s => evidence.Seen(c, s.Id) is [.., var last] && last.At > at));
        return seen == 0
            ? null
            : Phrase(
                $"{Words.Capital(Words.Count(seen, "child has", "children have"))} been seen since these were accepted: ask again, and they follow what was seen."
            );
    }
}
