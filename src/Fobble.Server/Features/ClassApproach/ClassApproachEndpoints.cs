using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Data;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.ClassApproach;

/// <summary>How a class does things where schools differ, and a ten frame that shows it.</summary>
public sealed record ApproachView(ApproachChoice Choice, Picture Six);

public sealed record ApproachChoice(FrameFill FrameFill, FrameDirection FrameDirection, OnesWord OnesWord, FewerWord FewerWord, TakeWord TakeWord, SentenceWord SentenceWord);

internal static class ClassApproachEndpoints
{
    public static void MapClassApproach(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/approach", GetAsync);
        ofClass.MapPut("/approach", SetAsync).RequireAuthorization(Policies.Lead);
    }

    private static async Task<Ok<ApproachView>> GetAsync(int classId, ClassFacts facts, CancellationToken stop)
    {
        var (frames, words) = await facts.ApproachAsync(classId, stop);
        return TypedResults.Ok(new ApproachView(new(frames.Fill, frames.Direction, words.Ones, words.Less, words.Take, words.Sentence), Frames.Ten(6, style: frames)));
    }

    private static async Task<NoContent> SetAsync(int classId, ApproachChoice choice, FobbleDb db, CancellationToken stop)
    {
        await db.Classes.Where(c => c.Id == classId).ExecuteUpdateAsync(
            c => c.SetProperty(x => x.FrameFill, choice.FrameFill).SetProperty(x => x.FrameDirection, choice.FrameDirection).SetProperty(x => x.OnesWord, choice.OnesWord)
                .SetProperty(x => x.FewerWord, choice.FewerWord).SetProperty(x => x.TakeWord, choice.TakeWord).SetProperty(x => x.SentenceWord, choice.SentenceWord),
            stop);
        return TypedResults.NoContent();
    }
}
