using Fobble.Server.Hosting;
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

    /// <exception cref="WrongSettingException">A part is missing.</exception>
    public void Check(string? address)
    {
        if (On && (From is null || address is null))
        {
            throw new WrongSettingException(
                Phrase("Mail is set (Fobble__Mail__Host) but not whole: it needs Fobble__Mail__From, and Fobble__Address, which stands before the links in it.")
            );
        }
    }
}
