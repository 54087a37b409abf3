using System.Text.Json;
using Fobble.Core.Evidence;
using Fobble.Core.People;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Server.Features.ChildPage;
using Fobble.Server.Features.ClassList;
using Fobble.Server.Features.Clipboard;
using Fobble.Server.Features.Planning;
using Fobble.Server.Features.WholeSchool;
using Fobble.Server.Hosting;
using Fobble.Server.Rooms;
using Microsoft.EntityFrameworkCore;
using UglyToad.PdfPig;

namespace Fobble.Server.Tests;

/// <summary>The filled school in July: its children go up, move, leave; what was seen of them goes along, and what was can be read.</summary>
public sealed class NewYearTests : IDisposable
{
    private const string Children = "/api/school/children";
    private const string Year = "/api/school/new-year";
    private readonly School _school = School.At("2027-07-19T08:00:00");

    public void Dispose() => _school.Dispose();

    // Both classes end. Rowan's children go up into two, the first of them repeats (goes where Alder's go), the second leaves.
    private static NewYear Asked(ChildrenOfSchoolView now, string first = "Rowan", string second = "Alder")
    {
        var (rowan, alder) = (now.Classes.Single(c => c.Name == first), now.Classes.Single(c => c.Name == second));
        return new(
            now.Next.BeginsOn,
            [rowan.Id, alder.Id],
            [new("Ash", rowan.LeadId, rowan.Id, true), new("Birch", alder.LeadId, null, false), new("Rowan", alder.LeadId, alder.Id, true)],
            [
                .. rowan.Children.Select(
                    (c, i) =>
                        new Going(
                            c.Id,
                            i switch
                            {
                                0 => 2,
                                1 => null,
                                _ => i % 2,
                            }
                        )
                ),
                .. alder.Children.Select(c => new Going(c.Id, 2)),
            ],
            NotesOfBefore: true,
            now.UsuallyKeptUntil
        );
    }

    private static async Task<(NewYear Asked, Dictionary<string, int> Classes)> GoUpAsync(Visitor head, Func<NewYear, NewYear>? otherwise = null)
    {
        var asked = Asked(await head.ReadAsync<ChildrenOfSchoolView>(Children));
        asked = otherwise?.Invoke(asked) ?? asked;
        var answer = await head.PostAsync(Year, asked);
        answer.StatusCode.ShouldBe(HttpStatusCode.NoContent, await answer.Content.ReadAsStringAsync());
        var school = await head.ReadAsync<SchoolView>("/api/school");
        return (asked, school.Classes.Where(c => c.ArchivedOn is null).ToDictionary(c => c.Name, c => c.Id));
    }

    private async Task<string> EverythingAsync()
    {
        using var scope = _school.Scope();
        var db = _school.Db(scope);
        return JsonSerializer.Serialize(
            new
            {
                Children = await db.Children.AsNoTracking().OrderBy(c => c.Id).ToListAsync(),
                Classes = await db.Classes.AsNoTracking().OrderBy(c => c.Id).ToListAsync(),
                Members = await db.Memberships.AsNoTracking().OrderBy(m => m.ClassId).ThenBy(m => m.AdultId).ToListAsync(),
                Slots = await db.LessonSlots.AsNoTracking().OrderBy(s => s.Id).ToListAsync(),
                Stock = await db.Stock.AsNoTracking().OrderBy(s => s.ClassId).ThenBy(s => s.Item).ToListAsync(),
                Checks = await db.BaselineChecks.AsNoTracking().OrderBy(c => c.Id).ToListAsync(),
                Stays = await db.Stays.AsNoTracking().ToListAsync(),
                Seen = await db.Observations.CountAsync(),
            }
        );
    }

    private static Dictionary<string, int> Strengths(ChildView child) => child.Strands.SelectMany(s => s.Skills).ToDictionary(s => s.Id, s => s.Strength);

    [Fact]
    public async Task Children_go_up_with_all_that_was_seen_and_what_was_can_be_read()
    {
        var ines = await _school.ComeInAsAsync("ines");
        Dictionary<int, ChildView> before = [];
        foreach (var child in await ines.ReadAsync<IReadOnlyList<ChildName>>("/api/classes/1/children"))
        {
            before[child.Id] = await ines.ReadAsync<ChildView>($"/api/classes/1/children/{child.Id}");
        }

        var (asked, classes) = await GoUpAsync(ines);
        classes.Keys.ShouldBe(["Ash", "Birch", "Rowan"]);
        using (var scope = _school.Scope())
        {
            // Who leads the school has not become an adult of every class by it.
            var db = _school.Db(scope);
            foreach (var made in classes.Values.Where(id => !db.Memberships.Any(m => m.ClassId == id && m.AdultId == 1)).ToList())
            {
                (await ines.GetAsync($"/api/classes/{made}/children")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
                db.Memberships.Add(
                    new Membership
                    {
                        ClassId = made,
                        AdultId = 1,
                        Role = ClassRole.LeadTeacher,
                    }
                );
            }

            await db.SaveChangesAsync();
        }

        // In its new class a child has what it had, from the same observations.
        foreach (var place in asked.Places.Where(p => p.To is not null && before.ContainsKey(p.Child)))
        {
            var room = classes[asked.Classes[place.To!.Value].Name];
            var now = await ines.ReadAsync<ChildView>($"/api/classes/{room}/children/{place.Child}");
            Strengths(now).ShouldBe(Strengths(before[place.Child]));
            now.SeenInAll.ShouldBe(before[place.Child].SeenInAll);
            now.CheckId.ShouldBe(before[place.Child].CheckId);
        }

        // The class of before is there as it was, for those who were its adults, and nobody writes in it.
        var there = await ines.ReadAsync<IReadOnlyList<ChildName>>("/api/classes/1/children");
        there.Select(c => c.Id).ShouldBe(before.Keys, ignoreOrder: true);
        var one = before.Values.First(c => c.SeenInAll > 0);
        Strengths(await ines.ReadAsync<ChildView>($"/api/classes/1/children/{one.Id}")).ShouldBe(Strengths(one));
        (await ines.PostAsync("/api/classes/1/weeks/2026-11-23/plan")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        // What is seen from now on is the new class's.
        var going = asked.Places.First(p => p.To == 0).Child;
        await SeeAsync(ines, classes["Ash"], going, "seen after the summer");
        (await ines.ReadAsync<ChildView>($"/api/classes/{classes["Ash"]}/children/{going}")).SeenInAll.ShouldBe(before[going].SeenInAll + 1);
        (await ines.ReadAsync<ChildView>($"/api/classes/1/children/{going}")).SeenInAll.ShouldBe(before[going].SeenInAll, "and the old one's no more");
        using var later = _school.Scope();
        (await _school.Db(later).Children.CountAsync(c => c.LeftOn != null)).ShouldBe(1);
        var left = (await ines.ReadAsync<ChildrenOfSchoolView>(Children)).Left.ShouldHaveSingleItem();
        (left.From, left.Due).ShouldBe(("Rowan", false));
    }

    private static async Task SeeAsync(
        Visitor visitor,
        int classId,
        int child,
        string note,
        string at = "2027-07-19T07:30:00",
        HttpStatusCode expected = HttpStatusCode.NoContent
    )
    {
        var skill = (await visitor.ReadAsync<ChildView>($"/api/classes/{classId}/children/{child}")).Strands[0].Skills[0].Id;
        var answer = await SendAsync(visitor, classId, child, skill, note, at);
        answer.StatusCode.ShouldBe(expected, await answer.Content.ReadAsStringAsync());
    }

    private static Task<HttpResponseMessage> SendAsync(Visitor visitor, int classId, int child, string skill, string note, string at) =>
        visitor.PostAsync(
            $"/api/classes/{classId}/observations",
            new NewObservation(
                Guid.NewGuid(),
                child,
                skill,
                StandingClock.At(at),
                Setting.Choice,
                Support.Alone,
                Representation.Objects,
                null,
                null,
                null,
                note,
                null
            )
        );

    [Fact]
    public async Task The_new_year_is_planned_from_its_first_day_on()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var (asked, classes) = await GoUpAsync(ines);
        var plan = $"/api/classes/{classes["Ash"]}/plan";
        var empty = await ines.ReadAsync<PlanView>(plan);
        empty.Version.ShouldBeNull();
        empty.From.ShouldBe(asked.BeginsOn);
        empty.Weeks.ShouldNotBeEmpty();
        empty.Weeks.ShouldAllBe(w => w.Monday >= asked.BeginsOn.AddDays(-6));
        var scope = await ines.ReadAsync<ScopeChoices>($"{plan}/scope");
        var draft = await Visitor.ReadAsync<DraftView>(await ines.PostAsync($"{plan}/drafts", scope.Usual));
        while (draft.State == JobState.Working)
        {
            await Task.Delay(50);
            draft = await ines.ReadAsync<DraftView>($"{plan}/drafts/{draft.Id}");
        }

        draft.Plan!.Lessons.ShouldNotBeEmpty();
        draft.Plan.Lessons.ShouldAllBe(l => l.Day >= asked.BeginsOn);

        // The year that ends is as it was.
        (await ines.ReadAsync<PlanView>("/api/classes/1/plan")).Version.ShouldNotBeNull();
    }

    [Fact]
    public async Task Taken_back_within_a_day_all_is_as_it_was_and_after_it_nothing_is()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var before = await EverythingAsync();
        await GoUpAsync(ines);
        (await EverythingAsync()).ShouldNotBe(before);
        (await ines.ReadAsync<ChildrenOfSchoolView>(Children)).Begun.ShouldNotBeNull();
        (await ines.SendAsync(HttpMethod.Delete, Year)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await EverythingAsync()).ShouldBe(before);
        (await ines.SendAsync(HttpMethod.Delete, Year)).StatusCode.ShouldBe(HttpStatusCode.NotFound, "it is taken back once");

        await GoUpAsync(ines);
        using var scope = _school.Scope();
        var db = _school.Db(scope);
        (await db.NewYears.SingleAsync(y => y.UndoneAt == null)).At -= TimeSpan.FromHours(25);
        await db.SaveChangesAsync();
        (await ines.ReadAsync<ChildrenOfSchoolView>(Children)).Begun.ShouldBeNull();
        (await ines.SendAsync(HttpMethod.Delete, Year)).StatusCode.ShouldBe(HttpStatusCode.NotFound, "a day has gone by");
    }

    [Fact]
    public async Task What_was_begun_in_a_new_class_is_not_lost_when_the_year_is_taken_back()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var (asked, classes) = await GoUpAsync(ines);
        var child = asked.Places.First(p => p.To == 0).Child;
        await SeeAsync(ines, classes["Ash"], child, "meanwhile");
        (await ines.PostAsync($"/api/classes/{classes["Ash"]}/weeks/2027-09-06/plan")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var moved = asked.Places.First(p => p.To == 1).Child;
        (await ines.PutAsync($"{Children}/{moved}/class/{classes["Rowan"]}", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.SendAsync(HttpMethod.Delete, Year)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<ChildView>($"/api/classes/1/children/{child}")).Seen[0].Note.ShouldBe("meanwhile");
        var school = await ines.ReadAsync<SchoolView>("/api/school");
        school.Classes.ShouldNotContain(c => c.Name == "Birch", "nothing was in it");
        school.Classes.Single(c => c.Name == "Ash").ArchivedOn.ShouldNotBeNull("its week can be read");
        using var scope = _school.Scope();
        (await _school.Db(scope).Children.CountAsync()).ShouldBe(asked.Places.Count, "no child is lost");
    }

    [Fact]
    public async Task Two_who_begin_the_year_at_once_begin_it_once_and_what_is_refused_changes_nothing()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var before = await EverythingAsync();
        var asked = Asked(await ines.ReadAsync<ChildrenOfSchoolView>(Children));
        foreach (
            var wrong in new[]
            {
                asked with
                {
                    Places = [.. asked.Places.Skip(1)],
                },
                asked with
                {
                    Places = [.. asked.Places, new(asked.Places[0].Child, 1)],
                },
                asked with
                {
                    Places = [.. asked.Places, new(9999, 1)],
                },
                asked with
                {
                    Ends = [],
                },
                asked with
                {
                    Ends = [1, 1, 2],
                },
                asked with
                {
                    Ends = [1, 2, 99],
                },
                asked with
                {
                    BeginsOn = asked.BeginsOn.AddDays(1),
                },
                asked with
                {
                    KeptUntil = new(2026, 1, 1),
                },
                asked with
                {
                    KeptUntil = new(9999, 1, 1),
                },
                asked with
                {
                    Classes = [asked.Classes[0], asked.Classes[0], asked.Classes[2]],
                },
                asked with
                {
                    Classes = [asked.Classes[0] with { Name = " " }, asked.Classes[1], asked.Classes[2]],
                },
                asked with
                {
                    Classes = [asked.Classes[0] with { LeadId = 999 }, asked.Classes[1], asked.Classes[2]],
                },
                asked with
                {
                    Classes = [asked.Classes[0] with { Like = 999 }, asked.Classes[1], asked.Classes[2]],
                },
                asked with
                {
                    Classes = [asked.Classes[0]],
                },
            }
        )
        {
            (await ines.PostAsync(Year, wrong)).StatusCode.ShouldBe(HttpStatusCode.BadRequest, JsonSerializer.Serialize(wrong));
            (await EverythingAsync()).ShouldBe(before);
        }

        var both = await Task.WhenAll(ines.PostAsync(Year, asked), ines.PostAsync(Year, asked));
        both.Select(b => b.StatusCode).ShouldBe([HttpStatusCode.NoContent, HttpStatusCode.BadRequest], ignoreOrder: true);
        var once = await ines.ReadAsync<ChildrenOfSchoolView>(Children);
        var far = await ines.PostAsync(Year, Asked(once, "Ash", "Birch"));
        (far.StatusCode, await far.Content.ReadAsStringAsync()).ShouldSatisfyAllConditions(
            f => f.StatusCode.ShouldBe(HttpStatusCode.BadRequest),
            f => f.Item2.ShouldContain("far away")
        );
        using var scope = _school.Scope();
        (await _school.Db(scope).Classes.CountAsync(c => c.Name == "Ash")).ShouldBe(1);
    }

    [Fact]
    public async Task Without_notes_of_before_nobody_in_the_new_class_reads_one_by_any_address()
    {
        const string Secret = "zebra-umbrella";
        var ines = await _school.ComeInAsAsync("ines");
        var child = (await ines.ReadAsync<ChildrenOfSchoolView>(Children)).Classes.Single(c => c.Name == "Rowan").Children[2].Id;
        await SeeAsync(ines, 1, child, Secret);
        using (var scope = _school.Scope())
        {
            var db = _school.Db(scope);
            db.Children.Single(c => c.Id == child).PhotosAllowed = true;
            db.Photos.Add(new() { ObservationId = db.Observations.Single(o => o.Note == Secret).Id, Jpeg = ChildPageTests.Picture() });
            await db.SaveChangesAsync();
        }

        var (_, classes) = await GoUpAsync(ines, asked => asked with { NotesOfBefore = false });
        var parts = new Dictionary<string, string>
        {
            ["classId"] = $"{classes["Ash"]}",
            ["day"] = "2027-07-19",
            ["childId"] = $"{child}",
            ["skillId"] = (await ines.ReadAsync<ChildView>($"/api/classes/{classes["Ash"]}/children/{child}")).Strands[0].Skills[0].Id,
        };
        await SeeAsync(ines, classes["Ash"], child, "a note of the new year", "2027-07-19T07:50:00");
        var read = 0;
        foreach (var address in Addresses.Of(_school, parts).Where(a => a.Method == HttpMethod.Get && a.Path.Contains("/classes/", StringComparison.Ordinal)))
        {
            var answer = await ines.GetAsync(address.Path);
            ((int)answer.StatusCode).ShouldBeLessThan(500, address.Path);
            (await answer.Content.ReadAsStringAsync()).ShouldNotContain(Secret, Case.Insensitive, address.Path);
            read += answer.IsSuccessStatusCode ? 1 : 0;
        }

        read.ShouldBeGreaterThan(30);
        (await PhotosOnFamilyPageAsync(ines, classes["Ash"], child)).ShouldBe(0);

        // Where it was written it stands.
        (await PhotosOnFamilyPageAsync(ines, 1, child)).ShouldBe(1);
        (await ines.ReadAsync<ChildView>($"/api/classes/1/children/{child}")).Seen.ShouldContain(s => s.Note == Secret);
    }

    private static async Task<int> PhotosOnFamilyPageAsync(Visitor visitor, int classId, int child)
    {
        using var pdf = PdfDocument.Open(
            await (await visitor.GetAsync($"/api/classes/{classId}/children/{child}/family-page?photos=true")).Content.ReadAsByteArrayAsync()
        );
        return pdf.GetPages().Sum(p => p.GetImages().Count());
    }

    [Fact]
    public async Task In_the_middle_of_the_year_a_child_moves_or_leaves_and_every_page_of_its_class_goes_on()
    {
        using var autumn = new School();
        var ines = await autumn.ComeInAsAsync("ines");
        var groups = await ines.ReadAsync<IReadOnlyList<ChildName>>("/api/classes/1/children");
        var (moves, leaves, stays) = (groups[0].Id, groups[1].Id, groups[2].Id);
        var was = await ines.ReadAsync<ChildView>($"/api/classes/1/children/{moves}");
        (await ines.PutAsync($"{Children}/{moves}/class/2", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.PostAsync($"{Children}/{leaves}/leave", new ChildLeaves(School.Today.AddYears(1)))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.PostAsync($"{Children}/{stays}/leave", new ChildLeaves(School.Today.AddDays(-1)))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.PutAsync($"{Children}/{moves}/class/99", new { })).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await ines.GetAsync($"/api/classes/1/children/{moves}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await ines.GetAsync($"/api/classes/1/children/{leaves}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        // Whoever would begin a second record of one of them is told.
        using (var scope = autumn.Scope())
        {
            var gone = autumn.Db(scope).Children.Where(c => c.Id == moves || c.Id == leaves).ToDictionary(c => c.Id, c => $"{c.GivenName},{c.FamilyName}");
            var list = $"First name,Last name\n{gone[moves]}\n{gone[leaves]}\nNobody,Knownbefore\n";
            var preview = await Visitor.ReadAsync<ClassListPreview>(await ines.PostCsvAsync("/api/classes/1/class-list/preview", list));
            preview.Notes.Count(n => n.StartsWith("Line 2: a child of this name is in Alder.", StringComparison.Ordinal)).ShouldBe(1);
            preview.Notes.Count(n => n.StartsWith("Line 3: a child of this name has left the school.", StringComparison.Ordinal)).ShouldBe(1);
            preview.Notes.ShouldNotContain(n => n.StartsWith("Line 4", StringComparison.Ordinal));
        }

        // Another adult's eyes: what was seen of the child is in Alder now.
        var maeve = await autumn.ComeInAsAsync("maeve");
        (await maeve.ReadAsync<ChildView>($"/api/classes/2/children/{moves}")).SeenInAll.ShouldBe(was.SeenInAll);

        // A tablet that had no network sends what was seen in Rowan before; what is dated later it can't have seen.
        var skill = was.Strands[0].Skills[0].Id;
        (await SendAsync(ines, 1, moves, skill, "late", "2026-11-25T07:10:00")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await SendAsync(ines, 1, leaves, skill, "late", "2026-11-25T07:10:00")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await maeve.ReadAsync<ChildView>($"/api/classes/2/children/{moves}")).SeenInAll.ShouldBe(was.SeenInAll + 1);

        foreach (var (visitor, classId, child) in new[] { (ines, 1, stays), (maeve, 2, moves) })
        {
            var parts = new Dictionary<string, string>
            {
                ["classId"] = $"{classId}",
                ["day"] = "2026-11-25",
                ["childId"] = $"{child}",
                ["skillId"] = skill,
            };
            foreach (var address in Addresses.Of(autumn, parts).Where(a => a.Method == HttpMethod.Get))
            {
                ((int)(await visitor.GetAsync(address.Path)).StatusCode).ShouldBeLessThan(500, address.Path);
            }
        }

        // Back again, or erased by its whole name.
        (await ines.PutAsync($"{Children}/{leaves}/class/1", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.GetAsync($"/api/classes/1/children/{leaves}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ines.PostAsync($"{Children}/{leaves}/erase", new EraseChildThatLeft("Nobody"))).StatusCode.ShouldBe(HttpStatusCode.NotFound, "it is in a class");
        await ines.PostAsync($"{Children}/{leaves}/leave", new ChildLeaves(School.Today.AddYears(1)));
        var left = (await ines.ReadAsync<ChildrenOfSchoolView>(Children)).Left.ShouldHaveSingleItem();
        (await ines.PostAsync($"{Children}/{leaves}/erase", new EraseChildThatLeft("Nobody"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.PostAsync($"{Children}/{leaves}/erase", new EraseChildThatLeft(left.Name))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<ChildrenOfSchoolView>(Children)).Left.ShouldBeEmpty();
    }
}
