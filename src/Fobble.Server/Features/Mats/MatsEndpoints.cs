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
internal static class MatsEndpoints
{
    public static void MapMats(this IEndpointRouteBuilder ofClass)
    {
        var mats = ofClass.MapGroup("/mats");
        mats.MapGet("/", ShelfAsync);
        mats.MapGet("/counters/{kind}", CountersAsync);
        mats.MapGet("/sums", SumsAsync);
        mats.MapGet("/look", LookAsync);
        mats.MapGet("/path", Path);
        mats.MapGet("/kinds", KindsAsync);
        mats.MapStories();
        mats.MapChance();
    }

    private static async Task<Ok<IReadOnlyList<MatOnShelf>>> ShelfAsync(int classId, ClassFacts facts, CancellationToken stop) =>
        TypedResults.Ok(MatShelf.For(await facts.ApproachAsync(classId, stop)));

    private static async Task<Results<Ok<CounterMat>, ValidationProblem>> CountersAsync(
        int classId, MatKind kind, string? state, MatDeed? deed, int? counter, int? zone, int? place, bool? second, int? first, int? more, long? seed, ClassFacts facts, CancellationToken stop)
    {
        MatOutcome outcome;
        try
        {
            outcome = new(MatState.Parse(kind, state), null);
        }
        catch (FormatException wrong)
        {
            return Faults.One("state", wrong.Message);
        }

        if (deed is { } doing)
        {
            outcome = MatDeeds.Do(outcome.State, new(doing, counter, zone, place, second ?? false, first ?? 0, more ?? 0, (ulong)(seed ?? 0)));
        }

        var approach = await facts.ApproachAsync(classId, stop);
        var view = MatView.Of(outcome.State, approach);
        var zones = MatKinds.ZonesOf(kind);
        var lying = outcome.State.Zones.SelectMany((z, i) => z.Places.Select((c, p) => (Counter: c, Zone: i, Place: p))).Where(c => c.Counter is not null && !outcome.State.Zones[c.Zone].Covered)
            .Select(c => new MatCounterView(c.Counter!.Id, $"counter-{c.Counter.Id}", c.Zone, zones[c.Zone].Fixed ? c.Place : null, $"Counter {c.Counter.Id}, {zones[c.Zone].Name}"));
        return TypedResults.Ok(new CounterMat(kind, MatKinds.NameOf(kind), outcome.State.ToString(), outcome.Refused, [.. lying], [.. outcome.State.Zones.Select(z => z.Covered)], view, approach.Symbols == SymbolsWhen.FromTheStart));
    }

    private static async Task<Results<Ok<SumMat>, ValidationProblem, NotFound>> SumsAsync(
        int classId, int a, Operation operation, int b, int? childId, ClassFacts facts, SkillMap map, TimeProvider clock, CancellationToken stop)
    {
        if (a is < 0 or > Adviser.Largest || b < 0 || b > (operation == Operation.Add ? Adviser.Largest : a))
        {
            return Faults.One("numbers", operation == Operation.Add ? $"Numbers go from 0 to {Adviser.Largest}." : $"Take away from 0 to {a}, so that nothing falls below zero.");
        }

        var worked = Adviser.Work(a, operation, b, await facts.ApproachAsync(classId, stop));
        var child = childId is null ? null : (await facts.ChildrenAsync(classId, stop)).FirstOrDefault(c => c.Id == childId);
        if (childId is not null && child is null)
        {
            return TypedResults.NotFound();
        }

        IReadOnlySet<SkillId> secure = child is null ? new HashSet<SkillId>() : (await facts.EvidenceAsync(classId, clock.Today(), stop)).SecureSkills(new ChildId(child.Id));
        var best = Adviser.Recommend(worked, child?.Name, secure, map);
        return TypedResults.Ok(new SumMat(
            a, operation, b,
            [.. worked.Select(w => new WorkedSum(w.Kind, w.Name, w.Fits, w.MentalSteps, [.. w.Steps.Select(s => new MatStep(s.Says, s.Picture, s.Line))], [.. w.Family.Select(f => f.ToString())]))],
            best.Kind, best.Reason));
    }

    private static async Task<Results<Ok<QuickLook>, ValidationProblem>> LookAsync(int classId, LookLayout layout, int number, long? seed, ClassFacts facts, CancellationToken stop)
    {
        var approach = await facts.ApproachAsync(classId, stop);
        return Refusing("number", () => QuickLook.Of(layout, number, (ulong)(seed ?? 1), approach));
    }

    private static Results<Ok<WalkMat>, ValidationProblem> Path(int classId, int low, int high, int start, string? hops) => Refusing("hops", () =>
        new WalkMat(PathMat.Walk(RangeOf(low, high), start, [.. (hops ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries).Select(NumberOf)])));

    private static async Task<Results<Ok<KindsMat>, ValidationProblem>> KindsAsync(int classId, int number, Operation? operation, int? other, ClassFacts facts, CancellationToken stop)
    {
        var words = (await facts.ApproachAsync(classId, stop)).Words;
        return Refusing("number", () => number is < 0 or > 999
            ? throw new ArgumentException($"Numbers go from 0 to 999, not {number}.")
            : new KindsMat($"Hundreds, tens and {words.OnesName}", PlaceValueMat.Show(number, words), other is { } b ? PlaceValueMat.Work(number, operation ?? Operation.Add, b, words) : []));
    }

    /// <summary>Answers, or gives the core's reason why it cannot.</summary>
    internal static Results<Ok<T>, ValidationProblem> Refusing<T>(string field, Func<T> answer)
    {
        try
        {
            return TypedResults.Ok(answer());
        }
        catch (Exception refused) when (refused is ArgumentException or FormatException)
        {
            return Faults.One(field, refused.Message.Split(" (Parameter")[0]);
        }
    }

    internal static NumberRange RangeOf(int low, int high) =>
        low >= 0 && low <= high && high <= 999 ? new(low, high) : throw new ArgumentException($"{low} to {high} is no range of numbers: choose from 0 to 999, the smaller first.");

    private static int NumberOf(string text) =>
        int.TryParse(text, System.Globalization.NumberStyles.AllowLeadingSign, System.Globalization.CultureInfo.InvariantCulture, out var number) ? number : throw new FormatException($"'{text}' is no number.");
}
