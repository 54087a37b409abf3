using CsCheck;
using Fobble.Core.Evidence;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Evidence;

/// <summary>What is remembered of a record changes nothing of what it says, whatever comes, in whatever order, and whatever goes.</summary>
public class RecordMemoryTests
{
    private static readonly ChildId Child = new(1);
    private static readonly DateOnly Today = SchoolDay(40);

    /// <summary>What happens to a record: something of a day is seen (mostly of the last days), or something seen is withdrawn.</summary>
    private static readonly Gen<(int Day, int Skill, Support Support, int Withdrawn)[][]> Stories = Gen.Select(
            Gen.Frequency((1, Gen.Int[0, 5]), (4, Gen.Int[5, 9])),
            Gen.Int[0, 12],
            Gen.Enum<Support>(),
            Gen.Frequency((8, Gen.Const(-1)), (1, Gen.Int[0, 30]))
        )
        .Array[1, 5]
        .Array[1, 14];

    [Fact]
    public void A_record_that_goes_on_says_what_one_read_from_the_first_says() =>
        Stories.Sample(
            story =>
            {
                RecordMemory memory = new();
                var seen = SeenOfClass.Of([]);
                var begins = 0;
                foreach (var (at, visit) in story.Index())
                {
                    // Time goes on from one visit to the next, and what comes late is of the days before.
                    begins = Math.Min(begins + (at % 3), 25);
                    List<Observation> more = [.. visit.Where(v => v.Withdrawn < 0).Select((v, i) => Once(begins + v.Day, v.Skill, v.Support, i))];
                    seen = seen.With(more);
                    foreach (var withdrawn in visit.Select(v => v.Withdrawn).Where(w => w >= 0 && w < seen.All.Count))
                    {
                        var gone = seen.All[withdrawn];
                        seen = SeenOfClass.Of(seen.All.Where(o => !ReferenceEquals(o, gone)));
                    }

                    Same(Judged(seen, memory), Judged(seen, null));
                }
            },
            iter: 300
        );

    [Fact]
    public void Two_go_on_from_the_same_record_and_neither_disturbs_the_other()
    {
        RecordMemory memory = new();
        var before = SeenOfClass.Of(Enumerable.Range(0, 20).Select(i => Once(i, i % 5, Support.Alone, 0)));
        var first = Judged(before, memory);
        var alone = before.With([Once(19, 2, Support.Alone, 1), Once(20, 3, Support.Alone, 0)]);
        var notYet = before.With([Once(19, 2, Support.NotYet, 1), Once(21, 3, Support.NotYet, 0)]);
        foreach (var seen in (SeenOfClass[])[alone, before, notYet, alone])
        {
            Same(Judged(seen, memory), Judged(seen, null));
        }

        Same(first, Judged(before, null));
    }

    /// <summary>What is secure bears out what it needs, also after the only thing of the last day is withdrawn.</summary>
    [Fact]
    public void Where_all_of_the_last_day_is_withdrawn_it_stands_as_the_day_before()
    {
        RecordMemory memory = new();
        var builds = Map.Skills.Index().First(s => s.Index > 5 && s.Item.Needs.Count > 0);
        var before = SeenOfClass.Of(
            Enumerable
                .Range(0, 12)
                .SelectMany(i =>
                    new[] { Once(i, builds.Index, Support.Alone, 0), Once(i, Map.Skills.ToList().IndexOf(Map[builds.Item.Needs[0]]), Support.NotYet, 1) }
                )
        );
        var with = before.With([Once(14, 0, Support.Alone, 0)]);
        Judged(with, memory);
        Same(Judged(before, memory), Judged(before, null));
    }

    private static Observation Once(int day, int skill, Support support, int minute)
    {
        var of = Map.Skills[skill];
        var seen = Saw(day, support, of.ShownIn[day % of.ShownIn.Count], skill: of);
        return seen with { At = seen.At.AddMinutes(minute) };
    }

    private static ClassEvidence Judged(SeenOfClass seen, RecordMemory? memory) =>
        new(Map, Calendar, EvidenceSettings.Default, [Child], seen, Today, memory: memory);

    private static void Same(ClassEvidence one, ClassEvidence other)
    {
        one.StyleOf(Child).ShouldBe(other.StyleOf(Child));
        one.LookAgain.ShouldBe(other.LookAgain);
        foreach (var skill in Map.Skills.Select(s => s.Id))
        {
            one[Child, skill].ShouldBe(other[Child, skill]);
            one.Seen(Child, skill).ShouldBe(other.Seen(Child, skill));
            one.StepsOf(Child, skill).ShouldBe(other.StepsOf(Child, skill));
            var (judged, anew) = (one.Judgement(Child, skill), other.Judgement(Child, skill));
            judged.Sentence.ShouldBe(anew.Sentence);
            judged.Clauses.ShouldBe(anew.Clauses);
        }
    }
}
