using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Data;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.ClassApproach;

/// <summary>How a class does things where schools differ, and a ten frame that shows it.</summary>
public sealed record ApproachView(ApproachChoice Choice, Picture Six);

public sealed record ApproachChoice(
    FrameFill FrameFill, FrameDirection FrameDirection, OnesWord OnesWord, FewerWord FewerWord, TakeWord TakeWord, SentenceWord SentenceWord, YearWord YearWord,
    SymbolsWhen Symbols, NumberSize Sizes, YearOrder Order, SheetUse Sheets, GroupWay Groups, Strictness Secure);

internal static class ClassApproachEndpoints
{
    public static void MapClassApproach(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/approach", GetAsync);
        ofClass.MapPut("/approach", SetAsync).RequireAuthorization(Policies.Lead);
    }

    private static async Task<Ok<ApproachView>> GetAsync(int classId, ClassFacts facts, CancellationToken stop)
    {
        var own = await facts.ApproachAsync(classId, stop);
        var (frames, words) = own;
        return TypedResults.Ok(new ApproachView(
            new(frames.Fill, frames.Direction, words.Ones, words.Less, words.Take, words.Sentence, words.Year, own.Symbols, own.Sizes, own.Order, own.Sheets, own.Groups, own.Secure),
            Frames.Ten(6, style: frames)));
    }

    private static async Task<NoContent> SetAsync(int classId, ApproachChoice choice, FobbleDb db, ContentShelf shelf, CancellationToken stop)
    {
        await db.Classes.Where(c => c.Id == classId).ExecuteUpdateAsync(
            c => c.SetProperty(x => x.FrameFill, choice.FrameFill).SetProperty(x => x.FrameDirection, choice.FrameDirection).SetProperty(x => x.OnesWord, choice.OnesWord)
                .SetProperty(x => x.FewerWord, choice.FewerWord).SetProperty(x => x.TakeWord, choice.TakeWord).SetProperty(x => x.SentenceWord, choice.SentenceWord)
                .SetProperty(x => x.YearWord, choice.YearWord).SetProperty(x => x.Symbols, choice.Symbols).SetProperty(x => x.Sizes, choice.Sizes).SetProperty(x => x.Order, choice.Order)
                .SetProperty(x => x.Sheets, choice.Sheets).SetProperty(x => x.Groups, choice.Groups).SetProperty(x => x.Secure, choice.Secure),
            stop);
        shelf.Forget();
        return TypedResults.NoContent();
    }
}
