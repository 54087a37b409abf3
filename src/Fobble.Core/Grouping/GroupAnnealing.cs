using Fobble.Core.Numbers;

namespace Fobble.Core.Grouping;

/// <summary>
/// A good set of groups within some milliseconds, as if places were all alike and nothing were asked but the rules: simulated annealing (Kirkpatrick, Gelatt
/// and Vecchi 1983), counted in steps and from a fixed seed. It proves nothing; what it finds is where the proof begins.
/// </summary>
internal sealed class GroupAnnealing
{
    private readonly GroupTable _table;
    private readonly SeededRandom _random;
    private readonly int _min;
    private readonly int _max;

    // By skill, where a child stands among its children; -1 where it is none of them.
    private readonly int[][] _placeIn;
    private readonly Table[] _groups;
    private readonly int[] _at;
    private readonly int[] _one;
    private readonly int[] _other;
    private double _heat;

    private GroupAnnealing(GroupTable table, int most, ulong seed)
    {
        (_table, _random, _min, _max) = (table, new(seed), table.Rules.MinSize, table.Rules.MaxSize);
        _placeIn =
        [
            .. table.Skills.Select(s =>
            {
                var place = new int[table.Open.Count];
                Array.Fill(place, -1);
                for (var i = 0; i < s.Members.Length; i++)
                {
                    place[s.Members[i]] = i;
                }

                return place;
            }),
        ];
        _groups = [.. Enumerable.Range(0, most).Select(_ => new Table(_max))];
        (_at, _one, _other) = (new int[table.Open.Count], new int[_max + 1], new int[_max + 1]);
        Array.Fill(_at, -1);
    }

    /// <param name="most">At most so many groups.</param>
    /// <param name="from">Heat at the beginning, in points.</param>
    /// <param name="to">Heat at the end.</param>
    public static IReadOnlyList<GroupColumn> Run(GroupTable table, int most, int steps, double from, double to, ulong seed)
    {
        if (most == 0 || table.Skills.Count == 0)
        {
            return [];
        }

        GroupAnnealing annealing = new(table, most, seed);
        var (points, best) = (0, 0);
        IReadOnlyList<GroupColumn> found = [];
        annealing._heat = from;
        var cooler = Math.Pow(to / from, 1.0 / steps);
        for (var step = 0; step < steps; step++)
        {
            annealing._heat *= cooler;
            points += annealing.Step();
            if (points > best)
            {
                (best, found) = (points, annealing.Columns());
            }
        }

        return found;
    }

    private List<GroupColumn> Columns() =>
        [
            .. _groups
                .Where(g => g.Count > 0)
                .Select(g => new GroupColumn(
                    _table.Skills[g.Skill].Skill,
                    [.. g.Chosen.Take(g.Count).Select(c => _table.Skills[g.Skill].Members[c]).Order()],
                    g.Points
                )),
        ];

    private int Step() =>
        _random.Next(16) switch
        {
            < 5 => Move(),
            < 11 => Swap(),
            _ => Renew(),
        };

    // One child in, out or across.
    private int Move()
    {
        var child = _random.Next(_at.Length);
        var (from, to) = (_at[child], _random.Next(_groups.Length + 1) - 1);
        if (from == to || (from >= 0 && _groups[from].Count == _min) || (to >= 0 && (_groups[to].Count == 0 || _groups[to].Count == _max)))
        {
            return 0;
        }

        return Change(from, child, -1, to, child, -1);
    }

    // Two children change tables, or one who sits nowhere takes another's chair.
    private int Swap()
    {
        var (one, other) = (_random.Next(_at.Length), _random.Next(_at.Length));
        return _at[one] == _at[other] ? 0 : Change(_at[one], one, other, _at[other], other, one);
    }

    // Takes a child out of each of two tables and puts another in; no table, and no child, is -1.
    private int Change(int from, int leaves, int comes, int to, int leavesTo, int comesTo)
    {
        var (first, second) = (0, 0);
        if (from >= 0 && !Changed(_groups[from], leaves, comes, _one, out first))
        {
            return 0;
        }

        var inTo = comes < 0 ? (Leaves: -1, Comes: leavesTo) : (Leaves: leavesTo, Comes: comesTo);
        if (to >= 0 && !Changed(_groups[to], inTo.Leaves, inTo.Comes, _other, out second))
        {
            return 0;
        }

        var gain = (from >= 0 ? first - _groups[from].Points : 0) + (to >= 0 ? second - _groups[to].Points : 0);
        if (!Takes(gain))
        {
            return 0;
        }

        if (from >= 0)
        {
            _groups[from].Take(_one, _groups[from].Count - (comes < 0 ? 1 : 0), first);
        }

        if (to >= 0)
        {
            _groups[to].Take(_other, _groups[to].Count + (inTo.Leaves < 0 ? 1 : 0), second);
        }

        _at[leaves] = to;
        if (comes >= 0)
        {
            _at[comes] = from;
        }

        return gain;
    }

    private bool Changed(Table table, int leaves, int comes, int[] chosen, out int points)
    {
        var place = _placeIn[table.Skill];
        var count = 0;
        points = 0;
        for (var i = 0; i < table.Count; i++)
        {
            if (leaves < 0 || table.Chosen[i] != place[leaves])
            {
                chosen[count++] = table.Chosen[i];
            }
        }

        if (comes >= 0)
        {
            if (place[comes] < 0)
            {
                return false;
            }

            chosen[count++] = place[comes];
        }

        var reckoned = _table.Points(_table.Skills[table.Skill], chosen.AsSpan(0, count));
        points = reckoned ?? 0;
        return reckoned is not null;
    }

    // A table gets another aim, and whoever of its own children and those who sit nowhere brings most there.
    private int Renew()
    {
        var (at, aim) = (_random.Next(_groups.Length), _random.Next(_table.Skills.Count));
        var (table, skill) = (_groups[at], _table.Skills[aim]);
        var (count, points) = (0, 0);
        while (count < _max)
        {
            var (best, bestPoints) = (-1, count < _min ? int.MinValue : points);
            for (var i = 0; i < skill.Members.Length; i++)
            {
                var child = skill.Members[i];
                if ((_at[child] >= 0 && _at[child] != at) || Array.IndexOf(_one, i, 0, count) >= 0)
                {
                    continue;
                }

                _one[count] = i;
                if (_table.Points(skill, _one.AsSpan(0, count + 1)) is { } with && with > bestPoints)
                {
                    (best, bestPoints) = (i, with);
                }
            }

            if (best < 0)
            {
                break;
            }

            _one[count++] = best;
            points = bestPoints;
        }

        if (count < _min || !Takes(points - table.Points))
        {
            return 0;
        }

        var gain = points - table.Points;
        for (var i = 0; i < table.Count; i++)
        {
            _at[_table.Skills[table.Skill].Members[table.Chosen[i]]] = -1;
        }

        table.Skill = aim;
        table.Take(_one, count, points);
        for (var i = 0; i < count; i++)
        {
            _at[skill.Members[_one[i]]] = at;
        }

        return gain;
    }

    private bool Takes(int gain) => gain >= 0 || _random.NextShare() < Math.Exp(gain / _heat);

    private sealed class Table(int max)
    {
        public int Skill { get; set; }

        public int[] Chosen { get; } = new int[max];

        public int Count { get; private set; }

        public int Points { get; private set; }

        public void Take(int[] chosen, int count, int points)
        {
            Array.Copy(chosen, Chosen, count);
            (Count, Points) = (count, points);
        }
    }
}
