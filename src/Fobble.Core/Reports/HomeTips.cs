using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.Reports;

/// <summary>What a family can try, with things that every home has.</summary>
public static class HomeTips
{
    private static readonly Lazy<IReadOnlyDictionary<SkillId, string>> Shipped = new(Load);

    /// <summary>The tip for a skill, in the class's words; null for a skill of a school's own.</summary>
    public static string? For(SkillId skill, Wording words)
    {
        ArgumentNullException.ThrowIfNull(words);
        return Shipped.Value.TryGetValue(skill, out var tip) ? words.Say(Phrase(tip)) : null;
    }

    private static Dictionary<SkillId, string> Load()
    {
        var (name, text) = ContentFile.In("Reports/Content").Single();
        return ContentFile.Read<List<Entry>>(name, text).SelectMany(e => e.Skills.Select(s => (s, e.Do))).ToDictionary(p => new SkillId(p.s), p => p.Do);
    }

#pragma warning disable CA1812, CA1822 // Made by YamlDotNet.
    private sealed class Entry
    {
        public List<string> Skills { get; set; } = [];

        public string Do { get; set; } = "";
    }
#pragma warning restore CA1812, CA1822
}
