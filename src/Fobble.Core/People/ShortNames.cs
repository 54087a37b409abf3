using System.Globalization;

namespace Fobble.Core.People;

/// <summary>
/// Names for everything that others may see: first name and initial. Where two children of a class would be called alike, more
/// letters of the family name tell them apart.
/// </summary>
public static class ShortNames
{
    /// <summary>A name for each child, in the order given.</summary>
    public static IReadOnlyList<string> Of(IReadOnlyList<(string Given, string Family)> children)
    {
        ArgumentNullException.ThrowIfNull(children);
        return
        [
            .. children.Select(child =>
            {
                var letters = new StringInfo(child.Family);
                for (var length = 1; length < letters.LengthInTextElements; length++)
                {
                    var name = Short(child, length);
                    if (children.Count(other => Short(other, length) == name) == 1)
                    {
                        return name;
                    }
                }

                return child.Family.Length == 0 ? child.Given : $"{child.Given} {child.Family}";
            }),
        ];
    }

    // A dot where letters are left out; text elements, so that no accent or script is cut in the middle.
    private static string Short((string Given, string Family) child, int length)
    {
        var family = new StringInfo(child.Family);
        return family.LengthInTextElements == 0 ? child.Given
            : family.LengthInTextElements <= length ? $"{child.Given} {child.Family}"
            : $"{child.Given} {family.SubstringByTextElements(0, length)}.";
    }
}
