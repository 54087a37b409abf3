using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Formats.Csv;

namespace Fobble.Formats.Records;

/// <summary>An observation as it stands in a file.</summary>
/// <param name="Child">The name under which the class knows the child.</param>
/// <param name="By">Who saw it.</param>
/// <param name="WithdrawnWhy">Null where it counts.</param>
public sealed record ObservationLine(
    Guid Id,
    string Child,
    SkillId Skill,
    DateTimeOffset At,
    DateOnly Day,
    string By,
    Setting Setting,
    Support Support,
    Representation Representation,
    string? Numbers,
    string? Slip,
    string? Strategy,
    string? Note,
    string? WithdrawnWhy
);

/// <summary>What a file of observations says. It can be taken only when it has no fault.</summary>
public sealed record ObservationReading(IReadOnlyList<ObservationLine> Lines, IReadOnlyList<FileFault> Faults, IReadOnlyList<string> Notes);
