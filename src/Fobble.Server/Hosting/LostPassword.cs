using Fobble.Data.Model;
using Fobble.Server.Mail;
using Fobble.Server.Rooms;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Identity;

namespace Fobble.Server.Hosting;

/// <summary>
/// <c>Fobble.Server password EMAIL</c>, run on the server's own machine: writes a link with which the adult chooses a new password, once, within a day. Whoever can run
/// this has the school's data in hand anyway; it is how a school without mail comes back in. A second step, whose phone may be gone as well, is taken out.
/// </summary>
internal static class LostPassword
{
    public const string Word = "password";

    /// <returns>What the command ends with: 0, or 1 where nobody has the address.</returns>
    public static async Task<int> TellAsync(IServiceProvider services, string email, TextWriter to)
    {
        await using var scope = services.CreateAsyncScope();
        var adults = scope.ServiceProvider.GetRequiredService<UserManager<Adult>>();
        if (await adults.FindByEmailAsync(email) is not { } adult)
        {
            await to.WriteLineAsync(Phrase($"Nobody here has the address {email}."));
            return 1;
        }

        await to.WriteLineAsync(Phrase($"For {adult.FullName}, once and within a day; put the address of your Fobble before it:"));
        await to.WriteLineAsync(await Links.ToNewPasswordAsync(adults, adult));
        if (adult.SecondSecret is not null)
        {
            await scope
                .ServiceProvider.GetRequiredService<Decisions>()
                .DecideAsync(db => SecondStep.TakeOutAsync(db, adult, CancellationToken.None), CancellationToken.None);
            await to.WriteLineAsync(Phrase($"The second step at sign-in is taken out; {adult.FullName} can put it in again under Your account."));
        }

        return 0;
    }
}
