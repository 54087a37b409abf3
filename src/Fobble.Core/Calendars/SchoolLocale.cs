namespace Fobble.Core.Calendars;

/// <summary>The ways of writing dates that a school can choose, as BCP 47 tags: all in English, which is what the rest is written in.</summary>
public static class SchoolLocale
{
    public const string Usual = "en-GB";

    public static IReadOnlyList<string> All { get; } = [Usual, "en-AU", "en-CA", "en-IE", "en-IN", "en-NZ", "en-US", "en-ZA"];

    public static bool IsKnown(string tag) => All.Contains(tag);
}
