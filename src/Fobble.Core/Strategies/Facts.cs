using Fobble.Core.Numbers;

namespace Fobble.Core.Strategies;

/// <summary>Which kinds of fact a number sentence is; 5 + 5 = 10 is several at once.</summary>
public static class Facts
{
    public static FactKinds KindsOf(NumberSentence fact)
    {
        // A difference is known as the sum that it undoes.
        var (a, b) = fact.Operation == Operation.Add ? (fact.Left, fact.Right) : (fact.Result, fact.Right);
        var total = a + b;
        var kinds = FactKinds.None;
        kinds |= a == 0 || b == 0 ? FactKinds.Zero : 0;
        kinds |= a == 1 || b == 1 ? FactKinds.OneMore : 0;
        kinds |= total <= 10 ? FactKinds.WithinTen : 0;
        kinds |= total > 0 && total % 10 == 0 && Math.Min(a, b) < 10 ? FactKinds.BondOfTen : 0;
        kinds |= a == b ? FactKinds.Double : 0;
        kinds |= (a % 10 == 0 && a > 0 && b <= 10) || (b % 10 == 0 && b > 0 && a <= 10) ? FactKinds.TenAndSome : 0;
        kinds |= (a % 10 == 0 && a > 0) || (b % 10 == 0 && b > 0) ? FactKinds.WholeTens : 0;
        kinds |= a < 10 && b < 10 ? FactKinds.SingleDigits : 0;
        kinds |= Math.Min(a, b) < 10 && Math.Max(a, b) > 10 && (a % 10) + (b % 10) < 10 ? FactKinds.OnTens : 0;
        return kinds;
    }
}
