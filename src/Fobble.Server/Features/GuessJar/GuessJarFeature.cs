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
    JarThere? Open,
    JarOpened? Last,
    NextAmount Proposal,
    string Caution,
    string? Rest,
    DateOnly? RestsUntil,
    IReadOnlyList<JarChild> Children,
    IReadOnlyList<DateOnly> Days
);

public sealed record JarThere(
    int Id,
    string Jar,
    double JarMl,
    string Things,
    ThingShape Shape,
    double AcrossMm,
    double ThickMm,
    int Amount,
    DateOnly Filled,
    IReadOnlyList<JarGuess> Guesses
);

public sealed record JarGuess(int ChildId, int Guess);

public sealed record JarOpened(JarThere Round, DateOnly Day, int Counted, string HeapsInWords, Picture Heaps, IReadOnlyList<string> Nearest);

/// <param name="Errors">Relative errors jar by jar, below 0 for too few; null where the child did not guess.</param>
public sealed record JarChild(int Id, string Name, IReadOnlyList<double?> Errors, string Trend);

public sealed record JarFilling(string Jar, double JarMl, string Things, ThingShape Shape, double AcrossMm, double ThickMm, int Amount);

public sealed record GuessSaid(int? Guess);

public sealed record JarCount(int Counted);

/// <summary>The weekly jar: filled, guessed at, opened and counted; put away and brought back.</summary>
internal sealed class GuessJarFeature : IFeature
{
    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        var jar = ofClass.MapGroup("/jar");
        jar.MapGet("/", PageAsync);
        jar.MapPost("/", FillAsync).RequireAuthorization(Policies.Record);
        jar.MapPut("/{roundId:int}/guesses/{childId:int}", GuessAsync).RequireAuthorization(Policies.Record);
        jar.MapPost("/{roundId:int}/open", OpenAsync).RequireAuthorization(Policies.Record);
        jar.MapPost("/rest", RestAsync).RequireAuthorization(Policies.Lead);
        jar.MapDelete("/rest", ReturnAsync).RequireAuthorization(Policies.Lead);
    }

    private static async Task<Ok<JarPage>> PageAsync(ClassRoom room, CancellationToken stop)
    {
        var rows = await room
            .Db.JarRounds.Include(r => r.Guesses)
            .Where(r => r.ClassId == room.Id.Value)
            .OrderBy(r => r.Filled)
            .ThenBy(r => r.Id)
            .ToListAsync(stop);
        var children = await room.ChildrenAsync(stop);
        List<JarRound<int>> rounds =
        [
            .. rows.Select(r => new JarRound<int>(r.Amount, r.AcrossMm, [.. r.Guesses.Select(g => (g.ChildId, g.Guess))], r.Counted)),
        ];
        var last = rows.LastOrDefault(r => r.Counted is not null);
        var lines = JarRounds.Lines(rounds, [.. children.Select(c => c.Id)]);
        return TypedResults.Ok(
            new JarPage(
                rows.Where(r => r.Counted is null).Select(View).FirstOrDefault(),
                last is null ? null : Opened(last, children),
                rows.Count == 0
                    ? JarRounds.Next(rounds, JarRounds.TinyMm)
                    : JarRounds.Next(rounds, rows[^1].AcrossMm, JarRules.Holds(rows[^1].JarMl, rows[^1].Shape, rows[^1].AcrossMm, rows[^1].ThickMm)),
                JarCaution.Standing,
                JarRounds.RestProposal(rounds),
                room.JarRestsUntil,
                [.. children.Zip(lines, (c, line) => new JarChild(c.Id, c.Name, [.. line.Errors.Select(e => e?.Signed)], line.Trend))],
                [.. rows.Where(r => r.Counted is > 0).Select(r => r.Opened!.Value)]
            )
        );
    }

    private static async Task<NoContent> FillAsync(ClassRoom room, JarFilling filling, Decisions decisions, CancellationToken stop)
    {
        JarRules.CheckFilling(filling.Jar, filling.Things, filling.JarMl, filling.AcrossMm, filling.ThickMm, filling.Amount);
        await decisions.DecideAsync(
            async db =>
            {
                RefusedException.Unless(
                    !await db.JarRounds.AnyAsync(r => r.ClassId == room.Id.Value && r.Counted == null, stop),
                    "open",
                    Phrase("A jar stands out already: open it first.")
                );
                db.JarRounds.Add(
                    new JarRoundRow
                    {
                        ClassId = room.Id.Value,
                        Jar = filling.Jar.Trim(),
                        JarMl = filling.JarMl,
                        Things = filling.Things.Trim(),
                        Shape = filling.Shape,
                        AcrossMm = filling.AcrossMm,
                        ThickMm = filling.ThickMm,
                        Amount = filling.Amount,
                        Filled = room.Today,
                    }
                );
                await RestUntilAsync(db, room, null, stop);
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound>> GuessAsync(
        ClassRoom room,
        int roundId,
        ChildId childId,
        GuessSaid said,
        Decisions decisions,
        CancellationToken stop
    )
    {
        JarRules.CheckGuess(said.Guess);
        var found =
            await room.NameOfAsync(childId, stop) is not null
            && await decisions.DecideAsync(
                async db =>
                {
                    if (await db.JarRounds.FirstOrDefaultAsync(r => r.Id == roundId && r.ClassId == room.Id.Value, stop) is not { } round)
                    {
                        return false;
                    }

                    RefusedException.Unless(round.Counted is null, "guess", Phrase("The jar has been opened: its guesses stay as they are."));
                    var guess = await db.JarGuesses.FindAsync([roundId, childId.Value], stop);
                    if (said.Guess is not { } number)
                    {
                        db.JarGuesses.RemoveRange(guess is null ? [] : [guess]);
                    }
                    else if (guess is null)
                    {
                        db.JarGuesses.Add(
                            new JarGuessRow
                            {
                                RoundId = roundId,
                                ChildId = childId.Value,
                                Guess = number,
                            }
                        );
                    }
                    else
                    {
                        guess.Guess = number;
                    }

                    return true;
                },
                stop
            );
        return found ? TypedResults.NoContent() : TypedResults.NotFound();
    }

    private static async Task<Results<NoContent, NotFound>> OpenAsync(ClassRoom room, int roundId, JarCount count, Decisions decisions, CancellationToken stop)
    {
        JarRules.CheckCount(count.Counted);
        var found = await decisions.DecideAsync(
            async db =>
            {
                if (await db.JarRounds.FirstOrDefaultAsync(r => r.Id == roundId && r.ClassId == room.Id.Value, stop) is not { } round)
                {
                    return false;
                }

                RefusedException.Unless(round.Counted is null, "counted", Phrase("The jar has been opened already."));
                (round.Counted, round.Opened) = (count.Counted, room.Today);
                return true;
            },
            stop
        );
        return found ? TypedResults.NoContent() : TypedResults.NotFound();
    }

    private static async Task<NoContent> RestAsync(ClassRoom room, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(db => RestUntilAsync(db, room, JarRest.From(room.Today), stop), stop);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> ReturnAsync(ClassRoom room, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(db => RestUntilAsync(db, room, null, stop), stop);
        return TypedResults.NoContent();
    }

    private static Task RestUntilAsync(FobbleDb db, ClassRoom room, DateOnly? until, CancellationToken stop) =>
        db.Classes.Where(c => c.Id == room.Id.Value).ExecuteUpdateAsync(c => c.SetProperty(x => x.JarRestsUntil, until), stop);

    private static JarThere View(JarRoundRow row) =>
        new(
            row.Id,
            row.Jar,
            row.JarMl,
            row.Things,
            row.Shape,
            row.AcrossMm,
            row.ThickMm,
            row.Amount,
            row.Filled,
            [.. row.Guesses.OrderBy(g => g.ChildId).Select(g => new JarGuess(g.ChildId, g.Guess))]
        );

    private static JarOpened Opened(JarRoundRow row, IReadOnlyList<ChildName> children)
    {
        var counted = row.Counted!.Value;
        var nearest = Guesses.Nearest(counted, [.. row.Guesses.Select(g => (g.ChildId, g.Guess))]);
        return new(
            View(row),
            row.Opened!.Value,
            counted,
            HeapsOfTen.Of(counted).ToString(),
            Patterns.HeapsOfTen(counted),
            [.. children.Where(c => nearest.Contains(c.Id)).Select(c => c.Name)]
        );
    }
}
