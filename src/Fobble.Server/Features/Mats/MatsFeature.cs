using Fobble.Core.Approaches;
using Fobble.Core.Evidence;
using Fobble.Core.Mats;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Skills;
using Fobble.Core.Strategies;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Mats;

/// <summary>
/// Mats keep nothing: what lies on one stands in its address, and each answer follows from the question. So everything here is asked
/// for, nothing is changed, and an activity can open a mat ready laid.
/// </summary>
internal sealed class MatsFeature : IFeature
{
    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        var mats = ofClass.MapGroup("/mats");
        mats.MapGet("/", Offers);
        mats.MapGet("/counters/{kind}", Counters);
        mats.MapGet("/sums", SumsAsync);
        mats.MapGet("/look", Look);
        mats.MapGet("/path", Path);
        mats.MapGet("/kinds", Kinds);
        mats.MapStories();
        mats.MapChance();
    }

    private static Ok<IReadOnlyList<MatOnOffer>> Offers(ClassRoom room) => TypedResults.Ok(MatOffers.For(room.Approach));

    private static Ok<CounterMat> Counters(
        ClassRoom room,
        MatKind kind,
        string? state,
        MatDeed? deed,
        int? counter,
        int? zone,
        int? place,
        bool? second,
        int? first,
        int? more,
        long? seed
    )
    {
        MatOutcome outcome = new(MatState.Parse(kind, state), null);
        if (deed is { } doing)
        {
            outcome = MatDeeds.Do(outcome.State, new(doing, counter, zone, place, second ?? false, first ?? 0, more ?? 0, (ulong)(seed ?? 0)));
        }

        var approach = room.Approach;
        var view = MatView.Of(outcome.State, approach);
        var zones = MatKinds.ZonesOf(kind);
        var lying = outcome
            .State.Zones.SelectMany((z, i) => z.Places.Select((c, p) => (Counter: c, Zone: i, Place: p)))
            .Where(c => c.Counter is not null && !outcome.State.Zones[c.Zone].Covered)
            .Select(c => new MatCounterView(
                c.Counter!.Id,
                $"counter-{c.Counter.Id}",
                c.Zone,
                zones[c.Zone].Fixed ? c.Place : null,
                Phrase($"Counter {c.Counter.Id}, {zones[c.Zone].Name}")
            ));
        return TypedResults.Ok(
            new CounterMat(
                kind,
                MatKinds.NameOf(kind),
                outcome.State.ToString(),
                outcome.Refused,
                [.. lying],
                [.. outcome.State.Zones.Select(z => z.Covered)],
                view,
                approach.Symbols == SymbolsWhen.FromTheStart
            )
        );
    }

    private static async Task<Results<Ok<SumMat>, NotFound>> SumsAsync(ClassRoom room, int a, Operation operation, int b, int? childId, CancellationToken stop)
    {
        Adviser.Check(a, operation, b);
        var worked = Adviser.Work(a, operation, b, room.Approach);
        var child = childId is null ? null : (await room.ChildrenAsync(stop)).FirstOrDefault(c => c.Id == childId);
        if (childId is not null && child is null)
        {
            return TypedResults.NotFound();
        }

        IReadOnlySet<SkillId> secure = child is null ? new HashSet<SkillId>() : (await room.EvidenceAsync(stop)).SecureSkills(new ChildId(child.Id));
        var best = Adviser.Recommend(worked, child?.Name, secure, room.Map);
        return TypedResults.Ok(
            new SumMat(
                a,
                operation,
                b,
                [
                    .. worked.Select(w => new WorkedSum(
                        w.Kind,
                        w.Name,
                        w.Fits,
                        w.MentalSteps,
                        [.. w.Steps.Select(s => new MatStep(s.Says, s.Picture, s.Line))],
                        [.. w.Family.Select(f => f.ToString())]
                    )),
                ],
                best.Kind,
                best.Reason
            )
        );
    }

    private static Ok<QuickLook> Look(ClassRoom room, LookLayout layout, int number, long? seed) =>
        TypedResults.Ok(QuickLook.Of(layout, number, (ulong)(seed ?? 1), room.Approach));

    private static Ok<WalkMat> Path(int low, int high, int start, string? hops) =>
        TypedResults.Ok(
            new WalkMat(PathMat.Walk(NumberRange.Asked(low, high), start, [.. (hops ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries).Select(NumberOf)]))
        );

    private static Ok<KindsMat> Kinds(ClassRoom room, int number, Operation? operation, int? other)
    {
        var words = room.Approach.Words;
        return TypedResults.Ok(
            new KindsMat(
                Phrase($"Hundreds, tens and {words.OnesName}"),
                PlaceValueMat.Show(PlaceValueMat.Asked(number), words),
                other is { } b ? PlaceValueMat.Work(number, operation ?? Operation.Add, b, words) : []
            )
        );
    }

    private static int NumberOf(string text) =>
        int.TryParse(text, System.Globalization.NumberStyles.AllowLeadingSign, System.Globalization.CultureInfo.InvariantCulture, out var number)
            ? number
            : throw new RefusedException("hops", Phrase($"'{text}' is no number."));
}
