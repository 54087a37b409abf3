using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Server.Features;
using Fobble.Server.Features.ChildPage;
using Fobble.Server.Features.ClassGrid;
using Fobble.Server.Features.Clipboard;
using Fobble.Server.Features.Noticing;
using Fobble.Server.Features.Trail;
using Microsoft.EntityFrameworkCore;
using SkiaSharp;

namespace Fobble.Server.Tests;

/// <summary>What is seen of the record: a child, a column, slips, marks in doubt, the trail, choice time.</summary>
public class ChildPageTests(School school) : IClassFixture<School>
{
    [Fact]
    public async Task A_childs_page_tells_next_steps_history_groups_jars_and_every_observation()
    {
        var ines = await school.ComeInAsAsync("ines");
        var child = await ines.ReadAsync<ChildView>("/api/classes/1/children/3");
        child.Weeks.Count.ShouldBeInRange(8, 12);
        child.Weeks.Sum(w => w.Seen).ShouldBe(child.SeenInAll);
        child.Next.ShouldNotBeEmpty();
        child.Next.ShouldAllBe(n => n.Activity != null && n.Because.StartsWith("Ready"));
        child.Shown.Count.ShouldBe(5);
        child.Strands.Sum(s => s.Skills.Count).ShouldBe(SkillMapLoader.AsWritten().Skills.Count);
        child.Jars.ShouldNotBeEmpty();
        child.Groups.ShouldNotBeEmpty();
        child.Groups.ShouldAllBe(g => g.With.Count > 0 && g.Reason.Length > 0);
        child.Seen.Count.ShouldBe(Math.Min(60, child.SeenInAll));
        child.Seen.ShouldBe(child.Seen.OrderByDescending(s => s.At));
        child.SchoolDays.ShouldBeGreaterThan(30);
        var rest = await ines.ReadAsync<List<SeenOnce>>("/api/classes/1/children/3/observations?skip=60");
        rest.Count.ShouldBe(Math.Max(0, Math.Min(200, child.SeenInAll - 60)));
        (await ines.GetAsync("/api/classes/1/children/30")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await ines.GetAsync("/api/classes/1/children/30/observations")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_column_parts_the_class_into_has_ready_and_not_yet_with_a_reason_each()
    {
        var ines = await school.ComeInAsAsync("ines");
        var column = await ines.ReadAsync<ColumnView>("/api/classes/1/grid/bond.all-5");
        (column.Has.Count + column.Ready.Count + column.NotYet.Count).ShouldBe(26);
        column.NotYet.ShouldAllBe(c => c.Why.Length > 0);
        column.Activity.ShouldNotBeNull();
        (await ines.GetAsync("/api/classes/1/grid/bond.nothing")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task The_grid_knows_this_weeks_groups_and_the_season()
    {
        var grid = await (await school.ComeInAsAsync("ines")).ReadAsync<Grid>("/api/classes/1/grid");
        grid.Groups.ShouldNotBeEmpty();
        grid.Groups.SelectMany(g => g.Children).ShouldAllBe(id => grid.Children.Any(c => c.Id == id));
        grid.Season.ShouldBe(Core.Calendars.Season.Autumn);
    }

    [Fact]
    public async Task Marks_to_look_at_again_are_grouped_by_skill_and_slips_say_what_helps()
    {
        var ines = await school.ComeInAsAsync("ines");
        var again = await ines.ReadAsync<AgainView>("/api/classes/1/look-again");
        again.NeverSure.ShouldNotBeEmpty();
        again.NeverSure.SelectMany(s => s.Children).ShouldAllBe(c => c.Why.StartsWith("never quite sure"));
        again.Faded.SelectMany(s => s.Children).ShouldAllBe(c => c.Why.StartsWith("last alone"));
        foreach (var list in (IReadOnlyList<AgainSkill>[])[again.NeverSure, again.Faded])
        {
            // Two minutes to set a skill out, and one for each child.
            list.Sum(s => 2 + s.Children.Count).ShouldBeLessThanOrEqualTo(again.Minutes);
        }
        var slips = await ines.ReadAsync<SlipsView>("/api/classes/1/slips");
        slips.Slips.ShouldNotBeEmpty();
        slips.Slips.ShouldAllBe(s => s.Helps.Count > 0 && s.Children.Count > 0);
        slips.Slips.Select(s => s.Children.Count).ShouldBe(slips.Slips.Select(s => s.Children.Count).OrderDescending());
    }

    [Fact]
    public async Task The_trail_says_who_recorded_who_withdrew_and_why()
    {
        var (ines, tomasz) = (await school.ComeInAsAsync("ines"), await school.ComeInAsAsync("tomasz"));
        var tap = ClipboardTests.Tap(child: 12);
        await tomasz.PostAsync("/api/classes/1/observations", tap);
        await ines.PostAsync($"/api/classes/1/observations/{tap.Id}/withdraw", new { why = "It was her sister" });
        var trail = await ines.ReadAsync<TrailView>("/api/classes/1/trail?from=2026-11-25&onlyWithdrawn=true&child=12");
        var entry = trail.Entries.Single();
        entry.Seen.ShouldSatisfyAllConditions(
            s => s.Id.ShouldBe(tap.Id),
            s => s.By.ShouldBe("Tomasz Birk"),
            s => s.WithdrawnBy.ShouldBe("Ines Okonjo"),
            s => s.WithdrawnWhy.ShouldBe("It was her sister"),
            s => s.WithdrawnAt.ShouldNotBeNull()
        );
        (await ines.ReadAsync<TrailView>("/api/classes/1/trail?from=2026-11-25&by=2")).Entries.ShouldContain(e => e.Seen.Id == tap.Id);
        (await ines.ReadAsync<TrailView>("/api/classes/1/trail?from=2026-11-25&by=3")).Entries.ShouldBeEmpty();
        (await ines.ReadAsync<TrailView>("/api/classes/1/trail?from=2026-09-01")).More.ShouldBeTrue();
    }

    [Fact]
    public async Task For_choice_time_every_child_has_what_is_due_first()
    {
        var view = await (await school.ComeInAsAsync("tomasz")).ReadAsync<AnyoneView>("/api/classes/1/clipboard");
        view.Skills.Count.ShouldBe(SkillMapLoader.AsWritten().Skills.Count);
        view.Playing.ShouldNotBeEmpty();
        view.Children.Count.ShouldBe(26);
        view.Children.ShouldAllBe(c => c.Due.Count > 0 && c.Due.Count <= 8 && c.Due.Select(d => d.Skill).Distinct().Count() == c.Due.Count);
    }

    [Fact]
    public async Task A_photo_needs_the_familys_word_loses_its_metadata_and_goes_when_the_word_is_taken_back()
    {
        var (ines, tomasz) = (await school.ComeInAsAsync("ines"), await school.ComeInAsAsync("tomasz"));
        var tap = ClipboardTests.Tap(child: 13);
        await tomasz.PostAsync("/api/classes/1/observations", tap);
        var path = $"/api/classes/1/observations/{tap.Id}/photo";
        (await Visitor.SaysAsync(await PutPhotoAsync(tomasz, path, Picture()))).ShouldContain("has not agreed");
        (await tomasz.PutAsync("/api/classes/1/children/13/photos-allowed", new PhotosAllowed(true))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await ines.PutAsync("/api/classes/1/children/13/photos-allowed", new PhotosAllowed(true))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await PutPhotoAsync(tomasz, path, "no picture"u8.ToArray())).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await PutPhotoAsync(tomasz, path, Picture())).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await PutPhotoAsync(tomasz, path, Picture())).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var kept = await (await tomasz.GetAsync(path)).Content.ReadAsByteArrayAsync();
        System.Text.Encoding.Latin1.GetString(kept).ShouldNotContain("Lantern Street");
        using var picture = SKBitmap.Decode(kept);
        Math.Max(picture.Width, picture.Height).ShouldBe(1280);
        (await ines.ReadAsync<ChildView>("/api/classes/1/children/13")).Seen[0].HasPhoto.ShouldBeTrue();
        await ines.PutAsync("/api/classes/1/children/13/photos-allowed", new PhotosAllowed(false));
        (await tomasz.GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_photo_goes_with_the_observation_that_is_withdrawn_and_none_comes_after()
    {
        var ines = await school.ComeInAsAsync("ines");
        var tap = ClipboardTests.Tap(child: 14);
        await ines.PostAsync("/api/classes/1/observations", tap);
        await ines.PutAsync("/api/classes/1/children/14/photos-allowed", new PhotosAllowed(true));
        var path = $"/api/classes/1/observations/{tap.Id}/photo";
        await PutPhotoAsync(ines, path, Picture());
        (await ines.GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.OK);
        await ines.PostAsync($"/api/classes/1/observations/{tap.Id}/withdraw", new { why = "It was Gus" });
        // As a tablet sends it that was without a network meanwhile.
        (await PutPhotoAsync(ines, path, Picture())).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        using var scope = school.Scope();
        school.Db(scope).Photos.Any(p => p.ObservationId == tap.Id).ShouldBeFalse();
    }

    private static Task<HttpResponseMessage> PutPhotoAsync(Visitor visitor, string path, byte[] bytes)
    {
        ByteArrayContent body = new(bytes);
        body.Headers.ContentType = new("image/jpeg");
        return visitor.SendAsync(HttpMethod.Put, path, body);
    }

    // A JPEG with a comment in it, as a camera writes where and when it was taken.
    internal static byte[] Picture()
    {
        using SKBitmap bitmap = new(2000, 1500);
        bitmap.Erase(SKColors.Goldenrod);
        var jpeg = bitmap.Encode(SKEncodedImageFormat.Jpeg, 80).ToArray();
        var comment = "Lantern Street 4"u8.ToArray();
        return [.. jpeg[..2], 0xFF, 0xFE, 0, (byte)(comment.Length + 2), .. comment, .. jpeg[2..]];
    }
}
