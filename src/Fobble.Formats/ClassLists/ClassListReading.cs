using Fobble.Core.People;
using Fobble.Formats.Csv;

namespace Fobble.Formats.ClassLists;

/// <summary>A child as read from a line of the file.</summary>
/// <param name="Row">Line of the file, the heading being line 1.</param>
/// <param name="Mark">Tells it from a child of the same name.</param>
public sealed record ClassListChild(int Row, string GivenName, string FamilyName, DateOnly? Born, string? Mark)
{
    public ListedName Listed => new(GivenName, FamilyName, Mark, Born);
}

/// <summary>A name with a letter that no font at hand has: it could be shown and printed as boxes only.</summary>
/// <param name="Name">As the file has it, with "…" for what no font has.</param>
/// <param name="Printed">As it may be printed, where somebody has said so.</param>
public sealed record UnprintedName(int Row, string Name, string Printed);

/// <summary>What was answered after a file was read once, by line of the file.</summary>
/// <param name="Marks">They tell children of one name apart.</param>
/// <param name="Names">Whole names as they may be printed; taken only where the file's own can't be.</param>
public sealed record ClassListAnswers(IReadOnlyDictionary<int, string> Marks, IReadOnlyDictionary<int, string> Names)
{
    public static readonly ClassListAnswers None = new(new Dictionary<int, string>(), new Dictionary<int, string>());
}

/// <summary>What a file says. It can be taken only when it has no fault and at least one child.</summary>
/// <param name="Children">Those that could be read, twice where a line is there twice.</param>
/// <param name="Notes">How it was read, where there was a choice.</param>
/// <param name="Unprinted">Names to be asked about, answered or not.</param>
public sealed record ClassListReading(
    IReadOnlyList<ClassListChild> Children,
    IReadOnlyList<FileFault> Faults,
    IReadOnlyList<string> Notes,
    IReadOnlyList<UnprintedName> Unprinted
)
{
    public bool CanBeTaken => Faults.Count == 0 && Children.Count > 0;
}
