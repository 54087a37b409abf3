namespace Fobble.Core.Baseline;

/// <summary>
/// The logistic function of (level of the strand − level of the skill) / softness and its logarithms, from a table: asked for some ten million
/// times a question. Both levels are turned into steps of the table once, so that a look-up is a subtraction.
/// </summary>
internal sealed class SoftStep
{
    private const int Edge = 64;
    private const int StepsAUnit = 64;
    private const int Middle = Edge * StepsAUnit;
    private readonly double _softness;
    private readonly double[] _chance = new double[(2 * Middle) + 1];
    private readonly double[] _log = new double[(2 * Middle) + 1];

    public SoftStep(double softness)
    {
        _softness = softness;
        for (var i = 0; i < _chance.Length; i++)
        {
            var z = (double)(i - Middle) / StepsAUnit;
            (_chance[i], _log[i]) = (1 / (1 + Math.Exp(-z)), z < 0 ? z - Math.Log(1 + Math.Exp(z)) : -Math.Log(1 + Math.Exp(-z)));
        }
    }

    /// <summary>A level in steps of the table; far beyond any map it stays at the edge.</summary>
    public int Steps(double level) => (int)Math.Round(Math.Clamp(level / _softness, -Edge / 2, Edge / 2) * StepsAUnit);

    /// <summary>Chance that a child whose strand is at one level has a skill at the other, both in steps (<see cref="Steps"/>).</summary>
    public double Chance(int strand, int skill) => _chance[Middle + strand - skill];

    /// <summary>Its natural logarithm.</summary>
    public double LogHeld(int strand, int skill) => _log[Middle + strand - skill];

    /// <summary>The logarithm of one minus the chance: the same curve from the other side.</summary>
    public double LogNot(int strand, int skill) => _log[Middle - strand + skill];

    /// <summary>One or the other, without a branch that nobody could foresee.</summary>
    public double Log(int strand, int skill, bool held) => _log[Middle + ((strand - skill) * ((held ? 2 : 0) - 1))];
}
