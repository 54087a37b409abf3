using Fobble.Core.Activities;
using Fobble.Core.Cupboard;
using Fobble.Core.ItemSets;

namespace Fobble.Server.Features.Activities;

/// <param name="Skill">The skill for which it answers the question, with its numbers.</param>
/// <param name="Short">What is short in the cupboard; null where all is there.</param>
public sealed record ActivityCard(
    string Id,
    string Name,
    string Purpose,
    IReadOnlyList<Place> Places,
    int Least,
    int Most,
    int Minutes,
    string SkillId,
    string Skill,
    string Numbers,
    int Skills,
    bool Prints,
    string? Short,
    bool Own
);

public sealed record LibraryView(IReadOnlyList<ActivityCard> Found, int All, IReadOnlyList<LibrarySkill> Skills, IReadOnlyList<LibraryItem> Items);

public sealed record LibrarySkill(string Id, string Strand, string Short);

public sealed record LibraryItem(string Id, string Name);

/// <summary>A question as it stands in an address.</summary>
public sealed record LibraryQuestion
{
    public string? Text { get; init; }

    public int? Minutes { get; init; }

    public int? Children { get; init; }

    public Place? Place { get; init; }

    public string? Skill { get; init; }

    public int? Part { get; init; }

    public bool? NothingToPrint { get; init; }

    public bool? OnlyOwned { get; init; }

    public string? Without { get; init; }
}

public sealed record ActivitySkillView(string Id, string Short, string ICan, string Numbers, ItemKind Items, IReadOnlyList<string> Slips);

public sealed record ActivityThing(string Id, string Name, int Amount, string? Short, bool Printed);

/// <param name="Stories">Kinds of stories between commas, where it has stories.</param>
public sealed record ActivityPrint(string Name, string Kind, string Variant, int Low, int High, string? Stories);

/// <summary>Everything about an activity, set for one skill and a number of children.</summary>
/// <param name="Sample">Some numbers as a card would give them.</param>
/// <param name="Open">Days of this week and the next into which it can be put, planned already.</param>
public sealed record ActivityView(
    string Id,
    string Name,
    string Purpose,
    IReadOnlyList<int> Parts,
    IReadOnlyList<Place> Places,
    int Least,
    int Most,
    int Minutes,
    bool ByChance,
    bool Quiet,
    int PrepareMinutes,
    int Children,
    string SkillId,
    IReadOnlyList<ActivitySkillView> Skills,
    IReadOnlyList<ActivityThing> Things,
    IReadOnlyList<string> Prepare,
    IReadOnlyList<string> Steps,
    IReadOnlyList<string> Say,
    IReadOnlyList<string> LookFor,
    string Easier,
    string Harder,
    string Sheet,
    ActivityPrint Print,
    string Mat,
    IReadOnlyList<Item> Sample,
    IReadOnlyList<Caution> Cautions,
    string Standing,
    bool Own,
    IReadOnlyList<DateOnly> Open
);

/// <param name="Place">Where in the day it goes: starter, carpet, choice or transition.</param>
public sealed record PutIntoPlan(string ActivityId, string SkillId, Place Place);
