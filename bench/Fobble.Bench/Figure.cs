namespace Fobble.Bench;

internal sealed record Figure(string What, string Measured, string Aim = "");

internal static class Root
{
    public static string Find()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "Fobble.slnx")))
        {
            folder = Path.GetDirectoryName(folder) ?? throw new InvalidOperationException("Run this inside the repository.");
        }

        return folder;
    }
}

internal static class Timings
{
    public static double At(this IReadOnlyCollection<double> times, double share) =>
        times.Order().ElementAt((int)Math.Min(times.Count - 1, Math.Floor(share * times.Count)));
}
