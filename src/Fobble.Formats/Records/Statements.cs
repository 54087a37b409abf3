using System.Text.Json;
using System.Text.Json.Nodes;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Formats.Records;

/// <summary>
/// Observations as lines of JSON in the shape of xAPI statements (ADL Experience API 1.0.3: actor, verb, object, result, context). Children go under a
/// pseudonym, never a name. A withdrawn one is followed by a statement that voids it.
/// </summary>
public static class Statements
{
    private const string Place = "urn:fobble";
    private const string Voided = "http://adlnet.gov/expapi/verbs/voided";

    /// <param name="pseudonymOf">What to call a child outside the class.</param>
    public static IEnumerable<string> Of(IEnumerable<ObservationLine> lines, SkillMap map, Func<string, string> pseudonymOf)
    {
        ArgumentNullException.ThrowIfNull(lines);
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(pseudonymOf);
        foreach (var line in lines)
        {
            yield return StatementOf(line, map, pseudonymOf(line.Child)).ToJsonString();
            if (line.WithdrawnWhy is not null)
            {
                yield return new JsonObject
                {
                    ["actor"] = AgentOf("school"),
                    ["verb"] = new JsonObject { ["id"] = Voided },
                    ["object"] = new JsonObject { ["objectType"] = "StatementRef", ["id"] = $"{line.Id}" },
                }.ToJsonString();
            }
        }
    }

    private static JsonObject StatementOf(ObservationLine line, SkillMap map, string child)
    {
        var known = map.Has(line.Skill) ? map[line.Skill] : null;
        JsonObject more = new()
        {
            [$"{Place}:setting"] = JsonNamingPolicy.CamelCase.ConvertName($"{line.Setting}"),
            [$"{Place}:representation"] = JsonNamingPolicy.CamelCase.ConvertName($"{line.Representation}"),
        };
        foreach (var (name, text) in new[] { ("numbers", line.Numbers), ("slip", line.Slip), ("strategy", line.Strategy) })
        {
            if (text is not null)
            {
                more[$"{Place}:{name}"] = text;
            }
        }

        return new JsonObject
        {
            ["id"] = $"{line.Id}",
            ["timestamp"] = line.At.ToUniversalTime().ToString("yyyy-MM-ddTHH:mm:ss.fffZ", System.Globalization.CultureInfo.InvariantCulture),
            ["actor"] = AgentOf(child),
            ["verb"] = new JsonObject
            {
                ["id"] = $"{Place}:showed",
                ["display"] = new JsonObject { ["en"] = "showed" },
            },
            ["object"] = new JsonObject
            {
                ["objectType"] = "Activity",
                ["id"] = $"{Place}:skill:{line.Skill}",
                ["definition"] = new JsonObject
                {
                    ["name"] = new JsonObject { ["en"] = known?.Short ?? line.Skill.Value },
                    ["description"] = new JsonObject { ["en"] = known?.ICan ?? "" },
                },
            },
            ["result"] = new JsonObject
            {
                ["success"] = line.Support == Support.Alone,
                ["extensions"] = new JsonObject { [$"{Place}:support"] = JsonNamingPolicy.CamelCase.ConvertName($"{line.Support}") },
            },
            ["context"] = new JsonObject { ["extensions"] = more },
        };
    }

    private static JsonObject AgentOf(string name) =>
        new()
        {
            ["objectType"] = "Agent",
            ["account"] = new JsonObject { ["homePage"] = Place, ["name"] = name },
        };
}
