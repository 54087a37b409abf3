using System.Globalization;
using System.Text;
using Fobble.Bench;

// Measures what the issue asks for and writes bench/RESULTS.md. Whole runs of the real thing, on this machine, without asserting anything.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
var root = Root.Find();
(string Name, Func<Task<IReadOnlyList<Figure>>> Run)[] parts =
[
    ("groups", () => Task.FromResult<IReadOnlyList<Figure>>([.. GroupingBench.Run()])),
    ("group gain", () => Task.FromResult<IReadOnlyList<Figure>>([.. GroupGainBench.Run()])),
    ("turns", () => Task.FromResult<IReadOnlyList<Figure>>([.. TurnsBench.Run()])),
    ("stay", () => Task.FromResult<IReadOnlyList<Figure>>([.. StayBench.Run()])),
    ("hunt", () => Task.FromResult<IReadOnlyList<Figure>>([.. HuntBench.Run()])),
    ("planning", () => Task.FromResult<IReadOnlyList<Figure>>([.. PlanningBench.Run()])),
    ("classroom", () => Task.FromResult<IReadOnlyList<Figure>>([.. ClassroomBench.Run()])),
    ("baseline", () => Task.FromResult<IReadOnlyList<Figure>>([.. BaselineBench.Run()])),
    ("judgement", () => Task.FromResult<IReadOnlyList<Figure>>([.. JudgementBench.Run()])),
    ("worlds", () => Task.FromResult<IReadOnlyList<Figure>>([.. WorldsBench.Run()])),
    ("history", HistoryBench.RunAsync),
    ("server", ServerBench.RunAsync),
    ("load", LoadBench.RunAsync),
    ("hour", HourBench.RunAsync),
    ("district", DistrictBench.RunAsync),
    ("sign-in", SignInBench.RunAsync),
    ("start", () => StartUpBench.RunAsync(root)),
    ("client", () => Task.FromResult<IReadOnlyList<Figure>>([.. ClientSize.Measure(root)])),
];

// Each part has its own section, with its own day: a name or more on the command line measures only those parts and leaves the others as they are.
var file = Path.Combine(root, "bench", "RESULTS.md");
var sections = (File.Exists(file) ? File.ReadAllText(file) : "")
    .Split("\n## ")
    .Skip(1)
    .ToDictionary(s => s[..s.IndexOf('\n', StringComparison.Ordinal)].Trim(), s => s[s.IndexOf('\n', StringComparison.Ordinal)..].Trim());
foreach (var part in parts.Where(p => args.Length == 0 || args.Contains(p.Name)))
{
    Console.WriteLine($"{part.Name} …");
    var section = new StringBuilder();
    section.AppendLine(
        $"Measured on {DateTime.UtcNow:yyyy-MM-dd}: {Environment.ProcessorCount} cores, {System.Runtime.InteropServices.RuntimeInformation.FrameworkDescription}, {System.Runtime.InteropServices.RuntimeInformation.OSDescription.Split('#')[0].Trim()}."
    );
    section.AppendLine();
    section.AppendLine("| what | measured | aim |");
    section.AppendLine("| --- | --- | --- |");
    foreach (var row in await part.Run())
    {
        section.AppendLine($"| {row.What} | {row.Measured} | {row.Aim} |");
        Console.WriteLine($"{row.What}: {row.Measured}");
    }

    sections[part.Name] = section.ToString().Trim();
}

var text = new StringBuilder();
text.AppendLine("# Results");
text.AppendLine();
text.AppendLine(
    "Made by `./fobble bench` (or `./fobble bench NAME` for one section). Each figure is from one run; they differ by some ten per cent from run to run."
);
foreach (var (name, _) in parts.Where(p => sections.ContainsKey(p.Name)))
{
    text.AppendLine($"\n## {name}\n\n{sections[name]}");
}

// What is measured elsewhere and written by hand stays at the end.
foreach (var (name, section) in sections.Where(s => parts.All(p => p.Name != s.Key)))
{
    text.AppendLine($"\n## {name}\n\n{section}");
}

File.WriteAllText(file, text.ToString());
return 0;
