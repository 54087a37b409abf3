using Fobble.Core.Skills;

namespace Fobble.Core.Standards;

/// <summary>What published standards ask of a class in its year.</summary>
/// <param name="Name">What the standards are called, as in "what the early learning goals ask for".</param>
/// <param name="Skills">Those that reach them, with all that they need.</param>
public sealed record AskedFor(string Name, IReadOnlySet<SkillId> Skills)
{
    /// <summary>From this age at the beginning of the year, in years, a child is usually in its second year of school (common practice).</summary>
    public const double SecondYear = 5;

    private const double DaysAYear = 365.25;

    /// <summary>Of the middle child at the beginning of the year, in years; null where nobody's birthday is known.</summary>
    public static double? AgeOf(IEnumerable<DateOnly?> born, DateOnly began)
    {
        var known = born.OfType<DateOnly>().Order().ToList();
        return known.Count == 0 ? null : (began.DayNumber - known[known.Count / 2].DayNumber) / DaysAYear;
    }

    /// <summary>Null where none is shipped for a place.</summary>
    /// <param name="locale">Of the school, as a BCP 47 tag.</param>
    /// <param name="age">Of the middle child at the beginning of the year, in years; null where nobody's is known.</param>
    public static AskedFor? Of(SkillMap map, string locale, double? age)
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(locale);
        var second = age >= SecondYear;
        return locale.Split('-')[^1] switch
        {
            "GB" when second => Of(map, Phrase("the curriculum of year 1 asks for"), "NC1."),
            "GB" => Of(map, Phrase("the early learning goals ask for"), "EYFS."),
            "US" when second => Of(map, Phrase("the standards of grade 1 ask for"), "1."),
            "US" => Of(map, Phrase("the standards of kindergarten ask for"), "K."),
            _ => null,
        };
    }

    private static AskedFor Of(SkillMap map, string name, string codes) =>
        new(
            name,
            map.Skills.Where(s => !s.Hidden && s.Standards.Any(c => c.StartsWith(codes, StringComparison.Ordinal)))
                .SelectMany(s => map.AllNeeds(s.Id).Append(s.Id))
                .ToHashSet()
        );
}
