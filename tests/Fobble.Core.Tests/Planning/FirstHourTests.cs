using Fobble.Core.Planning;

namespace Fobble.Core.Tests.Planning;

public class FirstHourTests
{
    private static readonly IReadOnlySet<FirstStep> None = new HashSet<FirstStep>();

    [Fact]
    public void Of_an_empty_class_every_step_is_open_and_says_what_for_and_how_long()
    {
        var steps = FirstHour.Steps(new(0, 0, false, 0, None, None));
        steps.Select(s => s.Step).ShouldBe(Enum.GetValues<FirstStep>());
        steps.ShouldAllBe(s => s.State == StepState.Open && s.Now.Length == 0 && s.Why.EndsWith('.') && s.Minutes > 0);
        steps.Sum(s => s.Minutes).ShouldBeLessThanOrEqualTo(10);
    }

    [Fact]
    public void What_is_there_is_done_whoever_did_it_and_says_what_there_is()
    {
        var steps = FirstHour.Steps(new(14, 3, true, 7, None, None)).ToDictionary(s => s.Step);
        steps
            .Values.Where(s => s.State == StepState.Done)
            .Select(s => s.Step)
            .ShouldBe([FirstStep.ClassList, FirstStep.Known, FirstStep.Plan, FirstStep.Groups]);
        steps[FirstStep.ClassList].Now.ShouldBe("14 children.");
        steps[FirstStep.Known].Now.ShouldBe("Something is known of three children.");
        steps[FirstStep.Groups].Now.ShouldBe("Seven groups to come.");
    }

    [Fact]
    public void One_is_told_as_one()
    {
        var steps = FirstHour.Steps(new(1, 1, false, 1, None, None)).ToDictionary(s => s.Step);
        steps[FirstStep.ClassList].Now.ShouldBe("One child.");
        steps[FirstStep.Known].Now.ShouldBe("Something is known of one child.");
        steps[FirstStep.Groups].Now.ShouldBe("One group to come.");
    }

    [Fact]
    public void What_is_left_for_later_is_done_once_it_is_there()
    {
        HashSet<FirstStep> later = [FirstStep.ClassList, FirstStep.Plan];
        FirstHour.Steps(new(0, 0, true, 0, None, later)).Where(s => s.State == StepState.Later).ShouldHaveSingleItem().Step.ShouldBe(FirstStep.ClassList);
    }

    [Fact]
    public void To_begin_as_new_is_an_answer() =>
        FirstHour
            .Steps(new(9, 0, false, 0, new HashSet<FirstStep> { FirstStep.Known }, None))[3]
            .Now.ShouldBe("Begun as new: what they know shows as you record.");
}
