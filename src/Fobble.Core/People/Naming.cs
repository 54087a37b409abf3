using System.Text.Json.Serialization;

namespace Fobble.Core.People;

/// <summary>What a child is called, and when it was born. Everything else about it hangs on the child and not on its name, so both can be put right at any time.</summary>
/// <param name="Mark">Tells it from a child of the same name; null for none.</param>
public sealed record Naming(string GivenName, string FamilyName, DateOnly? Born, string? Mark)
{
    public const int LongestName = 80;

    /// <summary>Years before today in which a child of a class can be born.</summary>
    public const int OldestYears = 13;

    [JsonIgnore]
    public string Whole => $"{GivenName} {FamilyName}".Trim();

    /// <summary>A child is erased by whoever writes its whole name once more.</summary>
    /// <exception cref="RefusedException">This is another name.</exception>
    public void CheckErasing(string written) =>
        RefusedException.Unless(
            ShortNames.Same(written) == ShortNames.Same(Whole),
            "name",
            Phrase($"To erase this child for good, write its whole name: {Whole}.")
        );

    /// <summary>The same without spaces around it.</summary>
    /// <exception cref="RefusedException">A name is missing, too long or not on one line, the day of birth can't be, or the mark says too much.</exception>
    public Naming Checked(DateOnly today)
    {
        Naming kept = new(GivenName.Trim(), FamilyName.Trim(), Born, string.IsNullOrWhiteSpace(Mark) ? null : Mark.Trim());
        Refusals refusals = new();
        refusals.Check("givenName", kept.GivenName.Length > 0, Phrase("The first name is missing."));
        foreach (var (field, name) in new[] { ("givenName", kept.GivenName), ("familyName", kept.FamilyName) })
        {
            refusals.Check(
                field,
                name.Length <= LongestName && !name.Any(char.IsControl),
                Phrase($"A name has {LongestName} letters at the most, on one line.")
            );
        }

        refusals.Check("born", !(kept.Born >= today), Phrase("This day is still to come."));
        refusals.Check("born", !(kept.Born < today.AddYears(-OldestYears)), Phrase($"This is more than {OldestYears} years ago."));
        refusals.Check(
            "mark",
            kept.Mark is null || (kept.Mark.Length <= ShortNames.LongestMark && !kept.Mark.Any(char.IsControl)),
            Phrase($"A mark has {ShortNames.LongestMark} letters at the most: it only tells two names apart.")
        );
        refusals.ThrowIfAny();
        return kept;
    }
}
