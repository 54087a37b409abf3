using System.Globalization;

namespace Fobble.Core.Chance;

/// <summary>A die given as its faces, each as likely as any other; a number may stand on several.</summary>
public sealed record Die
{
    /// <summary>Faces that a die has at most.</summary>
    public const int MostFaces = 20;

    /// <exception cref="RefusedException">There is no face, there are more than 20, or a number is not from 0 to 99.</exception>
    public Die(IReadOnlyList<int> faces)
    {
        ArgumentNullException.ThrowIfNull(faces);
        if (faces.Count is 0 or > MostFaces || faces.Any(f => f is < 0 or > 99))
        {
            throw new RefusedException("dice", Phrase($"A die has 1 to {MostFaces} faces, each with a number from 0 to 99."));
        }

        Faces = faces;
    }

    public IReadOnlyList<int> Faces { get; }

    /// <summary>Dots can be shown where no face has more than six.</summary>
    public bool HasPips => Faces.All(f => f <= 6);

    public static Die Numbered(int low, int high) => new([.. Enumerable.Range(low, high - low + 1)]);

    /// <summary>Reads <c>1-6</c>, or faces one by one: <c>0,1,1,2,2,3</c>.</summary>
    /// <exception cref="RefusedException">The text is neither.</exception>
    public static Die Parse(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        try
        {
            var faces = text.Split(',', StringSplitOptions.TrimEntries).SelectMany(FacesOf).ToList();
            return new Die(faces);
        }
        catch (Exception wrong) when (wrong is FormatException or RefusedException or OverflowException)
        {
            throw new RefusedException(
                "dice",
                Phrase($"'{text}' is no die. Write it like 1-6, or face by face like 0,1,1,2,2,3: up to {MostFaces} faces, each from 0 to 99.")
            );
        }
    }

    public override string ToString() =>
        Faces.Count > 1 && Faces.SequenceEqual(Enumerable.Range(Faces[0], Faces.Count)) ? $"{Faces[0]}-{Faces[^1]}" : string.Join(",", Faces);

    private static IEnumerable<int> FacesOf(string part)
    {
        var ends = part.Split('-');
        var (low, high) = (
            int.Parse(ends[0], NumberStyles.None, CultureInfo.InvariantCulture),
            int.Parse(ends[^1], NumberStyles.None, CultureInfo.InvariantCulture)
        );
        return ends.Length <= 2 && low <= high && high - low < MostFaces
            ? Enumerable.Range(low, high - low + 1)
            : throw new RefusedException("dice", Phrase("The smaller number comes first."));
    }
}
