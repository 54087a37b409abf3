using Fobble.Core.Planning;
using Fobble.Server.Hosting;

namespace Fobble.Server.Features.Planning;

/// <summary>A plan in the making.</summary>
/// <param name="was">Version of the plan it would take the place of; 0 for none.</param>
internal sealed class Draft(ClassId classId, AdultId adultId, PlanAsk ask, int was, DateTimeOffset begun, YearRequest request) : Job(classId, adultId, begun)
{
    public PlanAsk Ask { get; } = ask;

    public int Was { get; } = was;

    public string Doing { get; private set; } = Phrase("Counting lessons and days");

    public Fit? Fit { get; private set; }

    public YearScope? Scope { get; private set; }

    public YearPlan? Plan { get; private set; }

    public DateOnly From { get; } = request.From;

    public DateOnly Until { get; } = request.Until;

    public IReadOnlyList<WorkedWayOut> Ways { get; private set; } = [];

    protected override void Run(CancellationToken stop)
    {
        Scope = YearScope.Of(request);
        Fit = Fit.Of(Scope.Problem);
        if (Fit.Fits)
        {
            Doing = Phrase("Laying out the lessons");
            Plan = YearPlanner.Plan(request, Scope, this, stop);
            return;
        }

        Doing = Phrase("Working ways out through");
        var ways = WaysOut.Of(request);
        foreach (var way in ways)
        {
            Ways = [.. Ways, WaysOut.WorkThrough(request, way, stop)];
            Report((double)Ways.Count / ways.Count);
        }
    }
}
