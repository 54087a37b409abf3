using Fobble.Core.Grouping;
using Fobble.Server.Hosting;

namespace Fobble.Server.Features.Groups;

/// <summary>A search for better groups that goes on in the background.</summary>
internal sealed class ImproveJob(ClassId classId, AdultId adultId, DateTimeOffset begun, WeekGroups week, GroupingProblem problem, GroupingResult found)
    : Job(classId, adultId, begun),
        IProgress<GroupingProgress>
{
    private GroupingProgress _sofar = new(found.Score, found.Bound);
    private GroupsView? _view;

    public ImproveView View => new(Id, State, _sofar.Score, _sofar.Bound, _view);

    public void Report(GroupingProgress value)
    {
        if (value.Score >= _sofar.Score)
        {
            _sofar = value;
        }
    }

    protected override void Run(CancellationToken stop)
    {
        var best = Grouper.Improve(problem, found, this, stop);
        _sofar = new(best.Score, best.Bound);
        _view = week.ViewProposal(best);
    }
}

/// <summary>Several weeks of groups, worked out in the background.</summary>
/// <param name="weeks">The groups of each week, part by part, the first with what has been held in it.</param>
internal sealed class AheadJob(ClassId classId, AdultId adultId, DateTimeOffset begun, IReadOnlyList<WeekGroups> weeks) : Job(classId, adultId, begun)
{
    private RotationPlan? _plan;

    public AheadView View
    {
        get
        {
            var plan = _plan;
            return new(
                Id,
                State,
                Progress,
                plan?.Sentence,
                plan is null ? [] : [.. weeks.Zip(plan.Weeks).Select(w => w.First.ViewProposal(w.Second))],
                plan is null ? [] : [.. plan.Children.Select(c => new ChildAheadView(c.Child.Value, weeks[0].Names.Child(c.Child), c.Turns, c.Others))]
            );
        }
    }

    protected override void Run(CancellationToken stop)
    {
        _plan = Rotation.Plan(weeks[0].Brief, weeks[0].OwnRules, [.. weeks.Select(w => w.Ahead)], this, stop);
    }
}
