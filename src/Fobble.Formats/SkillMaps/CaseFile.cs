using System.Text.Json;
using System.Text.Json.Nodes;
using Fobble.Core.Skills;
using Fobble.Core.Standards;
using Fobble.Formats.Csv;

namespace Fobble.Formats.SkillMaps;

/// <summary>
/// The map as a package of 1EdTech's Competencies and Academic Standards Exchange (CASE) 1.0: strands and skills are items, a strand
/// holds its skills (<c>isChildOf</c>), a prerequisite comes before what needs it (<c>precedes</c>), and what a skill serves is
/// <c>isRelatedTo</c>. What the standard has no field for stands in an item's notes, in the form of a content file, so nothing is lost.
/// </summary>
public static class CaseFile
{
    private const string Base = "urn:fobble:skill-map:";
    private static readonly JsonSerializerOptions Layout = new()
    {
        WriteIndented = true,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <param name="school">Whose map it is.</param>
    /// <param name="changed">When the map was written; the same map at the same moment gives the same file.</param>
    public static string Write(IReadOnlyList<Strand> strands, IReadOnlyList<Skill> skills, string school, DateTimeOffset changed)
    {
        ArgumentNullException.ThrowIfNull(strands);
        ArgumentNullException.ThrowIfNull(skills);
        var at = changed.ToUniversalTime().ToString("yyyy-MM-dd'T'HH:mm:ss'+00:00'", System.Globalization.CultureInfo.InvariantCulture);
        var title = Phrase($"Number skills of {school}");
        JsonObject document = new()
        {
            ["identifier"] = IdOf("document"),
            ["uri"] = Base + "document",
            ["creator"] = school,
            ["title"] = title,
            ["lastChangeDateTime"] = at,
            ["language"] = "en",
            ["adoptionStatus"] = "Implemented",
            ["CFPackageURI"] = Link("Package", "package"),
        };
        JsonArray items =
        [
            .. strands.Select(s => Item(s.Id, "Strand", s.Name, s.Name, at)),
            .. skills.Select(s =>
            {
                var item = Item(s.Id.Value, "Skill", s.ICan, s.Short, at);
                item["humanCodingScheme"] = s.Id.Value;
                item["conceptKeywords"] = new JsonArray([.. s.Words.Select(w => (JsonNode)w)]);
                item["notes"] = SkillMapLoader.WriteOne(s);
                return item;
            }),
        ];
        JsonArray associations =
        [
            .. skills.Select((s, i) => Association("isChildOf", s.Id.Value, s.Strand, at, i)),
            .. skills.SelectMany(s => s.Needs.Select(need => Association("precedes", need.Value, s.Id.Value, at, null))),
            .. skills.SelectMany(s =>
                s.Standards.Select(code => Association("isRelatedTo", s.Id.Value, "standard:" + code, at, null, Framework.Find(code)?.Text))
            ),
        ];
        return new JsonObject
        {
            ["CFDocument"] = document,
            ["CFItems"] = items,
            ["CFAssociations"] = associations,
        }.ToJsonString(Layout);
    }

    /// <summary>Reads a package that was written here, or one whose items were changed elsewhere: wording, keywords and associations count, the notes supply the rest.</summary>
    public static SkillMapReading Read(byte[] file)
    {
        if (JsonLists.HoldNothing(file))
        {
            return new([], [new(1, null, Phrase("A list in this package holds nothing at one of its places."))]);
        }

        JsonNode? root;
        try
        {
            root = JsonNode.Parse(file);
        }
        catch (JsonException fault)
        {
            return new([], [new((int)(fault.LineNumber ?? 0) + 1, null, Phrase("This is no JSON: ") + fault.Message.Split('.')[0] + ".")]);
        }

        if (root is not JsonObject package || package["CFItems"] is not JsonArray items || package["CFAssociations"] is not JsonArray associations)
        {
            return new([], [new(1, null, Phrase("This is no CASE package: CFItems or CFAssociations is missing."))]);
        }

        List<FileFault> faults = [];
        List<Skill> skills = [];
        try
        {
            var names = items.OfType<JsonObject>().ToDictionary(i => Text(i, "identifier"), i => Text(i, "humanCodingScheme"));
            var links = associations
                .OfType<JsonObject>()
                .Select(a =>
                    (
                        Type: Text(a, "associationType"),
                        From: Text(a["originNodeURI"], "identifier"),
                        To: Text(a["destinationNodeURI"], "identifier"),
                        ToUri: Text(a["destinationNodeURI"], "uri")
                    )
                )
                .ToList();
            foreach (var (item, at) in items.OfType<JsonObject>().Select((item, i) => (item, i + 1)).Where(p => Text(p.item, "CFItemType") == "Skill"))
            {
                try
                {
                    skills.Add(SkillOf(item, names, links));
                }
                catch (RefusedException fault)
                {
                    faults.Add(new(at, $"CFItems[{at - 1}]", fault.Message));
                }
            }
        }
        catch (Exception fault) when (fault is InvalidOperationException or ArgumentException)
        {
            return new([], [new(1, null, Phrase("An item or association of the package is not what the standard asks for, or an identifier is there twice."))]);
        }

        if (skills.Count == 0 && faults.Count == 0)
        {
            faults.Add(new(1, null, Phrase("The package holds no item of the type Skill.")));
        }

        faults.AddRange(
            skills
                .GroupBy(s => s.Id)
                .Where(g => g.Count() > 1)
                .Select(g => new FileFault(1, "humanCodingScheme", Phrase($"{g.Key} is in the file {g.Count()} times.")))
        );
        return new(skills, faults);
    }

    private static Skill SkillOf(JsonObject item, Dictionary<string, string> names, List<(string Type, string From, string To, string ToUri)> links)
    {
        var notes = Text(item, "notes");
        var whole = SkillMapLoader.ReadOne(
            notes.Length > 0
                ? notes
                : throw new RefusedException(
                    "file",
                    Phrase($"{Text(item, "humanCodingScheme")} has no notes: they hold what CASE has no field for. Begin with a map that was exported here.")
                )
        );
        var id = Text(item, "identifier");
        var needs = links
            .Where(l => l.Type == "precedes" && l.To == id)
            .Select(l =>
                names.GetValueOrDefault(l.From) ?? throw new RefusedException("file", Phrase($"{whole.Id} comes after an item that is not in the package."))
            )
            .ToList();
        var changed = whole with
        {
            Short = Text(item, "abbreviatedStatement"),
            ICan = Text(item, "fullStatement"),
            Words = item["conceptKeywords"] is JsonArray words ? [.. words.Select(w => w!.GetValue<string>())] : whole.Words,
            Needs = [.. needs.Select(n => new SkillId(n))],
            Standards = [.. links.Where(l => l.Type == "isRelatedTo" && l.From == id).Select(l => l.ToUri[(Base.Length + "standard:".Length)..])],
        };
        return SkillMapLoader.ReadOne(SkillMapLoader.WriteOne(changed));
    }

    private static JsonObject Item(string name, string type, string statement, string shortly, string at) =>
        new()
        {
            ["identifier"] = IdOf(name),
            ["uri"] = Base + name,
            ["CFDocumentURI"] = Link("Document", "document"),
            ["CFItemType"] = type,
            ["fullStatement"] = statement,
            ["abbreviatedStatement"] = shortly,
            ["language"] = "en",
            ["lastChangeDateTime"] = at,
        };

    private static JsonObject Association(string type, string from, string to, string at, int? place, string? title = null)
    {
        JsonObject link = new()
        {
            ["identifier"] = IdOf($"{type}:{from}:{to}"),
            ["uri"] = $"{Base}{type}:{from}:{to}",
            ["associationType"] = type,
            ["CFDocumentURI"] = Link("Document", "document"),
            ["originNodeURI"] = Link(from, from),
            ["destinationNodeURI"] = Link(title ?? to, to),
            ["lastChangeDateTime"] = at,
        };
        if (place is { } number)
        {
            link["sequenceNumber"] = number + 1;
        }

        return link;
    }

    private static JsonObject Link(string title, string name) =>
        new()
        {
            ["title"] = title,
            ["identifier"] = IdOf(name),
            ["uri"] = Base + name,
        };

    private static string IdOf(string name) => NameUuid.Of(NameUuid.Url, Base + name).ToString();

    private static string Text(JsonNode? node, string field) =>
        node is JsonObject o && o[field] is JsonValue value && value.TryGetValue<string>(out var text) ? text : "";
}
