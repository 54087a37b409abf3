using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Fobble.Server.Mail;

/// <summary>What mails say: plain text, short, to adults about their own account, or that backups fail. No child is named in any.</summary>
internal sealed class Letters(FobbleDb db, UserManager<Adult> adults, FobbleSettings settings, Backups backups, IServer server)
{
    /// <returns>Null where there is nothing to send: nobody has the address, or the adult has come in meanwhile.</returns>
    public async Task<MimeMessage?> WriteAsync(MailRow mail, CancellationToken stop)
    {
        var adult = await adults.FindByEmailAsync(mail.To);
        if (adult is null || (mail.Kind == MailKind.Invitation && adult.PasswordHash is not null))
        {
            return null;
        }

        var school = await SchoolOfAsync(adult, stop);
        var (subject, text) = mail.Kind switch
        {
            MailKind.Invitation => (
                Phrase($"{school}: your account"),
                string.Join(
                    "\n\n",
                    await InviterAsync(mail, stop) is { } by
                        ? Phrase($"{by} has made an account for you at {school}.")
                        : Phrase($"There is an account for you at {school}."),
                    Phrase($"Choose a password here, within three days; the link opens once:"),
                    Before + await Links.ToFirstPasswordAsync(adults, adult)
                )
            ),
            MailKind.PasswordChanged => (
                Phrase($"{school}: your password was changed"),
                string.Join(
                    "\n\n",
                    Phrase($"Your account at {school} has another password now, and all other devices are signed out."),
                    Phrase($"If it was not you, tell whoever leads the school at once, and choose another one at the door: {Before}/lost-password")
                )
            ),
            MailKind.SecondStepChanged => (
                Phrase($"{school}: how you sign in was changed"),
                string.Join(
                    "\n\n",
                    adult.SecondSecret is null
                        ? Phrase($"Signing in to your account at {school} asks for your password alone now.")
                        : Phrase($"Signing in to your account at {school} asks for a code of your phone now, too, and all other devices are signed out."),
                    Phrase($"If it was not you, tell whoever leads the school at once, and choose another password at the door: {Before}/lost-password")
                )
            ),
            MailKind.BackupFailed => (
                Phrase($"{school}: no backup is taken"),
                string.Join(
                    "\n\n",
                    backups.State.At is { } last
                        ? Phrase($"Fobble could take no backup of {school}. The last one is of {last:u}.")
                        : Phrase($"Fobble could take no backup of {school}, and there is none yet."),
                    Phrase(
                        $"It goes on trying every few minutes. Please show this to whoever looks after the machine: is the other disk there, and is there room on it?"
                    ),
                    backups.State.Fault ?? ""
                )
            ),
            _ => (
                Phrase($"{school}: a new password"),
                string.Join(
                    "\n\n",
                    Phrase($"Somebody, we hope you, has asked for a new password for this address."),
                    Phrase($"Choose it here, within a day; the link opens once:"),
                    Before + await Links.ToNewPasswordAsync(adults, adult),
                    Phrase($"If it was not you, nothing needs to be done: your password holds.")
                )
            ),
        };
        return new MimeMessage([MailboxAddress.Parse(settings.Mail.From!)], [new MailboxAddress(adult.FullName, mail.To)], subject, Body(text));
    }

    // Never from what a request says of its host: whoever sends that could lead the adult to a server of their own.
    private string Before => (settings.Address ?? server.Features.Get<IServerAddressesFeature>()?.Addresses.FirstOrDefault() ?? "").TrimEnd('/');

    private static TextPart Body(string text) => new("plain") { Text = text + "\n" };

    private async Task<string> SchoolOfAsync(Adult adult, CancellationToken stop) =>
        await db.Memberships.Where(m => m.AdultId == adult.Id).OrderBy(m => m.ClassId).Select(m => m.Class!.School!.Name).FirstOrDefaultAsync(stop)
        ?? await db.SchoolLeads.Where(l => l.AdultId == adult.Id).Select(l => l.School!.Name).FirstOrDefaultAsync(stop)
        ?? "Fobble";

    private Task<string?> InviterAsync(MailRow mail, CancellationToken stop) =>
        db.Users.Where(u => u.Id == mail.By).Select(u => u.FullName).FirstOrDefaultAsync(stop);
}
