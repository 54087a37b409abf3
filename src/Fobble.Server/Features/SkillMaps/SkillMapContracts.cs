using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Formats.Csv;

namespace Fobble.Server.Features.SkillMaps;

public sealed record MapStrand(string Id, string Name);

/// <param name="Strength">0 to 5: of the child that was asked for, or of the child in the middle of the class.</param>
/// <param name="Has">Children who are secure in it.</param>
/// <param name="Ready">Children who are ready for it.</param>
/// <param name="InWords">The same in a sentence.</param>
public sealed record MapSkill(
    string Id,
    string Strand,
    string Short,
    Season When,
    IReadOnlyList<string> Needs,
    bool Hidden,
    bool Own,
    bool Changed,
    int Strength,
    bool LookAgain,
    int Has,
    int Ready,
    string InWords
);

/// <param name="Year">What the class calls its year.</param>
public sealed record MapView(IReadOnlyList<MapStrand> Strands, IReadOnlyList<MapSkill> Skills, IReadOnlyList<ChildName> Children, string Year);

public sealed record MapLink(string Id, string Short, int Has);

public sealed record MapActivity(string Id, string Name, string Purpose);

public sealed record MapStandard(string Code, string Text);

/// <summary>Everything about one skill.</summary>
/// <param name="Written">Name, sentence, links and words as the school wrote them, to be changed.</param>
public sealed record MapSkillView(
    string Id,
    string Strand,
    string Short,
    string ICan,
    Season When,
    string Numbers,
    int Lessons,
    IReadOnlyList<Representation> ShownIn,
    IReadOnlyList<string> LookFor,
    IReadOnlyList<string> Slips,
    IReadOnlyList<string> Ways,
    IReadOnlyList<string> Words,
    IReadOnlyList<MapLink> Needs,
    IReadOnlyList<MapLink> Opens,
    IReadOnlyList<string> Ready,
    int Has,
    int Children,
    IReadOnlyList<MapActivity> Activities,
    IReadOnlyList<MapStandard> Standards,
    bool Hidden,
    bool Own,
    bool Changed,
    MapWritten Written
);

public sealed record MapWritten(string Short, string ICan, Season When, bool Hidden, IReadOnlyList<string> Needs, IReadOnlyList<string> Words);

public sealed record NewMapSkill(
    string Strand,
    string Short,
    string ICan,
    IReadOnlyList<string> Needs,
    Season When,
    int Low,
    int High,
    IReadOnlyList<Representation> ShownIn,
    string LookFor,
    string Slip,
    string Way,
    IReadOnlyList<string> Words
);

public sealed record MapSkillAdded(string Id);

/// <summary>What a file would change.</summary>
public sealed record MapFilePreview(
    IReadOnlyList<string> Changed,
    IReadOnlyList<string> New,
    IReadOnlyList<string> Hidden,
    IReadOnlyList<FileFault> Faults,
    bool CanBeTaken
);
