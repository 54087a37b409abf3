using System.Security.Cryptography;
using System.Text;
using Fobble.Server.Hosting;

namespace Fobble.Server.Security;

/// <summary>
/// Asked for by the first start: an installation that nobody has come to yet belongs to whoever can read what the server writes, and not to whoever finds it first.
/// </summary>
internal sealed class FirstCode(FobbleSettings settings)
{
    // None that is taken for another when it is read aloud or typed.
    private const string Letters = "abcdefghjkmnpqrstuvwxyz23456789";
    private const int Groups = 3;
    private const int OfGroup = 4;

    private readonly string _code = settings.FirstCode
        ?? string.Join('-', Enumerable.Range(0, Groups).Select(_ => RandomNumberGenerator.GetString(Letters, OfGroup)));

    /// <summary>Whether it is the code; how it is parted and written does not matter.</summary>
    public bool Is(string said) => CryptographicOperations.FixedTimeEquals(Plain(said), Plain(_code));

    /// <summary>Writes it where the server was started. One that was set is known there.</summary>
    public void Tell(TextWriter to)
    {
        if (settings.FirstCode is null)
        {
            to.WriteLine(Phrase($"The first account is made with this code: {_code}"));
        }
    }

    private static byte[] Plain(string code) => Encoding.UTF8.GetBytes(string.Concat(code.Where(char.IsLetterOrDigit)).ToUpperInvariant());
}
