using Fobble.Core.Approaches;
using Fobble.Core.Cupboard;
using Fobble.Data.Model;

namespace Fobble.Server.Features.ClassApproach;

/// <summary>The columns of a class as the core's records.</summary>
internal static class StoredApproach
{
    public static Approach Approach(this SchoolClass own) =>
        new(new(own.FrameFill, own.FrameDirection), new(own.OnesWord, own.FewerWord, own.TakeWord, own.SentenceWord, own.YearWord))
        {
            Symbols = own.Symbols,
            Sizes = own.Sizes,
            Order = own.Order,
            Sheets = own.Sheets,
            Groups = own.Groups,
            Secure = own.Secure,
            Fading = own.Fading,
            Looks = own.Looks,
            Numbers = own is { OwnGuess: { } guess, OwnSlip: { } slip, OwnLearning: { } learning } ? new(guess, slip, learning) : null,
        };

    public static ClassCares Cares(this SchoolClass own) => new(own.Mouths, own.Allergies.ToHashSet());
}
