using System.Globalization;

namespace Fobble.Core;

// Numbers by which things are stored, each of a type of its own: no two can be taken for each other.

/// <summary>A class of a school.</summary>
public readonly record struct ClassId(int Value) : IComparable<ClassId>
{
    public static bool TryParse(string? text, out ClassId id)
    {
        var parsed = int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var value);
        id = new(value);
        return parsed;
    }

    public int CompareTo(ClassId other) => Value.CompareTo(other.Value);

    public override string ToString() => Value.ToString(CultureInfo.InvariantCulture);
}

/// <summary>A child.</summary>
public readonly record struct ChildId(int Value) : IComparable<ChildId>
{
    public static bool TryParse(string? text, out ChildId id)
    {
        var parsed = int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var value);
        id = new(value);
        return parsed;
    }

    public int CompareTo(ChildId other) => Value.CompareTo(other.Value);

    public override string ToString() => Value.ToString(CultureInfo.InvariantCulture);
}

/// <summary>An adult who signs in.</summary>
public readonly record struct AdultId(int Value) : IComparable<AdultId>
{
    public static bool TryParse(string? text, out AdultId id)
    {
        var parsed = int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var value);
        id = new(value);
        return parsed;
    }

    public int CompareTo(AdultId other) => Value.CompareTo(other.Value);

    public override string ToString() => Value.ToString(CultureInfo.InvariantCulture);
}

/// <summary>A small group in its place in the week.</summary>
public readonly record struct SessionId(int Value) : IComparable<SessionId>
{
    public static bool TryParse(string? text, out SessionId id)
    {
        var parsed = int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var value);
        id = new(value);
        return parsed;
    }

    public int CompareTo(SessionId other) => Value.CompareTo(other.Value);

    public override string ToString() => Value.ToString(CultureInfo.InvariantCulture);
}

/// <summary>A place in the week's timetable.</summary>
public readonly record struct SlotId(int Value) : IComparable<SlotId>
{
    public static bool TryParse(string? text, out SlotId id)
    {
        var parsed = int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var value);
        id = new(value);
        return parsed;
    }

    public int CompareTo(SlotId other) => Value.CompareTo(other.Value);

    public override string ToString() => Value.ToString(CultureInfo.InvariantCulture);
}

/// <summary>A baseline check of one child.</summary>
public readonly record struct CheckId(int Value) : IComparable<CheckId>
{
    public static bool TryParse(string? text, out CheckId id)
    {
        var parsed = int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var value);
        id = new(value);
        return parsed;
    }

    public int CompareTo(CheckId other) => Value.CompareTo(other.Value);

    public override string ToString() => Value.ToString(CultureInfo.InvariantCulture);
}
