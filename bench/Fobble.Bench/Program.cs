using System.Globalization;
using System.Text;
using Fobble.Bench;

// Measures what the issue asks for and writes bench/RESULTS.md. Whole runs of the real thing, on this machine, without asserting anything.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
var root = Root.Find();
var rows = new List<Figure>();
(string Name, Func<Task<IReadOnlyList<Figure>>> Run)[] parts =
[
    ("groups", () => Task.FromResult<IReadOnlyList<Figure>>([.. GroupingBench.Run()])),
    ("classroom", () => Task.FromResult<IReadOnlyList<Figure>>([.. ClassroomBench.Run()])),
    ("server", ServerBench.RunAsync),
    ("start", () => StartUpBench.RunAsync(root)),
    ("client", () => Task.FromResult<IReadOnlyList<Figure>>([.. ClientSize.Measure(root)])),
];

// A name or more on the command line measures only those parts, and writes nothing.
foreach (var part in parts.Where(p => args.Length == 0 || args.Contains(p.Name)))
{
    Console.WriteLine($"{part.Name} …");
    rows.AddRange(await part.Run());
}

var text = new StringBuilder();
text.AppendLine("# Results");
text.AppendLine();
text.AppendLine($"Made by `./fobble bench` on {DateTime.UtcNow:yyyy-MM-dd}: {Environment.ProcessorCount} cores, {System.Runtime.InteropServices.RuntimeInformation.FrameworkDescription}, {System.Runtime.InteropServices.RuntimeInformation.OSDescription.Split('#')[0].Trim()}.");
text.AppendLine("Each figure is from one run; they differ by some ten per cent from run to run.");
text.AppendLine();
text.AppendLine("| what | measured | aim |");
text.AppendLine("| --- | --- | --- |");
foreach (var row in rows)
{
    text.AppendLine($"| {row.What} | {row.Measured} | {row.Aim} |");
    Console.WriteLine($"{row.What}: {row.Measured}");
}

if (args.Length == 0)
{
    File.WriteAllText(Path.Combine(root, "bench", "RESULTS.md"), text.ToString());
}

return 0;
