using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Fobble.Core.Numbers;

namespace Fobble.Server.Tests.Faults;

/// <summary>
/// Every address that takes JSON, as the application's own OpenAPI document names them, is sent bodies made by that document: of the right shape, and with something wrong somewhere. None
/// is a fault of the program. FOBBLE_MUTATIONS says how many of each.
/// </summary>
public partial class AnyBodyTests(ITestOutputHelper output)
{
    private static readonly TimeSpan Hangs = TimeSpan.FromSeconds(90);
    private static readonly int Bodies = int.Parse(Environment.GetEnvironmentVariable("FOBBLE_MUTATIONS") ?? "8", CultureInfo.InvariantCulture);

    // Whoever goes through these is out, or the class is: they come last, each from a school of its own.
    [GeneratedRegex("/account/|archive|/leave|/erase|new-year|/adults|/leads")]
    private static partial Regex Parting();

    private static readonly string[] Words =
    [
        "count.say-5",
        "see.to-3",
        "add.to-5",
        "2026-11-25",
        "2026-11-30",
        "2026-12-07",
        "09:15",
        "11:00:00",
        "ines",
        "Ice",
        "counters",
        "2026-11-25T07:00:00Z",
        "0d6f3c1e-0000-4000-8000-000000000001",
    ];

    [Fact]
    public async Task No_body_is_a_fault_of_the_program()
    {
        using School school = new();
        var ines = await school.ComeInAsAsync("ines");
        var document = JsonNode.Parse(await (await ines.GetAsync("/openapi/v1.json")).Content.ReadAsStringAsync())!.AsObject();
        var all = AddressesOf(document).ToList();
        all.Count.ShouldBeGreaterThan(60);
        List<string> faults = [];
        Dictionary<int, int> answers = [];
        foreach (var address in all.Where(a => !Parting().IsMatch(a.Path)))
        {
            await SendAsync(ines, document, address, faults, answers);
        }

        foreach (var address in all.Where(a => Parting().IsMatch(a.Path)))
        {
            using School another = new();
            await SendAsync(await another.ComeInAsAsync("ines"), document, address, faults, answers);
        }

        output.WriteLine($"{all.Count} addresses: {string.Join(", ", answers.OrderBy(a => a.Key).Select(a => $"{a.Value} × {a.Key}"))}");
        faults.ShouldBeEmpty();
    }

    private sealed record Taking(HttpMethod Method, string Path, JsonNode Schema);

    private static IEnumerable<Taking> AddressesOf(JsonObject document) =>
        from path in document["paths"]!.AsObject()
        from method in path.Value!.AsObject()
        let schema = method.Value?["requestBody"]?["content"]?["application/json"]?["schema"]
        where schema is not null
        select new Taking(new HttpMethod(method.Key.ToUpperInvariant()), path.Key, schema);

    private static async Task SendAsync(Visitor adult, JsonObject document, Taking address, List<string> faults, Dictionary<int, int> answers)
    {
        for (var seed = 0; seed < Bodies; seed++)
        {
            SeededRandom random = new((ulong)(seed + 1) * 7919 + (ulong)address.Path.Length);
            var path = Part().Replace(address.Path, m => PartOf(m.Groups[1].Value, random));

            // Half are of the right shape all through; of the others a little is wrong, or much.
            var body = Made(document, address.Schema, random, wrong: random.Pick([0, 0, 0.03, 0.12]), deep: 0);
            var answer = await adult.SendAsync(address.Method, path, new StringContent(body, Encoding.UTF8, "application/json")).WaitAsync(Hangs);
            var code = (int)answer.StatusCode;
            answers[code] = answers.GetValueOrDefault(code) + 1;
            if (code >= 500)
            {
                faults.Add($"{address.Method} {path} ({seed}): {code} {body[..Math.Min(body.Length, 600)]}");
            }
        }
    }

    private static string PartOf(string name, SeededRandom random) =>
        name switch
        {
            "classId" => "1",
            "day" => random.Pick(["2026-11-25", "2026-11-30", "2026-12-07", "2027-08-01"]),
            "skillId" => random.Pick(["count.say-5", "see.to-3", "nothing.here"]),
            "item" => random.Pick(["counters", "nothing"]),
            "activityId" => random.Pick(["mine", "nothing"]),
            "step" => random.Pick(["Terms", "1"]),
            "id" or "checkId" => random.Pick(["1", "0d6f3c1e-0000-4000-8000-000000000001"]),
            _ => random.Pick(["1", "2", "3", "999999"]),
        };

    private static string Made(JsonObject document, JsonNode? schema, SeededRandom random, double wrong, int deep)
    {
        if (deep > 8 || schema is not JsonObject)
        {
            return "null";
        }

        if (random.Chance(wrong))
        {
            return random.Next(8) switch
            {
                0 => "null",
                1 => "[]",
                2 => "{}",
                3 => random.Pick(["-1", "0", "2147483647", "-2147483648", "9223372036854775807", "1e308", "0.5"]),
                4 => "[null]",
                5 => "\"\\ud800\"",
                _ => JsonSerializer.Serialize(random.Pick(Mutations.Hostile)),
            };
        }

        if (schema["$ref"]?.GetValue<string>() is { } named)
        {
            return Made(document, document["components"]!["schemas"]![named.Split('/')[^1]], random, wrong, deep + 1);
        }

        if ((schema["oneOf"] ?? schema["anyOf"]) is JsonArray ways)
        {
            return Made(document, ways[random.Next(ways.Count)], random, wrong, deep + 1);
        }

        if (schema["enum"] is JsonArray values)
        {
            return values[random.Next(values.Count)]?.ToJsonString() ?? "null";
        }

        List<string> types = schema["type"] switch
        {
            JsonArray several => [.. several.Select(t => t!.GetValue<string>())],
            JsonValue one => [one.GetValue<string>()],
            _ => ["object"],
        };
        return random.Pick(types) switch
        {
            "null" => "null",
            "boolean" => random.Pick(["true", "false"]),
            "integer" => random.Pick(["0", "1", "2", "3", "5", "10", "20"]),
            "number" => random.Pick(["0", "0.5", "1", "12.25"]),
            "array" =>
                $"[{string.Join(',', Enumerable.Range(0, random.Pick([0, 1, 2, 3])).Select(_ => Made(document, schema["items"], random, wrong, deep + 1)))}]",
            "object" when schema["properties"] is JsonObject properties =>
                $"{{{string.Join(',', properties.Where(_ => !random.Chance(wrong / 2)).Select(p => $"{JsonSerializer.Serialize(p.Key)}:{Made(document, p.Value, random, wrong, deep + 1)}"))}}}",
            "object" when schema["additionalProperties"] is JsonObject of =>
                $"{{{string.Join(',', Words.Take(random.Next(3)).Select(w => $"{JsonSerializer.Serialize(w)}:{Made(document, of, random, wrong, deep + 1)}"))}}}",
            "object" => "{}",
            _ when schema["format"]?.GetValue<string>() is "date" => JsonSerializer.Serialize(random.Pick(["2026-11-25", "2026-11-30", "2027-02-28"])),
            _ when schema["format"]?.GetValue<string>() is "uuid" => JsonSerializer.Serialize($"0d6f3c1e-0000-4000-8000-{random.Next(1_000_000):000000000000}"),
            _ when schema["format"]?.GetValue<string>() is "date-time" => "\"2026-11-25T07:00:00Z\"",
            _ when schema["format"]?.GetValue<string>() is "time" => JsonSerializer.Serialize(random.Pick(["09:15:00", "11:00:00"])),
            _ => JsonSerializer.Serialize(random.Pick(Words)),
        };
    }

    [GeneratedRegex(@"\{(\w+)\}")]
    private static partial Regex Part();
}
