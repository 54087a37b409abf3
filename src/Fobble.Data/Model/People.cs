using Fobble.Core.Approaches;
using Fobble.Core.Cupboard;
using Fobble.Core.Numbers;
using Fobble.Core.People;
using Fobble.Core.Pictures;
using Fobble.Core.Planning;
using Microsoft.AspNetCore.Identity;

namespace Fobble.Data.Model;

public sealed class School
{
    public int Id { get; set; }

    public required string Name { get; set; }

    /// <summary>Time zone by its IANA name; empty for the server's own.</summary>
    public string TimeZone { get; set; } = "";

    /// <summary>How dates and numbers are written, as a BCP 47 tag.</summary>
    public string Locale { get; set; } = "en-GB";

    /// <summary>Raised by the database with every change to the school's map and activities: what was worked out from them is kept by it.</summary>
    public long ContentVersion { get; set; }
}

public sealed class SchoolClass
{
    public int Id { get; set; }

    public int SchoolId { get; set; }

    public School? School { get; set; }

    public required string Name { get; set; }

    public FrameFill FrameFill { get; set; }

    public FrameDirection FrameDirection { get; set; }

    public OnesWord OnesWord { get; set; }

    public FewerWord FewerWord { get; set; }

    public TakeWord TakeWord { get; set; }

    public SentenceWord SentenceWord { get; set; }

    public YearWord YearWord { get; set; }

    public SymbolsWhen Symbols { get; set; }

    public NumberSize Sizes { get; set; }

    public YearOrder Order { get; set; }

    public SheetUse Sheets { get; set; }

    public GroupWay Groups { get; set; }

    public Strictness Secure { get; set; }

    public Fading Fading { get; set; }

    public SecondLookTime Looks { get; set; }

    /// <summary>Chances of the class's own that its children are judged by, and since when; null for the usual ones.</summary>
    public double? OwnGuess { get; set; }

    public double? OwnSlip { get; set; }

    public double? OwnLearning { get; set; }

    public DateOnly? OwnSince { get; set; }

    /// <summary>Someone in the class puts things in their mouth. Kept for the class as a whole: who it is does not need to be written down.</summary>
    public bool Mouths { get; set; }

    /// <summary>What someone in the class has to keep away from; for the class as a whole as well.</summary>
    public List<Allergen> Allergies { get; set; } = [];

    /// <summary>The class has been led to its first session card, or its lead has had enough of it: it is not asked again.</summary>
    public bool FirstHourOver { get; set; }

    /// <summary>Steps of the first hour that someone has said to be done.</summary>
    public List<FirstStep> StepsSettled { get; set; } = [];

    /// <summary>Steps of the first hour that are left for later.</summary>
    public List<FirstStep> StepsLater { get; set; } = [];

    /// <summary>The day on which the guess jar comes back; null while it is in use.</summary>
    public DateOnly? JarRestsUntil { get; set; }

    /// <summary>Takes over how another class does things. What is said of its children, and numbers of its own, stay there.</summary>
    public void BeginLike(SchoolClass other)
    {
        FrameFill = other.FrameFill;
        FrameDirection = other.FrameDirection;
        OnesWord = other.OnesWord;
        FewerWord = other.FewerWord;
        TakeWord = other.TakeWord;
        SentenceWord = other.SentenceWord;
        YearWord = other.YearWord;
        Symbols = other.Symbols;
        Sizes = other.Sizes;
        Order = other.Order;
        Sheets = other.Sheets;
        Groups = other.Groups;
        Secure = other.Secure;
        Fading = other.Fading;
        Looks = other.Looks;
    }

    /// <summary>Since when it can be read and no more written; null while it is taught.</summary>
    public DateOnly? ArchivedOn { get; set; }

    /// <summary>Sequence of the observation that had come in last when it was put into the archive: what was seen later is another class's.</summary>
    public long? ArchivedUpTo { get; set; }

    /// <summary>The first day of the school year that the class was made for; null where it was made in the middle of one.</summary>
    public DateOnly? BeginsOn { get; set; }

    /// <summary>Notes and photos of before that day are not seen in the class: what the children were seen to do counts all the same.</summary>
    public bool WithoutNotesOfBefore { get; set; }

    /// <summary>How the school's office calls it in its lists; null while nobody has said which of them it is.</summary>
    public string? OfficeKey { get; set; }

    public List<Membership> Members { get; } = [];

    public List<Child> Children { get; } = [];
}

/// <summary>An adult who signs in. What they may do hangs on their membership of a class.</summary>
public sealed class Adult : IdentityUser<int>
{
    public required string FullName { get; set; }

    /// <summary>What codes of a second step at sign-in are reckoned from, encrypted; null where the password is enough.</summary>
    public string? SecondSecret { get; set; }

    /// <summary>Of which span of time the last code was that came in: it, and those before, come in no more.</summary>
    public long SecondUsedUpTo { get; set; }
}

/// <summary>A code that comes in once in place of a second step, for when the phone is gone.</summary>
public sealed class SpareCodeRow
{
    public int AdultId { get; set; }

    /// <summary>Of the code, which is kept nowhere.</summary>
    public required string Hash { get; set; }
}

/// <summary>An adult signed in on a device. Whoever has the key comes in until this is gone.</summary>
public sealed class SignedInRow
{
    /// <summary>Told from the key, which is kept nowhere.</summary>
    public required string Id { get; set; }

    public int AdultId { get; set; }

    /// <summary>What the device may come in as.</summary>
    public required byte[] Ticket { get; set; }

    /// <summary>Browser and system, as far as the browser says.</summary>
    public required string Device { get; set; }

    public DateTimeOffset Since { get; set; }

    /// <summary>When it was last here, to within some minutes.</summary>
    public DateTimeOffset SeenAt { get; set; }

    public DateTimeOffset Until { get; set; }
}

/// <summary>An adult who answers for what is the school's: terms, closures, map, classes, adults. A school has one at any time.</summary>
public sealed class SchoolLead
{
    public int SchoolId { get; set; }

    public School? School { get; set; }

    public int AdultId { get; set; }

    public Adult? Adult { get; set; }
}

public enum ClassRole
{
    /// <summary>Plans, groups, imports and records.</summary>
    LeadTeacher,

    /// <summary>Sees the class and records.</summary>
    Assistant,

    /// <summary>Sees the class.</summary>
    MathsLead,

    /// <summary>Stands in for somebody on some days: sees the class and records, and is a stranger before and after.</summary>
    Cover,
}

public sealed class Membership
{
    public int ClassId { get; set; }

    public SchoolClass? Class { get; set; }

    public int AdultId { get; set; }

    public Adult? Adult { get; set; }

    public ClassRole Role { get; set; }

    /// <summary>The first and last day, at the school, on which it counts; null for who belongs to the class for good.</summary>
    public DateOnly? From { get; set; }

    public DateOnly? Until { get; set; }

    /// <summary>Of cover: the adult of the class who is away meanwhile, and whose places in the timetable it takes; null where it only helps.</summary>
    public int? InPlaceOfId { get; set; }
}

public sealed class Child
{
    public int Id { get; set; }

    public int ClassId { get; set; }

    public SchoolClass? Class { get; set; }

    public required string GivenName { get; set; }

    public required string FamilyName { get; set; }

    public DateOnly? Born { get; set; }

    /// <summary>Tells it from a child of the same name in the class: a letter or two, never a description of a child.</summary>
    public string? Mark { get; set; }

    /// <summary>The family has agreed that what the child makes may be photographed.</summary>
    public bool PhotosAllowed { get; set; }

    /// <summary>Its last day at the school; null while it is in its class. <see cref="ClassId"/> is then the class that it left from.</summary>
    public DateOnly? LeftOn { get; set; }

    /// <summary>Until when the record of a child that has left is kept: somebody looks at it then, nothing goes by itself.</summary>
    public DateOnly? KeptUntil { get; set; }

    /// <summary>How the school's office calls it in its lists, whatever its name; null while nobody has said which of them it is.</summary>
    public string? OfficeKey { get; set; }

    /// <summary>Works best with an adult close by: a matter of where adults sit, and no judgement of the child.</summary>
    public bool NeedsAdultNear { get; set; }
}

/// <summary>A child was in a class until a day, and then in another one: its record went with it, and the class as it was can still be read.</summary>
public sealed class StayRow
{
    public int Id { get; set; }

    public int ChildId { get; set; }

    public Child? Child { get; set; }

    public int ClassId { get; set; }

    public DateOnly Until { get; set; }
}

/// <summary>A school has gone into a new year: what was done, so that it can be undone for a day.</summary>
public sealed class NewYearRow
{
    public int Id { get; set; }

    public int SchoolId { get; set; }

    public DateTimeOffset At { get; set; }

    public DateOnly BeginsOn { get; set; }

    /// <summary>Classes that ended with it, and classes that were made.</summary>
    public List<int> Ended { get; set; } = [];

    public List<int> Made { get; set; } = [];

    /// <summary>Children that left the school with it.</summary>
    public List<int> Left { get; set; } = [];

    /// <summary>Where the children's places of before stand.</summary>
    public List<int> Stays { get; set; } = [];

    public DateTimeOffset? UndoneAt { get; set; }
}

/// <summary>The newest list of the school's office. It takes the place of the one before, and what it proposes is worked out anew whenever somebody looks.</summary>
public sealed class RosterRow
{
    public int SchoolId { get; set; }

    /// <summary>The list that could be read last; null where none could yet.</summary>
    public OfficeList? List { get; set; }

    /// <summary>The name of its file, and when it came.</summary>
    public string FileName { get; set; } = "";

    public DateTimeOffset At { get; set; }

    /// <summary>Proposals that somebody has said to leave, by their ids.</summary>
    public List<string> LeftSo { get; set; } = [];

    /// <summary>What was wrong with a file that came later and was not taken; empty where the newest one was. No name of a child stands in it.</summary>
    public List<RosterFaultRow> Faults { get; set; } = [];

    public string FaultyName { get; set; } = "";

    public DateTimeOffset? FaultyAt { get; set; }

    /// <summary>Which file of the folder was looked at last: it is not looked at again.</summary>
    public string? Seen { get; set; }
}

/// <param name="File">Of the zip; empty where the zip itself is meant.</param>
/// <param name="Row">Line of that file.</param>
public sealed record RosterFaultRow(string File, int Row, string? Column, string Reason);

/// <summary>A child was away for a day. No row means present.</summary>
public sealed class Absence
{
    public int ChildId { get; set; }

    public Child? Child { get; set; }

    public DateOnly Day { get; set; }

    public int MarkedBy { get; set; }
}

/// <summary>Two children who are to be kept apart, or together, in groups.</summary>
public sealed class PairWish
{
    public int FirstId { get; set; }

    public Child? First { get; set; }

    public int SecondId { get; set; }

    public Child? Second { get; set; }

    public bool Together { get; set; }

    /// <summary>The last day on which it counts; null for as long as nobody lets go of it.</summary>
    public DateOnly? Until { get; set; }
}

/// <summary>A child is to be in groups only with one adult, or not with that one.</summary>
public sealed class AdultWishRow
{
    public int ChildId { get; set; }

    public Child? Child { get; set; }

    public int AdultId { get; set; }

    public bool With { get; set; }
}

/// <summary>A child is regularly out of class. Why is nobody's business here and not written down.</summary>
public sealed class TimeOutRow
{
    public int Id { get; set; }

    public int ChildId { get; set; }

    public Child? Child { get; set; }

    public DayOfWeek Weekday { get; set; }

    public TimeOnly From { get; set; }

    public TimeOnly Until { get; set; }
}

/// <summary>What is left of a child that was erased: that there was one, without anything of who it was.</summary>
public sealed class ErasedRow
{
    public int ChildId { get; set; }

    public int ClassId { get; set; }

    public DateOnly On { get; set; }

    /// <summary>How often it had been seen to do something.</summary>
    public int Observations { get; set; }
}
