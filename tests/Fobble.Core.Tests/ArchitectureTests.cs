using NetArchTest.Rules;

namespace Fobble.Core.Tests;

/// <summary>The arrows inside the core (docs/architecture.md): a folder may use those before it in this list, never one after it.</summary>
public class ArchitectureTests
{
    private static readonly (string Folder, string[] MayUse)[] Arrows =
    [
        ("Numbers", []),
        ("Calendars", []),
        ("People", []),
        ("Pictures", ["Numbers"]),
        ("Approaches", ["Numbers", "Pictures"]),
        ("Chance", ["Numbers"]),
        ("GuessJar", ["Numbers"]),
        ("ItemSets", ["Numbers", "Pictures", "Approaches"]),
        ("Skills", ["Numbers", "Calendars", "ItemSets"]),
        ("Standards", ["Skills"]),
        ("Cupboard", []),
        ("Strategies", ["Numbers", "Pictures", "Approaches", "Skills"]),
        ("Stories", ["Numbers", "Pictures", "Approaches"]),
        ("Mats", ["Numbers", "Pictures", "Approaches"]),
        ("Sheets", ["Numbers", "Pictures", "Approaches", "ItemSets", "Stories"]),
        ("Activities", ["Numbers", "Chance", "ItemSets", "Skills", "Sheets", "Cupboard"]),
        ("Evidence", ["Numbers", "Approaches", "Calendars", "Skills"]),
        ("Agreement", ["Skills", "Evidence"]),
        ("Portraits", ["Numbers", "Calendars", "ItemSets", "Skills", "Activities", "Evidence"]),
        ("Reports", ["Numbers", "Calendars", "Approaches", "Pictures", "Sheets", "Skills", "Activities", "Evidence", "Portraits"]),
        ("Planning", ["Numbers", "Approaches", "Calendars", "ItemSets", "Skills", "Standards", "Cupboard", "Activities", "Evidence"]),
        ("Grouping", ["Numbers", "Approaches", "Calendars", "ItemSets", "Skills", "Evidence"]),
        ("Sessions", ["Numbers", "Pictures", "Approaches", "Calendars", "ItemSets", "Mats", "Stories", "Skills", "Cupboard", "Activities", "Evidence"]),
        ("Baseline", ["Numbers", "Pictures", "Approaches", "Calendars", "ItemSets", "Skills", "Cupboard", "Activities", "Evidence", "Sessions"]),
        ("SettingOut", ["Numbers", "Calendars", "Approaches", "ItemSets", "Skills", "Sheets", "Cupboard", "Activities", "Evidence", "Planning", "Sessions"]),
        ("Gates", ["Numbers", "Chance", "ItemSets", "Stories", "Skills", "Sheets", "Cupboard", "Activities"]),
        ("MadeUpClass", ["Numbers", "Calendars", "ItemSets", "Skills", "Activities", "Evidence", "Planning", "Grouping"]),
    ];

    public static TheoryData<string, string[]> Folders =>
        [.. Arrows.Select(a => (a.Folder, Arrows.Select(o => o.Folder).Where(o => o != a.Folder && !a.MayUse.Contains(o)).ToArray()))];

    [Theory]
    [MemberData(nameof(Folders))]
    public void A_folder_uses_only_what_lies_further_in(string folder, string[] forbidden)
    {
        var result = Types
            .InAssembly(typeof(Core.Skills.Skill).Assembly)
            .That()
            .ResideInNamespace($"Fobble.Core.{folder}")
            .ShouldNot()
            .HaveDependencyOnAny([.. forbidden.Select(f => $"Fobble.Core.{f}")])
            .GetResult();
        (result.FailingTypeNames ?? []).ShouldBeEmpty();
    }

    [Fact]
    public void The_core_knows_no_web_no_database_and_no_other_project_of_ours()
    {
        var result = Types
            .InAssembly(typeof(Core.Skills.Skill).Assembly)
            .ShouldNot()
            .HaveDependencyOnAny("Microsoft.AspNetCore", "Microsoft.EntityFrameworkCore", "Fobble.Data", "Fobble.Formats", "Fobble.Server")
            .GetResult();
        (result.FailingTypeNames ?? []).ShouldBeEmpty();
    }

    [Fact]
    public void Every_folder_has_its_arrows_written_down()
    {
        var folders = typeof(Core.Skills.Skill)
            .Assembly.GetTypes()
            .Select(t => t.Namespace)
            .OfType<string>()
            .Where(n => n.StartsWith("Fobble.Core.", StringComparison.Ordinal))
            .Select(n => n.Split('.')[2])
            .Distinct();
        folders.ShouldBeSubsetOf(Arrows.Select(a => a.Folder));
    }
}
