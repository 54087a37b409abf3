using System.IO.Compression;
using System.Text.RegularExpressions;

namespace Fobble.Bench;

/// <summary>What the clipboard loads first, gzipped: the page, and every script, style and Latin font that its route pulls in.</summary>
internal static partial class ClientSize
{
    public static IEnumerable<Figure> Measure(string root)
    {
        var built = Path.Combine(root, "src", "Fobble.Server", "wwwroot");
        var assets = Directory.GetFiles(Path.Combine(built, "assets")).ToDictionary(f => Path.GetFileName(f)!, f => f);
        HashSet<string> found = [];
        Queue<string> open = new(Names(File.ReadAllText(Path.Combine(built, "index.html")), assets));
        foreach (var name in assets.Keys.Where(n => n.StartsWith("AppShell", StringComparison.Ordinal) || n.StartsWith("RecordPage", StringComparison.Ordinal)))
        {
            open.Enqueue(name);
        }

        while (open.TryDequeue(out var name))
        {
            if (found.Add(name) && name.EndsWith(".js", StringComparison.Ordinal))
            {
                // Static imports only; what a route loads later is named in import(…).
                foreach (Match import in StaticImport().Matches(File.ReadAllText(assets[name])))
                {
                    open.Enqueue(import.Groups[1].Value);
                }
            }
        }

        var fonts = assets.Keys.Where(n => n.EndsWith(".woff2", StringComparison.Ordinal) && LatinFont().IsMatch(n)).ToList();
        var code = found.Sum(n => Zipped(assets[n])) + Zipped(Path.Combine(built, "index.html"));
        yield return new(
            "what the clipboard loads first, gzipped",
            $"{code / 1000.0:0} kB of scripts and styles, {(code + fonts.Sum(n => new FileInfo(assets[n]).Length)) / 1000.0:0} kB with fonts",
            "under 170 kB"
        );
    }

    private static IEnumerable<string> Names(string html, Dictionary<string, string> assets) =>
        assets.Keys.Where(n => html.Contains(n, StringComparison.Ordinal));

    private static long Zipped(string file)
    {
        using var into = new MemoryStream();
        using (var zip = new GZipStream(into, CompressionLevel.SmallestSize, leaveOpen: true))
        {
            zip.Write(File.ReadAllBytes(file));
        }

        return into.Length;
    }

    [GeneratedRegex("-latin-[0-9]+-normal")]
    private static partial Regex LatinFont();

    [GeneratedRegex("""(?:from|import)\s*"\./([^"]+\.js)";?""")]
    private static partial Regex StaticImport();
}
