using System.Buffers;
using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;
using Fobble.Server.Mail;
using MailKit.Security;
using MimeKit;
using SmtpServer;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace Fobble.Server.Demo;

/// <summary>A mail as it arrived.</summary>
/// <param name="To">Name and address, as mail programs show them.</param>
public sealed record Letter(DateTimeOffset At, string To, string Subject, string Text);

/// <summary>
/// Stands in for a school's mail server: takes mail by SMTP, on this machine only, and keeps the newest in memory to be read on the demo's page <em>Post</em>. Nothing
/// leaves the machine.
/// </summary>
internal sealed class PostOffice(TimeProvider clock) : MessageStore, IHostedService, IDisposable
{
    private const int MostKept = 100;

    private readonly ConcurrentQueue<Letter> _letters = new();
    private CancellationTokenSource? _stop = new();
    private Task _open = Task.CompletedTask;

    public int Port { get; } = FreePort();

    /// <summary>Whether it takes mail; a test has it refuse some.</summary>
    public bool Takes { get; set; } = true;

    /// <summary>The newest first.</summary>
    public IReadOnlyList<Letter> Letters => [.. _letters.Reverse()];

    /// <summary>How the application comes to it.</summary>
    public MailSettings Settings =>
        new()
        {
            Host = IPAddress.Loopback.ToString(),
            Port = Port,
            From = "fobble@lantern-hill.example",
            Security = SecureSocketOptions.None,
        };

    public Task StartAsync(CancellationToken cancellationToken)
    {
        SmtpServer.ComponentModel.ServiceProvider services = new();
        services.Add(this);
        var options = new SmtpServerOptionsBuilder()
            .ServerName("post.lantern-hill.example")
            .Endpoint(e => e.Endpoint(new IPEndPoint(IPAddress.Loopback, Port)))
            .Build();
        _open = new SmtpServer.SmtpServer(options, services).StartAsync(_stop!.Token);
        return Task.CompletedTask;
    }

    // A host may ask more than once.
    public async Task StopAsync(CancellationToken cancellationToken)
    {
        if (Interlocked.Exchange(ref _stop, null) is { } stop)
        {
            await stop.CancelAsync();
            stop.Dispose();
            await Task.WhenAny(_open, Task.Delay(Timeout.Infinite, cancellationToken));
        }
    }

    public override async Task<SmtpResponse> SaveAsync(
        ISessionContext context,
        IMessageTransaction transaction,
        ReadOnlySequence<byte> buffer,
        CancellationToken cancellationToken
    )
    {
        if (!Takes)
        {
            return SmtpResponse.TransactionFailed;
        }

        using MemoryStream bytes = new(buffer.ToArray());
        var mail = await MimeMessage.LoadAsync(bytes, cancellationToken);
        _letters.Enqueue(new Letter(clock.GetUtcNow(), mail.To.ToString(), mail.Subject ?? "", mail.TextBody?.Trim() ?? ""));
        while (_letters.Count > MostKept)
        {
            _letters.TryDequeue(out _);
        }

        return SmtpResponse.Ok;
    }

    public void Dispose() => Interlocked.Exchange(ref _stop, null)?.Dispose();

    private static int FreePort()
    {
        using TcpListener asked = new(IPAddress.Loopback, 0);
        asked.Start();
        return ((IPEndPoint)asked.LocalEndpoint).Port;
    }
}
