using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>The open candidates of a problem as arrays, for what is reckoned many thousand times: points of a group in a few steps.</summary>
internal sealed class GroupTable
{
    private readonly int[,] _metCost;
    private readonly int[] _together;
    private readonly bool[,] _apart;

    public GroupTable(GroupingProblem problem)
    {
        (Open, Rules) = ([.. problem.Open], problem.Rules);
        (SlipCost, ReachCost) = (GroupScore.FurtherSlip(Rules), GroupScore.FurtherReach(Rules));
        _metCost = new int[Open.Count, Open.Count];
        var place = Open.Select((c, i) => (c.Child, i)).ToDictionary(p => p.Child, p => p.i);
        var cost = GroupScore.PairMet(Rules);
        foreach (var group in problem.MetLately)
        {
            var there = group.Where(place.ContainsKey).Select(c => place[c]).ToList();
            foreach (var one in there)
            {
                foreach (var other in there.Where(o => o != one))
                {
                    _metCost[one, other] += cost;
                }
            }
        }

        _together = new int[Open.Count];
        Array.Fill(_together, -1);
        _apart = new bool[Open.Count, Open.Count];
        foreach (var wish in Rules.Wishes)
        {
            if (wish is TogetherWish { Pair: var both } && place.TryGetValue(both.First, out var first) && place.TryGetValue(both.Second, out var second))
            {
                (_together[first], _together[second]) = (second, first);
            }

            if (wish is ApartWish { Pair: var two } && place.TryGetValue(two.First, out var a) && place.TryGetValue(two.Second, out var b))
            {
                _apart[a, b] = _apart[b, a] = true;
            }
        }

        Skills = [.. Open.SelectMany(c => c.Worths.Keys).Distinct().Order().Select(Of).Where(t => t.Members.Length >= Rules.MinSize)];
    }

    public IReadOnlyList<Candidate> Open { get; }

    public GroupRules Rules { get; }

    /// <summary>Skills that enough children can be on.</summary>
    public IReadOnlyList<SkillTable> Skills { get; }

    public int SlipCost { get; }

    public int ReachCost { get; }

    /// <summary>What it costs that two children meet again.</summary>
    public int MetCost(int one, int other) => _metCost[one, other];

    /// <summary>A child without whom this one is in no group; -1 for none. Of several wishes, one.</summary>
    public int Together(int child) => _together[child];

    /// <summary>Whether two children are never in one group.</summary>
    public bool Apart(int one, int other) => _apart[one, other];

    /// <summary>Points of a group, being left out counted back, by places of its children among the skill's; none where two have the skill to show.</summary>
    public int? Points(SkillTable skill, ReadOnlySpan<int> chosen)
    {
        var (points, slips, reach, shows) = (0, 0, 0, 0);
        for (var i = 0; i < chosen.Length; i++)
        {
            var own = chosen[i];
            points += skill.Worth[own];
            slips |= skill.Slip[own];
            reach |= skill.Reach[own];
            shows += skill.Shows[own];
            for (var j = 0; j < i; j++)
            {
                points -= _metCost[skill.Members[own], skill.Members[chosen[j]]];
            }
        }

        return shows > 1 ? null : points - (SlipCost * Further(slips)) - (ReachCost * Further(reach));
    }

    public static int Further(int kinds) => Math.Max(0, System.Numerics.BitOperations.PopCount((uint)kinds) - 1);

    private SkillTable Of(SkillId skill)
    {
        int[] members = [.. Enumerable.Range(0, Open.Count).Where(i => Open[i].Worths.ContainsKey(skill))];
        var slips = members.Select(i => Open[i].Slips.GetValueOrDefault(skill)).OfType<string>().Distinct().ToList();
        var reaches = members.Where(i => Open[i].Reach.ContainsKey(skill)).Select(i => Open[i].Reach[skill]).Distinct().ToList();
        return new(
            skill,
            members,
            [.. members.Select(i => Open[i].Worths[skill].Total + GroupScore.CostOfLeavingOut(Open[i], Rules))],
            [.. members.Select(i => Open[i].Slips.TryGetValue(skill, out var slip) ? 1 << slips.IndexOf(slip) : 0)],
            [.. members.Select(i => Open[i].Reach.TryGetValue(skill, out var most) ? 1 << reaches.IndexOf(most) : 0)],
            [.. members.Select(i => Open[i].Worths[skill].Shows ? 1 : 0)]
        );
    }
}

/// <param name="Members">Places of the candidates for whom the skill is possible.</param>
/// <param name="Worth">Points, being left out counted back.</param>
/// <param name="Slip">The slip as a bit, none as nothing.</param>
/// <param name="Reach">The size of numbers as a bit.</param>
internal sealed record SkillTable(SkillId Skill, int[] Members, int[] Worth, int[] Slip, int[] Reach, int[] Shows);
