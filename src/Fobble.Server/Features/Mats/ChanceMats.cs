using Fobble.Core.Chance;
using Fobble.Core.GuessJar;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Mats;

/// <summary>Desks for the adult: dice, tray and ring, jar.</summary>
internal static class ChanceMats
{
    private const int MostDice = 3;
    private const int MostThings = 12;

    public static void MapChance(this IEndpointRouteBuilder mats)
    {
        mats.MapGet("/dice", Dice);
        mats.MapGet("/shakes", Shaken);
        mats.MapGet("/jar", Jar);
    }

    /// <param name="dice">Dice between semicolons: <c>5-10;0-5</c>.</param>
    private static Ok<DiceMat> Dice(string dice, DiceOperation operation, int low, int high, int target, bool exact, int players, long? seed)
    {
        var known = dice.Split(';', StringSplitOptions.RemoveEmptyEntries).Select(Die.Parse).ToList();
        if (known.Count > MostDice || target is < 1 or > 100 || players is < 1 or > Race.MostPlayers)
        {
            throw new RefusedException(
                "dice",
                known.Count > MostDice ? Phrase($"Up to {MostDice} dice, please.")
                    : target is < 1 or > 100 ? Phrase("The way to the end is 1 to 100 places long.")
                    : Phrase($"1 to {Race.MostPlayers} players.")
            );
        }

        Throws throws = new(known, operation);
        var length = new Race(throws, target, exact, players).Length();
        var random = new SeededRandom((ulong)(seed ?? 1));
        var faces = known.Select(d => random.Pick(d.Faces)).ToList();
        var minus = operation == DiceOperation.TakeAway || (operation == DiceOperation.PlusOrMinus && random.Chance(0.5));
        var (fact, result) = Throws.Fact(faces, operation, minus);
        return TypedResults.Ok(
            new DiceMat(
                [.. known.Select(d => d.ToString())],
                throws.All,
                throws.Mean,
                throws.Results,
                throws.Facts,
                throws.Warnings(NumberRange.Asked(low, high)),
                length?.InWords() ?? Phrase("This game may go on without end: some places can never reach the target, or hardly ever."),
                length,
                Patterns.Thrown([.. faces.Zip(known, (f, d) => ($"{f}", d.HasPips))]),
                known.Count == 1 ? fact : $"{fact} = {result}"
            )
        );
    }

    /// <param name="wells">2 to 4 wells; without them a ring, hit with the chance <paramref name="inside"/>.</param>
    private static Ok<ShakesMat> Shaken(int things, int? wells, double? inside, bool? whereMatters)
    {
        if (things is < 1 or > MostThings || wells is < 2 or > 4)
        {
            throw new RefusedException("things", Phrase($"1 to {MostThings} things, in 2 to 4 wells."));
        }

        var splits = wells is { } k ? Shakes.IntoWells(things, k, whereMatters ?? true) : Shakes.OverRing(things, inside ?? 0.5);
        var likely = splits.MaxBy(s => s.Share)!;
        return TypedResults.Ok(
            new ShakesMat(
                [.. splits.Select(s => new SplitShare(s.ToString(), s.Share, s.ShakesToSee))],
                Shakes.ToSeeAllInWords(splits),
                wells is null ? Things.Ring(likely.Parts[0], likely.Parts[1]) : Things.Tray(likely.Parts)
            )
        );
    }

    private static Ok<JarMat> Jar(
        double jarMl,
        ThingShape shape,
        double across,
        double? thick,
        int? last,
        int low,
        int high,
        bool countedNineties,
        int? expectedBefore,
        int? countedBefore,
        int? count
    )
    {
        var thing = JarFill.VolumeOf(shape, across, thick ?? across);
        if (!(jarMl > 0) || !(across > 0) || thick <= 0 || !(thing < jarMl) || jarMl > 20_000 || jarMl / thing > 2_000 || count is < 0 or > 300)
        {
            throw new RefusedException(
                "jar",
                !(jarMl > 0) || !(across > 0) || thick <= 0 ? Phrase("Measures are above nought.")
                    : !(thing < jarMl) ? Phrase("Such a thing does not fit into that jar.")
                    : count is < 0 or > 300 ? Phrase("Up to 300 things can be laid out here.")
                    : Phrase("That is a jar of thousands; choose a smaller jar or larger things.")
            );
        }

        CountedFill[] counted = expectedBefore is > 0 and { } expected && countedBefore is > 0 and { } found ? [new(expected, found)] : [];
        var holds = JarFill.Of(jarMl, thing, shape, counted);
        var next = NextAmount.After(last, NumberRange.Asked(low, high), across < JarRounds.TinyMm, countedNineties, Math.Max(1, holds.From));
        var laid = count ?? Math.Min(next.Amount, 300);
        return TypedResults.Ok(
            new JarMat(
                holds,
                Phrase($"Full, it holds about {holds.Likely}: {holds.From} if they are poured in, {holds.To} if they are shaken down.")
                    + (counted.Length > 0 ? Phrase(" Corrected by your own count.") : ""),
                next,
                JarCaution.For(across),
                Patterns.HeapsOfTen(laid),
                $"{laid}: {HeapsOfTen.Of(laid)}"
            )
        );
    }
}
