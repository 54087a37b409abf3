using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Server.Features.Baseline;
using Fobble.Server.Features.ClassGrid;

namespace Fobble.Server.Tests;

public class BaselineTests(School school) : IClassFixture<School>
{
    private static readonly DateTimeOffset Now = ClipboardTests.Now;

    [Fact]
    public async Task The_demos_checks_deny_nothing_that_its_grid_calls_secure()
    {
        // As it is filled: others here begin checks of their own.
        using School demo = new();
        var tomasz = await demo.ComeInAsAsync("tomasz");
        var checks = (await tomasz.ReadAsync<BaselineOverview>("/api/classes/1/baseline"))
            .Children.Where(c => c is { CheckId: not null, EndedAt: not null })
            .ToList();
        checks.Count.ShouldBeGreaterThan(1);
        foreach (var child in checks)
        {
            var path = (await tomasz.ReadAsync<CheckView>($"/api/classes/1/baseline/{child.CheckId}")).Path;
            path.Count(p => p.Strength >= (int)Strength.Secure).ShouldBeGreaterThan(3);
            path.Where(p => p.Strength >= (int)Strength.Secure && !p.Held).Select(p => p.Short).ShouldBeEmpty(child.Name);
        }
    }

    [Fact]
    public async Task A_check_asks_takes_answers_and_ends_with_what_it_infers_on_the_grid()
    {
        var tomasz = await school.ComeInAsAsync("tomasz");
        var check = await BeginAsync(tomasz, 4);
        var view = await tomasz.ReadAsync<CheckView>($"/api/classes/1/baseline/{check}");
        view.Question!.LayOut.ShouldNotBeEmpty();
        view.Question.Items.Count.ShouldBeInRange(1, 2);
        view.Question.Items.ShouldAllBe(i => i.Ask.Length > 0 && i.Answer.Length > 0);
        for (var i = 0; i < 7 && view.Question is not null; i++)
        {
            view = await AnswerAsync(tomasz, check, view.Question!, Support.Alone);
            view.Asked.ShouldBe(i + 1);
        }

        view.Sure.ShouldBeGreaterThan(0.8);
        view.SureInWords.ShouldContain("% sure");
        view.Path.Count(p => p.Held).ShouldBeGreaterThan(view.Path.Count / 2, "who can do all that was asked is far on");
        var ended = await Visitor.ReadAsync<CheckView>(await tomasz.PostAsync($"/api/classes/1/baseline/{check}/end"));
        ended.EndedAt.ShouldNotBeNull();
        ended.Question.ShouldBeNull();

        var grid = await tomasz.ReadAsync<Grid>("/api/classes/1/grid");
        var marks = grid.Children.Single(c => c.Id == 4).Marks;
        marks.ShouldContain(m => m.Inferred && m.Strength == 0);
        var guess = grid.Skills[marks.ToList().FindIndex(m => m.Inferred)];
        (await tomasz.ReadAsync<Cell>($"/api/classes/1/children/4/skills/{guess.Id}")).Sentence.ShouldStartWith(
            "Not seen yet. The check of 25 November takes it to be there"
        );

        var late = await tomasz.PostAsync($"/api/classes/1/baseline/{check}/answers", Answer(guess.Id, Support.Alone));
        (await Visitor.SaysAsync(late)).ShouldContain("This check has ended.");
    }

    [Fact]
    public async Task A_paused_check_goes_on_where_it_was_and_a_repeated_answer_is_one()
    {
        var tomasz = await school.ComeInAsAsync("tomasz");
        var check = await BeginAsync(tomasz, 5);
        var first = await tomasz.ReadAsync<CheckView>($"/api/classes/1/baseline/{check}");
        var answer = Answer(first.Question!.Skill, Support.NotYet);
        await tomasz.PostAsync($"/api/classes/1/baseline/{check}/answers", answer);
        await tomasz.PostAsync($"/api/classes/1/baseline/{check}/answers", answer);
        (await BeginAsync(tomasz, 5)).ShouldBe(check, "the one under way goes on");
        var view = await tomasz.ReadAsync<CheckView>($"/api/classes/1/baseline/{check}");
        view.Asked.ShouldBe(1);
        view.Question!.Skill.ShouldNotBe(first.Question.Skill);
        var overview = await tomasz.ReadAsync<BaselineOverview>("/api/classes/1/baseline");
        overview
            .Children.Single(c => c.Id == 5)
            .ShouldSatisfyAllConditions(c => c.CheckId.ShouldBe(check), c => c.Asked.ShouldBe(1), c => c.EndedAt.ShouldBeNull());
    }

    [Fact]
    public async Task Two_adults_check_different_children_at_once()
    {
        var (ines, tomasz) = (await school.ComeInAsAsync("ines"), await school.ComeInAsAsync("tomasz"));
        var checks = await Task.WhenAll(BeginAsync(ines, 6), BeginAsync(tomasz, 7));
        await Task.WhenAll(
            checks
                .Zip([ines, tomasz])
                .Select(async p =>
                {
                    var view = await p.Second.ReadAsync<CheckView>($"/api/classes/1/baseline/{p.First}");
                    for (var i = 0; i < 3; i++)
                    {
                        view = await AnswerAsync(p.Second, p.First, view.Question!, i % 2 == 0 ? Support.Alone : Support.Prompted);
                    }

                    view.Asked.ShouldBe(3);
                })
        );
    }

    [Fact]
    public async Task Who_knows_better_has_the_last_word_and_can_take_it_back()
    {
        var ines = await school.ComeInAsAsync("ines");
        var check = await BeginAsync(ines, 8);
        var view = await ines.ReadAsync<CheckView>($"/api/classes/1/baseline/{check}");
        view = await AnswerAsync(ines, check, view.Question!, Support.Alone);
        var far = view.Path.First(p => !p.Held && p.Asked is null).Id;
        var knows = await Visitor.ReadAsync<CheckView>(await ines.PutAsync($"/api/classes/1/baseline/{check}/skills/{far}", new KnownBetter(true)));
        knows.Path.Single(p => p.Id == far).ShouldSatisfyAllConditions(p => p.Held.ShouldBeTrue(), p => p.Override.ShouldBe(true));
        var map = SkillMapLoader.Shipped();
        map.AllNeeds(new(far)).ShouldAllBe(n => knows.Path.Single(p => p.Id == n.Value).Held);
        var not = await Visitor.ReadAsync<CheckView>(await ines.PutAsync($"/api/classes/1/baseline/{check}/skills/{far}", new KnownBetter(false)));
        not.Path.Single(p => p.Id == far).Held.ShouldBeFalse();
        var back = await Visitor.ReadAsync<CheckView>(await ines.PutAsync($"/api/classes/1/baseline/{check}/skills/{far}", new KnownBetter(null)));
        back.Path.Single(p => p.Id == far).Override.ShouldBeNull();
    }

    [Fact]
    public async Task A_withdrawn_answer_no_longer_speaks_in_what_was_inferred()
    {
        var ines = await school.ComeInAsAsync("ines");
        var check = await BeginAsync(ines, 9);
        var view = await ines.ReadAsync<CheckView>($"/api/classes/1/baseline/{check}");
        view = await AnswerAsync(ines, check, view.Question!, Support.NotYet);
        view = await AnswerAsync(ines, check, view.Question!, Support.Alone);
        await ines.PostAsync($"/api/classes/1/baseline/{check}/end");
        using var scope = school.Scope();
        double Sum() => school.Db(scope).BaselineChecks.Where(c => c.Id == check).Select(c => c.Inferred).AsEnumerable().First().Values.Sum();
        var before = Sum();
        await ines.PostAsync($"/api/classes/1/observations/{view.Answers[0].Id}/withdraw", new { why = "The wrong child" });
        school.Db(scope).ChangeTracker.Clear();
        Sum().ShouldBeGreaterThan(before + 1);
    }

    [Fact]
    public async Task A_strand_is_looked_at_again_by_itself()
    {
        var ines = await school.ComeInAsAsync("ines");
        var started = await Visitor.ReadAsync<List<StartedCheck>>(await ines.PostAsync("/api/classes/1/baseline", new StartChecks([10], "bond")));
        var view = await ines.ReadAsync<CheckView>($"/api/classes/1/baseline/{started[0].CheckId}");
        view.Question!.Strand.ShouldBe("bond");
        view.Path.ShouldAllBe(p => p.Strand == "bond");
        view.Reach.Single().Strand.ShouldBe("bond");
    }

    [Fact]
    public async Task Nothing_is_begun_for_a_child_of_another_class_and_nothing_ends_before_it_began()
    {
        var ines = await school.ComeInAsAsync("ines");
        (await ines.PostAsync("/api/classes/1/baseline", new StartChecks([1, 40], null))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.PostAsync("/api/classes/1/baseline", new StartChecks([], null))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.PostAsync("/api/classes/1/baseline", new StartChecks([1], "none"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var check = await BeginAsync(ines, 11);
        (await Visitor.SaysAsync(await ines.PostAsync($"/api/classes/1/baseline/{check}/end"))).ShouldContain("Nothing has been asked yet");
    }

    private static NewAnswer Answer(string skill, Support support) => new(Guid.NewGuid(), skill, Now, support, Representation.Objects, null, null);

    private static async Task<int> BeginAsync(Visitor visitor, int child) =>
        (await Visitor.ReadAsync<List<StartedCheck>>(await visitor.PostAsync("/api/classes/1/baseline", new StartChecks([child], null))))[0].CheckId;

    private static async Task<CheckView> AnswerAsync(Visitor visitor, int check, QuestionView question, Support support) =>
        await Visitor.ReadAsync<CheckView>(await visitor.PostAsync($"/api/classes/1/baseline/{check}/answers", Answer(question.Skill, support)));
}
