using Fobble.Core.Approaches;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.ClassApproach;

/// <summary>How a class does things where schools differ, a ten frame that shows it, and what each strictness asks of a skill that is called secure.</summary>
public sealed record ApproachView(ApproachChoice Choice, Picture Six, IReadOnlyList<SecureAsks> Secure);

public sealed record SecureAsks(Strictness Strictness, string Means);

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
    Strictness Secure
);

internal sealed class ClassApproachFeature : IFeature
{
    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/approach", Get);
        ofClass.MapPut("/approach", SetAsync).RequireAuthorization(Policies.Lead);
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
                    own.Secure
                ),
                Frames.Ten(6, style: frames),
                [.. Enum.GetValues<Strictness>().Select(s => new SecureAsks(s, SecureRule.Of(s).Sentence))]
            )
        );
    }

    private static async Task<NoContent> SetAsync(ClassRoom room, ApproachChoice choice, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(
            db =>
                db.Classes.Where(c => c.Id == room.Id.Value)
                    .ExecuteUpdateAsync(
                        c =>
                            c.SetProperty(x => x.FrameFill, choice.FrameFill)
                                .SetProperty(x => x.FrameDirection, choice.FrameDirection)
                                .SetProperty(x => x.OnesWord, choice.OnesWord)
                                .SetProperty(x => x.FewerWord, choice.FewerWord)
                                .SetProperty(x => x.TakeWord, choice.TakeWord)
                                .SetProperty(x => x.SentenceWord, choice.SentenceWord)
                                .SetProperty(x => x.YearWord, choice.YearWord)
                                .SetProperty(x => x.Symbols, choice.Symbols)
                                .SetProperty(x => x.Sizes, choice.Sizes)
                                .SetProperty(x => x.Order, choice.Order)
                                .SetProperty(x => x.Sheets, choice.Sheets)
                                .SetProperty(x => x.Groups, choice.Groups)
                                .SetProperty(x => x.Secure, choice.Secure),
                        stop
                    ),
            stop
        );
        return TypedResults.NoContent();
    }
}
