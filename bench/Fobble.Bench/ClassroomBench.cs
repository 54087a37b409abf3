using System.Diagnostics;
using Fobble.Core.Approaches;
using Fobble.Core.Chance;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Sheets;
using Fobble.Core.Strategies;
using Fobble.Formats.Print;

namespace Fobble.Bench;

/// <summary>The mathematics of the classroom: sums worked, games reckoned, sheets for a whole class made and printed.</summary>
internal static class ClassroomBench
{
    private const int Runs = 15;

    public static IEnumerable<Figure> Run()
    {
        List<(int A, Operation Operation, int B)> sums = [];
        for (var a = 0; a <= 20; a++)
        {
            sums.AddRange(Enumerable.Range(0, 21 - a).Select(b => (a, Operation.Add, b)));
            sums.AddRange(Enumerable.Range(0, a + 1).Select(b => (a, Operation.TakeAway, b)));
        }

        var ways = sums.Sum(s => Adviser.Work(s.A, s.Operation, s.B, Approach.Usual).Count);
        var worked = Timed(() => sums.ForEach(s => Adviser.Work(s.A, s.Operation, s.B, Approach.Usual)));
        yield return new($"all {sums.Count} sums and differences to 20 by every strategy, {ways} chains of pictures", Said(worked), "");

        var race = new Race(new Throws([Die.Numbered(1, 6), Die.Numbered(1, 6)], DiceOperation.Add), 100, true, 4);
        yield return new("exact length of a game: two dice, 100 places, exact finish, 4 players", Said(Timed(() => race.Length())), "");

        SheetChild[] thirty = [.. Enumerable.Range(1, 30).Select(i => new SheetChild($"Child {i}", ItemHistory.None))];
        var request = new SheetRequest(
            SheetKind.Stories,
            SheetVariant.Together,
            PaperSize.A4,
            new NumberRange(5, 10),
            4,
            thirty,
            Approach.Usual,
            7,
            new(2026, 11, 25)
        );
        var sheet = SheetMaker.Make(request);
        var pdf = SheetWriter.Pdf(sheet, Ink.Full);
        yield return new(
            $"two pages of stories for each of 30 children, with answers: {sheet.Pages.Count} pages as one PDF",
            $"{Said(Timed(() => SheetWriter.Pdf(SheetMaker.Make(request), Ink.Full)))}, {pdf.Length / 1000.0 / sheet.Pages.Count:0.0} kB a page",
            "under 1 s, under 60 kB a page"
        );
        var one = SheetWriter.Pdf(SheetMaker.Make(request with { Children = [thirty[0]] }), Ink.Full);
        yield return new("the same for one child, three pages", $"{one.Length / 3000.0:0.0} kB a page", "under 60 kB a page");
    }

    private static List<double> Timed(Action work)
    {
        work();
        return
        [
            .. Enumerable
                .Range(0, Runs)
                .Select(_ =>
                {
                    var start = Stopwatch.GetTimestamp();
                    work();
                    return Stopwatch.GetElapsedTime(start).TotalMilliseconds;
                })
                .Order(),
        ];
    }

    private static string Said(List<double> times) => $"median {times[Runs / 2]:0.0} ms, worst {times[^1]:0.0} ms";
}
