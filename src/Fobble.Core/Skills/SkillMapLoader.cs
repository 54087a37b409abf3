using Fobble.Core.Calendars;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;

namespace Fobble.Core.Skills;

/// <summary>Reads the map from YAML: one file a strand (see Skills/Content).</summary>
public static class SkillMapLoader
{
    /// <summary>The map that ships with Fobble, in the usual words.</summary>
    public static SkillMap Shipped() => AsWritten().InWords(Wording.Usual);

    /// <summary>The map that ships with Fobble, with the places for a class's words (<see cref="Wording.Say"/>) left open.</summary>
    public static SkillMap AsWritten() => Load(ContentFile.In("Skills/Content"));

    /// <exception cref="RefusedException">A file can't be read or a field is missing; says which.</exception>
    /// <exception cref="InvalidSkillMapException">The skills make no sound map.</exception>
    public static SkillMap Load(IEnumerable<(string Name, string Text)> files)
    {
        var strands = files.Select(f => ContentFile.Read<StrandFile>(f.Name, f.Text)).OrderBy(s => s.Place).ToList();
        return new SkillMap([.. strands.Select(s => new Strand(s.Strand, s.Name))], [.. strands.SelectMany(s => s.Skills.Select(entry => ToSkill(s, entry)))]);
    }

    /// <summary>One skill as it stands in a file; <see cref="ReadOne"/> takes it back unchanged.</summary>
    public static string WriteOne(Skill skill) => ContentFile.Write(EntryOf(skill));

    /// <exception cref="RefusedException">The text is no skill, or a field is missing; says which.</exception>
    public static Skill ReadOne(string text)
    {
        var entry = ContentFile.Read<SkillEntry?>("skill", text) ?? throw new RefusedException("skill", Phrase("The text is empty."));
        return ToSkill(new StrandFile { Strand = entry.Strand, Prefixes = [entry.Id.Split('.')[0]] }, entry) with { Hidden = entry.Hidden };
    }

    /// <summary>Whether two skills say the same.</summary>
    public static bool Same(Skill one, Skill other) => WriteOne(one with { Hidden = false }) == WriteOne(other with { Hidden = false });

    private static SkillEntry EntryOf(Skill skill) =>
        new()
        {
            Id = skill.Id.Value,
            Strand = skill.Strand,
            Short = skill.Short,
            ICan = skill.ICan,
            Needs = [.. skill.Needs.Select(n => n.Value)],
            When = ContentFile.Dashed(skill.When),
            ShownIn = [.. skill.ShownIn.Select(ContentFile.Dashed)],
            Range = $"{skill.Range}",
            Lessons = skill.Lessons,
            LookFor = [.. skill.LookFor],
            Slips =
            [
                .. skill.Slips.Select(s => new SlipEntry
                {
                    Id = s.Id,
                    Text = s.Text,
                    Confuses = s.Confuses is { } pair ? [pair.One, pair.Other] : null,
                }),
            ],
            Strategies =
            [
                .. skill.Strategies.Select(s => new StrategyEntry
                {
                    Id = s.Id,
                    Text = s.Text,
                    Asked = s.Asked,
                }),
            ],
            Words = [.. skill.Words],
            Standards = [.. skill.Standards],
            Hidden = skill.Hidden,
        };

    private static Skill ToSkill(StrandFile strand, SkillEntry entry)
    {
        void Must(bool holds, string what)
        {
            if (!holds)
            {
                throw new RefusedException("skill", $"{entry.Id}: {what}");
            }
        }

        List<string> prefixes = strand.Prefixes.Count > 0 ? strand.Prefixes : [strand.Strand];
        Must(
            prefixes.Any(p => entry.Id.StartsWith(p + ".", StringComparison.Ordinal)),
            Phrase($"the id should begin with '{string.Join(".' or '", prefixes)}.'")
        );
        Must(entry.Short.Length > 0, Phrase("a short name is missing"));
        Must(
            entry.ICan.StartsWith("I can ", StringComparison.Ordinal) || entry.ICan.StartsWith("I know ", StringComparison.Ordinal),
            Phrase("the sentence should begin with 'I can' or 'I know'")
        );
        Must(entry.LookFor.Count > 0, Phrase("nothing to look for is given"));
        Must(entry.Slips.Count > 0, Phrase("no usual slip is given"));
        Must(entry.Strategies.Count > 0, Phrase("no way of doing it is given"));
        Must(entry.Words.Count > 0, Phrase("no words are given"));
        Must(entry.ShownIn.Count > 0, Phrase("no representation is given"));
        Must(entry.Lessons is >= 2 and <= 4, Phrase("lessons should be 2 to 4"));
        return new Skill(
            new SkillId(entry.Id),
            strand.Strand,
            entry.Short,
            entry.ICan,
            [.. entry.Needs.Select(n => new SkillId(n))],
            ContentFile.Word<Season>(entry.Id, entry.When),
            [.. entry.ShownIn.Select(r => ContentFile.Word<Representation>(entry.Id, r))],
            NumberRange.Parse(entry.Range),
            entry.Lessons,
            entry.LookFor,
            [.. entry.Slips.Select(s => new Slip(s.Id, s.Text, s.Confuses is [var one, var other] ? new Confusion(one, other) : null))],
            [.. entry.Strategies.Select(s => new Strategy(s.Id, s.Text, s.Asked))],
            entry.Words,
            entry.Standards
        );
    }

#pragma warning disable CA1812 // Made by the YAML reader.
    internal sealed record StrandFile
    {
        public string Strand { get; init; } = "";

        public string Name { get; init; } = "";

        public int Place { get; init; }

        /// <summary>What ids begin with, where it is not the strand.</summary>
        public List<string> Prefixes { get; init; } = [];

        public List<SkillEntry> Skills { get; init; } = [];
    }

    internal sealed record SkillEntry
    {
        public string Id { get; init; } = "";

        /// <summary>Only where a skill stands alone; in a strand's file the strand is said once.</summary>
        public string Strand { get; init; } = "";

        public string Short { get; init; } = "";

        public string ICan { get; init; } = "";

        public List<string> Needs { get; init; } = [];

        public string When { get; init; } = "";

        public List<string> ShownIn { get; init; } = [];

        public string Range { get; init; } = "";

        public int Lessons { get; init; }

        public List<string> LookFor { get; init; } = [];

        public List<SlipEntry> Slips { get; init; } = [];

        public List<StrategyEntry> Strategies { get; init; } = [];

        public List<string> Words { get; init; } = [];

        public List<string> Standards { get; init; } = [];

        public bool Hidden { get; init; }
    }

    internal sealed record SlipEntry
    {
        public string Id { get; init; } = "";

        public string Text { get; init; } = "";

        public List<int>? Confuses { get; init; }
    }

    internal sealed record StrategyEntry
    {
        public string Id { get; init; } = "";

        public string Text { get; init; } = "";

        [YamlDotNet.Serialization.YamlMember(DefaultValuesHandling = YamlDotNet.Serialization.DefaultValuesHandling.Preserve)]
        public bool Asked { get; init; } = true;
    }
#pragma warning restore CA1812
}
