using System.Text;
using System.Text.Json;
using Fobble.Core.Calendars;
using Fobble.Core.Skills;
using Fobble.Formats.SkillMaps;

namespace Fobble.Formats.Tests;

/// <summary>The map as a file and back: 1EdTech CASE 1.0 (names of fields and of kinds of association from memory) and CSV.</summary>
public class SkillMapFileTests
{
    private static readonly SkillMap Shipped = SkillMapLoader.AsWritten();
    private static readonly DateTimeOffset When = new(2026, 11, 25, 9, 0, 0, TimeSpan.Zero);

    // What ships, with something hidden, something changed and a skill whose words try the format.
    private static readonly IReadOnlyList<Skill> Written = new SchoolMap(
        Shipped,
        [
            new(new("bond.hidden-5"), true, null),
            new(new("count.say-5"), false, Shipped[new("count.say-5")] with { When = Season.Summer, Words = ["one; two", "a, “b” and \"c\"", "naïve – ten"] }),
            new(
                new("own.lemons"),
                false,
                Shipped[new("bond.all-5")] with
                {
                    Id = new("own.lemons"),
                    Short = "Lemons, \"all\"",
                    ICan = "I can count {fewer} lemons: all,\n\"of\" them.",
                    Needs = [new("bond.hidden-5")],
                    Standards = [],
                }
            ),
        ]
    ).Written;

    private static string Case(IReadOnlyList<Skill>? skills = null) => CaseFile.Write(Shipped.Strands, skills ?? Written, "Lantern Hill School", When);

    private static IEnumerable<string> Texts(IEnumerable<Skill> skills) => skills.Select(SkillMapLoader.WriteOne);

    [Fact]
    public void Case_and_back_loses_nothing()
    {
        var reading = CaseFile.Read(Encoding.UTF8.GetBytes(Case()));
        reading.Faults.ShouldBeEmpty();
        Texts(reading.Skills).ShouldBe(Texts(Written));
    }

    [Fact]
    public void Csv_and_back_loses_nothing()
    {
        // A list in a cell is divided by semicolons, so a word can't hold one; everything else can be anything.
        var written = Written.Select(s => s with { Words = [.. s.Words.Select(w => w.Replace(";", ",", StringComparison.Ordinal))] }).ToList();
        var reading = SkillMapCsv.Read(Encoding.UTF8.GetBytes(SkillMapCsv.Write(written)));
        reading.Faults.ShouldBeEmpty();
        Texts(reading.Skills).ShouldBe(Texts(written));
    }

    [Fact]
    public void A_package_has_the_parts_and_fields_that_the_standard_asks_for()
    {
        using var package = JsonDocument.Parse(Case());
        var root = package.RootElement;
        foreach (var field in (string[])["identifier", "uri", "creator", "title", "lastChangeDateTime", "CFPackageURI"])
        {
            root.GetProperty("CFDocument").TryGetProperty(field, out _).ShouldBeTrue(field);
        }

        var items = root.GetProperty("CFItems").EnumerateArray().ToList();
        items.Count.ShouldBe(Shipped.Strands.Count + Written.Count);
        items.Select(i => i.GetProperty("identifier").GetGuid()).ShouldBeUnique();
        items.ShouldAllBe(i =>
            i.GetProperty("fullStatement").GetString()!.Length > 0
            && i.GetProperty("uri").GetString()!.Length > 0
            && i.GetProperty("lastChangeDateTime").GetDateTimeOffset() == When
        );
        var known = items.Select(i => i.GetProperty("identifier").GetString()).ToHashSet();
        var associations = root.GetProperty("CFAssociations").EnumerateArray().ToList();
        associations.Select(a => a.GetProperty("identifier").GetGuid()).ShouldBeUnique();
        associations.Select(a => a.GetProperty("associationType").GetString()).Distinct().Order().ShouldBe(["isChildOf", "isRelatedTo", "precedes"]);
        associations
            .Where(a => a.GetProperty("associationType").GetString() != "isRelatedTo")
            .ShouldAllBe(a =>
                known.Contains(a.GetProperty("originNodeURI").GetProperty("identifier").GetString())
                && known.Contains(a.GetProperty("destinationNodeURI").GetProperty("identifier").GetString())
            );
        associations.Count(a => a.GetProperty("associationType").GetString() == "precedes").ShouldBe(Written.Sum(s => s.Needs.Count));
    }

    [Fact]
    public void What_was_changed_in_the_file_counts_more_than_the_notes()
    {
        var changed = Case().Replace("\"I can count in twos.\"", "\"I can count in pairs.\"", StringComparison.Ordinal);
        CaseFile.Read(Encoding.UTF8.GetBytes(changed)).Skills.Single(s => s.Id.Value == "count.twos").ICan.ShouldBe("I can count in pairs.");
        var csv = SkillMapCsv.Write(Written).Replace(",Beyond,", ",Summer,", StringComparison.Ordinal);
        SkillMapCsv.Read(Encoding.UTF8.GetBytes(csv)).Skills.ShouldAllBe(s => s.When != Season.Beyond);
    }

    [Theory]
    [InlineData("not json", "no JSON")]
    [InlineData("{\"CFDocument\":{}}", "CFItems or CFAssociations is missing")]
    [InlineData("{\"CFItems\":[],\"CFAssociations\":[]}", "no item of the type Skill")]
    [InlineData("{\"CFItems\":[{\"identifier\":\"a\",\"CFItemType\":\"Skill\",\"humanCodingScheme\":\"x.y\"}],\"CFAssociations\":[]}", "x.y has no notes")]
    [InlineData("{\"CFItems\":[{\"identifier\":\"a\"},{\"identifier\":\"a\"}],\"CFAssociations\":[]}", "an identifier is there twice")]
    public void A_package_that_is_none_is_refused_with_a_reason(string file, string reason) =>
        CaseFile.Read(Encoding.UTF8.GetBytes(file)).Faults.ShouldContain(f => f.Reason.Contains(reason, StringComparison.Ordinal));

    [Theory]
    [InlineData("Name,Season\nx,y", 1, "no column “Id”")]
    [InlineData("", 1, "empty")]
    [InlineData("Id,When,Whole\ncount.x,Autumn,", 2, "empty")]
    public void A_table_that_is_no_map_says_where(string file, int row, string reason)
    {
        var fault = SkillMapCsv.Read(Encoding.UTF8.GetBytes(file)).Faults.ShouldHaveSingleItem();
        fault.Row.ShouldBe(row);
        fault.Reason.ShouldContain(reason);
    }

    [Fact]
    public void A_season_that_is_none_is_named_with_its_line()
    {
        var csv = SkillMapCsv.Write(Written.Take(2)).Replace(",Summer,", ",Winter,", StringComparison.Ordinal);
        SkillMapCsv
            .Read(Encoding.UTF8.GetBytes(csv))
            .Faults.ShouldContain(f => f.Row > 1 && f.Reason.Contains("“Winter” is no season", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("6ba7b810-9dad-11d1-80b4-00c04fd430c8", "www.example.com", "2ed6657d-e927-568b-95e1-2665a8aea6a2")] // RFC 9562, appendix A.4
    public void Identifiers_follow_from_names_as_in_the_published_example(string space, string name, string id) =>
        NameUuid.Of(new(space), name).ShouldBe(new Guid(id));
}
