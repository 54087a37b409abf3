using System.Diagnostics;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Bench;

/// <summary>A school with three years of history: 600 children in twenty classes, 400,000 observations, and the pages that are opened most.</summary>
internal static class HistoryBench
{
    private const int Classes = 20;
    private const int Children = 30;
    private const int Observations = 400_000;
    private const int Runs = 60;

    public static async Task<IReadOnlyList<Figure>> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("fobble-bench-").FullName;
        await using var application = new ServerBench.Application(folder);
        using var client = await ServerBench.SignedInAsync(application);
        var (classId, childId) = await FillAsync(application);
        var cold = Stopwatch.StartNew();
        (await client.GetAsync(new Uri($"/api/classes/{classId}/grid", UriKind.Relative))).EnsureSuccessStatusCode();
        var first = cold.Elapsed.TotalMilliseconds;
        List<Figure> figures = [];
        foreach (
            var (name, path) in ((string, string)[])
                [
                    ("the grid of a class", "grid"),
                    ("a child's page", $"children/{childId}"),
                    ("the grid's column", "grid/bond.all-5"),
                    ("what is to be looked at again", "look-again"),
                    ("the board of slips", "slips"),
                    ("choice time: everything at once", "clipboard"),
                    ("a week of the trail", "trail"),
                ]
        )
        {
            List<double> times = [];
            for (var i = 0; i < Runs; i++)
            {
                var watch = Stopwatch.StartNew();
                (await client.GetAsync(new Uri($"/api/classes/{classId}/{path}", UriKind.Relative))).EnsureSuccessStatusCode();
                times.Add(watch.Elapsed.TotalMilliseconds);
            }

            figures.Add(
                new(
                    $"{name}: {Classes * Children} children, {Observations:n0} observations in three years",
                    $"median {times.At(0.5):0} ms, p95 {times.At(0.95):0} ms",
                    path == "grid" || path.StartsWith("children", StringComparison.Ordinal) ? "p95 under 100 ms" : ""
                )
            );
        }

        figures.Add(new("the first grid after a start, with the class's record read into memory", $"{first:0} ms"));
        figures.Add(await BaselineAsync(client));
        return figures;
    }

    private static async Task<(int Class, int Child)> FillAsync(ServerBench.Application application)
    {
        using var scope = application.Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<FobbleDb>();
        var map = scope.ServiceProvider.GetRequiredService<SkillMap>();
        SeededRandom random = new(8);
        List<SchoolClass> classes = [];
        for (var c = 0; c < Classes; c++)
        {
            var made = new SchoolClass { Name = $"Full {c}", SchoolId = 1 };
            made.Children.AddRange(Enumerable.Range(1, Children).Select(i => new Child { GivenName = $"Child {i}", FamilyName = "Made-up" }));
            made.Members.Add(new Membership { AdultId = 1, Role = ClassRole.LeadTeacher });
            classes.Add(made);
        }

        db.Classes.AddRange(classes);
        await db.SaveChangesAsync();
        var start = new DateTimeOffset(DateTime.Today.AddDays(-3 * 365));
        var all = classes.SelectMany(c => c.Children.Select(k => k.Id)).ToList();
        db.ChangeTracker.Clear();
        db.ChangeTracker.AutoDetectChangesEnabled = false;
        foreach (var part in Enumerable.Range(0, Observations).Chunk(20_000))
        {
            db.Observations.AddRange(
                part.Select(i =>
                {
                    var skill = random.Pick(map.Skills);
                    var at = start.AddDays(i * (3.0 * 365) / Observations).AddMinutes(random.Next(300));
                    return new ObservationRow
                    {
                        Id = Guid.NewGuid(),
                        ChildId = random.Pick(all),
                        Skill = skill.Id.Value,
                        At = at,
                        Day = DateOnly.FromDateTime(at.DateTime),
                        AdultId = 1,
                        Setting = Setting.Group,
                        Support = (Support)random.Next(4),
                        Representation = random.Pick(skill.ShownIn),
                        Slip = random.Chance(0.2) ? skill.Slips[0].Id : null,
                    };
                })
            );
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
        }

        return (classes[^1].Id, classes[^1].Children[0].Id);
    }

    // As at the table: the next question is asked for after the child has thought for a second or two.
    private static async Task<Figure> BaselineAsync(HttpClient client)
    {
        var started = await client.PostAsync(
            new Uri("/api/classes/1/baseline", UriKind.Relative),
            Json(new { childIds = new[] { 20 }, strand = (string?)null })
        );
        var check = System.Text.Json.JsonDocument.Parse(await started.Content.ReadAsStringAsync()).RootElement[0].GetProperty("checkId").GetInt32();
        var view = System.Text.Json.JsonDocument.Parse(await client.GetStringAsync(new Uri($"/api/classes/1/baseline/{check}", UriKind.Relative))).RootElement;
        List<double> times = [];
        for (var i = 0; i < 20 && view.GetProperty("question").ValueKind != System.Text.Json.JsonValueKind.Null; i++)
        {
            await Task.Delay(2000);
            var body = Json(
                new
                {
                    id = Guid.NewGuid(),
                    skill = view.GetProperty("question").GetProperty("skill").GetString(),
                    at = DateTimeOffset.UtcNow,
                    support = i % 3 == 2 ? "NotYet" : "Alone",
                    representation = "Objects",
                    numbers = (string?)null,
                    slip = (string?)null,
                }
            );
            var watch = Stopwatch.StartNew();
            using var answer = await client.PostAsync(new Uri($"/api/classes/1/baseline/{check}/answers", UriKind.Relative), body);
            times.Add(watch.Elapsed.TotalMilliseconds);
            view = System.Text.Json.JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement;
        }

        return new(
            "an answer of a baseline check recorded and the next question there, two seconds after the one before",
            $"median {times.At(0.5):0} ms, worst {times.Max():0} ms",
            "under 100 ms"
        );
    }

    private static StringContent Json(object body) => new(System.Text.Json.JsonSerializer.Serialize(body), System.Text.Encoding.UTF8, "application/json");
}
