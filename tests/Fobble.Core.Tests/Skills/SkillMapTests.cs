using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using QuikGraph;
using QuikGraph.Algorithms;

namespace Fobble.Core.Tests.Skills;

public class SkillMapTests
{
    private static readonly SkillMap Map = SkillMapLoader.Shipped();

    [Fact]
    public void The_shipped_map_is_whole()
    {
        Map.Strands.Select(s => s.Id).ShouldBe(["count", "see", "numeral", "compare", "bond", "change", "place", "strategy"]);
        Map.Skills.Count.ShouldBeGreaterThanOrEqualTo(130);
        Map.Skills.Select(s => s.When).Distinct().Count().ShouldBe(4);
    }

    [Fact]
    public void Names_and_sentences_are_not_used_twice()
    {
        Map.Skills.Select(s => s.Short).ShouldBeUnique();
        Map.Skills.Select(s => s.ICan).ShouldBeUnique();
    }

    [Fact]
    public void A_classs_words_stand_in_every_text()
    {
        var british = SkillMapLoader.AsWritten().InWords(new(OnesWord.Units, FewerWord.Less, TakeWord.Subtract, SentenceWord.Equation, YearWord.Reception));
        british[new("join.sentence")]
            .ICan.ShouldBe("I can write a equation for putting together.".Replace("a equation", "an equation", StringComparison.Ordinal));
        british[new("compare.one-fewer-5")].Short.ShouldBe("One less to five");
        british[new("take.act-5")].Words.ShouldContain("subtract");
        british[new("place.tens-ones")].ICan.ShouldContain("units");
        foreach (var map in (SkillMap[])[british, Map])
        {
            map.Skills.SelectMany(s =>
                    s.LookFor.Concat(s.Words).Concat(s.Slips.Select(x => x.Text)).Concat(s.Strategies.Select(x => x.Text)).Append(s.ICan).Append(s.Short)
                )
                .ShouldAllBe(text => !text.Contains('{'));
        }
    }

    [Fact]
    public void Teaching_order_is_a_topological_order_as_QuikGraph_sees_it()
    {
        var graph = Map.Skills.SelectMany(s => s.Needs.Select(need => new Edge<SkillId>(need, s.Id))).ToAdjacencyGraph<SkillId, Edge<SkillId>>();
        graph.IsDirectedAcyclicGraph().ShouldBeTrue();
        graph.Edges.ShouldAllBe(e => Map.IndexOf(e.Source) < Map.IndexOf(e.Target));
    }

    [Fact]
    public void A_skill_is_never_taught_in_an_earlier_season_than_what_it_needs() => Map.Skills.ShouldAllBe(s => s.Needs.All(need => Map[need].When <= s.When));

    [Fact]
    public void No_prerequisite_is_named_that_another_one_already_brings() =>
        Map.Skills.ShouldAllBe(s => s.Needs.All(need => !s.Needs.Where(other => other != need).Any(other => Map.AllNeeds(other).Contains(need))));

    [Fact]
    public void Opens_is_needs_read_backwards() =>
        Map.Skills.ShouldAllBe(s => Map.Opens(s.Id).All(o => Map[o].Needs.Contains(s.Id)) && s.Needs.All(n => Map.Opens(n).Contains(s.Id)));

    [Fact]
    public void Slips_and_strategies_have_ids_of_their_own_within_a_skill() =>
        Map.Skills.ShouldAllBe(s =>
            s.Slips.Select(x => x.Id).Distinct().Count() == s.Slips.Count && s.Strategies.Select(x => x.Id).Distinct().Count() == s.Strategies.Count
        );

    [Fact]
    public void Words_can_be_read_as_words() => Map.Skills.SelectMany(s => s.Words.Concat(s.LookFor)).ShouldAllBe(w => w.Trim().Length > 1);

    [Fact]
    public void A_circle_is_refused_and_named()
    {
        var fault = Should.Throw<InvalidSkillMapException>(() => Build(("a", ["b"]), ("b", ["a"]), ("c", [])));
        fault.Message.ShouldContain("circle");
        fault.Message.ShouldContain("see.a");
        fault.Message.ShouldNotContain("see.c");
    }

    [Fact]
    public void Unknown_prerequisites_and_repeated_ids_are_all_named_at_once()
    {
        var fault = Should.Throw<InvalidSkillMapException>(() => Build(("a", ["gone"]), ("b", []), ("b", [])));
        fault.Faults.Count.ShouldBe(2);
        fault.Message.ShouldContain("see.gone");
        fault.Message.ShouldContain("see.b is there 2 times");
    }

    [Theory]
    [InlineData("when: autumn", "when: christmas", "none of")]
    [InlineData("lessons: 2", "lessons: 9", "lessons should be 2 to 4")]
    [InlineData("range: 1-3", "range: x", "no range")]
    [InlineData("iCan: I can see", "iCan: Sees", "I can")]
    [InlineData("strategies: [{ id: saw, text: Saw it }]", "strategies: []", "no way of doing it")]
    [InlineData("shownIn: [picture]", "shownIn: []", "representation")]
    public void A_fault_in_a_file_says_where_it_is(string right, string wrong, string message)
    {
        const string Good = """
            strand: see
            name: Seeing
            place: 1
            skills:
              - id: see.a
                short: See
                iCan: I can see.
                when: autumn
                shownIn: [picture]
                range: 1-3
                lessons: 2
                lookFor: [Sees]
                slips: [{ id: x, text: Slips }]
                strategies: [{ id: saw, text: Saw it }]
                words: [see]
            """;
        SkillMapLoader.Load([("see.yaml", Good)]).Skills.Count.ShouldBe(1);
        Good.ShouldContain(right);
        Should
            .Throw<RefusedException>(() => SkillMapLoader.Load([("see.yaml", Good.Replace(right, wrong, StringComparison.Ordinal))]))
            .Message.ShouldContain(message);
    }

    private static SkillMap Build(params (string Id, string[] Needs)[] skills) =>
        new(
            [new Strand("see", "Seeing")],
            [.. skills.Select(s => Map.Skills[0] with { Id = new($"see.{s.Id}"), Strand = "see", Needs = [.. s.Needs.Select(n => new SkillId($"see.{n}"))] })]
        );
}
