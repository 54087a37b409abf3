using Fobble.Data.Model;
using Microsoft.AspNetCore.Identity;

namespace Fobble.Server.Security;

/// <summary>No password that is tried early on: common ones, names, dates, rows of keys, and what is made of them.</summary>
internal sealed class HardToGuess : IPasswordValidator<Adult>
{
    /// <summary>Of 4: withstands 10⁸ guesses at least, as the library reckons.</summary>
    private const int Least = 3;

    /// <summary>Longer ones are not looked at further: it takes the square of their length.</summary>
    private const int LooksAt = 64;

    private const int Longest = 200;

    public Task<IdentityResult> ValidateAsync(UserManager<Adult> manager, Adult user, string? password)
    {
        var (said, own) = (password ?? "", $"{user.FullName} {user.Email}".Split(' ', '@', '.'));
        var reason =
            said.Length > Longest ? Phrase($"A password has {Longest} letters at the most.")
            : Zxcvbn.Zxcvbn.MatchPassword(said[..Math.Min(said.Length, LooksAt)], own).Score < Least
                ? Phrase("This password is among those that are tried first. Three or four words that have nothing to do with each other are hard to guess.")
            : null;
        return Task.FromResult(
            reason is null ? IdentityResult.Success : IdentityResult.Failed(new IdentityError { Code = "PasswordEasyToGuess", Description = reason })
        );
    }
}
