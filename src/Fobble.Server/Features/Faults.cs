using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features;

/// <summary>What is wrong with a request, by field, each with a sentence for the person who sent it.</summary>
internal sealed class Faults
{
    private readonly Dictionary<string, string[]> _byField = [];

    public bool None => _byField.Count == 0;

    public void Check(string field, bool holds, string reason)
    {
        if (!holds)
        {
            _byField[field] = [reason];
        }
    }

    public ValidationProblem ToProblem(string sentence) => TypedResults.ValidationProblem(_byField, detail: sentence);

    /// <summary>A refusal for one reason.</summary>
    public static ValidationProblem One(string field, string reason) => TypedResults.ValidationProblem(new Dictionary<string, string[]> { [field] = [reason] }, detail: reason);
}
