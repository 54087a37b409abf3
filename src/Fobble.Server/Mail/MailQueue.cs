using System.Globalization;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Rooms;
using MailKit.Net.Smtp;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Fobble.Server.Mail;

/// <summary>
/// Sends what is to go, one mail after the other. A mail is kept with the decision it belongs to, in one transaction, and gone from there only once the school's
/// mail server has taken it: a restart loses none, and at the worst one goes twice. What does not go is tried again for two days, less and less often.
/// </summary>
internal sealed partial class MailQueue(
    IServiceScopeFactory scopes,
    WriteQueue queue,
    FobbleSettings settings,
    SchoolLanguage language,
    TimeProvider clock,
    ILogger<MailQueue> log
) : BackgroundService
{
    /// <summary>Strangers can ask for a mail: it is not theirs to fill the disk.</summary>
    private const int MostWaiting = 500;

    private static readonly TimeSpan Timeout = TimeSpan.FromSeconds(20);
    private static readonly TimeSpan LooksAgain = TimeSpan.FromMinutes(1);

    private static readonly TimeSpan[] Waits =
    [
        TimeSpan.FromMinutes(1),
        TimeSpan.FromMinutes(5),
        TimeSpan.FromMinutes(30),
        TimeSpan.FromHours(2),
        TimeSpan.FromHours(9),
        TimeSpan.FromHours(12),
        TimeSpan.FromHours(24),
    ];

    private readonly SemaphoreSlim _woken = new(0, 1);
    private readonly SemaphoreSlim _sending = new(1, 1);

    public bool On => settings.Mail.On;

    /// <summary>Puts a mail with what else is decided; <see cref="Wake"/> it once that is kept.</summary>
    public async Task AskAsync(FobbleDb db, MailKind kind, string to, int? by, CancellationToken stop)
    {
        // One of a kind is enough: the link in the newest one holds.
        await db.Mails.Where(m => m.Kind == kind && m.To == to).ExecuteDeleteAsync(stop);
        if (await db.Mails.CountAsync(stop) < MostWaiting)
        {
            db.Mails.Add(
                new MailRow
                {
                    Kind = kind,
                    To = to,
                    By = by,
                    Due = clock.GetUtcNow(),
                }
            );
        }
    }

    /// <summary>Tells an adult that signing in has changed, where there is mail: whoever changed it may not be the adult.</summary>
    public async Task TellAsync(FobbleDb db, MailKind what, Adult adult, CancellationToken stop)
    {
        if (On)
        {
            await AskAsync(db, what, adult.Email!, by: null, stop);
            await db.SaveChangesAsync(stop);
            Wake();
        }
    }

    public void Wake()
    {
        if (_woken.CurrentCount == 0)
        {
            try
            {
                _woken.Release();
            }
            catch (SemaphoreFullException)
            {
                // Somebody else has woken it.
            }
        }
    }

    /// <summary>Sends what is due at a moment; whoever comes while that goes on waits, so that none goes twice.</summary>
    public async Task SendDueAsync(DateTimeOffset now, CancellationToken stop)
    {
        await _sending.WaitAsync(stop);
        try
        {
            await SendAllAsync(now, stop);
        }
        finally
        {
            _sending.Release();
        }
    }

    private async Task SendAllAsync(DateTimeOffset now, CancellationToken stop)
    {
        CultureInfo.CurrentUICulture = await language.NowAsync(stop);
        await using var scope = scopes.CreateAsyncScope();
        var (db, letters) = (scope.ServiceProvider.GetRequiredService<FobbleDb>(), scope.ServiceProvider.GetRequiredService<Letters>());
        foreach (var mail in await db.Mails.AsNoTracking().Where(m => m.Due <= now).OrderBy(m => m.Id).ToListAsync(stop))
        {
            string? fault = null;
            try
            {
                if (await letters.WriteAsync(mail, stop) is { } letter)
                {
                    await SendAsync(letter, stop);
                }
            }
#pragma warning disable CA1031 // Whatever a mail server or the way to it can come up with: the mail stays, and is tried again.
            catch (Exception problem) when (!stop.IsCancellationRequested)
#pragma warning restore CA1031
            {
                // Some servers refuse without a word, but for a number.
                fault = problem is SmtpCommandException refused ? $"{(int)refused.StatusCode} {refused.Message}".Trim() : problem.Message;
                NotSent(log, mail.Kind, mail.Tries + 1, fault);
            }

            using (await queue.WaitAsync(stop))
            {
                await KeepAsync(db.Mails.Where(m => m.Id == mail.Id), mail, fault, now, stop);
            }
        }
    }

    public override void Dispose()
    {
        _woken.Dispose();
        _sending.Dispose();
        base.Dispose();
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (On && !stoppingToken.IsCancellationRequested)
        {
            try
            {
                await SendDueAsync(clock.GetUtcNow(), stoppingToken);
                await _woken.WaitAsync(LooksAgain, stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested) { }
#pragma warning disable CA1031 // Mail that can't be looked after now is no reason to end the server: it waits where it is.
            catch (Exception fault)
#pragma warning restore CA1031
            {
                NotLookedAfter(log, fault);
                await Task.Delay(LooksAgain, stoppingToken).ContinueWith(_ => { }, TaskScheduler.Default);
            }
        }
    }

    private static Task<int> KeepAsync(IQueryable<MailRow> kept, MailRow mail, string? fault, DateTimeOffset now, CancellationToken stop)
    {
        var again = mail.Tries < Waits.Length;
        return fault is null || (!again && mail.Kind != MailKind.Invitation)
            ? kept.ExecuteDeleteAsync(stop)
            : kept.ExecuteUpdateAsync(
                m =>
                    m.SetProperty(x => x.Tries, mail.Tries + 1)
                        .SetProperty(x => x.Fault, fault)
                        .SetProperty(x => x.Due, again ? now + Waits[mail.Tries] : null),
                stop
            );
    }

    private async Task SendAsync(MimeMessage letter, CancellationToken stop)
    {
        var mail = settings.Mail;
        using SmtpClient smtp = new() { Timeout = (int)Timeout.TotalMilliseconds };
        await smtp.ConnectAsync(mail.Host!, mail.Port, mail.Security, stop);
        if (mail.User is not null)
        {
            await smtp.AuthenticateAsync(mail.User, mail.Password ?? "", stop);
        }

        await smtp.SendAsync(letter, stop);
        await smtp.DisconnectAsync(quit: true, stop);
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Mail could not be looked after.")]
    private static partial void NotLookedAfter(ILogger log, Exception fault);

    [LoggerMessage(Level = LogLevel.Warning, Message = "A mail ({Kind}) did not go, try {Tries}: {Fault}")]
    private static partial void NotSent(ILogger log, MailKind kind, int tries, string fault);
}
