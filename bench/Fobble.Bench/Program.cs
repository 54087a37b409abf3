using System.Globalization;
using System.Text;
using Fobble.Bench;

// Measures what the issue asks for and writes bench/RESULTS.md. Whole runs of the real thing, on this machine, without asserting anything.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
var root = Root.Find();
var rows = new List<Figure>();
Console.WriteLine("Grouping …");
rows.AddRange(GroupingBench.Run());
Console.WriteLine("Server: recording and grid …");
rows.AddRange(await ServerBench.RunAsync());
Console.WriteLine("Start-up …");
rows.AddRange(await StartUpBench.RunAsync(root));
Console.WriteLine("Client …");
rows.AddRange(ClientSize.Measure(root));

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

File.WriteAllText(Path.Combine(root, "bench", "RESULTS.md"), text.ToString());
return 0;
