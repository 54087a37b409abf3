namespace Fobble.Core.Grouping;

/// <summary>How much each aim counts when groups are formed, in percent of the usual. Kept for each class.</summary>
public sealed record GroupWeights
{
    public static readonly GroupWeights Usual = new();

    /// <summary>The steps a weight can be set to.</summary>
    public static readonly IReadOnlyList<int> Steps = [0, 50, 100, 200, 400];

    /// <summary>How near a child is to having the skill.</summary>
    public int Near { get; init; } = 100;

    /// <summary>What the week's lessons need, and skills that much waits for.</summary>
    public int Lessons { get; init; } = 100;

    /// <summary>School days since a child's last group.</summary>
    public int Turns { get; init; } = 100;

    /// <summary>Skills to look at again.</summary>
    public int LookAgain { get; init; } = 100;

    /// <summary>Children who did not sit together lately.</summary>
    public int Company { get; init; } = 100;

    /// <summary>Children with the same slip.</summary>
    public int Slips { get; init; } = 100;

    /// <summary>Children who work with numbers of the same size.</summary>
    public int Numbers { get; init; } = 100;

    /// <summary>Aims that children have in the groups that are planned already.</summary>
    public int Stay { get; init; } = 100;

    /// <summary>How groups come about, a paragraph each.</summary>
    public static IReadOnlyList<string> Thought =>
        [
            Phrase(
                "Of all groups that the places, your wishes and what each child is ready for allow, the set that is worth most to all children together. Where no better set exists, it says so, and that is proven each time; else it says how near it is."
            ),
            Phrase(
                "A group is worth what it does for each of its children: how near they are, how long they have waited, what the lessons of the week need, who has not sat together lately, who shows the same slip. Points compare sets of groups with each other; they say nothing about a child."
            ),
        ];

    /// <summary>Every weight with its plain name and what it does.</summary>
    public static IReadOnlyList<WeightInfo> All =>
        [
            new(
                "near",
                Phrase("Nearly there"),
                Phrase("Higher: groups for skills that a child does with a prompt come before groups for something quite new."),
                w => w.Near,
                (w, v) => w with { Near = v }
            ),
            new(
                "lessons",
                Phrase("This week’s lessons"),
                Phrase("Higher: groups for what the carpet lessons need, and for skills that many others wait for."),
                w => w.Lessons,
                (w, v) => w with { Lessons = v }
            ),
            new(
                "turns",
                Phrase("Long since a turn"),
                Phrase("Higher: who has waited longest comes first, whatever they are working on."),
                w => w.Turns,
                (w, v) => w with { Turns = v }
            ),
            new(
                "lookAgain",
                Phrase("Look again"),
                Phrase("Higher: skills that were there once and may have faded get a group sooner."),
                w => w.LookAgain,
                (w, v) => w with { LookAgain = v }
            ),
            new(
                "company",
                Phrase("New company"),
                Phrase("Higher: children who sat together in the last three sets of groups are put with others."),
                w => w.Company,
                (w, v) => w with { Company = v }
            ),
            new(
                "slips",
                Phrase("Same slip"),
                Phrase("Higher: children who slip in the same way sit together, so that one way of helping serves all."),
                w => w.Slips,
                (w, v) => w with { Slips = v }
            ),
            new(
                "numbers",
                Phrase("Same numbers"),
                Phrase("Higher: children who work with numbers of the same size sit together."),
                w => w.Numbers,
                (w, v) => w with { Numbers = v }
            ),
            new(
                "stay",
                Phrase("Stay as planned"),
                Phrase("Higher: groups that stand in the week already change less when they are asked for again."),
                w => w.Stay,
                (w, v) => w with { Stay = v }
            ),
        ];

    /// <summary>So many points as a weight makes of them.</summary>
    internal static int Of(int points, int percent) => (int)Math.Round(points * percent / 100.0);
}

/// <summary>One weight as a teacher sees it.</summary>
/// <param name="Does">What setting it higher does, in a sentence.</param>
public sealed record WeightInfo(string Key, string Name, string Does, Func<GroupWeights, int> Read, Func<GroupWeights, int, GroupWeights> With);
