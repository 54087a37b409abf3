using Fobble.Core.Planning;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.Planning;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Features.Today;

namespace Fobble.Server.Tests;

/// <summary>The first hour of a class, from nothing; a class that knows its way is not asked.</summary>
public sealed class FirstHourTests : IDisposable
{
    private const string Hour = "/api/classes/1/first-hour";
    internal static readonly FirstStart Lead = new(
        School.FirstCode,
        "Rosalind Achterberg",
        "rosalind@kettle-lane.example",
        "nine wagons uphill",
        "Kettle Lane School",
        "Willow",
        "Europe/London",
        "en-GB"
    );
    private readonly School _school = School.Empty();

    public void Dispose() => _school.Dispose();

    [Fact]
    public async Task Holidays_are_offered_taken_once_and_no_others()
    {
        var lead = await BeginAsync();
        var view = await lead.ReadAsync<FirstHourView>(Hour);
        view.Over.ShouldBeFalse();
        view.Week[0].ShouldBe("9:15 all together, 20 minutes, every day");
        view.Holidays.ShouldContain(h => h.Name == "Summer half-term");
        view.Plan.ShouldBeNull("there is nobody to plan for");

        var refused = await lead.PutAsync($"{Hour}/timetable", new TimetableSettled([view.Holidays[0].First, new(2026, 12, 1)]));
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ClosuresAsync(lead)).ShouldBeEmpty("a refused change changes nothing");

        // Twice, as by two taps: each once.
        List<DateOnly> taken = [.. view.Holidays.Skip(1).Select(h => h.First)];
        (await lead.PutAsync($"{Hour}/timetable", new TimetableSettled(taken))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await lead.PutAsync($"{Hour}/timetable", new TimetableSettled(taken))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ClosuresAsync(lead)).Select(c => c.First).ShouldBe(taken);
        var after = await lead.ReadAsync<FirstHourView>(Hour);
        after.Holidays.ShouldHaveSingleItem().ShouldBe(view.Holidays[0]);
        after.Steps.ShouldContain(s => s.Step == FirstStep.Timetable && s.State == StepState.Done);
    }

    [Fact]
    public async Task A_step_can_wait_and_come_back_and_the_end_is_for_good()
    {
        var lead = await BeginAsync();
        (await lead.PutAsync($"{Hour}/steps/Known", new StepSettled(Later: true))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await StateAsync(FirstStep.Known)).ShouldBe(StepState.Later);
        (await lead.PutAsync($"{Hour}/steps/Known", new StepSettled(Later: false))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await StateAsync(FirstStep.Known)).ShouldBe(StepState.Done);
        (await lead.PutAsync($"{Hour}/steps/Nonsense", new StepSettled(Later: false))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await lead.PutAsync($"{Hour}/steps/99", new StepSettled(Later: false))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);

        (await lead.SendAsync(HttpMethod.Delete, Hour)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await lead.ReadAsync<FirstHourView>(Hour)).Over.ShouldBeTrue();
        await lead.PostCsvAsync("/api/classes/1/class-list", "First name,Last name\nAna,Silva\n");
        (await lead.ReadAsync<FirstHourView>(Hour)).Over.ShouldBeTrue();

        async Task<StepState> StateAsync(FirstStep step) => (await lead.ReadAsync<FirstHourView>(Hour)).Steps.Single(s => s.Step == step).State;
    }

    [Fact]
    public async Task What_a_new_class_is_offered_fits_and_is_what_the_plan_page_begins_with()
    {
        var lead = await BeginAsync();
        await lead.PostCsvAsync("/api/classes/1/class-list", "First name,Last name,Born\nAna,Silva,2022-01-05\nBo,Lund,2022-03-05\n");
        var view = await lead.ReadAsync<FirstHourView>(Hour);
        view.Plan!.ShouldContain("the early learning goals ask for");
        var scope = await lead.ReadAsync<ScopeChoices>("/api/classes/1/plan/scope");
        scope.Offered.ShouldBe(view.Plan);
        var fit = await Visitor.ReadAsync<FitView>(await lead.PostAsync("/api/classes/1/plan/fit", scope.Usual));
        (fit.Over, fit.ReviewsOver).ShouldBe((0, 0));
        (await Visitor.ReadAsync<FitView>(await lead.PostAsync("/api/classes/1/plan/fit", scope.Usual with { Dropped = [] }))).Over.ShouldBeGreaterThan(0);
        (await lead.PostAsync("/api/classes/1/plan/fit", scope.Usual with { Rounds = 9 })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task In_the_holidays_a_new_class_is_led_as_well()
    {
        using var school = School.Empty("2026-08-12T09:00:00");
        var lead = await school.VisitAsync();
        await lead.PostAsync("/api/account/first-start", Lead);
        await lead.StateAsync();
        await lead.PostCsvAsync("/api/classes/1/class-list", "First name,Last name\nAna,Silva\n");
        var view = await lead.ReadAsync<FirstHourView>(Hour);
        view.Holidays.Count.ShouldBeGreaterThan(2);
        view.Plan.ShouldNotBeNull();
        view.GroupsOn.ShouldBe(new DateOnly(2026, 9, 7));
    }

    [Theory]
    [InlineData("en-GB", "Reception")]
    [InlineData("en-US", "Kindergarten")]
    public async Task A_new_class_says_what_is_said_where_it_is(string locale, string word)
    {
        var lead = await _school.VisitAsync();
        (await lead.PostAsync("/api/account/first-start", Lead with { Locale = locale })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await lead.StateAsync();
        (await lead.ReadAsync<Features.ClassApproach.ApproachView>("/api/classes/1/approach")).Choice.YearWord.ToString().ShouldBe(word);
    }

    private static async Task<IReadOnlyList<ClosureView>> ClosuresAsync(Visitor visitor) =>
        (await visitor.ReadAsync<TimetableView>("/api/classes/1/timetable")).Closures;

    private async Task<Visitor> BeginAsync()
    {
        var lead = await _school.VisitAsync();
        (await lead.PostAsync("/api/account/first-start", Lead)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await lead.StateAsync();
        return lead;
    }
}
