using Fobble.Core.Skills;

namespace Fobble.Core.Baseline;

/// <summary>
/// The map as bits: what each skill needs and opens, and the strands. A child's state is a down-closed set of skills (a skill only
/// with all that it needs), held in words of 64 bits.
/// </summary>
internal sealed class Down
{
    public Down(SkillMap map, double[] levels)
    {
        (Map, Levels, Count) = (map, levels, map.Skills.Count);
        Words = (Count + 63) / 64;
        var place = map.Skills.Select((s, i) => (s.Id, i)).ToDictionary(p => p.Id, p => p.i);
        Needs = new ulong[Count * Words];
        OpensMask = new ulong[Count * Words];
        NeedsList = [.. map.Skills.Select(s => s.Needs.Where(place.ContainsKey).Select(n => place[n]).ToArray())];
        Opens = [.. map.Skills.Select(s => map.Opens(s.Id).Where(place.ContainsKey).Select(o => place[o]).ToArray())];
        for (var i = 0; i < Count; i++)
        {
            foreach (var need in map.Skills[i].Needs.Where(place.ContainsKey))
            {
                Needs[(i * Words) + (place[need] >> 6)] |= 1UL << (place[need] & 63);
            }

            foreach (var above in Opens[i])
            {
                OpensMask[(i * Words) + (above >> 6)] |= 1UL << (above & 63);
            }
        }

        var strands = map.Skills.Select(s => s.Strand).Distinct().ToList();
        StrandOf = [.. map.Skills.Select(s => strands.IndexOf(s.Strand))];

        // Skills come in teaching order, so each strand's list is in the order of what needs what.
        InStrand = [.. strands.Select((_, s) => Enumerable.Range(0, Count).Where(i => StrandOf[i] == s).ToArray())];
        StrandMask = [.. InStrand.Select(MaskOf)];
        OpensElsewhere = [.. InStrand.Select((own, s) => own.SelectMany(i => Opens[i]).Where(o => StrandOf[o] != s).Distinct().ToArray())];
    }

    public SkillMap Map { get; }

    /// <summary>Level of each skill, in the units of <see cref="BaselineSettings"/>.</summary>
    public double[] Levels { get; }

    /// <summary>Skills of the map; they go by their place in it.</summary>
    public int Count { get; }

    /// <summary>Words of 64 bits that a state takes.</summary>
    public int Words { get; }

    /// <summary>For each skill a mask of <see cref="Words"/> words.</summary>
    public ulong[] Needs { get; }

    /// <summary>The same for what each skill opens.</summary>
    public ulong[] OpensMask { get; }

    /// <summary>For each skill those that need it, by place.</summary>
    public int[][] Opens { get; }

    /// <summary>For each skill those that it needs, by place.</summary>
    public int[][] NeedsList { get; }

    /// <summary>For each skill the number of its strand, from 0.</summary>
    public int[] StrandOf { get; }

    /// <summary>For each strand its skills, by place.</summary>
    public int[][] InStrand { get; }

    /// <summary>For each strand a mask of <see cref="Words"/> words.</summary>
    public ulong[][] StrandMask { get; }

    /// <summary>For each strand the skills of other strands that need one of its own.</summary>
    public int[][] OpensElsewhere { get; }

    public int Strands => InStrand.Length;

    /// <summary>Whether all that skill i needs is held.</summary>
    public bool Allows(ReadOnlySpan<ulong> state, int i)
    {
        var needs = new ReadOnlySpan<ulong>(Needs, i * Words, state.Length);
        var missing = 0UL;
        for (var w = 0; w < state.Length; w++)
        {
            missing |= needs[w] & ~state[w];
        }

        return missing == 0;
    }

    /// <summary>Writes which skills have all they need, and which are needed by something held.</summary>
    public void AllowedAndNeeded(ReadOnlySpan<ulong> state, Span<ulong> allowed, Span<ulong> needed)
    {
        // What is not held bars what it opens; what is left is allowed.
        allowed.Clear();
        needed.Clear();
        for (var i = 0; i < Count; i++)
        {
            if (Has(state, i))
            {
                Join(needed, Needs, i);
            }
            else
            {
                Join(allowed, OpensMask, i);
            }
        }

        for (var w = 0; w < allowed.Length; w++)
        {
            allowed[w] = ~allowed[w];
        }

        // Beyond the last skill there is nothing to hold.
        if ((Count & 63) != 0)
        {
            allowed[^1] &= (1UL << (Count & 63)) - 1;
        }
    }

    /// <summary>Brings both up to date after skill i has come in.</summary>
    public void Gained(int i, ReadOnlySpan<ulong> state, Span<ulong> allowed, Span<ulong> needed)
    {
        Join(needed, Needs, i);

        foreach (var above in Opens[i])
        {
            Put(allowed, above, Allows(state, above));
        }
    }

    /// <summary>Brings both up to date after skill i has gone.</summary>
    public void Lost(int i, ReadOnlySpan<ulong> state, Span<ulong> allowed, Span<ulong> needed)
    {
        for (var w = 0; w < state.Length; w++)
        {
            allowed[w] &= ~OpensMask[(i * Words) + w];
        }

        foreach (var below in NeedsList[i])
        {
            Put(needed, below, HasOneThatNeeds(state, below));
        }
    }

    /// <summary>The first skill from a place on that is allowed and not needed; -1 where there is none.</summary>
    public static int FirstFrom(int place, ReadOnlySpan<ulong> allowed, ReadOnlySpan<ulong> needed)
    {
        for (var w = place >> 6; w < allowed.Length; w++)
        {
            var edge = allowed[w] & ~needed[w] & (w == place >> 6 ? ulong.MaxValue << (place & 63) : ulong.MaxValue);
            if (edge != 0)
            {
                return (w << 6) + System.Numerics.BitOperations.TrailingZeroCount(edge);
            }
        }

        return -1;
    }

    /// <summary>The last such skill below a place.</summary>
    public static int LastBelow(int place, ReadOnlySpan<ulong> allowed, ReadOnlySpan<ulong> needed)
    {
        for (var w = Math.Min(place >> 6, allowed.Length - 1); w >= 0; w--)
        {
            var edge = allowed[w] & ~needed[w] & (w == place >> 6 ? (1UL << (place & 63)) - 1 : ulong.MaxValue);
            if (edge != 0)
            {
                return (w << 6) + 63 - System.Numerics.BitOperations.LeadingZeroCount(edge);
            }
        }

        return -1;
    }

    private static void Join(Span<ulong> into, ulong[] masks, int i)
    {
        var mask = masks.AsSpan(i * into.Length, into.Length);
        for (var w = 0; w < into.Length; w++)
        {
            into[w] |= mask[w];
        }
    }

    private bool HasOneThatNeeds(ReadOnlySpan<ulong> state, int i)
    {
        var held = 0UL;
        for (var w = 0; w < state.Length; w++)
        {
            held |= OpensMask[(i * Words) + w] & state[w];
        }

        return held != 0;
    }

    /// <summary>Whether the two states differ in something that skill i needs.</summary>
    public bool NeedsOneThatDiffers(int i, ReadOnlySpan<ulong> one, ReadOnlySpan<ulong> other)
    {
        var needs = new ReadOnlySpan<ulong>(Needs, i * Words, one.Length);
        var differs = 0UL;
        for (var w = 0; w < one.Length; w++)
        {
            differs |= needs[w] & (one[w] ^ other[w]);
        }

        return differs != 0;
    }

    private ulong[] MaskOf(int[] skills)
    {
        var mask = new ulong[Words];
        foreach (var i in skills)
        {
            Put(mask, i, true);
        }

        return mask;
    }

    public static bool Has(ReadOnlySpan<ulong> state, int i) => (state[i >> 6] & (1UL << (i & 63))) != 0;

    public static void Put(Span<ulong> state, int i, bool held)
    {
        var bit = 1UL << (i & 63);
        state[i >> 6] = held ? state[i >> 6] | bit : state[i >> 6] & ~bit;
    }
}
