using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Skills;
using Fobble.Server.Features.Clipboard;
using Fobble.Server.Features.Sessions;

namespace Fobble.Server.Features.Baseline;

/// <param name="CheckId">The check under way, or the last one that ended; null where there was none.</param>
/// <param name="Sure">How sure it was when last looked at; null before the first answer.</param>
public sealed record BaselineChild(
    int Id,
    string Name,
    bool Away,
    int? CheckId,
    string? Strand,
    int Asked,
    DateTimeOffset? StartedAt,
    DateTimeOffset? EndedAt,
    int Seen
);

public sealed record BaselineOverview(IReadOnlyList<BaselineChild> Children, IReadOnlyList<BaselineStrand> Strands);

public sealed record BaselineStrand(string Id, string Name);

/// <param name="Strand">The strand to look at again; null for the whole map.</param>
public sealed record StartChecks(IReadOnlyList<int> ChildIds, string? Strand);

public sealed record StartedCheck(int CheckId, int ChildId);

/// <param name="Id">Made by the client; sending it again changes nothing.</param>
public sealed record NewAnswer(Guid Id, string Skill, DateTimeOffset At, Support Support, Representation Representation, string? Numbers, string? Slip);

public sealed record QuestionView(
    string Skill,
    string Short,
    string Strand,
    string ICan,
    IReadOnlyList<CardSetOut> LayOut,
    IReadOnlyList<Item> Items,
    IReadOnlyList<string> Right,
    IReadOnlyList<CardChoice> Slips,
    IReadOnlyList<Representation> ShownIn,
    IReadOnlyList<Caution> Cautions
);

public sealed record AnswerView(Guid Id, string Skill, string Short, Support Support, DateTimeOffset At, string By);

/// <param name="SurePercent">How sure it is of that, as it is shown.</param>
/// <param name="Asked">Asked for in this check.</param>
/// <param name="Override">What an adult put over it.</param>
public sealed record PathSkill(string Id, string Short, string Strand, bool Held, int SurePercent, Support? Asked, bool? Override, int Strength);

public sealed record ReachView(string Strand, string Name, int Held, int Of, double Sure, string Sentence);

/// <param name="MostPercent">No more is ever shown.</param>
/// <param name="StartsFrom">What was known before the first answer, in words; null where nothing was.</param>
/// <param name="Question">Null when there is nothing more to ask, or it has ended.</param>
public sealed record CheckView(
    int Id,
    int ChildId,
    string Child,
    string? Strand,
    int Asked,
    int AtMost,
    double Sure,
    int SurePercent,
    int MostPercent,
    string SureInWords,
    string? StartsFrom,
    bool Done,
    DateTimeOffset StartedAt,
    DateTimeOffset? EndedAt,
    QuestionView? Question,
    IReadOnlyList<AnswerView> Answers,
    IReadOnlyList<ReachView> Reach,
    IReadOnlyList<PathSkill> Path,
    IReadOnlyList<string> ReadyNext
);

/// <param name="Has">What is known better; null takes it back.</param>
public sealed record KnownBetter(bool? Has);
