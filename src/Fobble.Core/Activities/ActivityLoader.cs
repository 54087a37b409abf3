using Fobble.Core.Chance;
using Fobble.Core.Cupboard;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.Activities;

/// <summary>Reads and writes activities as YAML: those that ship (Activities/Content) and those that teachers hand on as a file.</summary>
public static class ActivityLoader
{
    private static readonly Lazy<IReadOnlyList<Activity>> ShippedActivities = new(() => Read(SkillMapLoader.AsWritten(), ContentFile.In("Activities/Content")));

    /// <summary>The activities that ship with Fobble, in the usual words.</summary>
    public static ActivityLibrary Shipped(SkillMap map)
    {
        ActivityLibrary library = new(map, [.. AsWritten.Select(a => a.InWords(Wording.Usual))]);
        return library.Unserved.Count == 0
            ? library
            : throw new RefusedException("activity", Phrase($"The activities have faults: {string.Join("; ", library.Unserved)}."));
    }

    /// <summary>The activities that ship with Fobble, with the places for a class's words left open.</summary>
    public static IReadOnlyList<Activity> AsWritten => ShippedActivities.Value;

    /// <exception cref="RefusedException">A file can't be read, a field is missing or an activity does not fit the map; says which.</exception>
    public static IReadOnlyList<Activity> Read(SkillMap map, IEnumerable<(string Name, string Text)> files) =>
        [
            .. files
                .SelectMany(f =>
                    ContentFile.Read<List<ActivityEntry>?>(f.Name, f.Text) ?? throw new RefusedException("activity", Phrase($"{f.Name} is empty."))
                )
                .Select(entry => ToActivity(map, entry)),
        ];

    /// <summary>The file in which activities are handed on; <see cref="Read"/> takes it back unchanged.</summary>
    public static string Write(IEnumerable<Activity> activities) => ContentFile.Write(activities.Select(ActivityEntry.Of).ToList());

    /// <summary>An activity from the form in which it was written.</summary>
    /// <exception cref="RefusedException">A field is missing or can't be what it should be; says which.</exception>
    public static Activity ToActivity(SkillMap map, ActivityEntry entry)
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(entry);
        foreach (
            var (what, empty) in new (string, bool)[]
            {
                ("id", entry.Id.Length == 0),
                ("name", entry.Name.Length == 0),
                ("purpose", entry.Purpose.Length == 0),
                ("parts", entry.Parts.Count == 0),
                ("places", entry.Places.Count == 0),
                ("skills", entry.Skills.Count == 0),
                ("steps", entry.Steps.Count == 0),
                ("say", entry.Say.Count == 0),
                ("lookFor", entry.LookFor.Count == 0),
                ("easier", entry.Easier.Length == 0),
                ("harder", entry.Harder.Length == 0),
                ("sheet", entry.Sheet.Length == 0),
                ("print", entry.Print.Length == 0),
                ("mat", entry.Mat.Length == 0),
                (Phrase("minutes (or a game)"), entry.Minutes < 1 && entry.Game is null),
            }
        )
        {
            if (empty)
            {
                throw new RefusedException("activity", Phrase($"Activity {entry.Id}: {what} is missing."));
            }
        }

        if (entry.Parts.Any(p => p is < 1 or > 20) || entry.Minutes > 60)
        {
            throw new RefusedException("activity", Phrase($"Activity {entry.Id}: parts are numbered 1 to 20, and it takes an hour at most."));
        }

        var groupSize = NumberRange.Parse(entry.GroupSize);
        var game = entry.Game is { } g
            ? new Game(
                [.. g.Dice.Select(Die.Parse)],
                g.Operation is { } word ? ContentFile.Word<DiceOperation>(entry.Id, word) : DiceOperation.Add,
                g.Target,
                g.Exact
            )
            : null;
        var minutes = game is null
            ? entry.Minutes
            : game.MinutesFor(groupSize.High)
                ?? throw new RefusedException("activity", Phrase($"Activity {entry.Id}: with these dice the game may never end."));
        return new Activity(
            new ActivityId(entry.Id),
            entry.Name,
            entry.Parts,
            entry.Purpose,
            [.. entry.Places.Select(p => ContentFile.Word<Place>(entry.Id, p))],
            groupSize,
            minutes,
            game,
            entry.Quiet,
            [.. entry.Skills.Select(s => ToSkill(map, entry, s))],
            [.. entry.Materials.Select(m => ToMaterial(entry.Id, m))],
            entry.Prepare,
            entry.Steps,
            entry.Say,
            entry.LookFor,
            entry.Easier,
            entry.Harder,
            entry.Sheet,
            SheetChoice.Parse(entry.Id, entry.Print),
            entry.Mat
        );
    }

    // A skill without a range of its own takes the map's; without items of its own, the activity's, then those that another activity has
    // for it, then those of the activity's first skill.
    private static ActivitySkill ToSkill(SkillMap map, ActivityEntry entry, ActivitySkillEntry skill)
    {
        var id = new SkillId(skill.Id);
        var known = map.Has(id) ? map[id] : throw new RefusedException("activity", Phrase($"Activity {entry.Id} serves {id}, which does not exist."));
        var range = skill.Range is { } text ? NumberRange.Parse(text) : known.Range;
        var word = skill.Items ?? entry.Items;
        var kind = word is null ? KindFor(id) : ContentFile.Word<ItemKind>(entry.Id, word);
        return new ActivitySkill(
            id,
            kind
                ?? ContentFile.Word<ItemKind>(
                    entry.Id,
                    entry.Skills.Select(s => s.Items).FirstOrDefault(i => i is not null) ?? Phrase("(what is asked is missing)")
                ),
            range
        );
    }

    // While what ships is itself being read there is nothing to look in yet.
    private static ItemKind? KindFor(SkillId id) =>
        ShippedActivities.IsValueCreated ? AsWritten.Select(a => a.For(id)?.Items).FirstOrDefault(k => k is not null) : null;

    private static Material ToMaterial(string where, MaterialEntry entry) =>
        new(
            CupboardCatalogue.Shipped.Find(new(entry.Item))
                ?? throw new RefusedException("activity", Phrase($"Activity {where}: there is no item '{entry.Item}' in the cupboard.")),
            new Amount(entry.Amount),
            entry.Alike,
            entry.Print is { } print ? SheetChoice.Parse(where, print) : null
        );
}
