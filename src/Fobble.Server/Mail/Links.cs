using Fobble.Data.Model;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;

namespace Fobble.Server.Mail;

/// <summary>Links with which an adult chooses a password. Each opens once: what it was made from is gone with the password that was chosen.</summary>
internal static class Links
{
    private const string Invites = "invitation";

    /// <summary>Another password in place of one that is lost; within a day.</summary>
    public static async Task<string> ToNewPasswordAsync(UserManager<Adult> adults, Adult adult) =>
        Address(adult, await adults.GeneratePasswordResetTokenAsync(adult));

    /// <summary>The first password of somebody who was invited; within three days.</summary>
    public static async Task<string> ToFirstPasswordAsync(UserManager<Adult> adults, Adult adult) =>
        Address(adult, await adults.GenerateUserTokenAsync(adult, InvitationTokens.Name, Invites));

    /// <summary>Takes the password that was chosen by a link of either kind.</summary>
    public static async Task<IdentityResult> ChooseAsync(UserManager<Adult> adults, Adult adult, string token, string password) =>
        adult.PasswordHash is null && await adults.VerifyUserTokenAsync(adult, InvitationTokens.Name, Invites, token)
            ? await adults.AddPasswordAsync(adult, password)
            : await adults.ResetPasswordAsync(adult, token, password);

    // Behind the #, which browsers send to nobody.
    private static string Address(Adult adult, string token) => $"/new-password#{adult.Id}.{Uri.EscapeDataString(token)}";
}

/// <summary>Tokens of invitations: they hold longer than those of a lost password.</summary>
internal sealed class InvitationTokens(
    IDataProtectionProvider protection,
    IOptions<InvitationTokens.Options> options,
    ILogger<DataProtectorTokenProvider<Adult>> log
) : DataProtectorTokenProvider<Adult>(protection, options, log)
{
    public new const string Name = "Invitation";

    public new sealed class Options : DataProtectionTokenProviderOptions
    {
        public Options()
        {
            Name = InvitationTokens.Name;
            TokenLifespan = TimeSpan.FromDays(3);
        }
    }
}
