using System.Reflection;
using YamlDotNet.Core;
using YamlDotNet.Core.Events;
using YamlDotNet.Serialization;
using YamlDotNet.Serialization.NamingConventions;

namespace Fobble.Core;

/// <summary>YAML read into plain records: the files that ship inside this assembly, and those that schools hand on.</summary>
internal static class ContentFile
{
    // No content of ours comes near. A file from outside can be made to take a machine for hours: by lists within lists, or by one part that is called up 90,000 times.
    private const int Deepest = 20;
    private const int MostAliases = 100;

    private static readonly IDeserializer Yaml = new DeserializerBuilder().WithNamingConvention(CamelCaseNamingConvention.Instance).Build();
    private static readonly ISerializer Writer = new SerializerBuilder()
        .WithNamingConvention(CamelCaseNamingConvention.Instance)
        .DisableAliases()
        .ConfigureDefaultValuesHandling(DefaultValuesHandling.OmitNull | DefaultValuesHandling.OmitEmptyCollections | DefaultValuesHandling.OmitDefaults)
        .Build();

    /// <summary>Texts of the files in a content folder, by file name.</summary>
    public static IEnumerable<(string Name, string Text)> In(string folder)
    {
        var assembly = Assembly.GetExecutingAssembly();
        foreach (var name in assembly.GetManifestResourceNames().Where(n => n.StartsWith(folder + "/", StringComparison.Ordinal)).Order(StringComparer.Ordinal))
        {
            using var reader = new StreamReader(assembly.GetManifestResourceStream(name)!);
            yield return (name, reader.ReadToEnd());
        }
    }

    /// <exception cref="RefusedException">The text is not what the file should hold; the message names file, line and reason.</exception>
    public static T Read<T>(string name, string text)
    {
        try
        {
            CheckParts(name, text);
            return Yaml.Deserialize<T>(text);
        }
        catch (YamlException fault)
        {
            throw new RefusedException("file", $"{name}, line {fault.Start.Line}: {fault.InnerException?.Message ?? fault.Message}");
        }
#pragma warning disable CA1031 // Over some broken texts the reader itself falls, with faults of its own that say nothing of the text.
        catch (Exception fault) when (fault is not RefusedException)
#pragma warning restore CA1031
        {
            throw new RefusedException("file", Phrase($"{name} can’t be read: it is damaged."));
        }
    }

    // What the records can't say of themselves: how deep, how often, and that a list has no place without anything in it.
    private static void CheckParts(string name, string text)
    {
        var (depth, aliases) = (0, 0);
        Parser parser = new(new StringReader(text));
        while (parser.MoveNext())
        {
            depth += parser.Current!.NestingIncrease;
            aliases += parser.Current is AnchorAlias ? 1 : 0;
            RefusedException.Unless(
                depth <= Deepest,
                "file",
                Phrase($"{name}, line {parser.Current.Start.Line}: this holds parts within parts, more than {Deepest} deep.")
            );
            RefusedException.Unless(
                depth == 0 || parser.Current is not Scalar { IsPlainImplicit: true, Value: "" or "~" or "null" or "Null" or "NULL" },
                "file",
                Phrase($"{name}, line {parser.Current.Start.Line}: here is nothing where something should stand.")
            );
            RefusedException.Unless(
                aliases <= MostAliases,
                "file",
                Phrase($"{name}, line {parser.Current.Start.Line}: this calls up other parts of it more than {MostAliases} times; write them out.")
            );
        }
    }

    /// <summary>Reads <c>one-to-one</c> as <c>OneToOne</c>.</summary>
    /// <exception cref="RefusedException">The word names no value.</exception>
    public static T Word<T>(string where, string word)
        where T : struct, Enum =>
        Enum.TryParse<T>(word.Replace("-", "", StringComparison.Ordinal), ignoreCase: true, out var value) && Enum.IsDefined(value)
            ? value
            : throw new RefusedException("file", $"{where}: '{word}' is none of {string.Join(", ", Enum.GetNames<T>())}.");

    /// <summary>Writes <c>OneToOne</c> as <c>one-to-one</c>.</summary>
    public static string Dashed<T>(T value)
        where T : struct, Enum => string.Concat($"{value}".Select((c, i) => char.IsUpper(c) ? (i > 0 ? "-" : "") + char.ToLowerInvariant(c) : $"{c}"));

    public static string Write<T>(T content) => Writer.Serialize(content);
}
