using NCalc;

namespace Fobble.Core.Activities;

/// <summary>
/// How many of a thing are needed: a formula of <c>n</c> (largest number in use), <c>children</c>, <c>pairs</c> and <c>groups</c>,
/// such as <c>n * (n + 1) / 2</c> for tins 1 to n or <c>children * n</c>.
/// </summary>
public sealed record Amount
{
    /// <exception cref="RefusedException">The formula can't be worked out, or is not positive, for ordinary values.</exception>
    public Amount(string formula)
    {
        Formula = formula;
        _ = For(5, 4);
    }

    public string Formula { get; }

    /// <summary>The amount for numbers up to <paramref name="n"/> and this many children; parts of a thing are rounded up.</summary>
    public int For(int n, int children, int groups = 1)
    {
        try
        {
            var expression = new Expression(Formula)
            {
                Parameters =
                {
                    ["n"] = (double)n,
                    ["children"] = (double)children,
                    ["pairs"] = Math.Ceiling(children / 2.0),
                    ["groups"] = (double)groups,
                },
            };
            var amount = Convert.ToDouble(expression.Evaluate());
            return amount > 0 && amount < 10_000 ? (int)Math.Ceiling(amount) : throw new RefusedException("amount", Phrase($"'{Formula}' comes to {amount}."));
        }
        catch (Exception fault) when (fault is not RefusedException)
        {
            throw new RefusedException("amount", Phrase($"'{Formula}' can't be worked out: {fault.Message}"));
        }
    }
}
