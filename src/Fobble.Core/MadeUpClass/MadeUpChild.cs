using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.MadeUpClass;

/// <summary>
/// A made-up child (rule R15): holds a down-closed set of skills (a skill only with all it needs), learns when taught, slips and
/// guesses, is away now and then, and tries alone or waits for help by temperament. What else it does is its world's (<see cref="MadeUpWorld"/>).
/// </summary>
public sealed class MadeUpChild
{
    private const double Slip = 0.10;
    private const double Guess = 0.08;
    private const int MostUses = 4;
    private readonly SkillMap _map;
    private readonly MadeUpWorld _world;
    private readonly HashSet<SkillId> _holds = [];
    private readonly HashSet<SkillId> _byHalf = [];
    private readonly Dictionary<SkillId, (DateOnly Day, int Uses)> _used = [];
    private readonly Dictionary<SkillId, IReadOnlyList<SkillId>> _needs = [];
    private readonly double _pace;
    private readonly double _slip;
    private readonly double _awayShare;
    private DateOnly? _yesterday;

    /// <param name="level">How far the child is at the beginning, 0 (nothing) to about 1 (most of autumn).</param>
    /// <param name="world">Null for the demo's.</param>
    public MadeUpChild(ChildId id, SkillMap map, double level, SeededRandom random, MadeUpWorld? world = null)
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(random);
        (Id, _map, _world) = (id, map, world ?? MadeUpWorld.Usual);
        _pace = Math.Clamp(0.34 + (0.12 * random.NextNormal()), 0.1, 0.65);
        Boldness = Math.Clamp(0.7 + (0.18 * random.NextNormal()), 0.2, 0.97);
        _awayShare = random.Chance(0.12) ? 0.14 : 0.03;
        _slip = _world.LapseSpread == 0 ? Slip : Math.Clamp(Slip + (_world.LapseSpread * random.NextNormal()), 0.02, 0.35);
        foreach (var skill in map.All)
        {
            _needs[skill.Id] = _world.UntrueLinks == 0 ? skill.Needs : [.. skill.Needs.Where(_ => !random.Chance(_world.UntrueLinks))];
        }

        foreach (var skill in map.Skills)
        {
            var difficulty = 0.25 + (0.5 * (int)skill.When) + (0.1 * map.AllNeeds(skill.Id).Count / 4);
            if (NeedsOf(skill.Id).All(_holds.Contains) && random.Chance(1 / (1 + Math.Exp((difficulty - level) / 0.16))))
            {
                _holds.Add(skill.Id);
            }
        }
    }

    public ChildId Id { get; }

    /// <summary>How often the child does alone what it can do without a nod, 0.2 to 0.97.</summary>
    public double Boldness { get; }

    public IReadOnlySet<SkillId> Holds => _holds;

    public bool IsAway(SeededRandom random) => random.Chance(_awayShare);

    /// <summary>A school day begins: in a world that forgets, what was not used may be gone, and with it what builds on it.</summary>
    public void Wake(DateOnly day, SeededRandom random)
    {
        if (_world.HalfLife is not { } halfLife)
        {
            return;
        }

        var days = _yesterday is { } before ? day.DayNumber - before.DayNumber : 0;
        _yesterday = day;
        foreach (var skill in _map.Skills.Select(s => s.Id).Where(_holds.Contains))
        {
            var uses = _used.TryGetValue(skill, out var used) ? used.Uses : 0;
            if (random.Chance(1 - Math.Pow(2, -days / (halfLife * Math.Pow(_world.LongerWithUse, uses)))) && used.Day != day)
            {
                _holds.Remove(skill);
            }
        }

        // In the order of the map, so that what goes takes along all that builds on it.
        foreach (var skill in _map.Skills.Select(s => s.Id).Where(s => _holds.Contains(s) && !NeedsOf(s).All(_holds.Contains)))
        {
            _holds.Remove(skill);
        }
    }

    /// <summary>Teaches once; the child may learn it if all it needs is held. In a group chances are better than on the carpet.</summary>
    public void Teach(SkillId skill, Setting setting, DateOnly day, SeededRandom random)
    {
        if (!NeedsOf(skill).All(_holds.Contains))
        {
            return;
        }

        if (_holds.Contains(skill))
        {
            _byHalf.Remove(skill);
        }

        if (random.Chance(_pace * (setting == Setting.Group ? 1.3 : 0.7)) && _holds.Add(skill) && _world.HalfHeld > 0 && random.Chance(_world.HalfHeld))
        {
            _byHalf.Add(skill);
        }

        Use(skill, day);
    }

    /// <summary>What an adult would record for the child now.</summary>
    public Observation Show(SkillId skillId, Setting setting, DateTimeOffset at, DateOnly day, string? numbers, SeededRandom random)
    {
        var skill = _map[skillId];
        var shows = Eased(
            !_holds.Contains(skillId) ? Guess
                : _byHalf.Contains(skillId) ? 0.5
                : 1 - _slip,
            skillId
        );
        var right = random.Chance(shows);
        var near = NeedsOf(skillId).All(_holds.Contains);
        var support = right
            ? random.Chance(Boldness)
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
        support = _world.Written(support, setting, random);
        if (right && _holds.Contains(skillId))
        {
            Use(skillId, day);
        }

        var slip = support is Support.Prompted or Support.NotYet && random.Chance(0.55) ? random.Pick(skill.Slips).Id : null;
        var ways = skill.Strategies.Where(s => s.Asked == right).ToList();
        var strategy = ways.Count > 0 && random.Chance(0.5) ? random.Pick(ways).Id : null;
        return new Observation(Id, skillId, at, day, setting, support, random.Pick(skill.ShownIn), numbers, slip, strategy);
    }

    private IReadOnlyList<SkillId> NeedsOf(SkillId skill) => _needs[skill];

    private double Eased(double share, SkillId skill) =>
        _world.EaseSpread == 0 ? share : 1 / (1 + Math.Exp(-(Math.Log(share / (1 - share)) + _world.EaseOf(skill))));

    // Whoever uses a skill uses what it builds on as well. Two uses on one day are one.
    private void Use(SkillId skill, DateOnly day)
    {
        if (_world.HalfLife is null)
        {
            return;
        }

        foreach (var used in _map.AllNeeds(skill).Append(skill).Where(_holds.Contains))
        {
            var (last, uses) = _used.GetValueOrDefault(used);
            _used[used] = (day, last == day ? uses : Math.Min(MostUses, uses + 1));
        }
    }
}
