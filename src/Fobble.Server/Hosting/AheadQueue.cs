using System.Globalization;
using System.Threading.Channels;

namespace Fobble.Server.Hosting;

/// <summary>
/// Works things out before anybody asks for them, one after the other, while nothing else is to be done for whoever will. Where too much waits, what has waited
/// longest is left: it is worked out when it is asked for.
/// </summary>
internal sealed partial class AheadQueue(ILogger<AheadQueue> log) : BackgroundService
{
    private const int MostWaiting = 30;

    private readonly Channel<Func<CancellationToken, Task>> _waiting = Channel.CreateBounded<Func<CancellationToken, Task>>(
        new BoundedChannelOptions(MostWaiting) { FullMode = BoundedChannelFullMode.DropOldest }
    );

    public void Add(Func<CancellationToken, Task> work)
    {
        // It is for whoever will ask as this one asked.
        var language = CultureInfo.CurrentUICulture;
        _waiting.Writer.TryWrite(stop =>
        {
            CultureInfo.CurrentUICulture = language;
            return work(stop);
        });
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await foreach (var work in _waiting.Reader.ReadAllAsync(stoppingToken))
        {
            try
            {
                await work(stoppingToken);
            }
#pragma warning disable CA1031 // Nobody waits for it: whoever asks later has it worked out again, and hears of the fault.
            catch (Exception fault) when (!stoppingToken.IsCancellationRequested)
#pragma warning restore CA1031
            {
                Failed(log, fault);
            }
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Something could not be worked out ahead.")]
    private static partial void Failed(ILogger log, Exception fault);
}
