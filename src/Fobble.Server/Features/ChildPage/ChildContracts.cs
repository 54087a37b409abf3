using Fobble.Core.Skills;

namespace Fobble.Server.Features.ChildPage;

public sealed record ChildStep(
    string Skill,
    string Short,
    string ICan,
    int Strength,
    bool LookAgain,
    bool Guess,
    string Because,
    string? ActivityId,
    string? Activity,
    string? Easier
);

public sealed record ChildShown(Representation Representation, int Alone, int Seen);

public sealed record ChildSlip(string Skill, string Short, string Slip, int Times, DateOnly Last);

public sealed record ChildBond(int Whole, int Part, int Other, bool Known, DateOnly Last);

/// <param name="Secured">Short names of skills that became secure in the week.</param>
public sealed record ChildBead(DateOnly Monday, int Seen, IReadOnlyList<string> Secured);

public sealed record ChildStrand(string Id, string Name, IReadOnlyList<ChildSkill> Skills);

/// <param name="Since">The day on which it last reached this strength; null where it was not seen.</param>
public sealed record ChildSkill(string Id, string Short, int Strength, bool LookAgain, bool Ready, bool Inferred, DateOnly? Since);

/// <param name="Error">How far off, as a share of what was counted; null while it is not opened.</param>
public sealed record ChildJar(DateOnly Filled, int Guess, int? Counted, double? Error);

public sealed record ChildGroup(int SessionId, DateOnly Day, string Skill, IReadOnlyList<string> With, string Reason);

public sealed record ChildView(
    int Id,
    string Name,
    DateOnly? Born,
    string? Mark,
    bool SharesName,
    bool PhotosAllowed,
    int? CheckId,
    DateTimeOffset? CheckedAt,
    IReadOnlyList<ChildBead> Weeks,
    IReadOnlyList<ChildStep> Next,
    IReadOnlyList<ChildShown> Shown,
    IReadOnlyList<ChildSlip> Slips,
    IReadOnlyList<ChildBond> Bonds,
    IReadOnlyList<ChildStrand> Strands,
    IReadOnlyList<ChildJar> Jars,
    IReadOnlyList<ChildGroup> Groups,
    IReadOnlyList<DateOnly> Away,
    int SchoolDays,
    IReadOnlyList<SeenOnce> Seen,
    int SeenInAll
);

public sealed record PhotosAllowed(bool Allowed);

/// <param name="Name">The child's whole name, written once more by whoever erases it.</param>
public sealed record EraseChild(string Name);

/// <param name="Observations">How many observations went.</param>
/// <param name="Mentions">Notes about other children in which the first name stands; they are not changed.</param>
/// <param name="OnDisk">Nothing of it is left in the database's files; if not, others were reading, and the next start sees to it.</param>
public sealed record Erasure(int Observations, int Mentions, bool OnDisk);
