using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.Activities;

/// <summary>Reads activities from YAML (see Activities/Content).</summary>
public static class ActivityLoader
{
    /// <summary>The activities that ship with Fobble.</summary>
    public static ActivityLibrary Shipped(SkillMap map) => Load(map, ContentFile.In("Activities/Content"));

    /// <exception cref="FormatException">A file can't be read, a field is missing or an activity does not fit the map; says which.</exception>
    public static ActivityLibrary Load(SkillMap map, IEnumerable<(string Name, string Text)> files) =>
        new(map, [.. files.SelectMany(f => ContentFile.Read<List<ActivityEntry>>(f.Name, f.Text)).Select(entry => ToActivity(map, entry))]);

    private static Activity ToActivity(SkillMap map, ActivityEntry entry)
    {
        foreach (var (what, empty) in new (string, bool)[]
        {
            ("name", entry.Name.Length == 0), ("purpose", entry.Purpose.Length == 0), ("parts", entry.Parts.Count == 0), ("places", entry.Places.Count == 0),
            ("skills", entry.Skills.Count == 0), ("materials", entry.Materials.Count == 0 && !entry.Places.Contains("transition")), ("steps", entry.Steps.Count == 0),
            ("say", entry.Say.Count == 0), ("lookFor", entry.LookFor.Count == 0), ("easier", entry.Easier.Length == 0), ("harder", entry.Harder.Length == 0),
            ("sheet", entry.Sheet.Length == 0), ("minutes", entry.Minutes < 1),
        })
        {
            if (empty)
            {
                throw new FormatException($"Activity {entry.Id}: {what} is missing.");
            }
        }

        return new Activity(
            new ActivityId(entry.Id),
            entry.Name,
            entry.Parts,
            entry.Purpose,
            [.. entry.Places.Select(p => ContentFile.Word<Place>(entry.Id, p))],
            NumberRange.Parse(entry.GroupSize),
            entry.Minutes,
            entry.Quiet,
            [.. entry.Skills.Select(s => ToSkill(map, entry, s))],
            [.. entry.Materials.Select(m => new Material(m.Item, new Amount(m.Amount), [.. m.Risks.Select(r => ContentFile.Word<Risk>(entry.Id, r))]))],
            entry.Prepare,
            entry.Steps,
            entry.Say,
            entry.LookFor,
            entry.Easier,
            entry.Harder,
            entry.Sheet);
    }

    // A skill without a range of its own takes the map's; without items of its own, the activity's.
    private static ActivitySkill ToSkill(SkillMap map, ActivityEntry entry, ActivitySkillEntry skill)
    {
        var id = new SkillId(skill.Id);
        var range = skill.Range is { } text ? NumberRange.Parse(text) : map.Has(id) ? map[id].Range : throw new FormatException($"Activity {entry.Id} serves {id}, which does not exist.");
        return new ActivitySkill(id, ContentFile.Word<ItemKind>(entry.Id, skill.Items ?? entry.Items), range);
    }

#pragma warning disable CA1812 // Made by the YAML reader.
    internal sealed record ActivityEntry
    {
        public string Id { get; init; } = "";

        public string Name { get; init; } = "";

        public List<int> Parts { get; init; } = [];

        public string Purpose { get; init; } = "";

        public List<string> Places { get; init; } = [];

        public string GroupSize { get; init; } = "3-5";

        public int Minutes { get; init; }

        public bool Quiet { get; init; }

        public string Items { get; init; } = "";

        public List<ActivitySkillEntry> Skills { get; init; } = [];

        public List<MaterialEntry> Materials { get; init; } = [];

        public List<string> Prepare { get; init; } = [];

        public List<string> Steps { get; init; } = [];

        public List<string> Say { get; init; } = [];

        public List<string> LookFor { get; init; } = [];

        public string Easier { get; init; } = "";

        public string Harder { get; init; } = "";

        public string Sheet { get; init; } = "";
    }

    internal sealed record ActivitySkillEntry
    {
        public string Id { get; init; } = "";

        public string? Items { get; init; }

        public string? Range { get; init; }
    }

    internal sealed record MaterialEntry
    {
        public string Item { get; init; } = "";

        public string Amount { get; init; } = "1";

        public List<string> Risks { get; init; } = [];
    }
#pragma warning restore CA1812
}
