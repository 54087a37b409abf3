using System.Diagnostics;
using System.Runtime.InteropServices;

namespace Fobble.Server.Hosting;

/// <summary>
/// Asked to end, the server ends, whatever it is working at. Everything that was kept is on the disk by then, so what does not end by itself is cut off, as a power
/// cut would do it; a thread of its own sees to that, which no work can keep waiting.
/// </summary>
internal sealed partial class EndInTime(ILogger<EndInTime> log) : IHostedService, IDisposable
{
    private static readonly TimeSpan AtMost = TimeSpan.FromSeconds(3.5);

    private readonly List<PosixSignalRegistration> _asked = [];

    public Task StartAsync(CancellationToken cancellationToken)
    {
        _asked.AddRange(((PosixSignal[])[PosixSignal.SIGTERM, PosixSignal.SIGINT]).Select(s => PosixSignalRegistration.Create(s, _ => BeginToEnd())));
        return Task.CompletedTask;
    }

    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public void Dispose() => _asked.ForEach(a => a.Dispose());

    private void BeginToEnd() =>
        new Thread(() =>
        {
            Thread.Sleep(AtMost);
            CutOff(log, AtMost.TotalSeconds);
            Process.GetCurrentProcess().Kill();
        })
        {
            IsBackground = true,
            Priority = ThreadPriority.Highest,
            Name = nameof(EndInTime),
        }.Start();

    [LoggerMessage(Level = LogLevel.Warning, Message = "Something did not end in {Seconds} seconds and is cut off.")]
    private static partial void CutOff(ILogger log, double seconds);
}
