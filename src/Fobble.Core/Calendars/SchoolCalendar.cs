namespace Fobble.Core.Calendars;

/// <summary>The season of the school year in which a skill is usually taught.</summary>
public enum Season
{
    Autumn,
    Spring,
    Summer,
    Beyond,
}

/// <summary>A term, both ends included.</summary>
public sealed record Term(string Name, Season Season, DateOnly First, DateOnly Last);

/// <summary>What is different about a day inside a term.</summary>
public enum ClosureKind
{
    /// <summary>The school is closed.</summary>
    Closed,

    /// <summary>School for part of the day.</summary>
    HalfDay,

    /// <summary>A school day without lessons: a trip, a sports day, a lesson that had to be given up.</summary>
    NoLessons,
}

/// <summary>Days inside a term that are not as usual, both ends included: closed, unless the kind says otherwise.</summary>
public sealed record Closure(string Name, DateOnly First, DateOnly Last)
{
    public ClosureKind Kind { get; init; }

    /// <summary>On a half day: lessons begin no earlier. Null: as usual.</summary>
    public TimeOnly? OpenFrom { get; init; }

    /// <summary>On a half day: lessons end no later. Null: as usual.</summary>
    public TimeOnly? OpenUntil { get; init; }

    public bool Covers(DateOnly day) => First <= day && day <= Last;

    /// <summary>Refuses what can't go into a calendar.</summary>
    /// <exception cref="RefusedException">It can't.</exception>
    public void Check()
    {
        Refusals refusals = new();
        refusals.Check("name", !string.IsNullOrWhiteSpace(Name), Phrase("Say what for."));
        refusals.Check("first", OurTime.Holds(First), OurTime.Reason(First));
        refusals.Check("last", OurTime.Holds(Last), OurTime.Reason(Last));
        refusals.Check("last", Last >= First, Phrase("It does not end before it begins."));
        refusals.Check("kind", Enum.IsDefined(Kind), Phrase("There is no such kind of day."));
        refusals.Check(
            "openUntil",
            Kind != ClosureKind.HalfDay || OpenFrom is not null || OpenUntil is not null,
            Phrase("A half day says from when, or until when, there is school.")
        );
        refusals.Check("openFrom", !(OpenFrom >= OpenUntil), Phrase("School begins before it ends."));
        refusals.ThrowIfAny();
    }
}

/// <summary>Which days are school days: weekdays within a term and outside closures. Counting between two days takes constant time.</summary>
public sealed class SchoolCalendar
{
    /// <summary>Days from the first of a term to its last.</summary>
    private const int LongestTerm = 366;

    private readonly int _origin;

    // _before[i] = school days before day _origin + i.
    private readonly int[] _before;

    /// <exception cref="RefusedException">A term or closure ends before it begins, or two terms overlap.</exception>
    public SchoolCalendar(IReadOnlyList<Term> terms, IReadOnlyList<Closure> closures)
    {
        ArgumentNullException.ThrowIfNull(terms);
        ArgumentNullException.ThrowIfNull(closures);
        Terms = [.. terms.OrderBy(t => t.First)];
        Closures = closures;
        if (terms.Any(t => t.Last < t.First) || closures.Any(c => c.Last < c.First))
        {
            throw new RefusedException("terms", Phrase("A term or closure ends before it begins."));
        }

        if (Terms.Zip(Terms.Skip(1)).Any(pair => pair.Second.First <= pair.First.Last))
        {
            throw new RefusedException("terms", Phrase("Two terms overlap."));
        }

        _origin = Terms.Count == 0 ? 0 : Terms[0].First.DayNumber;
        _before = new int[Terms.Count == 0 ? 1 : Terms[^1].Last.DayNumber - _origin + 2];
        for (var i = 1; i < _before.Length; i++)
        {
            _before[i] = _before[i - 1] + (WorkOut(DateOnly.FromDayNumber(_origin + i - 1)) ? 1 : 0);
        }
    }

    /// <summary>Refuses terms that make no school year.</summary>
    /// <exception cref="RefusedException">They don't.</exception>
    public static void CheckTerms(IReadOnlyList<Term> terms)
    {
        Refusals refusals = new();
        foreach (var (term, i) in terms.Select((t, i) => (t, i)))
        {
            refusals.Check($"{i}.first", OurTime.Holds(term.First), OurTime.Reason(term.First));
            refusals.Check($"{i}.last", OurTime.Holds(term.Last), OurTime.Reason(term.Last));
        }

        refusals.ThrowIfAny();
        _ = new SchoolCalendar(terms, []);
        RefusedException.Unless(
            terms is { Count: > 0 } && terms.All(t => !string.IsNullOrWhiteSpace(t.Name) && t.Last.DayNumber - t.First.DayNumber <= LongestTerm),
            "terms",
            Phrase("Give each term a name, and not more than a year.")
        );
    }

    public IReadOnlyList<Term> Terms { get; }

    public IReadOnlyList<Closure> Closures { get; }

    public bool IsSchoolDay(DateOnly day) => SchoolDaysUpTo(day) > SchoolDaysUpTo(day.AddDays(-1));

    /// <summary>School days after <paramref name="from"/> up to and including <paramref name="to"/>; 0 if to is not later.</summary>
    public int SchoolDaysBetween(DateOnly from, DateOnly to) => Math.Max(0, SchoolDaysUpTo(to) - SchoolDaysUpTo(from));

    /// <summary>The Monday of the week that holds <paramref name="day"/>.</summary>
    public static DateOnly MondayOf(DateOnly day) => day.AddDays(-(((int)day.DayOfWeek + 6) % 7));

    /// <summary>The school days of the week that begins on <paramref name="monday"/>.</summary>
    public IReadOnlyList<DateOnly> DaysOfWeek(DateOnly monday) => [.. Enumerable.Range(0, 5).Select(monday.AddDays).Where(IsSchoolDay)];

    /// <summary>The first day of the term that a day lies in or follows; the day itself before any term.</summary>
    public DateOnly TermBegan(DateOnly day) => Terms.LastOrDefault(t => t.First <= day)?.First ?? day;

    /// <summary>The first day of the school year, which begins with an autumn term; of the first term where there is none before the day, or where all lie ahead.</summary>
    public DateOnly YearBegan(DateOnly day) =>
        (Terms.LastOrDefault(t => t.First <= day && t.Season == Season.Autumn) ?? (Terms is [var first, ..] ? first : null))?.First ?? day;

    /// <summary>The last school day before that day; null when there is none.</summary>
    public DateOnly? Before(DateOnly day)
    {
        for (var candidate = day.AddDays(-1); _before.Length > 1 && candidate.DayNumber >= _origin; candidate = candidate.AddDays(-1))
        {
            if (IsSchoolDay(candidate))
            {
                return candidate;
            }
        }

        return null;
    }

    /// <summary>That day if it is a school day, else the next one; null when the calendar has none left.</summary>
    public DateOnly? OnOrAfter(DateOnly day)
    {
        var last = DateOnly.FromDayNumber(_origin + _before.Length - 2);
        for (var candidate = day; candidate <= last; candidate = candidate.AddDays(1))
        {
            if (IsSchoolDay(candidate))
            {
                return candidate;
            }
        }

        return null;
    }

    /// <summary>The season of the term that holds the day, or of the last one before it; autumn when there is none.</summary>
    public Season SeasonOf(DateOnly day) => Terms.LastOrDefault(t => t.First <= day)?.Season ?? Season.Autumn;

    /// <summary>What is different about a day; null where nothing is. A closure tells more than a trip, a trip more than a half day.</summary>
    public Closure? Different(DateOnly day) =>
        Closures
            .Where(c => c.Covers(day))
            .MinBy(c =>
                c.Kind switch
                {
                    ClosureKind.Closed => 0,
                    ClosureKind.NoLessons => 1,
                    _ => 2,
                }
            );

    /// <summary>Whether a day has lessons at all: a school day that is no trip and was not lost.</summary>
    public bool HasLessons(DateOnly day) => IsSchoolDay(day) && Different(day) is null or { Kind: ClosureKind.HalfDay };

    /// <summary>Whether a lesson of so many minutes can be held then: on a school day, not on a trip, within the open part of a half day.</summary>
    public bool Holds(DateOnly day, TimeOnly start, int minutes) =>
        IsSchoolDay(day)
        && Closures
            .Where(c => c.Covers(day))
            .All(c =>
                c.Kind switch
                {
                    ClosureKind.HalfDay => !(start < c.OpenFrom) && !(start.AddMinutes(minutes) > c.OpenUntil),
                    _ => false,
                }
            );

    /// <summary>The school days from one day to another, both included.</summary>
    public IEnumerable<DateOnly> Days(DateOnly from, DateOnly to)
    {
        for (var day = from; day <= to; day = day.AddDays(1))
        {
            if (IsSchoolDay(day))
            {
                yield return day;
            }
        }
    }

    /// <summary>The last day of the school year that holds that day: of the last term before the next autumn term; the day itself where there is none.</summary>
    public DateOnly YearEnds(DateOnly day)
    {
        var began = YearBegan(day);
        var next = Terms.FirstOrDefault(t => t.First > began && t.Season == Season.Autumn);
        return Terms.LastOrDefault(t => t.First >= began && (next is null || t.First < next.First))?.Last ?? day;
    }

    private bool WorkOut(DateOnly day) =>
        day.DayOfWeek is not (DayOfWeek.Saturday or DayOfWeek.Sunday)
        && Terms.Any(t => t.First <= day && day <= t.Last)
        && !Closures.Any(c => c.Kind == ClosureKind.Closed && c.Covers(day));

    private int SchoolDaysUpTo(DateOnly day) => _before[Math.Clamp(day.DayNumber - _origin + 1, 0, _before.Length - 1)];
}
