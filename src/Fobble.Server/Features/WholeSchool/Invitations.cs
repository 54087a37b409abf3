using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Mail;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Identity;

namespace Fobble.Server.Features.WholeSchool;

/// <summary>Adults choose their first password themselves, by a link: mailed, or handed over by whoever invites where the server has no mail.</summary>
internal sealed class Invitations(UserManager<Adult> adults, MailQueue mail, HowOften howOften)
{
    /// <summary>Within the decision that makes the adult, or asks them again.</summary>
    public async Task<Adult> AskAsync(FobbleDb db, Adult adult, HttpContext by, CancellationToken stop)
    {
        howOften.CheckInvitation(by);
        if (mail.On)
        {
            await mail.AskAsync(db, MailKind.Invitation, adult.Email!, by.User.AdultId().Value, stop);
        }

        return adult;
    }

    /// <summary>Once the decision is kept.</summary>
    public async Task<Invitation> SendAsync(Adult adult)
    {
        if (!mail.On)
        {
            return new Invitation(Mailed: false, await Links.ToFirstPasswordAsync(adults, adult));
        }

        mail.Wake();
        return new Invitation(Mailed: true, Address: null);
    }
}
