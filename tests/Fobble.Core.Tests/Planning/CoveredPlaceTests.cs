using Fobble.Core.Calendars;
using Fobble.Core.Planning;

namespace Fobble.Core.Tests.Planning;

public class CoveredPlaceTests
{
    private static readonly DateOnly Monday = new(2026, 11, 23);

    private static readonly Timetable Timetable = new(
        new([new Term("Autumn", Season.Autumn, new(2026, 9, 1), new(2026, 12, 18))], []),
        [
            .. Enumerable
                .Range(1, 5)
                .SelectMany(day =>
                    new[]
                    {
                        new LessonSlot(day, SlotKind.Group, (DayOfWeek)day, new(9, 30), 15, "Ines", "table"),
                        new LessonSlot(day + 10, SlotKind.Group, (DayOfWeek)day, new(10, 0), 15, "Tomasz", "table"),
                    }
                ),
        ],
        [
            new(2, Monday.AddDays(1), Monday.AddDays(2), 7, "Nilufar"),
            new(3, Monday.AddDays(1), Monday.AddDays(2), 7, "Nilufar"),
            new(3, Monday, Monday.AddDays(4), 9, "Bertil"),
        ]
    );

    [Theory]
    [InlineData(0, "Ines Tomasz")]
    [InlineData(1, "Nilufar Tomasz")]
    [InlineData(2, "Bertil Tomasz")]
    [InlineData(3, "Ines Tomasz")]
    [InlineData(8, "Ines Tomasz")]
    public void Each_day_says_who_takes_its_lessons(int day, string adults) =>
        string.Join(' ', Timetable.On(Monday.AddDays(day)).Select(s => s.Adult)).ShouldBe(adults, "the first to come goes before, and nobody on other days");

    [Fact]
    public void The_same_lessons_on_another_calendar_are_taken_by_the_same() =>
        Timetable.On(new SchoolCalendar([new Term("All", Season.Autumn, Monday, Monday.AddDays(4))], [])).On(Monday.AddDays(1))[0].Adult.ShouldBe("Nilufar");
}
