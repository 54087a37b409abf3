namespace Fobble.Data.Model;

/// <summary>What leaves a trace. The order is kept in the database: new ones go to the end.</summary>
public enum TraceKind
{
    SignedIn,
    SignInRefused,

    /// <summary>A password chosen by a link of an invitation or of a lost one.</summary>
    PasswordByLink,

    /// <summary>A link to a new password was made for an adult.</summary>
    LinkMade,
    Invited,
    AdultAdded,
    RoleChanged,
    AdultTakenOut,
    SchoolLeadChanged,
    ClassMade,
    ClassRenamed,
    ClassArchived,
    PlaceChanged,
    TermsChanged,
    ClosuresChanged,
    MapChanged,

    FamilyPagePrinted,
    SummaryPrinted,
    GroupsPrinted,
    PlanPrinted,
    PackPrinted,
    GroupsFileOut,
    ChildFileOut,
    RecordsOut,
    LessonsOut,
    ClassListIn,
    ChildFileIn,
    RecordsIn,

    /// <summary>A family's consent to photos.</summary>
    ConsentChanged,
    ChildNamed,

    /// <summary>Somebody has looked through these traces.</summary>
    TracesRead,
    ChildErased,

    NewYear,
    NewYearUndone,

    /// <summary>A child goes to another class, or leaves the school.</summary>
    ChildMoved,
    ChildLeft,

    /// <summary>An address for calendar programs was made anew, or withdrawn.</summary>
    CalendarAddressChanged,

    /// <summary>A second step at sign-in was put in, or taken out.</summary>
    SecondStepChanged,

    /// <summary>Somebody else's second step was taken out, whose phone is gone.</summary>
    SecondStepTakenOut,

    /// <summary>All that is kept of a child, or of the school, was taken out as a file.</summary>
    AllOfChildOut,
    AllOfSchoolOut,

    /// <summary>A list of the school's office was brought in, decided about, or one of our own taken out.</summary>
    RosterIn,
    RosterDecided,
    RosterOut,

    /// <summary>A backup was taken because somebody asked for it.</summary>
    BackupTaken,
}

/// <summary>Who did something that a school answers for. No child is named here: it stands by its number.</summary>
public sealed class TraceRow
{
    public int Id { get; set; }

    public DateTimeOffset At { get; set; }

    public TraceKind Kind { get; set; }

    /// <summary>Null where it is not known: a sign-in with an address that nobody has.</summary>
    public int? SchoolId { get; set; }

    /// <summary>The adult's name at that time; empty where it is not known.</summary>
    public required string Who { get; set; }

    public int? ClassId { get; set; }

    public int? ChildId { get; set; }

    /// <summary>The adult it was done to.</summary>
    public int? AboutId { get; set; }
}
