using Fobble.Core.Skills;
using Fobble.Core.Standards;

namespace Fobble.Core.Tests.Standards;

/// <summary>
/// The map against what is published: CCSSM 2010 (K.CC, K.OA, K.NBT, 1.OA, 1.NBT), England's EYFS 2021 early learning goals and
/// National curriculum 2013, year 1. Statements in short, from memory.
/// </summary>
public class CoverageTests
{
    private static readonly SkillMap Map = SkillMapLoader.Shipped();

    [Fact]
    public void All_published_statements_are_on_the_list()
    {
        // Counted in the documents, lettered parts one by one: K.CC 9, K.OA 5, K.NBT 1; 1.OA 8; 1.NBT 9; EYFS three and three; year 1 five and four.
        Framework.Shipped.Select(f => f.Standards.Count).ShouldBe([15 + 17 + 3, 6, 9]);
        Framework.Shipped.SelectMany(f => f.Standards).Select(s => s.Code).ShouldBeUnique();
    }

    [Fact]
    public void Every_standard_is_reached_by_a_skill() =>
        Framework.Shipped.SelectMany(f => f.Standards).Where(s => Coverage.Reaching(Map, s.Code).Count == 0).Select(s => s.Code).ShouldBeEmpty();

    [Fact]
    public void No_skill_names_a_standard_that_does_not_exist() =>
        Map.Skills.SelectMany(s => s.Standards).Where(code => Framework.Find(code) is null).ShouldBeEmpty();

    [Fact]
    public void Every_skill_of_the_year_serves_a_standard() => Map.Skills.Where(s => s.Standards.Count == 0).ShouldBeEmpty();

    /// <summary>FOBBLE_WRITE_DOCS=1 (that is <c>./fobble standards</c>) writes the page instead of comparing it.</summary>
    [Fact]
    public void The_page_in_docs_is_what_the_content_says()
    {
        var root = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(root.FullName, "Fobble.slnx")))
        {
            root = root.Parent!;
        }

        var page = Path.Combine(root.FullName, "docs", "standards.md");
        if (Environment.GetEnvironmentVariable("FOBBLE_WRITE_DOCS") == "1")
        {
            File.WriteAllText(page, Coverage.AsMarkdown(Map));
        }

        File.ReadAllText(page).ShouldBe(Coverage.AsMarkdown(Map));
    }
}
