namespace Fobble.Core.Standards;

/// <summary>A statement of a published framework, in short; <see cref="Code"/> is what skills name it by.</summary>
public sealed record Standard(string Code, string Text);

/// <param name="Source">Who published it, and how far the wording is ours.</param>
public sealed record Framework(string Name, string Source, IReadOnlyList<Standard> Standards)
{
    /// <summary>The frameworks that the map is held against (Standards/Content).</summary>
    public static IReadOnlyList<Framework> Shipped { get; } =
    [
        .. ContentFile
            .In("Standards/Content")
            .Select(f => ContentFile.Read<FrameworkFile>(f.Name, f.Text))
            .Select(f => new Framework(f.Framework, f.Source, [.. f.Standards.Select(s => new Standard(s.Code, s.Text))])),
    ];

    /// <summary>The statement with this code, in whichever framework; null for an unknown code.</summary>
    public static Standard? Find(string code) => Shipped.SelectMany(f => f.Standards).FirstOrDefault(s => s.Code == code);

#pragma warning disable CA1812 // Made by the YAML reader.
    internal sealed record FrameworkFile
    {
        public string Framework { get; init; } = "";

        public string Source { get; init; } = "";

        public List<StandardEntry> Standards { get; init; } = [];
    }

    internal sealed record StandardEntry
    {
        public string Code { get; init; } = "";

        public string Text { get; init; } = "";
    }
#pragma warning restore CA1812
}
