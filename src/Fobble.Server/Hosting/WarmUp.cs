using Fobble.Core.Grouping;
using Fobble.Data;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Hosting;

/// <summary>Does once, right after start, what the first requests would otherwise wait for: EF's model, the content, the solver's library.</summary>
internal sealed class WarmUp(IServiceProvider services) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        await using (var scope = services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<FobbleDb>();
            db.CheckDurable();
            await db.Users.AnyAsync(stoppingToken);
        }

        _ = ClassContent.Shipped;
        Grouper.Form(new GroupingProblem([], GroupSlot.InARow(1), new GroupRules(), []), stoppingToken);
    }
}
