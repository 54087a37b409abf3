using System.Globalization;
using Fobble.Core.Skills;

namespace Fobble.Core.Activities;

/// <summary>A teacher's question to the library. What is null or false does not matter.</summary>
/// <param name="Text">Words and numbers, such as "hidden part to 7".</param>
/// <param name="Minutes">At most this long, for the children asked for.</param>
/// <param name="Without">An item that is not there.</param>
public sealed record ActivityQuestion(
    string? Text,
    int? Minutes,
    int? Children,
    Place? Place,
    SkillId? Skill,
    int? Part,
    bool NothingToPrint,
    bool OnlyOwned,
    Cupboard.ItemId? Without
);

/// <summary>An activity that answers a question, and the skill for which it does.</summary>
public sealed record ActivityFound(Activity Activity, ActivitySkill Skill);

public static class ActivitySearch
{
    private static readonly HashSet<string> Fillers = ["to", "up", "the", "a", "an", "of", "for", "and", "with", "in", "on", "we", "is"];

    /// <summary>All that fit, the most pointed first: what the words say about the skill counts more than what they say elsewhere, and few skills more than many.</summary>
    /// <param name="isOwned">Whether the cupboard holds everything for this many children, stand-ins included.</param>
    /// <param name="isPrinted">Whether something would have to be printed.</param>
    public static IReadOnlyList<ActivityFound> Answers(
        ActivityLibrary library,
        SkillMap map,
        ActivityQuestion question,
        Func<ActivityFound, bool> isOwned,
        Func<ActivityFound, bool> isPrinted
    )
    {
        ArgumentNullException.ThrowIfNull(library);
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(question);
        var words = (question.Text ?? "")
            .ToLowerInvariant()
            .Split([' ', ',', '.', '?'], StringSplitOptions.RemoveEmptyEntries)
            .Where(w => !Fillers.Contains(w))
            .ToList();
        var numbers = words.Select(w => int.TryParse(w, NumberStyles.None, CultureInfo.InvariantCulture, out var n) ? n : (int?)null).OfType<int>().ToList();
        words.RemoveAll(w => w.All(char.IsAsciiDigit));
        return
        [
            .. library
                .Activities.Where(a => question.Minutes is not { } most || a.MinutesFor(question.Children ?? a.GroupSize.High) <= most)
                .Where(a => question.Children is not { } children || a.GroupSize.Contains(children))
                .Where(a => question.Place is not { } place || a.Places.Contains(place))
                .Where(a => question.Part is not { } part || a.Parts.Contains(part))
                .Where(a => question.Without is not { } item || a.Materials.All(m => m.Item.Id != item))
                .Select(a => (Activity: a, Best: BestSkill(a, map, question.Skill, words, numbers)))
                .Where(p => p.Best is not null)
                .OrderByDescending(p => words.Count(w => IsInName(p.Activity, w)))
                .ThenByDescending(p => p.Best!.Value.Worth)
                .ThenBy(p => p.Activity.Skills.Count)
                .ThenBy(p => p.Activity.Name, StringComparer.Ordinal)
                .Select(p => new ActivityFound(p.Activity, p.Best!.Value.Skill))
                .Where(f => !question.NothingToPrint || !isPrinted(f))
                .Where(f => !question.OnlyOwned || isOwned(f)),
        ];
    }

    // Who asks by name means it: a whole word of a name comes before the same letters inside another.
    private static bool IsInName(Activity activity, string word) =>
        activity.Name.Split(' ', ',', '’').Any(part => part.Equals(word, StringComparison.OrdinalIgnoreCase));

    private static (ActivitySkill Skill, int Worth)? BestSkill(Activity activity, SkillMap map, SkillId? wanted, List<string> words, List<int> numbers)
    {
        var about = $"{activity.Name} {activity.Purpose}".ToLowerInvariant();
        var options = activity
            .Skills.Where(s => map.Has(s.Skill) && !map[s.Skill].Hidden && (wanted is null || s.Skill == wanted) && numbers.All(s.Range.Contains))
            .Select(s =>
                (
                    Skill: s,
                    Text: $"{map[s.Skill].Short} {map[s.Skill].ICan}".ToLowerInvariant()
                        + (s.Items == ItemSets.ItemKind.HiddenPart ? Phrase(" hidden part") : "")
                )
            )
            .Where(o => words.All(w => o.Text.Contains(w, StringComparison.Ordinal) || about.Contains(w, StringComparison.Ordinal)))
            .Select(o => (o.Skill, Worth: words.Count(w => o.Text.Contains(w, StringComparison.Ordinal))))
            .ToList();
        return options.Count == 0 ? null : options.MaxBy(o => o.Worth);
    }
}
