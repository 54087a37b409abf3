using Fobble.Core.Approaches;

namespace Fobble.Core.Planning;

/// <summary>
/// Which skill has which place of the year, with what that costs. Places stand in order of time; a place is empty or holds one lesson of a
/// skill; a skill's lessons are its places in order. Made to try many small changes: a change is done, judged and undone in a fraction of a
/// microsecond for each place that it touches.
/// </summary>
internal sealed class LessonGrid
{
    public const int Empty = -1;
    private readonly PlanProblem _problem;
    private readonly int[] _at;
    private readonly int[] _dayOf;
    private readonly int[] _blockOf;
    private readonly int[] _strand;
    private readonly int[][] _places;
    private readonly int[] _placed;
    private readonly int[][] _needs;
    private readonly int[][] _opens;
    private readonly bool[] _pinned;
    private readonly bool _spiral;
    private int[][]? _was;

    public LessonGrid(PlanProblem problem)
    {
        _problem = problem;
        List<int> days = [];
        for (var day = 0; day < problem.Days.Count; day++)
        {
            days.AddRange(Enumerable.Repeat(day, problem.Days[day].Places));
        }

        _dayOf = [.. days];
        _at = new int[days.Count];
        Array.Fill(_at, Empty);
        _pinned = new bool[days.Count];
        var blocks = problem.Days.Select(d => d.Block).Distinct().Select((block, index) => (block, index)).ToDictionary(p => p.block, p => p.index);
        _blockOf = [.. days.Select(d => blocks[problem.Days[d].Block])];
        Filled = new int[blocks.Count];
        Most = new int[blocks.Count];
        foreach (var block in problem.Days.GroupBy(d => d.Block))
        {
            Most[blocks[block.Key]] = problem.Settings.MostIn(block.Sum(d => d.Places));
        }

        var strands = problem.Items.Select(i => i.Strand).Distinct().ToList();
        var index = problem.Items.Select((item, i) => (item.Skill, i)).ToDictionary(p => p.Skill, p => p.i);
        _strand = [.. problem.Items.Select(i => strands.IndexOf(i.Strand))];
        _places = [.. problem.Items.Select(i => new int[i.Lessons])];
        _placed = new int[problem.Items.Count];
        _needs = [.. problem.Items.Select(i => i.Needs.Select(n => index[n]).ToArray())];
        _opens =
        [
            .. Enumerable.Range(0, problem.Items.Count).Select(i => Enumerable.Range(0, problem.Items.Count).Where(o => _needs[o].Contains(i)).ToArray()),
        ];
        _spiral = problem.Settings.Order == YearOrder.Spiral;
    }

    /// <summary>What it costs that a lesson is not where it was, besides what each day off costs; see <see cref="Remember"/>.</summary>
    public int MoveCost { get; init; }

    /// <summary>Places for a lesson in the year, in the order of time.</summary>
    public int Count => _at.Length;

    /// <summary>Lessons in each block of ten days, and how many the buffer leaves room for.</summary>
    public int[] Filled { get; }

    /// <summary>Lessons that a block takes at most.</summary>
    public int[] Most { get; }

    /// <summary>The item at a place, or <see cref="Empty"/>.</summary>
    public int this[int place] => _at[place];

    /// <summary>School day of the year, from 0.</summary>
    public int DayOf(int place) => _dayOf[place];

    /// <summary>Which block of ten school days it lies in, from 0.</summary>
    public int BlockOf(int place) => _blockOf[place];

    /// <summary>Where the lessons of an item lie so far, in the order of time.</summary>
    public ReadOnlySpan<int> PlacesOf(int item) => _places[item].AsSpan(0, _placed[item]);

    /// <summary>Lessons of an item that have no place yet.</summary>
    public int Left(int item) => _places[item].Length - _placed[item];

    /// <summary>Items whose lessons come before those of this one.</summary>
    public IReadOnlyList<int> Needs(int item) => _needs[item];

    /// <summary>Items whose lessons come after.</summary>
    public IReadOnlyList<int> Opens(int item) => _opens[item];

    /// <summary>Number of its strand, from 0.</summary>
    public int StrandOf(int item) => _strand[item];

    /// <summary>From now on the place keeps what it has.</summary>
    public void Pin(int place) => _pinned[place] = true;

    /// <summary>Puts the next lesson of an item at an empty place.</summary>
    public void Put(int place, int item)
    {
        _at[place] = item;
        _places[item][_placed[item]++] = place;
        Array.Sort(_places[item], 0, _placed[item]);
        Filled[_blockOf[place]]++;
    }

    /// <summary>Where each skill's lessons were, by index of the day; below zero for a lesson that had none.</summary>
    public void Remember(int[][] was) => _was = was;

    /// <summary>What the whole plan costs.</summary>
    public int Cost()
    {
        var cost = 0;
        for (var item = 0; item < _placed.Length; item++)
        {
            cost += CostOf(item);
        }

        return cost + RunCost(0, Count - 1);
    }

    /// <summary>Items by place, as a plan that can be put back.</summary>
    public int[] Copy() => [.. _at];

    /// <summary>A grid of its own that holds the same, pins too.</summary>
    public LessonGrid Twin()
    {
        LessonGrid twin = new(_problem) { MoveCost = MoveCost, _was = _was };
        _pinned.CopyTo(twin._pinned, 0);
        twin.Restore(_at);
        return twin;
    }

    public void Restore(int[] at)
    {
        Array.Clear(_placed);
        Array.Clear(Filled);
        for (var place = 0; place < at.Length; place++)
        {
            if ((_at[place] = at[place]) is var item and not Empty)
            {
                _places[item][_placed[item]++] = place;
                Filled[_blockOf[place]]++;
            }
        }
    }

    /// <summary>What two places cost if they were exchanged, less what they cost now; null where a rule forbids it. The exchange stays done.</summary>
    public int? Swap(int first, int second)
    {
        var (one, other) = (_at[first], _at[second]);
        if (one == other || _pinned[first] || _pinned[second] || Overfills(first, second) || Overfills(second, first))
        {
            return null;
        }

        var last = AfterRun(second);
        var before = CostOf(one) + CostOf(other) + RunCost(first, last);
        Exchange(first, second);
        if (!IsSound(one) || !IsSound(other))
        {
            Exchange(first, second);
            return null;
        }

        return CostOf(one) + CostOf(other) + RunCost(first, last) - before;
    }

    /// <summary>Lets each place of a stretch have what the next one had, the last what the first had; by exchanges, so that it can be undone.</summary>
    public int? Rotate(int first, int last)
    {
        var total = 0;
        for (var place = first; place < last; place++)
        {
            if (_at[place] == _at[place + 1])
            {
                continue;
            }

            if (Swap(place, place + 1) is { } cost)
            {
                total += cost;
                continue;
            }

            Unrotate(first, place);
            return null;
        }

        return total;
    }

    public void Unrotate(int first, int last)
    {
        for (var place = last; place > first; place--)
        {
            Exchange(place - 1, place);
        }
    }

    /// <summary>Exchanges two places without asking.</summary>
    public void Exchange(int first, int second)
    {
        var (one, other) = (_at[first], _at[second]);
        (_at[first], _at[second]) = (other, one);
        Move(one, first, second);
        Move(other, second, first);
        if (_blockOf[first] != _blockOf[second])
        {
            Filled[_blockOf[first]] += (other == Empty ? 0 : 1) - (one == Empty ? 0 : 1);
            Filled[_blockOf[second]] += (one == Empty ? 0 : 1) - (other == Empty ? 0 : 1);
        }
    }

    /// <summary>Whether a skill's lessons are on different days, close together, after what it needs and before what builds on it.</summary>
    public bool IsSound(int item)
    {
        if (item == Empty || _placed[item] == 0)
        {
            return true;
        }

        var places = PlacesOf(item);
        for (var i = 1; i < places.Length; i++)
        {
            if (_dayOf[places[i]] == _dayOf[places[i - 1]])
            {
                return false;
            }
        }

        var (first, last) = (_dayOf[places[0]], _dayOf[places[^1]]);
        if (last - first >= PlanSettings.Span)
        {
            return false;
        }

        foreach (var need in _needs[item])
        {
            if (_placed[need] > 0 && _dayOf[_places[need][_placed[need] - 1]] >= first)
            {
                return false;
            }
        }

        foreach (var open in _opens[item])
        {
            if (_placed[open] > 0 && _dayOf[_places[open][0]] <= last)
            {
                return false;
            }
        }

        return true;
    }

    private bool Overfills(int from, int to) =>
        _blockOf[from] != _blockOf[to] && _at[from] != Empty && _at[to] == Empty && Filled[_blockOf[to]] >= Most[_blockOf[to]];

    private void Move(int item, int from, int to)
    {
        if (item == Empty)
        {
            return;
        }

        var places = _places[item];
        var i = Array.IndexOf(places, from, 0, _placed[item]);
        for (; i > 0 && places[i - 1] > to; i--)
        {
            places[i] = places[i - 1];
        }

        for (; i < _placed[item] - 1 && places[i + 1] < to; i++)
        {
            places[i] = places[i + 1];
        }

        places[i] = to;
    }

    private int CostOf(int item)
    {
        if (item == Empty || _placed[item] == 0)
        {
            return 0;
        }

        var target = _problem.Items[item];
        var (first, last) = (_dayOf[_places[item][0]], _dayOf[_places[item][_placed[item] - 1]]);
        var early = Math.Max(0, target.TargetFirst - first);
        var late = Math.Max(0, first - target.TargetLast);
        var stretch = Math.Max(0, last - first - _placed[item]);
        var moved = 0;
        for (var i = 0; _was is not null && i < _placed[item]; i++)
        {
            var off = _was[item][i] < 0 ? 0 : Math.Abs(_was[item][i] - _dayOf[_places[item][i]]);
            moved += off == 0 ? 0 : MoveCost + (PlanSettings.OffCost * off);
        }

        return moved + (PlanSettings.EarlyCost * early) + (PlanSettings.LateCost * late) + (PlanSettings.StretchCost * stretch);
    }

    // Lessons a little after a place look back on it.
    private int AfterRun(int place)
    {
        var left = PlanSettings.StrandRun;
        while (left > 0 && place < Count - 1)
        {
            left -= _at[++place] == Empty ? 0 : 1;
        }

        return place;
    }

    private int RunCost(int first, int last)
    {
        var (cost, run, strand) = (0, 0, -1);

        // What came before the stretch, as far back as a run matters.
        for (var place = first - 1; place >= 0 && run <= PlanSettings.StrandRun; place--)
        {
            if (_at[place] == Empty)
            {
                continue;
            }

            if (strand >= 0 && _strand[_at[place]] != strand)
            {
                break;
            }

            strand = _strand[_at[place]];
            run++;
        }

        for (var place = first; place <= last; place++)
        {
            if (_at[place] == Empty)
            {
                continue;
            }

            var next = _strand[_at[place]];
            var changes = next != strand;
            run = changes ? 1 : run + 1;
            cost +=
                _spiral ? (run > PlanSettings.StrandRun ? PlanSettings.StrandCost : 0)
                : changes && strand >= 0 ? PlanSettings.StrandCost
                : 0;
            strand = next;
        }

        return cost;
    }
}
