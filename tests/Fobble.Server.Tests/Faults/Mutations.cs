using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using Fobble.Core.Numbers;

namespace Fobble.Server.Tests.Faults;

/// <summary>
/// Files that are almost right: made from a right one by a few changes of the kind that its format has (a field of a table, a line of a calendar, a part of a tree, a file of a zip), or
/// of its bytes. The same number gives the same file.
/// </summary>
internal static class Mutations
{
    /// <summary>Texts that have broken something somewhere: empty, endless, of no script, of all scripts, ends of what numbers and days can be.</summary>
    public static IReadOnlyList<string> Hostile { get; } =
    [
        "",
        " ",
        "0",
        "-1",
        "1e308",
        "-1e-308",
        "NaN",
        "999999999999999999999",
        "2147483648",
        "0001-01-01",
        "9999-12-31",
        "2027-02-29",
        "2026-11-25T25:61:61Z",
        "null",
        "true",
        "=1+1",
        "'",
        "\"",
        "\\",
        ";",
        "\0",
        "\r",
        "\u202e",
        "\ufeff",
        "\ufffd",
        "e\u0301\u0301\u0301\u0301\u0301",
        "🧮👩‍👩‍👧",
        "نوره",
        "../../etc/passwd",
        "<script>",
        "{{0}}",
        "%s%n",
        "*a",
        "&a [*a]",
        "!!binary x",
        "count.say-5",
        new('x', 70_000),
        new('[', 300),
    ];

    public static byte[] Of(byte[] right, string kind, SeededRandom random)
    {
        var file = right;
        for (var changes = 1 + random.Next(3); changes > 0; changes--)
        {
            file = kind switch
            {
                _ when random.Next(8) == 0 => Bytes(file, random),
                "csv" or "yaml" or "ics" => Encoding.UTF8.GetBytes(Lines(Encoding.UTF8.GetString(file), kind, random)),
                "json" => Tree(file, random),
                "zip" => Zip(file, random),
                _ => Bytes(file, random),
            };
        }

        return file;
    }

    private static byte[] Bytes(byte[] file, SeededRandom random)
    {
        if (file.Length == 0)
        {
            return [(byte)random.Next(256)];
        }

        var at = random.Next(file.Length);
        var length = Math.Min(1 + random.Next(64), file.Length - at);
        switch (random.Next(5))
        {
            case 0:
                var noise = file.ToArray();
                for (var i = at; i < at + length; i++)
                {
                    noise[i] = (byte)random.Next(256);
                }

                return noise;
            case 1:
                return file[..at];
            case 2:
                return [.. file[..at], .. file[(at + length)..]];
            case 3:
                return [.. file[..at], .. file[at..(at + length)], .. file[at..]];
            default:
                var bit = file.ToArray();
                bit[at] ^= (byte)(1 << random.Next(8));
                return bit;
        }
    }

    private static string Lines(string text, string kind, SeededRandom random)
    {
        var lines = text.Split('\n').ToList();
        var at = random.Next(lines.Count);
        switch (random.Next(6))
        {
            case 0:
                lines.RemoveAt(at);
                break;
            case 1:
                lines.Insert(random.Next(lines.Count), lines[at]);
                break;
            case 2:
                (lines[at], lines[random.Next(lines.Count)]) = (lines[random.Next(lines.Count)], lines[at]);
                break;
            case 3:
                lines.InsertRange(at, Enumerable.Repeat(lines[at], 1 + random.Next(400)));
                break;
            default:
                var parts = lines[at].Split(SeparatorOf(kind));
                parts[random.Next(parts.Length)] = Hostile[random.Next(Hostile.Count)];
                lines[at] = string.Join(SeparatorOf(kind), parts);
                break;
        }

        return string.Join('\n', lines);
    }

    private static char SeparatorOf(string kind) =>
        kind switch
        {
            "csv" => ',',
            "ics" => ':',
            _ => ' ',
        };

    private static byte[] Tree(byte[] file, SeededRandom random)
    {
        JsonNode? root;
        try
        {
            root = JsonNode.Parse(file, documentOptions: new() { AllowDuplicateProperties = false });
        }
        catch (System.Text.Json.JsonException)
        {
            return Bytes(file, random);
        }

        List<(Action<JsonNode?> Put, Action TakeOut, Func<JsonNode?> There)> places = [];
        void Walk(JsonNode? node)
        {
            if (node is JsonObject o)
            {
                foreach (var name in o.Select(p => p.Key).ToList())
                {
                    places.Add((v => o[name] = v, () => o.Remove(name), () => o[name]));
                    Walk(o[name]);
                }
            }
            else if (node is JsonArray list)
            {
                for (var i = 0; i < list.Count; i++)
                {
                    var at = i;
                    places.Add((v => list[at] = v, () => list.RemoveAt(at), () => list[at]));
                    Walk(list[at]);
                }

                places.Add((list.Add, list.Clear, () => list.FirstOrDefault()));
            }
        }

        Walk(root);
        if (places.Count == 0)
        {
            return Bytes(file, random);
        }

        var (put, takeOut, there) = places[random.Next(places.Count)];
        switch (random.Next(7))
        {
            case 0:
                takeOut();
                break;
            case 1:
                put(null);
                break;
            case 2:
                put(Hostile[random.Next(Hostile.Count)]);
                break;
            case 3:
                put(random.Next(2) == 0 ? -1 : 1e300);
                break;
            case 4:
                put(new JsonArray());
                break;
            case 5:
                put(new JsonObject { ["a"] = 1 });
                break;
            default:
                // Something of the same file, in another place.
                put(places[random.Next(places.Count)].There()?.DeepClone());
                break;
        }

        return Encoding.UTF8.GetBytes(root?.ToJsonString() ?? "null");
    }

    private static byte[] Zip(byte[] file, SeededRandom random)
    {
        List<(string Name, byte[] Content)> entries = [];
        try
        {
            using ZipArchive zip = new(new MemoryStream(file), ZipArchiveMode.Read);
            foreach (var entry in zip.Entries)
            {
                using MemoryStream to = new();
                using var from = entry.Open();
                from.CopyTo(to);
                entries.Add((entry.FullName, to.ToArray()));
            }
        }
        catch (InvalidDataException)
        {
            return Bytes(file, random);
        }

        if (entries.Count == 0)
        {
            return Bytes(file, random);
        }

        var at = random.Next(entries.Count);
        switch (random.Next(8))
        {
            case 0:
                entries.RemoveAt(at);
                break;
            case 1:
                entries.Add(entries[at]);
                break;
            case 2:
                entries[at] = (entries[random.Next(entries.Count)].Name, entries[at].Content);
                break;
            default:
                entries[at] = (entries[at].Name, Of(entries[at].Content, "csv", random));
                break;
        }

        using MemoryStream made = new();
        using (ZipArchive zip = new(made, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, content) in entries)
            {
                using var to = zip.CreateEntry(name, CompressionLevel.Fastest).Open();
                to.Write(content);
            }
        }

        return made.ToArray();
    }
}
