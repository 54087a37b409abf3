namespace Fobble.Core;

/// <summary>Gathers what is wrong with something that was asked for, so that all of it is told at once.</summary>
public sealed class Refusals
{
    private readonly List<Refused> _all = [];

    /// <summary>What was found to be wrong so far.</summary>
    public IReadOnlyList<Refused> All => _all;

    public void Check(string field, bool holds, string sentence)
    {
        if (!holds)
        {
            _all.Add(new(field, sentence));
        }
    }

    /// <exception cref="RefusedException">Something is wrong.</exception>
    public void ThrowIfAny()
    {
        if (_all.Count > 0)
        {
            throw new RefusedException(_all);
        }
    }
}
