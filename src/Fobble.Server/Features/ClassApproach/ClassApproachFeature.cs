using Fobble.Core.Approaches;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.ClassApproach;

/// <summary>How a class does things where schools differ, a ten frame that shows it, and what an answer means where that hangs on numbers of the core.</summary>
public sealed record ApproachView(ApproachChoice Choice, Picture Six, IReadOnlyList<AnswerMeans> Means);

/// <param name="Question">Name of the choice.</param>
/// <param name="Answer">One of its values.</param>
public sealed record AnswerMeans(string Question, string Answer, string Means);

public sealed record ApproachChoice(
    FrameFill FrameFill,
    FrameDirection FrameDirection,
    OnesWord OnesWord,
    FewerWord FewerWord,
    TakeWord TakeWord,
    SentenceWord SentenceWord,
    YearWord YearWord,
    SymbolsWhen Symbols,
    NumberSize Sizes,
    YearOrder Order,
    SheetUse Sheets,
    GroupWay Groups,
    Strictness Secure,
    Fading Fading,
    SecondLookTime Looks
);

/// <summary>What is to be done otherwise from now on: what isn't named stays as it is, so that two who choose at a time keep both.</summary>
public sealed record ApproachChange
{
    public FrameFill? FrameFill { get; init; }
    public FrameDirection? FrameDirection { get; init; }
    public OnesWord? OnesWord { get; init; }
    public FewerWord? FewerWord { get; init; }
    public TakeWord? TakeWord { get; init; }
    public SentenceWord? SentenceWord { get; init; }
    public YearWord? YearWord { get; init; }
    public SymbolsWhen? Symbols { get; init; }
    public NumberSize? Sizes { get; init; }
    public YearOrder? Order { get; init; }
    public SheetUse? Sheets { get; init; }
    public GroupWay? Groups { get; init; }
    public Strictness? Secure { get; init; }
    public Fading? Fading { get; init; }
    public SecondLookTime? Looks { get; init; }
}

/// <param name="InUse">The class is judged by numbers of its own.</param>
/// <param name="Better">Those that the record gives today foresee the class better than the usual ones.</param>
public sealed record OwnNumbersView(bool InUse, bool Better, IReadOnlyList<string> Sentences);

internal sealed class ClassApproachFeature : IFeature
{
    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/approach", Get);
        ofClass.MapPatch("/approach", SetAsync).RequireAuthorization(Policies.Lead);
        var numbers = ofClass.MapGroup("/own-numbers").RequireAuthorization(Policies.Lead);
        numbers.MapGet("/", GetNumbersAsync);
        numbers.MapPut("/", TakeNumbersAsync);
        numbers.MapDelete("/", DropNumbersAsync);
    }

    private static Ok<ApproachView> Get(ClassRoom room)
    {
        var own = room.Approach;
        var (frames, words) = own;
        return TypedResults.Ok(
            new ApproachView(
                new(
                    frames.Fill,
                    frames.Direction,
                    words.Ones,
                    words.Less,
                    words.Take,
                    words.Sentence,
                    words.Year,
                    own.Symbols,
                    own.Sizes,
                    own.Order,
                    own.Sheets,
                    own.Groups,
                    own.Secure,
                    own.Fading,
                    own.Looks
                ),
                Frames.Ten(6, style: frames),
                [
                    .. Enum.GetValues<Strictness>().Select(s => new AnswerMeans("secure", $"{s}", SecureRule.Of(s).Sentence)),
                    .. Enum.GetValues<Fading>().Select(f => new AnswerMeans("fading", $"{f}", SecondLookSettings.Of(f, default).FadingSentence)),
                    .. Enum.GetValues<SecondLookTime>().Select(l => new AnswerMeans("looks", $"{l}", SecondLookSettings.Of(default, l).MinutesSentence)),
                ]
            )
        );
    }

    private static async Task<NoContent> SetAsync(ClassRoom room, ApproachChange change, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(
            async db =>
            {
                var own = await db.Classes.SingleAsync(c => c.Id == room.Id.Value, stop);
                own.FrameFill = change.FrameFill ?? own.FrameFill;
                own.FrameDirection = change.FrameDirection ?? own.FrameDirection;
                own.OnesWord = change.OnesWord ?? own.OnesWord;
                own.FewerWord = change.FewerWord ?? own.FewerWord;
                own.TakeWord = change.TakeWord ?? own.TakeWord;
                own.SentenceWord = change.SentenceWord ?? own.SentenceWord;
                own.YearWord = change.YearWord ?? own.YearWord;
                own.Symbols = change.Symbols ?? own.Symbols;
                own.Sizes = change.Sizes ?? own.Sizes;
                own.Order = change.Order ?? own.Order;
                own.Sheets = change.Sheets ?? own.Sheets;
                own.Groups = change.Groups ?? own.Groups;
                own.Secure = change.Secure ?? own.Secure;
                own.Fading = change.Fading ?? own.Fading;
                own.Looks = change.Looks ?? own.Looks;
            },
            stop
        );
        return TypedResults.NoContent();
    }

    /// <summary>What the class's record says of the numbers it is judged by. Takes some seconds.</summary>
    private static async Task<Ok<OwnNumbersView>> GetNumbersAsync(ClassRoom room, ClassRooms rooms, Solving solving, CancellationToken stop) =>
        TypedResults.Ok(ViewOf(room, await FoundAsync(room, rooms, solving, stop)));

    /// <summary>From now on the class is judged by its own numbers, as the record gives them today.</summary>
    private static async Task<Results<Ok<OwnNumbersView>, ValidationProblem>> TakeNumbersAsync(
        ClassRoom room,
        ClassRooms rooms,
        Solving solving,
        Decisions decisions,
        CancellationToken stop
    )
    {
        var found = await FoundAsync(room, rooms, solving, stop);
        RefusedException.Unless(found.Better, "numbers", Phrase("The usual numbers foresee this class as well: they stay."));
        await KeepAsync(room, decisions, found.Numbers, stop);
        return TypedResults.Ok(ViewOf(room, found));
    }

    private static async Task<NoContent> DropNumbersAsync(ClassRoom room, Decisions decisions, CancellationToken stop)
    {
        await KeepAsync(room, decisions, null, stop);
        return TypedResults.NoContent();
    }

    // Of the school's other classes nothing leaves but three numbers, and how much they rest on.
    private static async Task<OwnNumbersFound> FoundAsync(ClassRoom room, ClassRooms rooms, Solving solving, CancellationToken stop)
    {
        var (seen, calendar) = (await room.ObservationsAsync(stop), await room.CalendarAsync(stop));
        var (map, settings) = (room.Map, EvidenceSettings.Of(room.Approach with { Numbers = null }));
        List<Observation> elsewhere = [];
        foreach (var other in await room.Db.Classes.Where(c => c.SchoolId == room.SchoolId && c.Id != room.Id.Value).Select(c => c.Id).ToListAsync(stop))
        {
            await using var its = await rooms.OpenAsync(new(other), stop);
            elsewhere.AddRange((await its.ObservationsAsync(stop)).Where(o => map.Has(o.Skill)));
        }

        return await solving.RunAsync(room.Id, until => OwnNumbersFit.Of(map, calendar, settings, seen, elsewhere, until), stop);
    }

    private static async Task KeepAsync(ClassRoom room, Decisions decisions, OwnNumbers? numbers, CancellationToken stop)
    {
        var (guess, slip, learning) = (numbers?.Guess, numbers?.Slip, numbers?.Learning);
        DateOnly? since = numbers is null ? null : room.Today;
        await decisions.DecideAsync(
            db =>
                db.Classes.Where(c => c.Id == room.Id.Value)
                    .ExecuteUpdateAsync(
                        c =>
                            c.SetProperty(x => x.OwnGuess, guess)
                                .SetProperty(x => x.OwnSlip, slip)
                                .SetProperty(x => x.OwnLearning, learning)
                                .SetProperty(x => x.OwnSince, since),
                        stop
                    ),
            stop
        );
        await room.AgainAsync(stop);
    }

    private static OwnNumbersView ViewOf(ClassRoom room, OwnNumbersFound found) => new(room.Approach.Numbers is not null, found.Better, found.Sentences);
}
