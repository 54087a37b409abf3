using System.Diagnostics;
using System.Globalization;
using Fobble.Core.Numbers;
using Fobble.Data.Model;
using Fobble.Server.Rooms;
using Fobble.Server.Tests.Faults;
using Microsoft.AspNetCore.Identity;
using Microsoft.Data.Sqlite;

namespace Fobble.Bench;

/// <summary>
/// A district on one machine: 200 classes of 26 with two adults each, and a record that grows by two million observations a year. The classes have a timetable and no plan of the year;
/// what is measured is what grows with the record. Rows are written past the application, in an order that no school has: their keys are as random as real ones.
/// </summary>
internal static class DistrictBench
{
    private const int Classes = 200;
    private const int ChildrenEach = 26;
    private const int Years = 5;
    private const int AYear = 2_000_000;
    private const int Devices = 64;
    private const int Rate = 50;
    private static readonly string[] Pages = ["grid", "days/{day}", "look-again", "trail?from={day}", "children/{child}", "children", "baseline"];
    private static readonly TimeSpan Lasts = TimeSpan.FromSeconds(20);

    public static async Task<IReadOnlyList<Figure>> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("fobble-district-");
        try
        {
            return await RunAsync(folder.FullName);
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    private static async Task<IReadOnlyList<Figure>> RunAsync(string root)
    {
        var (data, backups) = (Path.Combine(root, "data"), Path.Combine(root, "backups"));
        Directory.CreateDirectory(backups);
        Dictionary<string, string> settings = new()
        {
            ["Fobble__Demo"] = "true",
            ["Fobble__Backup__Folder"] = backups,
            ["Fobble__Backup__Passphrase"] = Asker.Password,
        };
        using (var first = await ServerProcess.ReadyAsync(data, new Dictionary<string, string> { ["Fobble__Demo"] = "true" }))
        {
            await first.EndAsync();
        }

        var file = Path.Combine(data, "fobble.db");
        var district = Found(file, Classes);
        List<Figure> figures = [];

        Dictionary<string, List<double>> growth = Pages.ToDictionary(p => p, _ => new List<double>());
        for (var year = 1; year <= Years; year++)
        {
            AddYear(file, district, year);
            if (year is 2 or 4)
            {
                continue;
            }

            using var server = ServerProcess.Begin(data, settings);
            var start = await server.UntilReadyAsync();
            Console.WriteLine($"  {year} years: {new FileInfo(file).Length / 1e9:0.00} GB, ready after {start.TotalSeconds:0.0} s");
            var ines = await Asker.ComeInAsync(server.Url, district[0], EmailOf(district[0]));
            await ines.AskAsync("grid");
            foreach (var page in Pages)
            {
                growth[page].Add(await MedianAsync(ines, PathOf(page, district[0])));
            }

            if (year == Years)
            {
                await FullAsync(server, file, start, district, figures);
            }

            await server.EndAsync();
        }

        figures.AddRange(
            growth.Select(g => new Figure(
                $"`{g.Key}` of a class after 1, 3 and {Years} years",
                $"{string.Join(", ", g.Value.Select(ms => ms.ToString("0.0", CultureInfo.InvariantCulture)))} ms: {g.Value[^1] / g.Value[0]:0.0} ×",
                "1.5 ×"
            ))
        );
        return figures;
    }

    private static async Task FullAsync(ServerProcess server, string file, TimeSpan start, IReadOnlyList<AskedClass> district, List<Figure> figures)
    {
        figures.Add(
            new(
                $"{Classes} classes, {Classes * ChildrenEach:n0} children, {Years} years, {Years * AYear:n0} observations, {2 * Classes} adults",
                $"{new FileInfo(file).Length / 1e9:0.00} GB"
            )
        );
        figures.Add(new("start, until it can read and keep", $"{start.TotalSeconds:0.0} s", "3 s"));
        var askers = await ComeInAsync(server.Url, district);
        List<double> first = [];
        foreach (var asker in askers)
        {
            var asked = Stopwatch.GetTimestamp();
            await asker.AskAsync("grid");
            first.Add(Stopwatch.GetElapsedTime(asked).TotalMilliseconds);
        }

        figures.Add(
            new($"first page of a class since the start (its grid), {first.Count} classes", $"p50 {first.At(0.5):0} ms, p95 {first.At(0.95):0} ms", "300 ms")
        );
        figures.Add(new($"memory after the grids of {first.Count} classes", $"{server.Memory / 1e6:0} MB", "1,500 MB"));
        SeededRandom random = new(200);
        foreach (var rate in (int[])[Rate, 2 * Rate])
        {
            await Pace.QuietAsync(askers);
            var mixed = await Pace.AtRateAsync(askers, rate, Lasts, _ => Pace.Mixed(random));
            figures.Add(
                new(
                    $"{rate}/s mixed over {askers.Length} classes (grid 25 %, day 35 %, recording 40 %)",
                    $"recording {Pace.Times(mixed["record"])}; grid {Pace.Times(mixed["grid"])}; day {Pace.Times(mixed["day"])}; memory {server.Memory / 1e6:0} MB"
                )
            );
        }

        await Pace.QuietAsync(askers);
        var backup = BackUpAsync(server.Url);
        List<double> taps = [];
        while (!backup.IsCompleted)
        {
            taps.AddRange((await Pace.AtRateAsync(askers, Rate, TimeSpan.FromSeconds(2), _ => "record"))["record"]);
        }

        figures.Add(
            new($"backup while adults tap, {Rate}/s", $"{await backup:0} s; taps meanwhile {Pace.Times(taps)}; memory {server.Memory / 1e6:0} MB", "60 s")
        );
    }

    private static async Task<Asker[]> ComeInAsync(Uri url, IReadOnlyList<AskedClass> district)
    {
        List<Asker> askers = [];
        foreach (var of in district.Skip(1).Take(Devices))
        {
            askers.Add(await Asker.ComeInAsync(url, of, EmailOf(of)));
        }

        return [.. askers];
    }

    private static async Task<double> BackUpAsync(Uri url)
    {
        using HttpClient client = new() { BaseAddress = url, Timeout = TimeSpan.FromMinutes(10) };
        await ServerBench.TokenAsync(client);
        (await client.PostAsync(new Uri("/api/account/demo/ines", UriKind.Relative), null)).EnsureSuccessStatusCode();
        await ServerBench.TokenAsync(client);
        var began = Stopwatch.GetTimestamp();
        (await client.PostAsync(new Uri("/api/school/running/backup", UriKind.Relative), null)).EnsureSuccessStatusCode();
        return Stopwatch.GetElapsedTime(began).TotalSeconds;
    }

    private static async Task<double> MedianAsync(Asker asker, string path)
    {
        List<double> times = [];
        for (var i = 0; i < 25; i++)
        {
            var asked = Stopwatch.GetTimestamp();
            await asker.GetAsync(path);
            if (i >= 10)
            {
                times.Add(Stopwatch.GetElapsedTime(asked).TotalMilliseconds);
            }
        }

        return times.At(0.5);
    }

    private static string PathOf(string page, AskedClass of) =>
        $"/api/classes/{of.Id}/"
        + page.Replace(
                "{day}",
                DateTime.Today.AddDays(page.StartsWith("trail", StringComparison.Ordinal) ? -14 : 0).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                StringComparison.Ordinal
            )
            .Replace("{child}", of.Children[0].ToString(CultureInfo.InvariantCulture), StringComparison.Ordinal);

    internal static string EmailOf(AskedClass of) => $"adult-{of.Id}-0@lantern-hill.example";

    // Classes, children and adults like the demo's first ones, with numbers in place of names.
    internal static List<AskedClass> Found(string file, int classes)
    {
        using var connection = Open(file);
        Adult somebody = new() { FullName = "Adult" };
        var hash = new PasswordHasher<Adult>().HashPassword(somebody, Asker.Password);
        List<AskedClass> district = [];
        using var transaction = connection.BeginTransaction();
        for (var i = 1; i <= classes; i++)
        {
            var id = Copy(connection, "Classes", 1, new() { ["Name"] = $"Class {i}" });
            foreach (var slot in Ids(connection, "SELECT Id FROM LessonSlots WHERE ClassId = 1"))
            {
                Copy(connection, "LessonSlots", slot, new() { ["ClassId"] = id });
            }

            AskedClass of = new(
                id,
                [
                    .. Enumerable
                        .Range(1, ChildrenEach)
                        .Select(n =>
                            Copy(
                                connection,
                                "Children",
                                1,
                                new()
                                {
                                    ["ClassId"] = id,
                                    ["GivenName"] = $"Child {n}",
                                    ["FamilyName"] = $"Of {i}",
                                }
                            )
                        ),
                ]
            );
            district.Add(of);
            for (var n = 0; n < 2; n++)
            {
                var email = $"adult-{id}-{n}@lantern-hill.example";
                var name = email.ToUpperInvariant();
                var adult = Copy(
                    connection,
                    "AspNetUsers",
                    1,
                    new()
                    {
                        ["FullName"] = $"Adult {n} of {i}",
                        ["UserName"] = email,
                        ["NormalizedUserName"] = name,
                        ["Email"] = email,
                        ["NormalizedEmail"] = name,
                        ["PasswordHash"] = hash,
                    }
                );
                Run(
                    connection,
                    $"INSERT INTO Memberships (ClassId, AdultId, Role) VALUES ({id}, {adult}, {(int)(n == 0 ? ClassRole.LeadTeacher : ClassRole.Assistant)})"
                );
            }
        }

        transaction.Commit();
        return district;
    }

    private static void AddYear(string file, IReadOnlyList<AskedClass> district, int year)
    {
        using var connection = Open(file);
        var skills = ClassContent.Shipped.Map.Skills;
        SeededRandom random = new((ulong)year);
        var trigger = (string)Scalar(connection, "SELECT sql FROM sqlite_master WHERE name = 'CountObservationsINSERT'");
        Run(connection, "DROP TRIGGER CountObservationsINSERT");
        using (var transaction = connection.BeginTransaction())
        {
            using var insert = connection.CreateCommand();
            insert.CommandText =
                "INSERT INTO Observations (Id, ChildId, Skill, At, Day, AdultId, Setting, Support, Representation) VALUES ($id, $child, $skill, $at, $day, 1, 1, $support, $shown)";
            var parameters = new[] { "$id", "$child", "$skill", "$at", "$day", "$support", "$shown" }
                .Select(n => insert.Parameters.AddWithValue(n, 0))
                .ToList();
            foreach (var of in district)
            {
                foreach (var child in of.Children)
                {
                    for (var i = 0; i < AYear / Classes / ChildrenEach; i++)
                    {
                        // The first year added is the newest; what a child is seen at moves along the map with the years.
                        var day = DateTime.Today.AddDays(-1 - random.Next(365) - (365 * (year - 1)));
                        var skill = skills[
                            Math.Clamp((int)(skills.Count * (0.3 + (0.4 * (Years - year) / Years) + (0.3 * random.NextShare()))), 0, skills.Count - 1)
                        ];
                        object[] values =
                        [
                            Guid.NewGuid(),
                            child,
                            skill.Id.Value,
                            new DateTimeOffset(day.AddHours(10), TimeSpan.Zero).ToUnixTimeMilliseconds() + random.Next(3_600_000),
                            DateOnly.FromDateTime(day).DayNumber,
                            random.Next(4),
                            (int)skill.ShownIn[0],
                        ];
                        for (var p = 0; p < values.Length; p++)
                        {
                            parameters[p].Value = values[p];
                        }

                        insert.ExecuteNonQuery();
                    }
                }
            }

            transaction.Commit();
        }

        Run(connection, trigger);
        Run(connection, "UPDATE ClassVersions SET LastSeen = (SELECT MAX(Sequence) FROM Observations), Record = Record + 1");
        Run(connection, "PRAGMA wal_checkpoint(TRUNCATE)");
    }

    private static SqliteConnection Open(string file)
    {
        SqliteConnection connection = new($"Data Source={file};Pooling=False");
        connection.Open();
        Run(connection, "PRAGMA synchronous=OFF; PRAGMA cache_size=-3000000; PRAGMA temp_store=MEMORY");
        return connection;
    }

    // A row like another, under a number of its own, with some values of its own.
    private static int Copy(SqliteConnection connection, string table, int id, Dictionary<string, object> otherwise)
    {
        List<string> columns = [];
        using (var names = connection.CreateCommand())
        {
            names.CommandText = $"SELECT name FROM pragma_table_info('{table}') WHERE name <> 'Id'";
            using var read = names.ExecuteReader();
            while (read.Read())
            {
                columns.Add(read.GetString(0));
            }
        }

        using var insert = connection.CreateCommand();
        string Quoted(string column) => $"\"{column}\"";
        insert.CommandText =
            $"INSERT INTO {table} ({string.Join(", ", columns.Select(Quoted))}) SELECT {string.Join(", ", columns.Select(c => otherwise.ContainsKey(c) ? "$" + c : Quoted(c)))} FROM {table} WHERE Id = {id}; SELECT last_insert_rowid()";
        foreach (var (name, value) in otherwise)
        {
            insert.Parameters.AddWithValue("$" + name, value);
        }

        return (int)(long)insert.ExecuteScalar()!;
    }

    private static List<int> Ids(SqliteConnection connection, string question)
    {
        using var ask = connection.CreateCommand();
        ask.CommandText = question;
        using var read = ask.ExecuteReader();
        List<int> ids = [];
        while (read.Read())
        {
            ids.Add(read.GetInt32(0));
        }

        return ids;
    }

    private static object Scalar(SqliteConnection connection, string question)
    {
        using var ask = connection.CreateCommand();
        ask.CommandText = question;
        return ask.ExecuteScalar()!;
    }

    private static void Run(SqliteConnection connection, string command)
    {
        using var run = connection.CreateCommand();
        run.CommandText = command;
        run.ExecuteNonQuery();
    }
}
