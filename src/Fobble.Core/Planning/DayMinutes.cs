using Fobble.Core.Evidence;

namespace Fobble.Core.Planning;

/// <summary>A part of the whole-class lesson.</summary>
public sealed record MinutesLine(string What, int Minutes);

/// <summary>Whether the parts of a whole-class lesson go into its minutes.</summary>
public sealed record DayMinutes(int Slot, IReadOnlyList<MinutesLine> Lines)
{
    /// <summary>Minutes of all parts.</summary>
    public int Planned => Lines.Sum(l => l.Minutes);

    /// <summary>Minutes too many; 0 where it fits.</summary>
    public int Over => Math.Max(0, Planned - Slot);

    public string Sentence =>
        Over > 0
            ? Phrase($"{string.Join(" + ", Lines.Select(l => l.Minutes))} = {Planned} minutes, {Over} more than the {Slot} there are.")
            : Phrase(
                $"{string.Join(" + ", Lines.Select(l => l.Minutes))} = {Planned} of {Slot} minutes{(Slot - Planned > 0 ? $", {Words.Count(Slot - Planned, "minute", "minutes")} to spare" : "")}."
            );
}
