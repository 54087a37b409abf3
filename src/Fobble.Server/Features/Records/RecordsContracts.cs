using Fobble.Formats.Csv;

namespace Fobble.Server.Features.Records;

/// <param name="New">Observations that would come in.</param>
/// <param name="Known">Ones that are here already, and stay as they are.</param>
public sealed record RecordsPreview(
    int New,
    int Known,
    int Children,
    DateOnly? First,
    DateOnly? Last,
    IReadOnlyList<FileFault> Faults,
    IReadOnlyList<string> Notes,
    bool CanBeTaken
);

/// <param name="JoinsChildId">A child of the class with this name and birthday, who gets the record; null where a child is added.</param>
public sealed record ChildFilePreview(
    string Name,
    string FromSchool,
    string FromClass,
    DateOnly? Made,
    int New,
    int Known,
    int UnknownSkills,
    int? JoinsChildId,
    IReadOnlyList<string> Faults,
    bool CanBeTaken
);

public sealed record TakenChild(int ChildId);

/// <param name="Share">Of all that is to be done with the file, 0 to 1.</param>
public sealed record ImportShare(double Share);
