using System.Globalization;
using System.Net.Http.Headers;
using System.Text;
using Fobble.Core.Numbers;
using Fobble.Data.Keeping;
using Microsoft.Data.Sqlite;
using SkiaSharp;

namespace Fobble.Server.Tests.Faults;

/// <summary>
/// Every file that can be taken in, almost right, thousands of times: it is taken whole, or refused in a sentence with nothing changed; never a fault, and never without an end.
/// FOBBLE_MUTATIONS says how many of each: some in the suite, thousands by <c>./fobble soak</c>.
/// </summary>
public class MutatedFileTests(School school, ITestOutputHelper output) : IClassFixture<School>
{
    private const string Class = "/api/classes/1";

    // Of the whole process: it says something in the long run only, which runs nothing beside it.
    private const long MostMemory = 600_000_000;
    private static readonly bool Alone = Environment.GetEnvironmentVariable("FOBBLE_MUTATIONS") is not null;

    // Far beyond what any takes; what is meant is that it ends.
    private static readonly TimeSpan Hangs = TimeSpan.FromSeconds(60);
    private static readonly int Mutations = int.Parse(Environment.GetEnvironmentVariable("FOBBLE_MUTATIONS") ?? "40", CultureInfo.InvariantCulture);
    private static readonly Guid Tapped = Guid.Parse("0d6f3c1e-0000-4000-8000-000000000001");

    [Theory]
    [InlineData("csv", "/records/csv", "text/csv")]
    [InlineData("csv", "/records/csv/preview", "text/csv")]
    [InlineData("json", "/child-file", "application/json")]
    [InlineData("json", "/child-file/preview", "application/json")]
    [InlineData("csv", "/class-list", "text/csv")]
    [InlineData("csv", "/class-list/preview", "text/csv")]
    [InlineData("csv", "/cupboard/file", "text/csv")]
    [InlineData("csv", "/map/file", "application/octet-stream")]
    [InlineData("json", "/map/file", "application/octet-stream")]
    [InlineData("yaml", "/activities/file", "application/yaml")]
    [InlineData("ics", "/calendar/closures", "application/octet-stream")]
    [InlineData("csv", "/calendar/closures", "application/octet-stream")]
    [InlineData("zip", "/api/school/roster?name=list.zip", "application/zip")]
    [InlineData("jpeg", "/observations/photo", "image/jpeg")]
    [InlineData("png", "/observations/photo", "image/png")]
    [InlineData("webp", "/observations/photo", "image/webp")]
    public async Task A_file_that_is_almost_right_is_taken_whole_or_refused(string kind, string path, string type)
    {
        var ines = await school.ComeInAsAsync("ines");
        var address = path.StartsWith("/api", StringComparison.Ordinal) ? path : Class + path.Replace("/photo", $"/{Tapped}/photo", StringComparison.Ordinal);
        var method = path.EndsWith("/photo", StringComparison.Ordinal) ? HttpMethod.Put : HttpMethod.Post;
        var right = await RightAsync(ines, kind, path);
        (await ines.SendAsync(method, address, Body(right, type))).IsSuccessStatusCode.ShouldBeTrue($"{path}: the right one");
        Dictionary<HttpStatusCode, int> answers = [];
        using SqliteConnection connection = new($"Data Source={Path.Combine(school.Folder, DataFolder.DatabaseFile)};Mode=ReadOnly;Pooling=False");
        connection.Open();
        var (version, rows) = (Version(connection), Rows(connection));
        for (var seed = 1; seed <= Mutations; seed++)
        {
            var file = Faults.Mutations.Of(right, kind, new SeededRandom((ulong)seed));
            var allocated = GC.GetTotalAllocatedBytes();
            var answer = await ines.SendAsync(method, address, Body(file, type)).WaitAsync(Hangs);
            var said = await answer.Content.ReadAsStringAsync();
            var about = $"{path}, {kind} {seed}: {said}";
            ((int)answer.StatusCode).ShouldBeLessThan(500, about);
            if (Alone)
            {
                (GC.GetTotalAllocatedBytes() - allocated).ShouldBeLessThan(MostMemory, about);
            }

            if (Version(connection) is var now && now != version)
            {
                var before = rows;
                (version, rows) = (now, Rows(connection));
                if (!answer.IsSuccessStatusCode)
                {
                    rows.ShouldBe(before, about);
                }
            }

            if (!answer.IsSuccessStatusCode)
            {
                said.Length.ShouldBeGreaterThan(20, about);
            }

            answers[answer.StatusCode] = answers.GetValueOrDefault(answer.StatusCode) + 1;
        }

        output.WriteLine($"{path} ({kind}): {string.Join(", ", answers.Select(a => $"{a.Value} × {(int)a.Key}"))}");

        // What was taken is something that can be lived with.
        foreach (var page in new[] { "grid", "days/2026-11-25", "cupboard", "activities", "map", "children" })
        {
            var answer = await ines.GetAsync($"{Class}/{page}");
            ((int)answer.StatusCode).ShouldBeLessThan(500, $"{page} after {path}");
        }
    }

    private static ByteArrayContent Body(byte[] file, string type)
    {
        ByteArrayContent body = new(file);
        body.Headers.ContentType = new MediaTypeHeaderValue(type);
        return body;
    }

    // What Fobble itself writes, where it writes the kind.
    private static async Task<byte[]> RightAsync(Visitor ines, string kind, string path) =>
        (kind, path) switch
        {
            (_, "/records/csv" or "/records/csv/preview") => await OutAsync(ines, $"{Class}/records/csv?from=2026-11-01"),
            (_, "/child-file" or "/child-file/preview") => await OutAsync(ines, $"{Class}/children/3/file"),
            (_, "/class-list" or "/class-list/preview") =>
                "Given name,Family name,Born,Mark\nAda,Okafor,2021-03-04,\n\"Zoë\",\"O’Neill, jr\",2021-11-30,red\nBo,,,\n"u8.ToArray(),
            (_, "/cupboard/file") => await OutAsync(ines, $"{Class}/cupboard/file"),
            ("csv", "/map/file") => await OutAsync(ines, $"{Class}/map/file/csv"),
            ("json", "/map/file") => await OutAsync(ines, $"{Class}/map/file/case"),
            (_, "/activities/file") => await OutAsync(ines, $"{Class}/activities/{await AnActivityAsync(ines)}/file"),
            ("ics", _) => Encoding.UTF8.GetBytes(
                "BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//x//y//EN\nBEGIN:VEVENT\nUID:1\nDTSTART;VALUE=DATE:20270208\nDTEND;VALUE=DATE:20270213\nSUMMARY:Half term\nEND:VEVENT\n"
                    + "BEGIN:VEVENT\nUID:2\nDTSTART;TZID=Europe/London:20270305T130000\nDURATION:PT2H\nRRULE:FREQ=MONTHLY;BYDAY=1FR;COUNT=3\nEXDATE;TZID=Europe/London:20270402T130000\nSUMMARY:Early end\nEND:VEVENT\nEND:VCALENDAR\n"
            ),
            ("csv", "/calendar/closures") =>
                "Name,First,Last,Kind,From,Until\nIce,2027-01-11,2027-01-12,Closed,,\nFair,2027-06-04,,HalfDay,,12:00\n"u8.ToArray(),
            ("zip", _) => await OutAsync(ines, "/api/school/roster/file"),
            _ => await PictureAsync(ines, kind),
        };

    private static async Task<byte[]> OutAsync(Visitor ines, string address)
    {
        var answer = await ines.GetAsync(address);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, address);
        return await answer.Content.ReadAsByteArrayAsync();
    }

    private static async Task<string> AnActivityAsync(Visitor ines)
    {
        using var all = System.Text.Json.JsonDocument.Parse(await OutAsync(ines, $"{Class}/activities"));
        return System.Text.RegularExpressions.Regex.Match(all.RootElement.GetRawText(), "\"id\":\"([a-z0-9-]+)\"").Groups[1].Value;
    }

    private static async Task<byte[]> PictureAsync(Visitor ines, string kind)
    {
        (await ines.PutAsync($"{Class}/children/3/photos-allowed", new { allowed = true })).IsSuccessStatusCode.ShouldBeTrue();
        (
            await ines.PostAsync($"{Class}/observations", Board.Tap(Tapped, 3, "see.to-3", StandingClock.At("2026-11-25T07:00:00")))
        ).IsSuccessStatusCode.ShouldBeTrue();
        using SKBitmap picture = new(64, 48);
        picture.Erase(SKColors.Goldenrod);
        using var encoded = picture.Encode(
            kind switch
            {
                "png" => SKEncodedImageFormat.Png,
                "webp" => SKEncodedImageFormat.Webp,
                _ => SKEncodedImageFormat.Jpeg,
            },
            90
        );
        return encoded.ToArray();
    }

    // Another one when anything at all was written by somebody else (https://sqlite.org/pragma.html#pragma_data_version).
    private static long Version(SqliteConnection connection)
    {
        using var ask = connection.CreateCommand();
        ask.CommandText = "PRAGMA data_version";
        return (long)ask.ExecuteScalar()!;
    }

    // Of every table; what is written of who did what is beside it.
    private static Dictionary<string, long> Rows(SqliteConnection connection)
    {
        using var names = connection.CreateCommand();
        names.CommandText =
            "SELECT group_concat('SELECT ''' || name || ''', count(*) FROM \"' || name || '\"', ' UNION ALL ') FROM sqlite_master WHERE type = 'table' AND name NOT IN ('Traces')";
        using var count = connection.CreateCommand();
        count.CommandText = (string)names.ExecuteScalar()!;
        using var read = count.ExecuteReader();
        Dictionary<string, long> rows = [];
        while (read.Read())
        {
            rows[read.GetString(0)] = read.GetInt64(1);
        }

        return rows;
    }
}
