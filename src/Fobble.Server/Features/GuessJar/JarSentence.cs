using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.GuessJar;

/// <summary>How things stand with the jar, in a sentence for whoever takes the class.</summary>
internal static class JarSentence
{
    public static async Task<string> ForAsync(ClassRoom room, int children, CancellationToken stop)
    {
        var open = await room
            .Db.JarRounds.Where(r => r.ClassId == room.Id.Value && r.Counted == null)
            .Select(r => new
            {
                r.Jar,
                r.Things,
                Guessed = r.Guesses.Count,
            })
            .FirstOrDefaultAsync(stop);
        if (open is not null)
        {
            return open.Guessed == children
                ? Phrase($"Everyone has guessed how many {open.Things} are in the {open.Jar}: time to open it.")
                : Phrase($"{open.Guessed} of {children} have guessed how many {open.Things} are in the {open.Jar}.");
        }

        return room.JarRestsUntil is { } day ? Phrase($"The jar rests until about {Words.Date(day)}.") : Phrase("No jar stands out.");
    }
}
