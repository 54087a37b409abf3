namespace Fobble.Core.People;

/// <summary>Somebody answers for a class and for a school at any time: the last one who does can't be taken away.</summary>
public static class Answerable
{
    /// <param name="leads">Who leads the class now.</param>
    /// <param name="without">Who would lead it no more.</param>
    /// <exception cref="RefusedException">Nobody would be left.</exception>
    public static void CheckClass(IEnumerable<int> leads, int without) =>
        RefusedException.Unless(leads.Any(l => l != without), "role", Phrase("A class needs a lead teacher: make somebody else one first."));

    /// <param name="leads">Who leads the school now.</param>
    /// <param name="without">Who would lead it no more.</param>
    /// <exception cref="RefusedException">Nobody would be left.</exception>
    public static void CheckSchool(IEnumerable<int> leads, int without) =>
        RefusedException.Unless(leads.Any(l => l != without), "leads", Phrase("A school needs somebody who leads it: name somebody else first."));
}
