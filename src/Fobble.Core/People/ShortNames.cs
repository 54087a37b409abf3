using System.Globalization;
using System.Text;

namespace Fobble.Core.People;

/// <summary>A child as the class list has it.</summary>
/// <param name="Mark">What the teacher has given to tell it from a child of the same name; a letter or two, never a description.</param>
/// <param name="Born">Tells children of one name apart where no mark does.</param>
public sealed record ListedName(string Given, string Family, string? Mark = null, DateOnly? Born = null);

/// <summary>
/// Names for everything that others may see: first name and initial, which no line end parts. No two children of a class are called alike: more letters of the family
/// name tell them apart, and where the whole names are the same, a mark or the birthday does.
/// </summary>
public static class ShortNames
{
    public const int LongestMark = 12;

    private const char Unbroken = '\u00A0';

    /// <summary>A name for each child, in the order given; all of them differ, in more than case, spaces or the way accents are encoded.</summary>
    public static IReadOnlyList<string> Of(IReadOnlyList<ListedName> children)
    {
        ArgumentNullException.ThrowIfNull(children);
        // What names are the same as is asked of each pair of children: worked out once a child and length.
        var wholes = children.Select(c => Same(Whole(c))).ToList();
        Dictionary<int, List<string>> shorts = [];
        List<string> ShortsAt(int length) =>
            shorts.TryGetValue(length, out var known) ? known : shorts[length] = [.. children.Select(c => Same(Short(c, length)))];

        HashSet<string> taken = [];
        List<string> names = [];
        for (var i = 0; i < children.Count; i++)
        {
            var alike = Enumerable.Range(0, children.Count).Where(j => wholes[j] == wholes[i]).Select(j => children[j]).ToList();
            var letters = new StringInfo(children[i].Family).LengthInTextElements;
            var enough = Enumerable
                .Range(1, Math.Max(0, letters - 1))
                .FirstOrDefault(length => ShortsAt(length) is var all && Enumerable.Range(0, all.Count).All(j => all[j] != all[i] || wholes[j] == wholes[i]));
            var name =
                (enough > 0 ? Short(children[i], enough) : Whole(children[i])) + (alike.Count > 1 ? $"{Unbroken}({TellingApart(children[i], alike)})" : "");

            // “Ada” of the family “O.” is called as “Ada Okafor” is.
            var free = Enumerable.Range(1, children.Count + 1).Select(n => n == 1 ? name : $"{name}{Unbroken}({n})").First(n => taken.Add(Same(n)));
            names.Add(Direction.Isolated(free));
        }

        return names;
    }

    /// <summary>First names only, where a class has each once; else the name of <see cref="Of"/>.</summary>
    public static IReadOnlyList<string> FirstOf(IReadOnlyList<ListedName> children)
    {
        var names = Of(children);
        bool Alone(ListedName child) =>
            children.Count(c => Same(c.Given) == Same(child.Given)) == 1
            && !children.Zip(names).Any(other => !ReferenceEquals(other.First, child) && Same(other.Second) == Same(child.Given));
        return [.. children.Zip(names, (child, name) => Alone(child) ? Direction.Isolated(child.Given) : name)];
    }

    /// <summary>Those of the same whole name, the child itself among them: they need a mark each, or birthdays that differ.</summary>
    public static IReadOnlyList<ListedName> AlikeTo(ListedName child, IReadOnlyList<ListedName> children)
    {
        ArgumentNullException.ThrowIfNull(child);
        return [.. children.Where(c => Same(Whole(c)) == Same(Whole(child)))];
    }

    /// <summary>Names are the same when they differ only in case, spaces, signs nobody sees or the way accents are encoded.</summary>
    public static string Same(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        var seen = name.Normalize(NormalizationForm.FormKC).Where(c => char.GetUnicodeCategory(c) != UnicodeCategory.Format);
        return string.Join(' ', string.Concat(seen).ToUpperInvariant().Split(' ', StringSplitOptions.RemoveEmptyEntries));
    }

    /// <summary>As it is typed and kept in files: with a usual space before the initial, and no sign that nobody sees around it.</summary>
    public static string Typed(string name) => name.Replace(Unbroken, ' ').Trim(Direction.Isolate, Direction.EndOfIsolate);

    private static string TellingApart(ListedName child, IReadOnlyList<ListedName> alike)
    {
        bool Once(Func<ListedName, string> what) => alike.Count(c => Same(what(c)) == Same(what(child))) == 1;
        return child.Mark is { Length: > 0 } mark && Once(c => c.Mark ?? "") ? mark
            : child.Born is not null && Once(Birthday) ? Birthday(child)
            : $"{alike.ToList().FindIndex(c => ReferenceEquals(c, child)) + 1}";
    }

    private static string Birthday(ListedName child) => child.Born is { } day ? $"{day.Day}{Unbroken}{day.ToString("MMM", CultureInfo.InvariantCulture)}" : "";

    private static string Whole(ListedName child) => child.Family.Length == 0 ? child.Given : $"{child.Given}{Unbroken}{child.Family}";

    // A dot where letters are left out; text elements, so that no accent or script is cut in the middle.
    private static string Short(ListedName child, int length)
    {
        var family = new StringInfo(child.Family);
        return family.LengthInTextElements <= length ? Whole(child) : $"{child.Given}{Unbroken}{family.SubstringByTextElements(0, length)}.";
    }
}
