using System.Diagnostics;
using Fobble.Core.Grouping;

namespace Fobble.Bench;

/// <summary>Groups for made-up classes of thirty after nine weeks, three weeks of groups remembered: time to the first answer and to the proof.</summary>
internal static class GroupingBench
{
    private const int Seeds = 50;
    private const int Weeks = 9;

    public static IEnumerable<Figure> Run()
    {
        var briefs = Enumerable.Range(1, Seeds).Select(seed => MadeUpTerm.Play((ulong)seed, Weeks).Next).ToList();
        Grouper.Form(new GroupingProblem([], GroupSlot.InARow(1), new(), []));
        foreach (var places in new[] { 4, 5, 6, 7, 8, 10 })
        {
            List<double> first = [];
            List<double> proven = [];
            List<int> gaps = [];
            foreach (var brief in briefs)
            {
                var problem = new GroupingProblem(Candidates.From(brief), GroupSlot.InARow(places), new(), Candidates.MetLately(brief.Past));
                var watch = Stopwatch.StartNew();
                var result = Grouper.Form(problem);
                first.Add(watch.Elapsed.TotalMilliseconds);
                gaps.Add(result.Bound - result.Score);
                if (!result.ProvenBest)
                {
                    result = Grouper.Improve(problem, result, null, default);
                }

                if (result.ProvenBest)
                {
                    proven.Add(watch.Elapsed.TotalMilliseconds);
                }
            }

            yield return new(
                $"30 children, {places} places: first answer, median / worst of {Seeds} seeds",
                $"{first.At(0.5):0} / {first.Max():0} ms; proven best at once in {gaps.Count(g => g == 0)}, else within {gaps.Max()} points of some 4,500",
                "under 1 s"
            );
            yield return new(
                $"30 children, {places} places: proven best, median / worst",
                $"{proven.At(0.5):0} / {proven.Max():0} ms{(proven.Count < Seeds ? $"; {Seeds - proven.Count} not proven with thirty times the work" : "")}",
                "median 40–380 ms, worst 1.3 s"
            );
        }
    }
}
