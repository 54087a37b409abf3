using System.Diagnostics;
using Fobble.Core.Baseline;
using Fobble.Core.Evidence;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>
/// Rule R11 on the real map: how much of it is rightly placed after so many questions, beside the same reckoning with questions in a fixed
/// order or at random. The children are the made-up class's, who are made by another rule than the check expects.
/// </summary>
internal static class BaselineBench
{
    private const int Children = 500;
    private static readonly int[] At = [0, 6, 10, 15, 20];

    public static IEnumerable<Figure> Run()
    {
        var map = SkillMapLoader.Shipped();
        yield return Time(map);
        var children = Enumerable.Range(1, Children).Select(seed => ChildOf(map, (ulong)seed)).ToList();
        var held = children.Average(c => (double)c.Count / map.Skills.Count);
        yield return Accuracy(map, children, held, "most telling question", MostTelling);
        yield return Accuracy(map, children, held, "random question", (_, _, asked, random) =>
            random.Pick(map.Skills.Where(s => !asked.Contains(s.Id)).ToList()).Id
        );
        yield return Accuracy(map, children, held, "strand by strand in fixed order", (_, _, asked, _) => FixedOrder(map)[asked.Count]);
        yield return Stopping(map, children);
        foreach (var world in (MadeUpWorld[])[MadeUpWorld.All[0], MadeUpWorld.All[2], MadeUpWorld.All[4], MadeUpWorld.All[5]])
        {
            yield return FromRecord(map, world);
        }
    }

    // A check after nine weeks, with the record of eight of them and without.
    private static Figure FromRecord(SkillMap map, MadeUpWorld world)
    {
        BaselineCheck check = new(map);
        var played = Enumerable.Range(1, 4).Select(seed => MadeUpTerm.Play((ulong)seed, 9, null, world)).ToList();
        var children = played.SelectMany(p => p.Evidence.Children.Take(15).Select(c => (p.Evidence, Child: c, Holds: p.History.Holds[c]))).ToList();
        (double Asked, double Right, double First, double Time) With(bool record)
        {
            List<(int Asked, double Right, double First, double Time)> all = [];
            foreach (var ((evidence, child, holds), i) in children.Select((c, i) => (c, i)))
            {
                SeededRandom random = new((ulong)(700 + i));
                var known = record ? RecordedSkill.Of(evidence, child) : [];
                List<BaselineAnswer> answers = [];
                double Right(BaselineState state) => state.Skills.Count(s => s.Held == holds.Contains(s.Skill)) / (double)map.Skills.Count;
                var watch = Stopwatch.StartNew();
                var state = check.After(answers, known);
                var first = Right(state);
                while (state.Next is { } next)
                {
                    answers.Add(new(next, Asked(holds, next, random)));
                    state = check.After(answers, known);
                }

                all.Add((answers.Count, Right(state), first, watch.Elapsed.TotalMilliseconds / (answers.Count + 1)));
            }

            return (all.Average(a => a.Asked), all.Average(a => a.Right), all.Average(a => a.First), all.Average(a => a.Time));
        }

        var (without, with) = (With(false), With(true));
        return new(
            $"baseline after nine weeks, {world.Name}, {children.Count} children: questions; rightly placed before the first and after the last: from nothing / from the record",
            $"{without.Asked:0.0} / {with.Asked:0.0} questions; {100 * without.First:0.0} → {100 * without.Right:0.0} % / {100 * with.First:0.0} → {100 * with.Right:0.0} %; {without.Time:0} / {with.Time:0} ms a step",
            "fewer for the same sureness; 50 ms"
        );
    }

    private delegate SkillId Choose(BaselineCheck check, IReadOnlyList<BaselineAnswer> answers, IReadOnlySet<SkillId> asked, SeededRandom random);

    private static SkillId MostTelling(BaselineCheck check, IReadOnlyList<BaselineAnswer> answers, IReadOnlySet<SkillId> asked, SeededRandom random) =>
        check.After(answers).Next!.Value;

    // About a third of the map held on average, by the made-up class's own rule of difficulty.
    private static IReadOnlySet<SkillId> ChildOf(SkillMap map, ulong seed)
    {
        SeededRandom random = new(seed);
        return new MadeUpChild(new(1), map, 1.05 + (0.45 * random.NextNormal()), random).Holds;
    }

    private static Support Asked(IReadOnlySet<SkillId> holds, SkillId skill, SeededRandom random) =>
        random.Chance(holds.Contains(skill) ? 0.92 : 0.08) ? Support.Alone : Support.NotYet;

    private static Figure Accuracy(SkillMap map, List<IReadOnlySet<SkillId>> children, double held, string name, Choose choose)
    {
        // A check never stops here, so that every child has all questions.
        BaselineCheck check = new(map, BaselineSettings.Default with { SureEnough = 2, MostQuestions = 31 });
        var right = new double[At.Length];
        var sure = new double[At.Length];
        for (var c = 0; c < children.Count; c++)
        {
            SeededRandom random = new((ulong)(9000 + c));
            List<BaselineAnswer> answers = [];
            HashSet<SkillId> asked = [];
            for (var q = 0; q <= At[^1]; q++)
            {
                if (Array.IndexOf(At, q) is >= 0 and var at)
                {
                    var state = check.After(answers);
                    right[at] += state.Skills.Count(s => s.Held == children[c].Contains(s.Skill)) / (double)map.Skills.Count / children.Count;
                    sure[at] += state.Sure / children.Count;
                }

                if (q < At[^1])
                {
                    var skill = choose(check, answers, asked, random);
                    asked.Add(skill);
                    answers.Add(new(skill, Asked(children[c], skill, random)));
                }
            }
        }

        return new(
            $"baseline, {name}: {children.Count} made-up children, {map.Skills.Count} skills, {held:0 %} held: share rightly placed after {string.Join(", ", At)} questions",
            $"{string.Join(", ", right.Select(r => $"{100 * r:0.0}"))} % (it expected {string.Join(", ", sure.Select(r => $"{100 * r:0.0}"))})",
            name.StartsWith("most", StringComparison.Ordinal) ? "92 at 10, 94 at 15, 95 at 20" : ""
        );
    }

    private static List<SkillId> FixedOrder(SkillMap map) =>
        [
            .. map
                .Strands.SelectMany(s => map.Skills.Where(k => k.Strand == s.Id))
                .Select((s, i) => (s.Id, i))
                .OrderBy(p => p.i % 4)
                .ThenBy(p => p.i)
                .Select(p => p.Id),
        ];

    private static Figure Stopping(SkillMap map, List<IReadOnlySet<SkillId>> children)
    {
        BaselineCheck check = new(map);
        List<int> asked = [];
        var (right, ready, readyRight) = (0.0, 0, 0);
        var some = children.Take(100).ToList();
        for (var c = 0; c < some.Count; c++)
        {
            SeededRandom random = new((ulong)(500 + c));
            List<BaselineAnswer> answers = [];
            var state = check.After(answers);
            while (state.Next is { } next)
            {
                answers.Add(new(next, Asked(some[c], next, random)));
                state = check.After(answers);
            }

            asked.Add(answers.Count);
            right += state.Skills.Count(s => s.Held == some[c].Contains(s.Skill)) / (double)map.Skills.Count / some.Count;
            foreach (var skill in map.Skills.Where(s => !state[s.Id].Held && s.Needs.All(n => state[n].Held)))
            {
                ready++;
                readyRight += !some[c].Contains(skill.Id) && skill.Needs.All(some[c].Contains) ? 1 : 0;
            }
        }

        asked.Sort();
        return new(
            $"baseline stopping by itself, {some.Count} made-up children",
            $"{asked.Average():0.0} questions on average, half of the children {asked[asked.Count / 2]} or fewer; {100 * right:0.0} % rightly placed; “ready next” right in {100.0 * readyRight / ready:0} %",
            "about 20 questions, 95 %; ready 68 %"
        );
    }

    private static Figure Time(SkillMap map)
    {
        BaselineCheck check = new(map);
        var holds = ChildOf(map, 7);
        SeededRandom random = new(1);
        List<BaselineAnswer> answers = [];
        List<double> times = [];
        for (var q = 0; q < 26; q++)
        {
            var watch = Stopwatch.StartNew();
            var next = check.After(answers).Next;
            times.Add(watch.Elapsed.TotalMilliseconds);
            if (next is not { } skill)
            {
                break;
            }

            answers.Add(new(skill, Asked(holds, skill, random)));
        }

        var warm = times.Skip(1).Order().ToList();
        return new(
            $"next baseline question over {map.Skills.Count} skills, {BaselineSettings.Default.Particles} particles, after 1 to {warm.Count} answers",
            $"median {warm[warm.Count / 2]:0} ms, worst {warm[^1]:0} ms",
            "under 100 ms"
        );
    }
}
