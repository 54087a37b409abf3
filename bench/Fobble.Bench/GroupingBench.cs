using System.Diagnostics;
using Fobble.Core.Grouping;

namespace Fobble.Bench;

/// <summary>Groups for made-up classes of thirty after nine weeks, three weeks of groups remembered: time to the first answer and to the proof.</summary>
internal static class GroupingBench
{
    private const int Seeds = 50;
    private const int Weeks = 9;

    public static readonly int[] Places = [4, 5, 6, 7, 8, 10];

    public static IEnumerable<Figure> Run()
    {
        var briefs = Briefs();
        Grouper.Form(new GroupingProblem([], GroupSlot.InARow(1), new(), []));
        List<(double Time, int Gap)> all = [];
        List<(double Time, int Gap)> wished = [];
        foreach (var places in Places)
        {
            List<double> proven = [];
            foreach (var brief in briefs)
            {
                var problem = Plain(brief, places);
                var watch = Stopwatch.StartNew();
                var result = Grouper.Form(problem);
                all.Add((watch.Elapsed.TotalMilliseconds, result.Bound - result.Score));
                result = result.ProvenBest ? result : Grouper.Improve(problem, result, null, default);
                if (result.ProvenBest)
                {
                    proven.Add(watch.Elapsed.TotalMilliseconds);
                }

                watch.Restart();
                result = Grouper.Form(Wished(problem));
                wished.Add((watch.Elapsed.TotalMilliseconds, result.Bound - result.Score));
            }

            yield return Told($"30 children, {places} places: first answer", [.. all.TakeLast(Seeds)], "under 1 s");
            yield return new(
                $"30 children, {places} places: proven best, median / worst",
                $"{proven.At(0.5):0} / {proven.Max():0} ms{(proven.Count < Seeds ? $"; {Seeds - proven.Count} not proven with thirty times the work" : "")}",
                "median 40–380 ms, worst 1.3 s"
            );
        }

        yield return Told("all of them: first answer", all, "median 0.1 s, 98 % within 0.35 s, worst 1.5 s, 297 of 300 proven at once");
        yield return Told("the same with seven wishes: first answer", wished, "median 0.2 s, worst 1.5 s");
    }

    public static IReadOnlyList<GroupingBrief> Briefs() => [.. Enumerable.Range(1, Seeds).Select(seed => MadeUpTerm.Play((ulong)seed, Weeks).Next)];

    public static GroupingProblem Plain(GroupingBrief brief, int places) =>
        new(Candidates.From(brief), GroupSlot.InARow(places), new(), Candidates.MetLately(brief.Past));

    /// <summary>Two adults by turns, and what a class may wish: two pairs apart, one together, one with an adult, one not, one who has to have a turn, one adult with half of the groups at most.</summary>
    public static GroupingProblem Wished(GroupingProblem problem)
    {
        static ChildPair Pair(int one, int other) => new(new(one), new(other));
        return problem with
        {
            Slots = [.. problem.Slots.Select((s, i) => s with { Adult = i % 2 })],
            Rules = problem.Rules with
            {
                Wishes =
                [
                    new ApartWish(Pair(3, 17)),
                    new ApartWish(Pair(8, 25)),
                    new TogetherWish(Pair(5, 12)),
                    new AdultWish(new(7), 0, true),
                    new AdultWish(new(21), 1, false),
                    new TurnWish(new(29)),
                    new MostForAdultWish(1, (problem.Slots.Count + 1) / 2),
                ],
            },
        };
    }

    private static Figure Told(string what, IReadOnlyList<(double Time, int Gap)> all, string aim)
    {
        List<double> times = [.. all.Select(a => a.Time)];
        return new(
            $"{what}, median / 98 % / worst of {all.Count}",
            $"{times.At(0.5):0} / {times.At(0.98):0} / {times.Max():0} ms; proven best at once in {all.Count(a => a.Gap == 0)}, else within {all.Max(a => a.Gap)} points of some 4,500",
            aim
        );
    }
}
