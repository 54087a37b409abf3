namespace Fobble.Core.Calendars;

/// <summary>The ways of writing dates that a school can choose, as BCP 47 tags: all in English, which is what the rest is written in.</summary>
public static class SchoolLocale
{
    public const string Usual = "en-GB";

    public static IReadOnlyList<string> All { get; } = [Usual, "en-AU", "en-CA", "en-IE", "en-IN", "en-NZ", "en-US", "en-ZA"];

    /// <summary>The one of them that a browser's own language speaks for; the usual one where none does.</summary>
    public static string Nearest(string? tag) => All.FirstOrDefault(known => string.Equals(known, tag, StringComparison.OrdinalIgnoreCase)) ?? Usual;

    public static bool IsKnown(string tag) => All.Contains(tag);
}
