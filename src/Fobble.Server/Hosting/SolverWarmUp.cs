using Fobble.Core.Grouping;

namespace Fobble.Server.Hosting;

/// <summary>The solver's first run loads its library; doing that after start spares the first teacher the wait.</summary>
internal sealed class SolverWarmUp : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        Task.Run(() => Grouper.Form(new GroupingProblem([], 1, new GroupRules(), [])), stoppingToken);
}
