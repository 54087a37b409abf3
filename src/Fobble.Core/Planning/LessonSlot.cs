namespace Fobble.Core.Planning;

public enum SlotKind
{
    Carpet,
    Group,
    Choice,
}

/// <summary>A place in the weekly timetable: what kind of lesson, when, how long, with which adult and where.</summary>
public sealed record LessonSlot(int Id, SlotKind Kind, DayOfWeek Weekday, TimeOnly Start, int Minutes, string Adult, string Where);
