using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Formats.Records;

/// <summary>A child with its record, to be handed on to another class or school. The form is published: <c>child-file.schema.json</c>.</summary>
public sealed record ChildFile(
    string Format,
    int Version,
    DateOnly Made,
    FileFrom From,
    FileChild Child,
    IReadOnlyList<FileSkill> Skills,
    IReadOnlyList<FileObservation> Observations,
    IReadOnlyList<FileCheck> Checks
)
{
    public const string FormatName = "fobble-child";
    public const int CurrentVersion = 1;
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        RespectNullableAnnotations = true,
        RespectRequiredConstructorParameters = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
    };

    /// <summary>The schema (JSON Schema 2020-12) that every file keeps to.</summary>
    public static string Schema
    {
        get
        {
            using StreamReader reader = new(typeof(ChildFile).Assembly.GetManifestResourceStream("child-file.schema.json")!);
            return reader.ReadToEnd();
        }
    }

    public byte[] Write() => JsonSerializer.SerializeToUtf8Bytes(this, Json);

    /// <returns>The file, or what is wrong with it.</returns>
    public static (ChildFile? File, IReadOnlyList<string> Faults) Read(byte[] bytes, DateOnly today)
    {
        if (JsonLists.HoldNothing(bytes))
        {
            return (null, [Phrase("This is no child’s file, or it is damaged: a list in it holds nothing at one of its places.")]);
        }

        ChildFile? file;
        try
        {
            file = JsonSerializer.Deserialize<ChildFile>(bytes, Json);
        }
        catch (JsonException fault)
        {
            return (
                null,
                [
                    Phrase(
                        $"This is no child’s file, or it is damaged{(fault.LineNumber is { } line ? string.Create(CultureInfo.InvariantCulture, $" (line {line + 1}{(fault.Path is { Length: > 1 } path ? $", {path[2..]}" : "")})") : "")}."
                    ),
                ]
            );
        }

        if (file is not { Format: FormatName })
        {
            return (null, [Phrase("This is no child’s file.")]);
        }

        if (file.Version != CurrentVersion)
        {
            return (null, [Phrase($"The file is of version {file.Version}; this Fobble reads version {CurrentVersion}.")]);
        }

        List<string> faults = [];
        if (string.IsNullOrWhiteSpace(file.Child.GivenName) || file.Child.GivenName.Length > 60 || file.Child.FamilyName.Length > 60)
        {
            faults.Add(Phrase("The child’s name is missing or too long."));
        }

        faults.AddRange(
            file.Observations.GroupBy(o => o.Id).Where(g => g.Count() > 1).Take(3).Select(g => Phrase($"Observation {g.Key} is there {g.Count()} times."))
        );
        faults.AddRange(
            file.Observations.Where(o => o.Day > today).Take(3).Select(o => Phrase($"Observation {o.Id} is of a day still to come, {o.Day:yyyy-MM-dd}."))
        );
        faults.AddRange(
            file.Observations.Where(o =>
                    (o.Note?.Length ?? 0) > 500
                    || (o.Numbers?.Length ?? 0) > 40
                    || o.Skill.Length is 0 or > 80
                    || (o.Slip?.Length ?? 0) > 80
                    || (o.Strategy?.Length ?? 0) > 80
                    || o.SeenBy.Length > 120
                    || (o.Withdrawn?.Why.Length ?? 0) > 500
                )
                .Take(3)
                .Select(o => Phrase($"Observation {o.Id} has a text that is too long, or no skill."))
        );
        return (faults.Count == 0 ? file : null, faults);
    }
}

/// <param name="School">Where the record was kept.</param>
public sealed record FileFrom(string School, string Class);

public sealed record FileChild(string GivenName, string FamilyName, DateOnly? Born = null);

/// <summary>Where the child stood when the file was made, for those who read it without Fobble.</summary>
public sealed record FileSkill(string Id, string ICan, int Strength, bool LookAgain, DateOnly? SecureSince = null);

public sealed record FileObservation(
    Guid Id,
    string Skill,
    DateTimeOffset At,
    DateOnly Day,
    string SeenBy,
    Setting Setting,
    Support Support,
    Representation Representation,
    string? Numbers = null,
    string? Slip = null,
    string? Strategy = null,
    string? Note = null,
    FileWithdrawal? Withdrawn = null
);

public sealed record FileWithdrawal(DateTimeOffset At, string By, string Why);

/// <param name="Inferred">By skill the chance, 0 to 1, that the child had it.</param>
public sealed record FileCheck(DateOnly Day, IReadOnlyDictionary<string, double> Inferred, string? Strand = null);
