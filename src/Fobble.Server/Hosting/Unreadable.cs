using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Mvc;

namespace Fobble.Server.Hosting;

/// <summary>What a request holds that cannot be read at all, by field and in a sentence. The framework says it in text only, so it is read out of that.</summary>
internal static partial class Unreadable
{
    /// <summary>Where the framework does not say what it was.</summary>
    public const string Anything = "What was sent cannot be read: something in it is missing, or not what it should be.";

    public static ProblemDetails Of(BadHttpRequestException bad)
    {
        if (bad.StatusCode != StatusCodes.Status400BadRequest || Parameter().Match(bad.Message) is not { Success: true } match)
        {
            return new()
            {
                Status = bad.StatusCode,
                Title = Phrase("Bad request"),
                Detail = Anything,
            };
        }

        var (field, sentence) = Told(JsonNamingPolicy.CamelCase.ConvertName(match.Groups["name"].Value), match.Groups["value"], bad.InnerException);
        return new HttpValidationProblemDetails(new Dictionary<string, string[]> { [field] = [sentence] }) { Status = bad.StatusCode, Detail = sentence };
    }

    private static (string Field, string Sentence) Told(string name, Group value, Exception? inner) =>
        inner is JsonException { Path: { Length: > 2 } path } ? (path[2..], Phrase($"What was sent cannot be read: “{path[2..]}” is not what it should be."))
        : inner is JsonException ? (name, Anything)
        : value.Success ? (name, Phrase($"“{value.Value}” is not something that “{name}” can be."))
        : (name, Phrase($"“{name}” is missing."));

    // Failed to bind parameter "SheetKind Kind" from "Heap". · Required parameter "int Low" was not provided from query string.
    [GeneratedRegex("""parameter "(?:[^" ]+ )?(?<name>[^" ]+)"(?: from "(?<value>[^"]*)")?""")]
    private static partial Regex Parameter();
}
