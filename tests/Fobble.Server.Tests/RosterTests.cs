using System.Net.Http.Headers;
using System.Text;
using Fobble.Core.People;
using Fobble.Data.Model;
using Fobble.Formats.Rosters;
using Fobble.Server.Features.ChildPage;
using Fobble.Server.Features.WholeSchool;
using Fobble.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>Lists of the school's office, night after night: what they propose, what is decided, and that nothing goes by a file.</summary>
public sealed class RosterTests : IDisposable
{
    private const string Address = "/api/school/roster";
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private static Task<HttpResponseMessage> SendAsync(Visitor head, byte[] file, string name = "list.zip")
    {
        ByteArrayContent body = new(file);
        body.Headers.ContentType = new MediaTypeHeaderValue("application/zip");
        return head.SendAsync(HttpMethod.Post, $"{Address}?name={Uri.EscapeDataString(name)}", body);
    }

    private static async Task<RosterView> BringInAsync(Visitor head, params OfficeChild[] children) =>
        await Visitor.ReadAsync<RosterView>(await SendAsync(head, FileOf(children)));

    private static byte[] FileOf(params OfficeChild[] children) =>
        OneRosterWriter.Write(
            new("o", "Kettle Lane", new(2026, 9, 1), new(2027, 7, 20), [], new([new("k1", "Willow"), new("k2", "Hazel")], children), []),
            School.Today
        );

    private static Task<HttpResponseMessage> AnswerAsync(Visitor head, params RosterAnswer[] answers) =>
        head.PostAsync($"{Address}/answers", new RosterAnswers(answers));

    private static async Task<RosterView> DoAllAsync(Visitor head, RosterView view) =>
        await Visitor.ReadAsync<RosterView>(await AnswerAsync(head, [.. view.Proposals.Select(p => new RosterAnswer(p.Id, true, null))]));

    private static async Task<RosterView> NextNightAsync(Visitor head) => await Visitor.ReadAsync<RosterView>(await head.PostAsync($"{Address}/stand-in"));

    private static async Task<IReadOnlyList<string>> InAsync(Visitor head, string room) =>
        [.. (await head.ReadAsync<ChildrenOfSchoolView>("/api/school/children")).Classes.Single(c => c.Name == room).Children.Select(c => c.Name)];

    [Fact]
    public async Task The_made_up_office_drops_a_list_each_night_and_each_is_decided()
    {
        var ines = await _school.ComeInAsAsync("ines");
        (await ines.ReadAsync<RosterView>(Address)).Taken.ShouldBeNull();

        var first = await NextNightAsync(ines);
        first.Proposals.Count.ShouldBe(50);
        first.Proposals.ShouldAllBe(p => p.Kind == ProposalKind.Same);
        (await DoAllAsync(ines, first)).Proposals.ShouldBeEmpty();

        var joined = (await NextNightAsync(ines)).Proposals.ShouldHaveSingleItem();
        joined.Sentence.ShouldBe("Ilse Brandvold is new on the list, in Rowan.");
        (await InAsync(ines, "Rowan")).ShouldNotContain("Ilse Brandvold", "a list only proposes");
        await DoAllAsync(ines, await ines.ReadAsync<RosterView>(Address));
        (await InAsync(ines, "Rowan")).ShouldContain("Ilse Brandvold");

        var left = await NextNightAsync(ines);
        left.Proposals.ShouldHaveSingleItem().Sentence.ShouldBe("Edie Marlow of Rowan is on the list no more.");
        await DoAllAsync(ines, left);
        var gone = (await ines.ReadAsync<ChildrenOfSchoolView>("/api/school/children")).Left.ShouldHaveSingleItem();
        (gone.Name, gone.LeftOn).ShouldBe(("Edie Marlow", School.Today));
        gone.KeptUntil.ShouldBe((await ines.ReadAsync<ChildrenOfSchoolView>("/api/school/children")).UsuallyKeptUntil);

        var broken = await NextNightAsync(ines);
        broken.Refused.ShouldNotBeNull().Faults.ShouldHaveSingleItem().Reason.ShouldBe("This is no zip, or only a part of one.");
        (broken.Taken!.FileName, broken.Refused!.FileName).ShouldBe(("roster-003.zip", "roster-004.zip"), "the one before stays");
        broken.Proposals.ShouldBeEmpty();

        var fifth = await NextNightAsync(ines);
        fifth.Refused.ShouldBeNull();
        fifth
            .Proposals.Select(p => p.Sentence)
            .ShouldBe(["Isla Drummond is in Alder on the list, and in Rowan here.", "Luca Bartos is called Luca Bartos-Voss on the list."]);
        (await DoAllAsync(ines, fifth)).Proposals.ShouldBeEmpty();
        (await InAsync(ines, "Alder")).ShouldContain("Isla Drummond");
        (await InAsync(ines, "Rowan")).ShouldContain("Luca Bartos-Voss");
    }

    [Fact]
    public async Task Outside_the_demo_there_is_no_made_up_office()
    {
        using var empty = School.Empty();
        var head = await empty.BeginAsync();
        (await head.PostAsync($"{Address}/stand-in")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await head.ReadAsync<RosterView>(Address)).StandIn.ShouldBeFalse();
    }

    private static readonly OfficeChild Ada = new("c1", "Ada", "Okafor", new(2021, 3, 4), ["k1"]);
    private static readonly OfficeChild Bo = new("c2", "Bo", "Lund", null, ["k1"]);

    // Willow, with Ada Okafor and Bo Lund, who are keyed, and Cai Reyes, whom the office does not have.
    private static async Task<(School School, Visitor Head)> WillowAsync()
    {
        var school = School.Empty();
        var head = await school.BeginAsync();
        await head.PostCsvAsync("/api/classes/1/class-list", "Name,Born\nAda Okafor,2021-03-04\nBo Lund,\nCai Reyes,\n");
        var view = await BringInAsync(head, Ada, Bo);
        var same = view.Proposals.Where(p => p.Kind == ProposalKind.Same).Select(p => new RosterAnswer(p.Id, true, null)).ToArray();
        same.Length.ShouldBe(2);
        await AnswerAsync(head, same);
        return (school, head);
    }

    [Fact]
    public async Task What_is_left_so_is_not_asked_again_until_the_list_has_said_something_else()
    {
        var (school, head) = await WillowAsync();
        using var _ = school;
        var ada = Ada with { FamilyName = "Marsh" };
        var view = await BringInAsync(head, ada, Bo);
        var renamed = view.Proposals.Single(p => p.Kind == ProposalKind.Renamed);
        renamed.Sentence.ShouldBe("Ada Okafor is called Ada Marsh on the list.");
        var after = await Visitor.ReadAsync<RosterView>(await AnswerAsync(head, new RosterAnswer(renamed.Id, false, null)));
        (after.LeftSo, after.Proposals.Any(p => p.Id == renamed.Id)).ShouldBe((1, false));
        (await BringInAsync(head, ada, Bo)).Proposals.ShouldNotContain(p => p.Id == renamed.Id, "the next night says the same");
        (await BringInAsync(head, ada with { FamilyName = "Marsh-Okafor" }, Bo)).Proposals.ShouldContain(p => p.Kind == ProposalKind.Renamed);
        (await BringInAsync(head, ada, Bo)).Proposals.ShouldContain(p => p.Id == renamed.Id);
        await AnswerAsync(head, new RosterAnswer(renamed.Id, false, null));
        (await Visitor.ReadAsync<RosterView>(await head.SendAsync(HttpMethod.Delete, $"{Address}/left-so"))).Proposals.ShouldContain(p => p.Id == renamed.Id);
        (await InAsync(head, "Willow")).ShouldContain("Ada Okafor");
    }

    [Fact]
    public async Task One_that_is_new_on_the_list_can_be_somebody_who_is_here_under_another_name()
    {
        var (school, head) = await WillowAsync();
        using var _ = school;
        var view = await BringInAsync(head, Ada, Bo, Ada with { Key = "c3", GivenName = "Caius", FamilyName = "Reyes" });
        var joined = view.Proposals.Single(p => p.Kind == ProposalKind.Joined);
        var cai = view.Open.ShouldHaveSingleItem();
        cai.Name.ShouldBe("Cai Reyes");
        (await AnswerAsync(head, new RosterAnswer(joined.Id, true, 1))).StatusCode.ShouldBe(HttpStatusCode.BadRequest, "Ada is somebody else's");
        var after = await Visitor.ReadAsync<RosterView>(await AnswerAsync(head, new RosterAnswer(joined.Id, true, cai.Id)));
        after.Proposals.ShouldHaveSingleItem().Sentence.ShouldBe("Cai Reyes is called Caius Reyes on the list.");
        (await InAsync(head, "Willow")).Count.ShouldBe(3);
    }

    [Fact]
    public async Task What_has_changed_meanwhile_is_refused_and_nothing_of_it_is_done()
    {
        var (school, head) = await WillowAsync();
        using var _ = school;
        var view = await BringInAsync(head, Ada, Ada with { Key = "c4", GivenName = "Dai", FamilyName = "Haas" });
        var all = view.Proposals.Select(p => new RosterAnswer(p.Id, true, null)).ToArray();
        all.Length.ShouldBe(3);
        await BringInAsync(head, Ada);
        var answer = await AnswerAsync(head, all);
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await answer.Content.ReadAsStringAsync()).ShouldContain("has changed meanwhile");
        (await InAsync(head, "Willow")).ShouldBe(["Ada Okafor", "Bo Lund", "Cai Reyes"]);
        (await AnswerAsync(head, all[0], all[0])).StatusCode.ShouldBe(HttpStatusCode.BadRequest, "twice the same");
    }

    [Fact]
    public async Task The_same_answer_sent_many_times_at_once_is_done_once()
    {
        var (school, head) = await WillowAsync();
        using var _ = school;
        var view = await BringInAsync(head, Ada, Ada with { Key = "c4", GivenName = "Dai", FamilyName = "Haas" });
        var dai = new RosterAnswer(view.Proposals.Single(p => p.Kind == ProposalKind.Joined).Id, true, null);
        var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => AnswerAsync(head, dai)));
        answers.Count(a => a.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        answers.Where(a => a.StatusCode != HttpStatusCode.OK).ShouldAllBe(a => a.StatusCode == HttpStatusCode.BadRequest);
        (await InAsync(head, "Willow")).Count(n => n == "Dai Haas").ShouldBe(1);
    }

    [Fact]
    public async Task A_child_that_can_t_be_or_has_letters_no_font_has_is_said_and_refused()
    {
        var (school, head) = await WillowAsync();
        using var _ = school;
        var view = await BringInAsync(
            head,
            Ada,
            Ada with
            {
                Key = "c4",
                GivenName = "\U00012000",
                FamilyName = "Haas",
            },
            Ada with
            {
                Key = "c5",
                GivenName = "Eli",
                Born = new(1990, 1, 1),
            }
        );
        var wrong = view.Proposals.Where(p => p.Kind == ProposalKind.Joined).ToList();
        wrong.Count.ShouldBe(2);
        wrong.ShouldAllBe(p => p.CantBe != null);
        foreach (var one in wrong)
        {
            (await AnswerAsync(head, new RosterAnswer(one.Id, true, null))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        }

        (await InAsync(head, "Willow")).Count.ShouldBe(3);
    }

    [Fact]
    public async Task A_class_of_another_name_is_named_by_somebody_and_kept_when_its_name_changes()
    {
        var (school, head) = await WillowAsync();
        using var _ = school;
        (await head.PutAsync("/api/school/classes/1", new ClassName("Robins"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await head.ReadAsync<RosterView>(Address)).Classes.Single().Office!.Title.ShouldBe("Willow", "known by its key since the first decision");
        var made = await Visitor.ReadAsync<int>(await head.PostAsync("/api/school/classes", new NewClass("Wrens", 1, null)));
        var view = await BringInAsync(head, Ada, Ada with { Key = "c7", GivenName = "Gus", Classes = ["k2"] });
        view.Proposals.ShouldNotContain(p => p.Kind == ProposalKind.Joined, "Hazel is no class here");
        view.Free.ShouldHaveSingleItem().Title.ShouldBe("Hazel");
        (await head.PutAsync($"{Address}/classes/{made}", new OfficeClassOf("k1"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest, "it is another's");
        (await head.PutAsync($"{Address}/classes/{made}", new OfficeClassOf("k8"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await head.PutAsync($"{Address}/classes/{made}", new OfficeClassOf("k2"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        view = await head.ReadAsync<RosterView>(Address);
        view.Proposals.Single(p => p.Kind == ProposalKind.Joined).Sentence.ShouldBe("Gus Okafor is new on the list, in Wrens.");
    }

    [Fact]
    public async Task What_goes_out_comes_in_again_and_says_the_same()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var file = await (await ines.GetAsync($"{Address}/file")).Content.ReadAsByteArrayAsync(Stop);
        var view = await Visitor.ReadAsync<RosterView>(await SendAsync(ines, file));
        view.Proposals.Count.ShouldBe(50);
        view.Proposals.ShouldAllBe(p => p.Kind == ProposalKind.Same);
        (await DoAllAsync(ines, view)).Proposals.ShouldBeEmpty();
        (
            await Visitor.ReadAsync<RosterView>(await SendAsync(ines, await (await ines.GetAsync($"{Address}/file")).Content.ReadAsByteArrayAsync(Stop)))
        ).Proposals.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_list_that_takes_nearly_all_away_takes_nobody_away_and_is_said_to()
    {
        var ines = await _school.ComeInAsAsync("ines");
        await DoAllAsync(ines, await NextNightAsync(ines));
        var one = (await InAsync(ines, "Rowan"))[0].Split(' ');
        var file = OneRosterWriter.Write(
            new("lh", "L", School.Today, School.Today, [], new([new("lh-r", "Rowan")], [new("lh-101", one[0], one[1], null, ["lh-r"])]), []),
            School.Today
        );
        var view = await Visitor.ReadAsync<RosterView>(await SendAsync(ines, file));
        view.Caution.ShouldBe("This list lacks 25 of 26 children: is it cut short, or of another year?");
        (await InAsync(ines, "Rowan")).Count.ShouldBe(26);
        (await InAsync(ines, "Alder")).Count.ShouldBe(24);
    }

    [Theory]
    [InlineData(0, "This is no zip, or only a part of one.")]
    [InlineData(100, "This is no zip, or only a part of one.")]
    public async Task A_broken_file_says_so_and_the_list_before_stays(int length, string reason)
    {
        var (school, head) = await WillowAsync();
        using var _ = school;
        var view = await Visitor.ReadAsync<RosterView>(await SendAsync(head, FileOf(Ada)[..length], "broken\n.zip"));
        view.Taken!.FileName.ShouldBe("list.zip");
        (view.Refused!.FileName, view.Refused.Faults.Single().Reason).ShouldBe(("broken.zip", reason));
        (await BringInAsync(head, Ada)).Refused.ShouldBeNull();
        (await SendAsync(head, new byte[OneRosterReader.LargestZip + 1])).StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
    }

    [Fact]
    public async Task An_erased_child_is_on_no_list_that_is_kept()
    {
        var (school, head) = await WillowAsync();
        using var _ = school;
        await BringInAsync(head, Ada, Ada with { Key = "c9", GivenName = "Quillonwyn", FamilyName = "Abernathy" });
        var view = await head.ReadAsync<RosterView>(Address);
        await AnswerAsync(head, new RosterAnswer(view.Proposals.Single(p => p.Kind == ProposalKind.Joined).Id, true, null));
        string Kept()
        {
            using var scope = school.Scope();
            using var file = new FileStream(school.Db(scope).Database.GetDbConnection().DataSource, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
            using MemoryStream copy = new();
            file.CopyTo(copy);
            return Encoding.UTF8.GetString(copy.ToArray());
        }

        using (var scope = school.Scope())
        {
            await school.Db(scope).EmptyLogAsync(Stop);
        }

        Kept().ShouldContain("Quillonwyn");
        var id = (await head.ReadAsync<ChildrenOfSchoolView>("/api/school/children")).Classes[0].Children.Single(c => c.Name == "Quillonwyn Abernathy").Id;
        (await head.PostAsync($"/api/classes/1/children/{id}/erase", new EraseChild("Quillonwyn Abernathy"))).StatusCode.ShouldBe(HttpStatusCode.OK);
        Kept().ShouldNotContain("Quillonwyn");
        Kept().ShouldContain("Okafor");
        (await head.ReadAsync<RosterView>(Address)).Proposals.ShouldNotContain(p => p.Kind == ProposalKind.Joined);
    }

    [Fact]
    public async Task A_file_in_the_folder_is_read_once_it_lies_still_and_only_once()
    {
        var (school, head) = await WillowAsync();
        using var _ = school;
        var folder = Directory.CreateTempSubdirectory("fobble-office-");
        try
        {
            school.Services.GetRequiredService<FobbleSettings>().Roster = folder.FullName;
            var looks = school.Services.GetRequiredService<RosterFolder>();
            await looks.LookAsync(Stop);
            var whole = FileOf(Ada, Ada with { Key = "c4", GivenName = "Dai", FamilyName = "Haas" });
            var path = Path.Combine(folder.FullName, "night-1.zip");

            // Half of it is there at the first look, and all of it at the second.
            await File.WriteAllBytesAsync(path, whole[..(whole.Length / 2)], Stop);
            await looks.LookAsync(Stop);
            await File.WriteAllBytesAsync(path, whole, Stop);
            await looks.LookAsync(Stop);
            (await head.ReadAsync<RosterView>(Address)).Taken!.FileName.ShouldBe("list.zip");
            await looks.LookAsync(Stop);
            var view = await head.ReadAsync<RosterView>(Address);
            (view.Taken!.FileName, view.Refused).ShouldBe(("night-1.zip", null));
            view.Watched.ShouldBe(folder.FullName);

            // One that was brought in by hand afterwards is not undone by the folder, nor after a restart.
            await BringInAsync(head, Ada);
            await looks.LookAsync(Stop);
            await looks.LookAsync(Stop);
            (await head.ReadAsync<RosterView>(Address)).Taken!.FileName.ShouldBe("list.zip");
            await File.WriteAllBytesAsync(Path.Combine(folder.FullName, "night-2.zip"), whole[..60], Stop);
            await looks.LookAsync(Stop);
            await looks.LookAsync(Stop);
            (await head.ReadAsync<RosterView>(Address)).Refused!.FileName.ShouldBe("night-2.zip");
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    [Fact]
    public async Task A_class_in_the_archive_takes_nobody_in()
    {
        var (school, head) = await WillowAsync();
        using var _ = school;
        await head.PostAsync("/api/school/classes", new NewClass("Wrens", 1, null));
        (await head.PutAsync("/api/school/classes/1/archive", new Archive(true))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var view = await BringInAsync(head, Ada, Ada with { Key = "c4", GivenName = "Dai", FamilyName = "Haas" });
        view.Proposals.ShouldBeEmpty();
        view.Classes.Single().Name.ShouldBe("Wrens");
        (await head.PutAsync($"{Address}/classes/1", new OfficeClassOf("k1"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }
}
