using System.Globalization;
using Fobble.Core.Calendars;

namespace Fobble.Server.Rooms;

internal static class RoomGate
{
    /// <summary>Whoever asks for something of a class finds its room entered.</summary>
    public static RouteGroupBuilder EnterRooms(this RouteGroupBuilder ofClass) =>
        ofClass.AddEndpointFilterFactory(
            (_, next) =>
                async context =>
                {
                    var http = context.HttpContext;
                    // By the address and not by the arguments: a day may be a part of one.
                    foreach (var said in http.Request.RouteValues.Values.OfType<string>().Concat(http.Request.Query.SelectMany(q => q.Value).OfType<string>()))
                    {
                        if (DateOnly.TryParse(said, CultureInfo.InvariantCulture, out var day))
                        {
                            RefusedException.Unless(OurTime.Holds(day), "day", OurTime.Reason(day));
                        }
                    }

                    if (!HttpMethods.IsGet(http.Request.Method))
                    {
                        return await EnterAsync(context, next);
                    }

                    return http.GetEndpoint()?.Metadata.GetMetadata<SameForAll>() is null
                        ? await InTurnAsync(context, next, () => { })
                        : await TogetherAsync(context, next);
                }
        );

    private static async ValueTask<object?> TogetherAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var http = context.HttpContext;
        var packing = PackedAnswer.PackingFor(http);
        var question = $"{CultureInfo.CurrentUICulture.Name} {packing?.EncodingName} {http.Request.Path}{http.Request.QueryString}";
        var unchanged = http.RequestServices.GetRequiredService<UnchangedAnswers>();
        return unchanged.Find(question) is { } answer
            ? answer
            : await http
                .RequestServices.GetRequiredService<AskedTogether>()
                .AskAsync(
                    question,
                    async begin =>
                    {
                        PagesOf of = default;
                        var found = await InTurnAsync(
                            context,
                            async inner => PackedAnswer.Of(await next(inner), packing, http),
                            () =>
                            {
                                begin();
                                of = unchanged.Now();
                            }
                        );
                        if (found is PackedAnswer page)
                        {
                            unchanged.Keep(question, of, page);
                        }

                        return found;
                    },
                    http.RequestAborted
                );
    }

    /// <param name="begin">Called once it has its turn, before anything is read.</param>
    private static async ValueTask<object> InTurnAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next, Action begin)
    {
        var http = context.HttpContext;
        using var turn = await http.RequestServices.GetRequiredService<ReadingTurns>().WaitAsync(http.RequestAborted);
        begin();
        return turn.IsAcquired
            ? await EnterAsync(context, next) ?? Results.Empty
            : TypedResults.Problem(
                Phrase("There is too much to work out just now. Try again in a moment."),
                statusCode: StatusCodes.Status503ServiceUnavailable
            );
    }

    private static async ValueTask<object?> EnterAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var http = context.HttpContext;
        if (ClassId.TryParse(http.GetRouteValue("classId") as string, out var id))
        {
            await http.RequestServices.GetRequiredService<ClassRoom>().EnterAsync(id, http.RequestAborted);
        }

        return await next(context);
    }
}
