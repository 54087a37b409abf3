using System.Text;
using Fobble.Core.Calendars;
using Fobble.Formats.Calendars;
using Ical.Net.CalendarComponents;

namespace Fobble.Formats.Tests;

/// <summary>iCalendar out, checked octet by octet against RFC 5545 and read back by Ical.Net; closures in, from iCalendar and CSV.</summary>
public class CalendarFileTests
{
    private static readonly DateTimeOffset Changed = new(2026, 11, 25, 8, 30, 0, TimeSpan.Zero);
    private static readonly DateOnly From = new(2026, 9, 1);
    private static readonly DateOnly Until = new(2027, 7, 31);

    private static readonly string[] Letters = ["a", "b", " ", ",", ";", ":", "\\", "\"", "ä", "é", "ß", "漢", "🙂", "\n"];

    private static readonly Gen<LessonEvent> AnyLesson = Gen.Select(
            Gen.Int[0, Letters.Length - 1].Select(i => Letters[i]).Array[0, 120].Select(string.Concat),
            Gen.Int[0, 9],
            Gen.Int[0, 200],
            Gen.Int[5, 120],
            Gen.Bool
        )
        .Select(
            (text, sequence, day, minutes, off) =>
                new LessonEvent(
                    $"class-1-slot-{day}@fobble",
                    sequence,
                    Changed,
                    From.AddDays(day),
                    new(9, 15),
                    minutes,
                    text,
                    "Table, by the window; left",
                    text,
                    off
                )
        );

    [Fact]
    public void Every_line_is_folded_and_escaped_as_rfc_5545_has_it_and_is_read_back_whole() =>
        AnyLesson
            .Array[1, 4]
            .Sample(
                lessons =>
                {
                    var text = LessonCalendar.Write("Rowan: numbers", lessons.DistinctBy(l => l.Uid));

                    // 3.1: lines end with CRLF and hold at most 75 octets; a fold is CRLF and one blank.
                    text.Replace("\r\n", "", StringComparison.Ordinal).ShouldNotContain('\n');
                    text.ShouldEndWith("END:VCALENDAR\r\n");
                    var lines = text.Split("\r\n");
                    lines.ShouldAllBe(line => Encoding.UTF8.GetByteCount(line) <= 75);
                    lines.ShouldAllBe(line => !line.Contains('\uFFFD'));
                    var unfolded = text.Replace("\r\n ", "", StringComparison.Ordinal).Split("\r\n");
                    unfolded
                        .Where(l => l.StartsWith("BEGIN:", StringComparison.Ordinal))
                        .ShouldBe(["BEGIN:VCALENDAR", .. lessons.DistinctBy(l => l.Uid).Select(_ => "BEGIN:VEVENT")]);

                    // 3.3.11: in text, backslash, semicolon, comma and new line are escaped, and nothing else.
                    foreach (var summary in unfolded.Where(l => l.StartsWith("SUMMARY:", StringComparison.Ordinal)).Select(l => l["SUMMARY:".Length..]))
                    {
                        var bare = summary
                            .Replace("\\\\", "", StringComparison.Ordinal)
                            .Replace("\\;", "", StringComparison.Ordinal)
                            .Replace("\\,", "", StringComparison.Ordinal)
                            .Replace("\\n", "", StringComparison.Ordinal);
                        bare.ShouldNotContain('\\');
                        bare.ShouldNotContain(';');
                        bare.ShouldNotContain(',');
                    }

                    var read = Ical.Net.Calendar.Load(text)!.Events.ToDictionary(e => e.Uid!);
                    foreach (var lesson in lessons.DistinctBy(l => l.Uid))
                    {
                        read[lesson.Uid]
                            .ShouldSatisfyAllConditions(
                                e => (e.Summary ?? "").ShouldBe(lesson.Summary),
                                e => e.Location.ShouldBe(lesson.Where),
                                e => e.Sequence.ShouldBe(lesson.Sequence),
                                e => e.Start!.Value.ShouldBe(lesson.Day.ToDateTime(lesson.Start)),
                                e => e.Start!.TzId.ShouldBeNull("a lesson is at the same hour in summer and winter"),
                                e => e.EffectiveDuration.ToTimeSpanUnspecified().ShouldBe(TimeSpan.FromMinutes(lesson.Minutes)),
                                e => e.DtStamp!.Value.ShouldBe(Changed.UtcDateTime),
                                e => e.Status.ShouldBe(lesson.Cancelled ? "CANCELLED" : "CONFIRMED")
                            );
                    }
                },
                iter: 200
            );

    [Fact]
    public void Whole_days_end_on_the_day_before_the_end_and_repeats_are_followed()
    {
        const string file =
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\n"
            + "BEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:20261221\r\nDTEND;VALUE=DATE:20270102\r\nSUMMARY:Winter\\, a long\r\n  one\r\nEND:VEVENT\r\n"
            + "BEGIN:VEVENT\r\nUID:2\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:20261005\r\nRRULE:FREQ=MONTHLY;COUNT=3\r\nSUMMARY:Training\r\nEND:VEVENT\r\n"
            + "BEGIN:VEVENT\r\nUID:3\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:20261110\r\nSTATUS:CANCELLED\r\nSUMMARY:Off\r\nEND:VEVENT\r\n"
            + "BEGIN:VEVENT\r\nUID:4\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:20261112T090000\r\nDTEND:20261112T150000\r\nSUMMARY:Sports\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        var reading = ClosureFiles.Read(Encoding.UTF8.GetBytes(file), From, Until);
        reading.Faults.ShouldBeEmpty();
        reading.Closures.ShouldBe([
            new("Training", new(2026, 10, 5), new(2026, 10, 5)),
            new("Training", new(2026, 11, 5), new(2026, 11, 5)),
            new("Sports", new(2026, 11, 12), new(2026, 11, 12)),
            new("Training", new(2026, 12, 5), new(2026, 12, 5)),
            new("Winter, a long one", new(2026, 12, 21), new(2027, 1, 1)),
        ]);
        reading.Notes.ShouldContain("1 with a time of day, taken as whole days.");
    }

    [Fact]
    public void What_lies_outside_the_terms_is_left_out_and_said()
    {
        var reading = ClosureFiles.Read("Name,First,Last\nOld,2025-01-01,2025-01-02\nNew,2026-10-26,2026-10-30\n"u8.ToArray(), From, Until);
        reading.Closures.ShouldBe([new Closure("New", new(2026, 10, 26), new(2026, 10, 30))]);
        reading.Notes.ShouldContain(n => n.StartsWith("1 outside the school’s terms", StringComparison.Ordinal));
    }

    [Fact]
    public void Csv_tells_closed_days_trips_and_half_days_apart()
    {
        var reading = ClosureFiles.Read(
            "name;first;last;kind;from;until\nFair;2026-12-18;;Half day;;12:00\nTrip;2026-10-06;;NoLessons;;\n"u8.ToArray(),
            From,
            Until
        );
        reading.Faults.ShouldBeEmpty();
        reading
            .Closures[1]
            .ShouldSatisfyAllConditions(
                c => c.Kind.ShouldBe(ClosureKind.HalfDay),
                c => c.OpenUntil.ShouldBe(new TimeOnly(12, 0)),
                c => c.Last.ShouldBe(c.First)
            );
        reading.Closures[0].Kind.ShouldBe(ClosureKind.NoLessons);
    }

    [Theory]
    [InlineData("Name,First\nSnow,tomorrow\n", 2, "First", "“tomorrow” is no day: write it as 2026-12-21.")]
    [InlineData("Name,First\n,2026-12-01\n", 2, "Name", "The name is missing.")]
    [InlineData("Name,First,Last\nSnow,2026-12-02,2026-12-01\n", 2, "Last", "It ends before it begins.")]
    [InlineData("Name,First,Kind\nSnow,2026-12-02,Melted\n", 2, "Kind", "“Melted” is none of Closed, HalfDay, NoLessons.")]
    [InlineData("Name,First,Kind\nFair,2026-12-02,HalfDay\n", 2, "Until", "A half day says from when, or until when, there is school.")]
    [InlineData("Name,First,Kind,Until\nFair,2026-12-02,HalfDay,noon\n", 2, "Until", "“noon” is no time: write it as 12:00.")]
    [InlineData("What,When\nSnow,2026-12-01\n", 1, null, "The headings are Name, First")]
    [InlineData("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nnonsense", 1, null, "This is no calendar file that can be read")]
    [InlineData("", 1, null, "The file is empty.")]
    public void What_cannot_be_read_is_told_by_row_field_and_reason(string file, int row, string? column, string reason) =>
        ClosureFiles
            .Read(Encoding.UTF8.GetBytes(file), From, Until)
            .Faults.ShouldContain(f => f.Row == row && f.Column == column && f.Reason.StartsWith(reason, StringComparison.Ordinal));
}
