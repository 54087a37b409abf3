using Fobble.Data.Keeping;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;

namespace Fobble.Server.Hosting;

/// <summary>
/// Turns what was thrown into what is answered: a refusal into its sentences by field, something changed meanwhile into 409 with what has changed, what cannot be read into its field, anything else
/// into 500 with a number that stands in the log.
/// </summary>
internal sealed partial class Problems(ILogger<Problems> log, IProblemDetailsService answers, RecentFaults faults) : IExceptionHandler
{
    /// <summary>Tells a page that it can show what has changed and offer its change again.</summary>
    public const string Changed = "urn:fobble:changed";

    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        if (exception is OperationCanceledException && httpContext.RequestAborted.IsCancellationRequested)
        {
            // Nobody waits for the answer any more.
            httpContext.Response.StatusCode = StatusCodes.Status499ClientClosedRequest;
            return true;
        }

        var problem = exception switch
        {
            RefusedException refused => new HttpValidationProblemDetails(
                refused.Reasons.GroupBy(r => r.Field).ToDictionary(r => r.Key, r => r.Select(x => x.Sentence).ToArray())
            )
            {
                Status = StatusCodes.Status400BadRequest,
                Detail = refused.Message,
            },
            ChangedMeanwhileException changed => new ProblemDetails
            {
                Status = StatusCodes.Status409Conflict,
                Type = Changed,
                Title = Phrase("Changed in the meantime"),
                Detail = Phrase($"{changed.Message} Nothing of yours was changed: look at it again."),
                Extensions = { ["changes"] = changed.Changes },
            },
            BadHttpRequestException bad => Unreadable.Of(bad),
            _ when DiskFault.Is(exception) => Disk(exception),
            _ => Fault(exception),
        };
        httpContext.Response.StatusCode = problem.Status!.Value;
        await answers.TryWriteAsync(new() { HttpContext = httpContext, ProblemDetails = problem });
        return true;
    }

    // No fault of the program, and whoever meets it can do nothing about it but tell. What a tablet holds is sent again by itself.
    private ProblemDetails Disk(Exception exception)
    {
        DiskFails(log, exception);
        return new()
        {
            Status = StatusCodes.Status503ServiceUnavailable,
            Title = Phrase("Nothing can be kept just now"),
            Detail = Phrase(
                $"The disk of the machine that Fobble runs on is full, or can’t be written. Nothing was changed; what was tapped stays on this device and is sent again. Tell whoever looks after the machine."
            ),
        };
    }

    private ProblemDetails Fault(Exception exception)
    {
        var id = Guid.NewGuid().ToString("N")[..8];
        Faulted(log, id, exception);
        faults.Add(id);
        return new()
        {
            Status = StatusCodes.Status500InternalServerError,
            Title = Phrase("A fault of the program"),
            Detail = Phrase($"Something went wrong that should not: nothing was changed. If it comes again, tell who looks after Fobble this number: {id}."),
            Extensions = { ["fault"] = id },
        };
    }

    [LoggerMessage(Level = LogLevel.Critical, Message = "The disk is full, or can't be written.")]
    private static partial void DiskFails(ILogger log, Exception exception);

    [LoggerMessage(Level = LogLevel.Error, Message = "Fault {Id}")]
    private static partial void Faulted(ILogger log, string id, Exception exception);
}
