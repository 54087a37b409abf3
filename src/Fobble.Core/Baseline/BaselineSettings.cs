using Fobble.Core.Skills;

namespace Fobble.Core.Baseline;

/// <summary>All numbers of rule R11 in one place. Levels are in units of depth in the map.</summary>
public sealed record BaselineSettings
{
    public static BaselineSettings Default { get; } = new();

    /// <summary>Chance that a child who has a skill does not show it.</summary>
    public double Slip { get; init; } = 0.08;

    /// <summary>Chance that a child who lacks a skill seems to have it.</summary>
    public double Guess { get; init; } = 0.08;

    /// <summary>General level of a child of five: mean and spread.</summary>
    public double Level { get; init; } = 5;

    /// <summary>In levels of the map, as all spreads here.</summary>
    public double LevelSpread { get; init; } = 3.5;

    /// <summary>How far a child's strands lie from the child's general level.</summary>
    public double StrandSpread { get; init; } = 1.8;

    /// <summary>How gradually skills at the edge of a child's level come in.</summary>
    public double Softness { get; init; } = 0.8;

    /// <summary>States of a child that are kept in mind beside each other; more is slower and steadier.</summary>
    public int Particles { get; init; } = 500;

    /// <summary>How often each of them is looked at in the end.</summary>
    public int Looks { get; init; } = 8;

    /// <summary>Stops when so much of the map is rightly placed, as far as can be told.</summary>
    public double SureEnough { get; init; } = 0.95;

    /// <summary>Asked in any case, however sure.</summary>
    public int FewestQuestions { get; init; } = 6;

    /// <summary>Asked at most: about fifteen minutes with a child (common practice).</summary>
    public int MostQuestions { get; init; } = 30;

    /// <summary>The same seed and answers give the same questions.</summary>
    public ulong Seed { get; init; } = 11;

    /// <summary>A child's age shifts the general level: a tenth of a level for each month above or below five years, two levels at most.</summary>
    public static double ShiftFor(DateOnly? born, DateOnly today) =>
        born is { } day ? Math.Clamp(0.1 * (((today.DayNumber - day.DayNumber) / 30.44) - 60), -2, 2) : 0;

    /// <summary>The level of each skill: the author's season, and within it how much lies before.</summary>
    internal static double[] LevelsOf(SkillMap map)
    {
        var depth = new int[map.Skills.Count];
        var place = map.Skills.Select((s, i) => (s.Id, i)).ToDictionary(p => p.Id, p => p.i);
        for (var i = 0; i < depth.Length; i++)
        {
            depth[i] = map.Skills[i].Needs.Where(place.ContainsKey).Select(n => 1 + depth[place[n]]).DefaultIfEmpty(0).Max();
        }

        return [.. map.Skills.Select((s, i) => (2.5 * (int)s.When) + (0.5 * depth[i]))];
    }
}
