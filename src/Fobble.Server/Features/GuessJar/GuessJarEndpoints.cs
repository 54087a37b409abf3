using Fobble.Core.GuessJar;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.GuessJar;

/// <param name="Open">The jar that stands out for guessing; null where there is none.</param>
/// <param name="Last">The jar opened last, with the count in heaps of ten.</param>
/// <param name="Proposal">What to fill next, for things as they were last time.</param>
/// <param name="Rest">Why to put the jar away for a while; null where interest holds.</param>
public sealed record JarPage(
    JarOnShelf? Open, JarOpened? Last, NextAmount Proposal, string Caution, string? Rest, DateOnly? RestsUntil, IReadOnlyList<JarChild> Children, IReadOnlyList<DateOnly> Days);

public sealed record JarOnShelf(int Id, string Jar, double JarMl, string Things, ThingShape Shape, double AcrossMm, double ThickMm, int Amount, DateOnly Filled, IReadOnlyList<JarGuess> Guesses);

public sealed record JarGuess(int ChildId, int Guess);

public sealed record JarOpened(JarOnShelf Round, DateOnly Day, int Counted, string HeapsInWords, Picture Heaps, IReadOnlyList<string> Nearest);

/// <param name="Errors">Relative errors jar by jar, below 0 for too few; null where the child did not guess.</param>
public sealed record JarChild(int Id, string Name, IReadOnlyList<double?> Errors, string Trend);

public sealed record JarFilling(string Jar, double JarMl, string Things, ThingShape Shape, double AcrossMm, double ThickMm, int Amount);

public sealed record GuessSaid(int? Guess);

public sealed record JarCount(int Counted);

/// <summary>The weekly jar: filled, guessed at, opened and counted; put away and brought back.</summary>
internal static class GuessJarEndpoints
{
    public const int Most = 300;

    public static void MapGuessJar(this IEndpointRouteBuilder ofClass)
    {
        var jar = ofClass.MapGroup("/jar");
        jar.MapGet("/", PageAsync);
        jar.MapPost("/", FillAsync).RequireAuthorization(Policies.Record);
        jar.MapPut("/{roundId:int}/guesses/{childId:int}", GuessAsync).RequireAuthorization(Policies.Record);
        jar.MapPost("/{roundId:int}/open", OpenAsync).RequireAuthorization(Policies.Record);
        jar.MapPost("/rest", RestAsync).RequireAuthorization(Policies.Lead);
        jar.MapDelete("/rest", ReturnAsync).RequireAuthorization(Policies.Lead);
    }

    private static async Task<Ok<JarPage>> PageAsync(int classId, FobbleDb db, ClassFacts facts, CancellationToken stop)
    {
        var rows = await db.JarRounds.AsNoTracking().Include(r => r.Guesses).Where(r => r.ClassId == classId).OrderBy(r => r.Filled).ThenBy(r => r.Id).ToListAsync(stop);
        var children = await facts.ChildrenAsync(classId, stop);
        List<JarRound<int>> rounds = [.. rows.Select(r => new JarRound<int>(r.Amount, r.AcrossMm, [.. r.Guesses.Select(g => (g.ChildId, g.Guess))], r.Counted))];
        var last = rows.LastOrDefault(r => r.Counted is not null);
        var lines = JarRounds.Lines(rounds, [.. children.Select(c => c.Id)]);
        return TypedResults.Ok(new JarPage(
            rows.Where(r => r.Counted is null).Select(View).FirstOrDefault(),
            last is null ? null : Opened(last, children),
            JarRounds.Next(rounds, rows.Count == 0 ? JarRounds.TinyMm : rows[^1].AcrossMm),
            JarCaution.Standing,
            JarRounds.RestProposal(rounds),
            await db.Classes.Where(c => c.Id == classId).Select(c => c.JarRestsUntil).SingleAsync(stop),
            [.. children.Zip(lines, (c, line) => new JarChild(c.Id, c.Name, [.. line.Errors.Select(e => e?.Signed)], line.Trend))],
            [.. rows.Where(r => r.Counted is > 0).Select(r => r.Opened!.Value)]));
    }

    private static async Task<Results<NoContent, ValidationProblem>> FillAsync(int classId, JarFilling filling, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        Faults faults = new();
        faults.Check("jar", filling.Jar.Trim().Length is > 0 and <= 60, "Name the jar, in up to 60 letters.");
        faults.Check("things", filling.Things.Trim().Length is > 0 and <= 60, "Name the things, in up to 60 letters.");
        faults.Check("jarMl", filling.JarMl is > 0 and <= 20_000, "A jar holds up to 20,000 millilitres.");
        faults.Check("acrossMm", filling.AcrossMm is > 0 and <= 200, "Things are up to 200 millimetres across.");
        faults.Check("thickMm", filling.ThickMm is > 0 and <= 200, "Things are up to 200 millimetres thick.");
        faults.Check("amount", filling.Amount is > 0 and <= Most, $"Fill it with 1 to {Most} things.");
        faults.Check("open", !await db.JarRounds.AnyAsync(r => r.ClassId == classId && r.Counted == null, stop), "A jar stands out already: open it first.");
        if (faults is { None: false })
        {
            return faults.ToProblem("The jar was not filled.");
        }

        db.JarRounds.Add(new JarRoundRow
        {
            ClassId = classId, Jar = filling.Jar.Trim(), JarMl = filling.JarMl, Things = filling.Things.Trim(), Shape = filling.Shape, AcrossMm = filling.AcrossMm, ThickMm = filling.ThickMm,
            Amount = filling.Amount, Filled = clock.Today(),
        });
        await db.SaveChangesAsync(stop);
        await db.Classes.Where(c => c.Id == classId).ExecuteUpdateAsync(c => c.SetProperty(x => x.JarRestsUntil, (DateOnly?)null), stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound, ValidationProblem>> GuessAsync(int classId, int roundId, int childId, GuessSaid said, FobbleDb db, CancellationToken stop)
    {
        var round = await db.JarRounds.FirstOrDefaultAsync(r => r.Id == roundId && r.ClassId == classId, stop);
        if (round is null || !await db.Children.AnyAsync(c => c.Id == childId && c.ClassId == classId, stop))
        {
            return TypedResults.NotFound();
        }

        if (round.Counted is not null || said.Guess is < 1 or > 999)
        {
            return round.Counted is not null ? Faults.One("guess", "The jar has been opened: its guesses stay as they are.") : Faults.One("guess", "A guess is a number from 1 to 999.");
        }

        var guess = await db.JarGuesses.FindAsync([roundId, childId], stop);
        if (said.Guess is not { } number)
        {
            db.JarGuesses.RemoveRange(guess is null ? [] : [guess]);
        }
        else if (guess is null)
        {
            db.JarGuesses.Add(new JarGuessRow { RoundId = roundId, ChildId = childId, Guess = number });
        }
        else
        {
            guess.Guess = number;
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound, ValidationProblem>> OpenAsync(int classId, int roundId, JarCount count, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var round = await db.JarRounds.FirstOrDefaultAsync(r => r.Id == roundId && r.ClassId == classId, stop);
        if (round is null)
        {
            return TypedResults.NotFound();
        }

        if (round.Counted is not null || count.Counted is < 1 or > Most)
        {
            return Faults.One("counted", round.Counted is not null ? "The jar has been opened already." : $"Count 1 to {Most} things.");
        }

        (round.Counted, round.Opened) = (count.Counted, clock.Today());
        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RestAsync(int classId, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var until = clock.Today().AddDays(7 * JarRest.Weeks);
        await db.Classes.Where(c => c.Id == classId).ExecuteUpdateAsync(c => c.SetProperty(x => x.JarRestsUntil, until), stop);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> ReturnAsync(int classId, FobbleDb db, CancellationToken stop)
    {
        await db.Classes.Where(c => c.Id == classId).ExecuteUpdateAsync(c => c.SetProperty(x => x.JarRestsUntil, (DateOnly?)null), stop);
        return TypedResults.NoContent();
    }

    private static JarOnShelf View(JarRoundRow row) => new(
        row.Id, row.Jar, row.JarMl, row.Things, row.Shape, row.AcrossMm, row.ThickMm, row.Amount, row.Filled, [.. row.Guesses.OrderBy(g => g.ChildId).Select(g => new JarGuess(g.ChildId, g.Guess))]);

    private static JarOpened Opened(JarRoundRow row, IReadOnlyList<ChildName> children)
    {
        var counted = row.Counted!.Value;
        var nearest = Guesses.Nearest(counted, [.. row.Guesses.Select(g => (g.ChildId, g.Guess))]);
        return new(View(row), row.Opened!.Value, counted, HeapsOfTen.Of(counted).ToString(), Patterns.HeapsOfTen(counted), [.. children.Where(c => nearest.Contains(c.Id)).Select(c => c.Name)]);
    }
}
