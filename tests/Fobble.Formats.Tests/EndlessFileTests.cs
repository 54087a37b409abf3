using System.Buffers.Binary;
using System.IO.Compression;
using System.Text;
using Fobble.Core.Activities;
using Fobble.Core.Skills;
using Fobble.Formats.Calendars;
using Fobble.Formats.ClassLists;
using Fobble.Formats.Csv;
using Fobble.Formats.Print;
using Fobble.Formats.Rosters;
using Fobble.Formats.SkillMaps;

namespace Fobble.Formats.Tests;

/// <summary>Small files made to keep a machine at work for hours, or to fill its memory: each ends, in a sentence.</summary>
public class EndlessFileTests
{
    // Each takes milliseconds, a second at the most. Without its limit it takes hours, so that this says "it ends" on a slow machine as well.
    private static readonly TimeSpan Hangs = TimeSpan.FromSeconds(60);

    // All that is asked for on the way, most of which is given back at once.
    private const long MostMemory = 2_000_000_000;

    private static readonly DateOnly From = new(2026, 9, 1);
    private static readonly DateOnly Until = new(2027, 7, 31);

    [Theory]
    [InlineData("FREQ=SECONDLY", "DTSTART;VALUE=DATE:20260901")]
    [InlineData("FREQ=SECONDLY;BYMONTH=2;BYMONTHDAY=30", "DTSTART:19000101T000000Z")]
    [InlineData("FREQ=MINUTELY;COUNT=2147483647", "DTSTART:20260901T000000Z")]
    [InlineData("FREQ=HOURLY;INTERVAL=1", "DTSTART:00010101T000000Z")]
    [InlineData("FREQ=DAILY;BYHOUR=1,2,3,4;BYMINUTE=1,2,3,4,5;BYSECOND=1,2,3,4,5", "DTSTART:20260901T000000Z")]
    [InlineData("FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30", "DTSTART;VALUE=DATE:00010101")]
    [InlineData("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", "DTSTART;VALUE=DATE:20260901")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=53;BYDAY=MO;BYSETPOS=300", "DTSTART;VALUE=DATE:20260901")]
    [InlineData("FREQ=DAILY;INTERVAL=2147483647", "DTSTART;VALUE=DATE:20260901")]
    [InlineData("FREQ=DAILY;INTERVAL=0", "DTSTART;VALUE=DATE:20260901")]
    public async Task A_rule_that_stands_for_no_day_or_for_every_second_ends(string rule, string start)
    {
        var reading = await EndsAsync(() => Calendar($"BEGIN:VEVENT\r\n{start}\r\nSUMMARY:Ice\r\nRRULE:{rule}\r\nEND:VEVENT\r\n"));
        reading.Closures.Count.ShouldBeLessThanOrEqualTo(1);
        if (reading.Closures.Count == 0)
        {
            reading.Faults.ShouldNotBeEmpty();
        }
    }

    [Fact]
    public async Task Eighteen_thousand_events_that_come_back_daily_end()
    {
        var reading = await EndsAsync(() =>
            Calendar(Many(18_000, i => $"BEGIN:VEVENT\nDTSTART;VALUE=DATE:18770101\nSUMMARY:{i}\nRRULE:FREQ=DAILY\nEND:VEVENT\n"))
        );
        reading.Faults.ShouldHaveSingleItem().Reason.ShouldContain("18000");
    }

    [Fact]
    public async Task A_few_thousand_that_come_back_end_too()
    {
        var reading = await EndsAsync(() =>
            Calendar(Many(5_000, i => $"BEGIN:VEVENT\nDTSTART;VALUE=DATE:18770101\nSUMMARY:{i}\nRRULE:FREQ=DAILY\nEND:VEVENT\n"))
        );
        reading.Faults.ShouldContain(f => f.Reason.Contains("again and again", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Long_lists_of_days_end()
    {
        // As many as are in one list that the reader is let at.
        const string Begins = "BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20260901\r\nSUMMARY:Ice\r\nRRULE:FREQ=DAILY\r\n";
        var days = string.Join(
            ',',
            Enumerable.Range(0, 90_000).Select(i => From.AddDays(i).ToString("yyyyMMdd", System.Globalization.CultureInfo.InvariantCulture))
        );
        foreach (var list in new[] { "RDATE", "EXDATE" })
        {
            var reading = await EndsAsync(() => Calendar($"{Begins}{list};VALUE=DATE:{days}\r\nEND:VEVENT\r\n"));
            reading.Faults.ShouldHaveSingleItem().Reason.ShouldContain("very long lists");
            (await EndsAsync(() => Calendar($"{Begins}{list};VALUE=DATE:{days[..50_000]}\r\nEND:VEVENT\r\n"))).Faults.ShouldNotBeEmpty();
        }
    }

    [Fact]
    public void A_year_as_schools_have_it_is_still_read()
    {
        var reading = Calendar(
            "BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:19700101\r\nSUMMARY:New Year\r\nRRULE:FREQ=YEARLY\r\nEND:VEVENT\r\n"
                + "BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20000207\r\nSUMMARY:Half term\r\nDURATION:P5D\r\nRRULE:FREQ=YEARLY;BYMONTH=2;BYDAY=2MO\r\nEND:VEVENT\r\n"
                + "BEGIN:VEVENT\r\nDTSTART:19990903T130000\r\nSUMMARY:Early end\r\nRRULE:FREQ=MONTHLY;BYDAY=1FR\r\nEND:VEVENT\r\n"
                + "BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20240229\r\nSUMMARY:Leap\r\nRRULE:FREQ=YEARLY\r\nEND:VEVENT\r\n"
        );
        reading.Faults.ShouldBeEmpty();
        reading.Closures.ShouldContain(c => c.Name == "New Year" && c.First == new DateOnly(2027, 1, 1));
        reading.Closures.ShouldContain(c => c.Name == "Half term" && c.First == new DateOnly(2027, 2, 8) && c.Last == new DateOnly(2027, 2, 12));
        reading.Closures.Count(c => c.Name == "Early end").ShouldBe(11);
        reading.Closures.ShouldNotContain(c => c.Name == "Leap");
    }

    [Theory]
    [InlineData('[')]
    [InlineData('{')]
    public async Task Yaml_within_yaml_ends(char opens)
    {
        var fault = await EndsAsync(() => Should.Throw<RefusedException>(() => Activities($"- id: {new string(opens, 400_000)}")));
        fault.Message.ShouldContain("deep");
    }

    [Fact]
    public async Task One_part_of_a_yaml_file_called_up_90_000_times_ends()
    {
        var whole = ActivityLoader.Write([ActivityLoader.AsWritten[0]]);
        var fault = await EndsAsync(() => Should.Throw<RefusedException>(() => Activities("- &a" + whole[1..] + Many(90_000, _ => "- *a\n"))));
        fault.Message.ShouldContain("calls up");
    }

    [Fact]
    public async Task Parts_that_call_up_parts_end()
    {
        var laughs = "- id: x\n  a0: &a0 [ha, ha]\n" + Many(40, i => $"  a{i + 1}: &a{i + 1} [*a{i}, *a{i}, *a{i}]\n");
        await EndsAsync(() => Should.Throw<RefusedException>(() => Activities(laughs)));
    }

    [Theory]
    [InlineData("\"")]
    [InlineData("\"a\n")]
    [InlineData(",")]
    [InlineData("\n")]
    [InlineData("a\n")]
    [InlineData("a,b,c\n")]
    public async Task A_csv_file_of_nothing_but_one_thing_ends(string thing)
    {
        var file = Encoding.UTF8.GetBytes("Name,First\n" + Many(1_000_000 / thing.Length, _ => thing));
        (await EndsAsync(() => ClassListReader.Read(file, From))).Faults.Count.ShouldBeInRange(1, 500);
        (await EndsAsync(() => ClosureFiles.Read(file, From, Until))).Faults.Count.ShouldBeInRange(1, 500);
        (await EndsAsync(() => CsvTable.Read(file, lineBreaks: true))).Rows.Count.ShouldBeLessThanOrEqualTo(CsvTable.MostRows + 1);
    }

    [Fact]
    public async Task A_zip_that_unpacks_to_more_than_it_says_ends()
    {
        using MemoryStream to = new();
        using (ZipArchive zip = new(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var name in new[] { "users.csv", "classes.csv", "nothing.csv", "enrollments.csv" })
            {
                using var entry = zip.CreateEntry(name, CompressionLevel.SmallestSize).Open();
                var zeros = new byte[1_000_000];
                for (var i = 0; i < 50; i++)
                {
                    entry.Write(zeros);
                }
            }
        }

        to.Length.ShouldBeLessThan(1_000_000);
        (await EndsAsync(() => OneRosterReader.Read(to.ToArray(), From))).Faults.ShouldContain(f => f.Reason.Contains("Unpacked", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_package_of_twenty_thousand_links_ends()
    {
        var items = string.Join(',', Enumerable.Range(0, 15_000).Select(i => $$"""{"identifier":"{{i}}","CFItemType":"Skill"}"""));
        var links = string.Join(
            ',',
            Enumerable.Range(0, 20_000).Select(i => $$"""{"associationType":"precedes","originNodeURI":{"identifier":"{{i % 7}}"} }""")
        );
        var file = Encoding.UTF8.GetBytes($$"""{"CFItems":[{{items}}],"CFAssociations":[{{links}}]}""");
        (await EndsAsync(() => CaseFile.Read(file))).Faults.ShouldNotBeEmpty();
        (await EndsAsync(() => CaseFile.Read(Encoding.UTF8.GetBytes(new string('[', 4_000_000))))).Faults.ShouldNotBeEmpty();
    }

    // A bitmap of 54 bytes, a PNG of a hundred, both of 60 million pixels by their own word.
    [Fact]
    public async Task A_picture_that_claims_more_than_it_can_hold_is_not_drawn()
    {
        var bitmap = new byte[54];
        "BM"u8.CopyTo(bitmap);
        BinaryPrimitives.WriteInt32LittleEndian(bitmap.AsSpan(10), 54);
        BinaryPrimitives.WriteInt32LittleEndian(bitmap.AsSpan(14), 40);
        BinaryPrimitives.WriteInt32LittleEndian(bitmap.AsSpan(18), 10_000);
        BinaryPrimitives.WriteInt32LittleEndian(bitmap.AsSpan(22), 6_000);
        bitmap[26] = 1;
        bitmap[28] = 24;
        (await EndsAsync(() => PhotoCopy.Of(bitmap))).ShouldBeNull();

        using SkiaSharp.SKBitmap small = new(40, 30);
        using var encoded = SkiaSharp.SKImage.FromBitmap(small).Encode(SkiaSharp.SKEncodedImageFormat.Png, 100);
        var png = encoded.ToArray();
        PhotoCopy.Of(png).ShouldNotBeNull();
        BinaryPrimitives.WriteInt32BigEndian(png.AsSpan(16), 10_000);
        BinaryPrimitives.WriteInt32BigEndian(png.AsSpan(20), 6_000);
        BinaryPrimitives.WriteUInt32BigEndian(png.AsSpan(29), Crc(png.AsSpan(12, 17)));
        (await EndsAsync(() => PhotoCopy.Of(png))).ShouldBeNull();
    }

    // PNG's own, over a chunk's name and content (ISO/IEC 15948, annex D).
    private static uint Crc(ReadOnlySpan<byte> bytes)
    {
        var crc = uint.MaxValue;
        foreach (var b in bytes)
        {
            crc ^= b;
            for (var bit = 0; bit < 8; bit++)
            {
                crc = (crc & 1) == 1 ? (crc >> 1) ^ 0xEDB88320 : crc >> 1;
            }
        }

        return ~crc;
    }

    private static ClosureReading Calendar(string events) =>
        ClosureFiles.Read(Encoding.UTF8.GetBytes($"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\n{events}END:VCALENDAR\r\n"), From, Until);

    private static IReadOnlyList<Activity> Activities(string text) => ActivityLoader.Read(SkillMapLoader.Shipped(), [("The file", text)]);

    private static string Many(int count, Func<int, string> part) => string.Concat(Enumerable.Range(0, count).Select(part));

    // On a thread of its own, since nothing can stop what hangs, and so that what it takes of memory can be told from what others take.
    private static async Task<T> EndsAsync<T>(Func<T> read)
    {
        var (ended, took) = await Task
            .Factory.StartNew(
                () => (read(), GC.GetAllocatedBytesForCurrentThread()),
                CancellationToken.None,
                TaskCreationOptions.LongRunning,
                TaskScheduler.Default
            )
            .WaitAsync(Hangs);
        took.ShouldBeLessThan(MostMemory);
        return ended;
    }
}
