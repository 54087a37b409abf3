using System.Text;
using System.Text.RegularExpressions;
using Fobble.Core.People;
using Fobble.Server.Features.ChildPage;
using Fobble.Server.Features.ClassList;
using Fobble.Server.Features.Records;
using Fobble.Server.Rooms;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>Children of one name, on every page that names them.</summary>
public sealed class NamesTests : IDisposable
{
    private const string Rowan = "/api/classes/1";
    private const string Silvas = "Name\nAna Silva\nAna Silva\nAna Souza\n";
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    [Fact]
    public async Task Children_of_one_name_are_asked_about_at_import_and_told_apart_from_then_on()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var asked = await Visitor.ReadAsync<ClassListPreview>(await ines.PostCsvAsync($"{Rowan}/class-list/preview", Silvas));
        asked.CanBeTaken.ShouldBeFalse();
        asked.Faults.ShouldHaveSingleItem().Reason.ShouldContain("give each a mark");
        asked.Children.Select(c => c.Shared).ShouldBe([true, true, false]);

        var marked = await Visitor.ReadAsync<ClassListPreview>(await ines.PostCsvAsync($"{Rowan}/class-list/preview?mark=2:B&mark=3:R", Silvas));
        marked.Children.Select(c => ShortNames.Typed(c.Name)).ShouldBe(["Ana Si. (B)", "Ana Si. (R)", "Ana So."]);
        (await ines.PostCsvAsync($"{Rowan}/class-list?mark=3:", Silvas)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Visitor.SaysAsync(await ines.PostCsvAsync($"{Rowan}/class-list?mark=B", Silvas))).ShouldContain("3:B");
        (await Visitor.ReadAsync<ClassListTaken>(await ines.PostCsvAsync($"{Rowan}/class-list?mark=2:B&mark=3:R", Silvas))).ShouldBe(new(3, 0));

        // The same list again adds nobody; a third one of the name is asked about.
        (await Visitor.ReadAsync<ClassListTaken>(await ines.PostCsvAsync($"{Rowan}/class-list?mark=2:B&mark=3:R", Silvas))).ShouldBe(new(0, 3));
        var third = await Visitor.ReadAsync<ClassListPreview>(await ines.PostCsvAsync($"{Rowan}/class-list/preview?mark=2:G", "Name\nAna Silva\n"));
        third.Children.ShouldHaveSingleItem().ShouldSatisfyAllConditions(c => c.Already.ShouldBeFalse(), c => ShortNames.Typed(c.Name).ShouldBe("Ana Si. (G)"));
    }

    [Fact]
    public async Task A_record_goes_to_the_child_whose_mark_it_names_and_comes_back_from_the_file()
    {
        var (ines, one, other) = await TwoAnasAsync();
        const string Lines =
            "Child,Skill,Day,Support\nana s. (b),count.say-5,2026-11-24,Alone\nAna S. (R),count.say-5,2026-11-24,Prompted\nAna S.,count.say-5,2026-11-24,Alone\n";
        var refused = await Visitor.ReadAsync<RecordsPreview>(await ines.PostCsvAsync($"{Rowan}/records/csv/preview", Lines));
        refused.Faults.ShouldHaveSingleItem().Row.ShouldBe(4);
        (await ines.PostCsvAsync($"{Rowan}/records/csv", Lines[..Lines.LastIndexOf("Ana S.,", StringComparison.Ordinal)])).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        (await ines.ReadAsync<ChildView>($"{Rowan}/children/{one}")).Seen.ShouldHaveSingleItem().Support.ToString().ShouldBe("Alone");
        (await ines.ReadAsync<ChildView>($"{Rowan}/children/{other}")).Seen.ShouldHaveSingleItem().Support.ToString().ShouldBe("Prompted");

        var back = await (await ines.GetAsync($"{Rowan}/records/csv")).Content.ReadAsStringAsync();
        back.ShouldContain("Ana S. (B)");
        (await Visitor.ReadAsync<RecordsPreview>(await ines.PostCsvAsync($"{Rowan}/records/csv/preview", back))).Faults.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_mark_can_be_changed_and_taken_away_later()
    {
        var (ines, one, _) = await TwoAnasAsync();
        (await ines.ReadAsync<ChildView>($"{Rowan}/children/{one}")).ShouldSatisfyAllConditions(c => c.SharesName.ShouldBeTrue(), c => c.Mark.ShouldBe("B"));
        (await ines.PutAsync($"{Rowan}/children/{one}/name", new Naming("Ana", "Silva", null, " K "))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        ShortNames.Typed((await ines.ReadAsync<ChildView>($"{Rowan}/children/{one}")).Name).ShouldBe("Ana S. (K)");
        (await Visitor.SaysAsync(await ines.PutAsync($"{Rowan}/children/{one}/name", new Naming("Ana", "Silva", null, "with the red shoes")))).ShouldContain(
            "12 letters"
        );
        (await ines.PutAsync($"{Rowan}/children/{one}/name", new Naming("Ana", "Silva", null, null))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        ShortNames.Typed((await ines.ReadAsync<ChildView>($"{Rowan}/children/{one}")).Name).ShouldBe("Ana S. (1)");
    }

    [Fact]
    public async Task A_name_and_a_birthday_are_put_right_and_the_record_stays_with_the_child()
    {
        var ines = await _school.ComeInAsAsync("ines");
        const string Child = $"{Rowan}/children/1";
        var before = await ines.ReadAsync<ChildView>(Child);
        var was = await ines.ReadAsync<Naming>($"{Child}/name");
        foreach (
            var (wrong, field) in new[]
            {
                (was with { GivenName = " " }, "givenName"),
                (was with { FamilyName = new string('x', 81) }, "familyName"),
                (was with { GivenName = "two\nlines" }, "givenName"),
                (was with { GivenName = "Ana 🦄" }, "givenName"),
                (was with { Born = School.Today }, "born"),
                (was with { Born = new(1, 1, 1) }, "born"),
                (was with { Mark = "with the red shoes" }, "mark"),
            }
        )
        {
            var refused = await ines.PutAsync($"{Child}/name", wrong);
            refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest, $"{wrong}");
            (await refused.Content.ReadAsStringAsync()).ShouldContain($"\"{field}\"");
        }

        (await ines.ReadAsync<Naming>($"{Child}/name")).ShouldBe(was, "a refused change changes nothing");
        var tomasz = await _school.ComeInAsAsync("tomasz");
        (await tomasz.GetAsync($"{Child}/name")).StatusCode.ShouldBe(HttpStatusCode.Forbidden, "whole names are for whoever may change them");
        (await ines.PutAsync($"{Child}/name", new Naming(" مريم ", "الخطيب", new(2021, 3, 4), null))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var after = await ines.ReadAsync<ChildView>(Child);
        ShortNames.Typed(after.Name).ShouldStartWith("مريم");
        (after.Born, after.SeenInAll).ShouldBe((new DateOnly(2021, 3, 4), before.SeenInAll));
        (await ines.ReadAsync<List<ChildName>>($"{Rowan}/children")).ShouldContain(c => c.Id == 1 && c.Name == after.Name);
        (await ines.PutAsync($"{Rowan}/children/40/name", was)).StatusCode.ShouldBe(HttpStatusCode.NotFound, "a child of another class");
    }

    [Fact]
    public async Task A_childs_file_is_not_given_to_one_of_two_by_chance()
    {
        var (ines, one, _) = await TwoAnasAsync();
        var file = await (await ines.GetAsync($"{Rowan}/children/{one}/file")).Content.ReadAsStringAsync();
        var answer = await ines.SendAsync(HttpMethod.Post, $"{Rowan}/child-file", new StringContent(file, Encoding.UTF8, "application/json"));
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync()).ShouldContain("two children called Ana Silva");
        (await ines.ReadAsync<List<ChildName>>($"{Rowan}/children")).Count.ShouldBe(28, "nobody was added");
    }

    [Fact]
    public async Task No_page_of_a_class_fails_because_two_children_share_a_name()
    {
        var (ines, one, other) = await TwoAnasAsync();
        (await ines.PutAsync($"{Rowan}/children/{one}/name", new Naming("Ana", "Silva", null, null))).EnsureSuccessStatusCode();
        (await ines.PutAsync($"{Rowan}/children/{other}/name", new Naming("Ana", "Silva", null, null))).EnsureSuccessStatusCode();
        var addresses = _school
            .Services.GetRequiredService<IEnumerable<EndpointDataSource>>()
            .SelectMany(s => s.Endpoints)
            .OfType<RouteEndpoint>()
            .Where(e => e.RoutePattern.RawText!.StartsWith("/api/classes/", StringComparison.Ordinal))
            .Where(e => e.Metadata.GetMetadata<HttpMethodMetadata>()!.HttpMethods.Contains("GET"))
            .Select(e => Filled(e.RoutePattern.RawText!, one))
            .ToList();
        addresses.Count.ShouldBeGreaterThan(40);
        foreach (var address in addresses)
        {
            ((int)(await ines.GetAsync(address)).StatusCode).ShouldBeLessThan(500, address);
        }
    }

    private static string Filled(string pattern, int child) => Regex.Replace(pattern, @"\{(\w+)(:[^}]*)?\}", m => m.Groups[1].Value switch
            {
                "classId" => "1",
                "childId" => $"{child}",
                "day" or "monday" or "from" => "2026-11-25",
                "skillId" => "see.to-3",
                "id" when m.Value.Contains("guid", StringComparison.Ordinal) => $"{Guid.NewGuid()}",
                _ => "1",
            });

    private async Task<(Visitor Ines, int One, int Other)> TwoAnasAsync()
    {
        var ines = await _school.ComeInAsAsync("ines");
        (await ines.PostCsvAsync($"{Rowan}/class-list?mark=2:B&mark=3:R", "Name\nAna Silva\nAna Silva\n")).EnsureSuccessStatusCode();
        var anas = (await ines.ReadAsync<List<ChildName>>($"{Rowan}/children")).Where(c => c.Name.StartsWith("Ana", StringComparison.Ordinal)).ToList();
        anas.Select(a => ShortNames.Typed(a.Name)).ShouldBe(["Ana S. (B)", "Ana S. (R)"]);
        return (ines, anas[0].Id, anas[1].Id);
    }
}
