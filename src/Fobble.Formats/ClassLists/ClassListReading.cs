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

/// <summary>What a file says. It can be taken only when it has no fault and at least one child.</summary>
/// <param name="Children">Those that could be read, twice where a line is there twice.</param>
/// <param name="Notes">How it was read, where there was a choice.</param>
public sealed record ClassListReading(IReadOnlyList<ClassListChild> Children, IReadOnlyList<FileFault> Faults, IReadOnlyList<string> Notes)
{
    public bool CanBeTaken => Faults.Count == 0 && Children.Count > 0;
}
