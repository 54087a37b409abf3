using MailKit.Security;

namespace Fobble.Server.Mail;

/// <summary>The section <c>Fobble:Mail</c>: by which server of the school mail goes out. Without a host there is none, and links are handed over.</summary>
public sealed class MailSettings
{
    public string? Host { get; set; }

    public int Port { get; set; } = 587;

    /// <summary>As whom to come in there; null where it asks nobody.</summary>
    public string? User { get; set; }

    public string? Password { get; set; }

    /// <summary>The address that mails come from.</summary>
    public string? From { get; set; }

    /// <summary>StartTls, SslOnConnect, or None within the machine.</summary>
    public SecureSocketOptions Security { get; set; } = SecureSocketOptions.StartTls;

    public bool On => Host is not null;

    /// <exception cref="InvalidOperationException">A part is missing.</exception>
    public void Check(string? address)
    {
        if (On && (From is null || address is null))
        {
            throw new InvalidOperationException(
                "Mail is set (Fobble:Mail:Host) but not whole: it needs Fobble:Mail:From, and Fobble:Address, which stands before the links in it."
            );
        }
    }
}
