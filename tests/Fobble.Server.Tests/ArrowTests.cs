using System.Reflection;
using System.Text.RegularExpressions;
using Fobble.Data;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using NetArchTest.Rules;

namespace Fobble.Server.Tests;

/// <summary>Between projects the arrows point inwards: Server → Data, Formats → Core. Within the server a class is read by its room and changed by a decision.</summary>
public partial class ArrowTests(School school) : IClassFixture<School>
{
    private static readonly IReadOnlyDictionary<string, string> Sources = ReadSources();

    [Theory]
    [InlineData(typeof(FobbleDb), new[] { "Fobble.Server", "Fobble.Formats" })]
    [InlineData(typeof(Formats.ClassLists.ClassListReader), new[] { "Fobble.Server", "Fobble.Data" })]
    public void A_project_knows_only_what_lies_further_in(Type of, string[] forbidden) =>
        (Types.InAssembly(of.Assembly).ShouldNot().HaveDependencyOnAny(forbidden).GetResult().FailingTypeNames ?? []).ShouldBeEmpty();

    [Fact]
    public void Security_knows_no_feature() =>
        (
            Types
                .InAssembly(typeof(Program).Assembly)
                .That()
                .ResideInNamespace("Fobble.Server.Security")
                .ShouldNot()
                .HaveDependencyOn("Fobble.Server.Features")
                .GetResult()
                .FailingTypeNames
            ?? []
        ).ShouldBeEmpty();

    /// <summary>A handler of a class gets a room, which can't write, and decisions, which check inside; never the database itself.</summary>
    [Fact]
    public void No_address_of_a_class_is_handed_the_database()
    {
        var handlers = school
            .Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Where(e => e.RoutePattern.RawText!.Contains("{classId", StringComparison.Ordinal))
            .Select(e => e.Metadata.GetMetadata<MethodInfo>()!)
            .ToList();
        handlers.Count.ShouldBeGreaterThan(100);
        handlers.Where(h => h.GetParameters().Any(p => p.ParameterType == typeof(FobbleDb))).Select(h => $"{h.DeclaringType}.{h.Name}").ShouldBeEmpty();
    }

    [Fact]
    public void No_part_of_a_feature_holds_the_database()
    {
        // The hub has no class of a request: it asks whether whoever listens may.
        var holders = typeof(Program)
            .Assembly.GetTypes()
            .Where(t => t.Namespace?.StartsWith("Fobble.Server.Features", StringComparison.Ordinal) == true)
            .Where(t =>
                t.GetConstructors(BindingFlags.Instance | BindingFlags.Public | BindingFlags.NonPublic)
                    .Any(c => c.GetParameters().Any(p => p.ParameterType == typeof(FobbleDb)))
            );
        holders.Select(t => t.Name).ShouldBe(["LiveHub"]);
    }

    [Fact]
    public void Every_folder_of_the_features_registers_itself() =>
        Sources
            .Keys.Where(f => f.StartsWith("Features/", StringComparison.Ordinal) && f.Count(c => c == '/') == 2)
            .Select(f => f.Split('/')[1])
            .Distinct()
            .ShouldBe(
                typeof(Program).Assembly.GetTypes().Where(t => t.IsAssignableTo(typeof(IFeature)) && t.IsClass).Select(t => t.Namespace!.Split('.')[^1]),
                ignoreOrder: true
            );

    /// <summary>Whoever goes around the room's sessions shows sets that were replaced. Let in: whether a skill or an activity is spoken of anywhere, and what a decision writes.</summary>
    [Fact]
    public void Sessions_are_read_through_the_room() =>
        Using("GroupSessions")
            .ShouldBe([
                "Features/Activities/OwnActivities.cs",
                "Features/Clipboard/Recorder.cs",
                "Features/Groups/DayReform.cs",
                "Features/Groups/GroupsFeature.cs",
                "Features/SkillMaps/SkillMapsFeature.cs",
                "Rooms/ClassRoom.Facts.cs",
                "Rooms/Moving.cs",
            ]);

    /// <summary>The first start has no class yet, and a room's transaction only reads.</summary>
    [Fact]
    public void Nobody_commits_but_a_decision() =>
        Using("BeginTransaction|CommitAsync").ShouldBe(["Features/Account/AccountFeature.cs", "Rooms/ClassRoom.cs", "Rooms/Decisions.cs"]);

    /// <summary>
    /// A refusal has a type of its own; what .NET throws is a fault of the program and never a message for a teacher. The reader of settings has no other word for one
    /// that makes no sense, and speaks to whoever starts the server.
    /// </summary>
    [Fact]
    public void Nobody_takes_a_fault_of_the_program_for_a_message() =>
        Using(@"catch \((Argument|Format|InvalidOperation|KeyNotFound|Overflow)\w*Exception").ShouldBe(["Hosting/FobbleSettings.cs"]);

    /// <summary>Hours, minutes, zones and numbers of days are reckoned in the core; a feature reads from Monday to Sunday and shows.</summary>
    [Fact]
    public void Features_reckon_no_time() =>
        Using(
                @"\.(AddMinutes|AddHours|AddSeconds|TotalMinutes|TotalHours|TotalDays|DayNumber|UtcDateTime|LocalDateTime|ToLocalTime|GetUtcOffset|Offset)\b|DateTime(Offset)?\.(Now|UtcNow|Today)|TimeZoneInfo"
            )
            .Where(f => f.StartsWith("Features/", StringComparison.Ordinal) || f.StartsWith("Rooms/", StringComparison.Ordinal))
            .ShouldBeEmpty();

    private static List<string> Using(string pattern) =>
        [
            .. Sources
                .Where(f => !f.Key.StartsWith("Demo/", StringComparison.Ordinal) && Regex.IsMatch(f.Value, pattern))
                .Select(f => f.Key)
                .Order(StringComparer.Ordinal),
        ];

    private static Dictionary<string, string> ReadSources()
    {
        var root = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(root.FullName, "Fobble.slnx")))
        {
            root = root.Parent!;
        }

        var server = Path.Combine(root.FullName, "src", "Fobble.Server");
        return Directory
            .EnumerateFiles(server, "*.cs", SearchOption.AllDirectories)
            .Select(f => (Name: Path.GetRelativePath(server, f).Replace('\\', '/'), f))
            .Where(f => !f.Name.StartsWith("obj/", StringComparison.Ordinal) && !f.Name.StartsWith("bin/", StringComparison.Ordinal))
            .ToDictionary(f => f.Name, f => Comments().Replace(File.ReadAllText(f.f), ""));
    }

    [GeneratedRegex("//.*")]
    private static partial Regex Comments();
}
