namespace Fobble.Core;

/// <summary>Why something that was asked for can't be done, said to the teacher who asked.</summary>
/// <param name="Field">What it is about, by the name it has in the request; the page shows the sentence there.</param>
/// <param name="Sentence">A whole sentence that a teacher understands.</param>
public sealed record Refused(string Field, string Sentence);

/// <summary>
/// Carries refusals out to whoever asked. Nothing else is ever shown to a teacher as a reason: any other exception is a fault of the program.
/// </summary>
public class RefusedException : Exception
{
    public RefusedException(string field, string sentence)
        : this([new Refused(field, sentence)]) { }

    public RefusedException(IReadOnlyList<Refused> reasons)
        : base(string.Join(" ", (reasons ?? throw new ArgumentNullException(nameof(reasons))).Select(r => r.Sentence))) => Reasons = reasons;

    /// <summary>At least one.</summary>
    public IReadOnlyList<Refused> Reasons { get; }

    /// <summary>Refuses unless something holds.</summary>
    public static void Unless(bool holds, string field, string sentence)
    {
        if (!holds)
        {
            throw new RefusedException(field, sentence);
        }
    }
}
