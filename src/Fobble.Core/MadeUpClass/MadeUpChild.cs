using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.MadeUpClass;

/// <summary>
/// A made-up child (rule R15): holds a down-closed set of skills (a skill only with all it needs), learns when taught, slips and
/// guesses, is away now and then, and tries alone or waits for help by temperament.
/// </summary>
public sealed class MadeUpChild
{
    private const double Slip = 0.10;
    private const double Guess = 0.08;
    private readonly SkillMap _map;
    private readonly HashSet<SkillId> _holds = [];
    private readonly double _pace;
    private readonly double _boldness;
    private readonly double _awayShare;

    /// <param name="level">How far the child is at the beginning, 0 (nothing) to about 1 (most of autumn).</param>
    public MadeUpChild(ChildId id, SkillMap map, double level, SeededRandom random)
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(random);
        (Id, _map) = (id, map);
        _pace = Math.Clamp(0.34 + (0.12 * random.NextNormal()), 0.1, 0.65);
        _boldness = Math.Clamp(0.7 + (0.18 * random.NextNormal()), 0.2, 0.97);
        _awayShare = random.Chance(0.12) ? 0.14 : 0.03;
        foreach (var skill in map.Skills)
        {
            var difficulty = 0.25 + (0.5 * (int)skill.When) + (0.1 * map.AllNeeds(skill.Id).Count / 4);
            if (skill.Needs.All(_holds.Contains) && random.Chance(1 / (1 + Math.Exp((difficulty - level) / 0.16))))
            {
                _holds.Add(skill.Id);
            }
        }
    }

    public ChildId Id { get; }

    public IReadOnlySet<SkillId> Holds => _holds;

    public bool IsAway(SeededRandom random) => random.Chance(_awayShare);

    /// <summary>Teaches once; the child may learn it if all it needs is held. In a group chances are better than on the carpet.</summary>
    public void Teach(SkillId skill, Setting setting, SeededRandom random)
    {
        if (_map[skill].Needs.All(_holds.Contains) && random.Chance(_pace * (setting == Setting.Group ? 1.3 : 0.7)))
        {
            _holds.Add(skill);
        }
    }

    /// <summary>What an adult would record for the child now.</summary>
    public Observation Show(SkillId skillId, Setting setting, DateTimeOffset at, DateOnly day, string? numbers, SeededRandom random)
    {
        var skill = _map[skillId];
        var right = random.Chance(_holds.Contains(skillId) ? 1 - Slip : Guess);
        var near = skill.Needs.All(_holds.Contains);
        var support = right
            ? random.Chance(_boldness)
                ? Support.Alone
                : Support.Prompted
            : near
                ? random.Chance(0.45)
                    ? Support.Prompted
                    : random.Chance(0.6)
                        ? Support.Together
                        : Support.NotYet
                : random.Chance(0.5)
                    ? Support.Together
                    : Support.NotYet;
        var slip = support is Support.Prompted or Support.NotYet && random.Chance(0.55) ? random.Pick(skill.Slips).Id : null;
        var ways = skill.Strategies.Where(s => s.Asked == right).ToList();
        var strategy = ways.Count > 0 && random.Chance(0.5) ? random.Pick(ways).Id : null;
        return new Observation(Id, skillId, at, day, setting, support, random.Pick(skill.ShownIn), numbers, slip, strategy);
    }
}
