using System.Text;
using Fobble.Data.Model;
using Fobble.Server.Features.ChildPage;
using Fobble.Server.Rooms;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>A child of the filled demo, with all that eight weeks leave, goes without a trace.</summary>
public sealed class ErasingTests : IDisposable
{
    private const string Unusual = "Quillonwyn";
    private const string Class = "/api/classes/1";
    private static readonly byte[] Photo = [0xFF, 0xD8, 0xFF, .. Encoding.ASCII.GetBytes("made-up-photo-of-a-tower"), 0xFF, 0xD9];
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    // Gives a child that has everything a name that nothing else in the file contains by chance.
    private async Task<int> FullChildAsync()
    {
        using var scope = _school.Scope();
        var db = _school.Db(scope);
        var child = await db
            .Children.Where(c => c.ClassId == 1)
            .OrderByDescending(c => db.Observations.Count(o => o.ChildId == c.Id && o.CheckId != null))
            .ThenByDescending(c => db.JarGuesses.Count(g => g.ChildId == c.Id))
            .FirstAsync();
        (child.GivenName, child.FamilyName, child.Mark) = (Unusual, "Abernathy", "Zq");
        var other = await db.Children.Where(c => c.ClassId == 1 && c.Id != child.Id).Select(c => c.Id).FirstAsync();
        await db.PairWishes.Where(p => p.FirstId == child.Id || p.SecondId == child.Id).ExecuteDeleteAsync();
        db.PairWishes.Add(new PairWish { FirstId = child.Id, SecondId = other });
        await db.Absences.Where(a => a.ChildId == child.Id && a.Day == School.Today).ExecuteDeleteAsync();
        db.Absences.Add(new Absence { ChildId = child.Id, Day = School.Today });
        db.TimesOut.Add(new TimeOutRow { ChildId = child.Id, Weekday = DayOfWeek.Friday });
        if (!await db.AdultWishes.AnyAsync(w => w.ChildId == child.Id && w.AdultId == 2))
        {
            db.AdultWishes.Add(
                new AdultWishRow
                {
                    ChildId = child.Id,
                    AdultId = 2,
                    With = true,
                }
            );
        }

        var seen = await db.Observations.Where(o => o.ChildId == child.Id && o.Photo == null && o.Withdrawal == null).Select(o => o.Id).Take(2).ToListAsync();
        db.Photos.Add(new PhotoRow { ObservationId = seen[0], Jpeg = Photo });
        db.Withdrawals.Add(
            new Withdrawal
            {
                ObservationId = seen[1],
                Why = $"It was not {Unusual}",
                At = DateTimeOffset.UnixEpoch,
                AdultId = 1,
            }
        );
        await db.SaveChangesAsync();
        return child.Id;
    }

    // The database, its log and what else lies in the folder, byte by byte.
    private bool StandsInTheFiles(byte[] what)
    {
        using var scope = _school.Scope();
        var folder = Path.GetDirectoryName(_school.Db(scope).Database.GetDbConnection().DataSource)!;
        return Directory
            .GetFiles(folder, "*", SearchOption.AllDirectories)
            // Empty, and held by the server.
            .Where(file => Path.GetFileName(file) != "in-use")
            .Any(file =>
            {
                using FileStream open = new(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
                using MemoryStream copy = new();
                open.CopyTo(copy);
                return copy.ToArray().AsSpan().IndexOf(what) >= 0;
            });
    }

    [Fact]
    public async Task Nothing_of_an_erased_child_is_left_in_the_files_and_every_page_goes_on()
    {
        var id = await FullChildAsync();
        var (name, ines) = (Encoding.UTF8.GetBytes(Unusual), await _school.ComeInAsAsync("ines"));
        (StandsInTheFiles(name), StandsInTheFiles(Photo)).ShouldBe((true, true), "or the search finds nothing anyway");

        (await ines.PostAsync($"{Class}/children/{id}/erase", new EraseChild("Somebody Else"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.PostAsync($"{Class}/children/9999/erase", new EraseChild($"{Unusual} Abernathy"))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await (await _school.ComeInAsAsync("tomasz")).PostAsync($"{Class}/children/{id}/erase", new EraseChild($"{Unusual} Abernathy"))).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        (await ines.GetAsync($"{Class}/children/{id}")).StatusCode.ShouldBe(HttpStatusCode.OK, "a refused erasure erases nothing");

        var erasure = await Visitor.ReadAsync<Erasure>(await ines.PostAsync($"{Class}/children/{id}/erase", new EraseChild($" {Unusual}  abernathy")));
        erasure.Observations.ShouldBeGreaterThan(50);
        erasure.OnDisk.ShouldBeTrue();
        StandsInTheFiles(name).ShouldBeFalse("the name");
        StandsInTheFiles(Encoding.UTF8.GetBytes("Abernathy")).ShouldBeFalse("the family's name");
        StandsInTheFiles(Photo).ShouldBeFalse("the photo");
        using (var scope = _school.Scope())
        {
            var db = _school.Db(scope);
            (await db.Erased.SingleAsync(TestContext.Current.CancellationToken)).Observations.ShouldBe(erasure.Observations);

            // Whatever table names a child by its number, by its own reckoning and not by ours.
            foreach (var type in db.Model.GetEntityTypes().Where(t => t.ClrType != typeof(ErasedRow) && t.ClrType != typeof(TraceRow)))
            {
                foreach (var column in type.GetProperties().Where(p => p.Name.EndsWith("ChildId", StringComparison.Ordinal)))
                {
                    var asked = $"SELECT COUNT(*) AS Value FROM \"{type.GetTableName()}\" WHERE \"{column.GetColumnName()}\" = {id}";
                    (await db.Database.SqlQueryRaw<int>(asked).SingleAsync(TestContext.Current.CancellationToken)).ShouldBe(0, asked);
                }
            }
        }

        (await ines.GetAsync($"{Class}/children/{id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var monday = School.Today.AddDays(-2);
        foreach (
            var page in new[]
            {
                "grid",
                "children",
                "look-again",
                "slips",
                "baseline",
                "trail",
                "agreement",
                "groups/company",
                "groups/after",
                $"groups?monday={monday:yyyy-MM-dd}",
                $"weeks/{monday:yyyy-MM-dd}",
                $"days/{School.Today:yyyy-MM-dd}",
                "clipboard",
                "jar",
                "group-wishes",
                "thoughts",
                "summary",
                "records/csv",
                $"weeks/{monday:yyyy-MM-dd}/groups/wall",
                $"days/{School.Today:yyyy-MM-dd}/set-out",
            } // csharpier-ignore
        )
        {
            var answer = await ines.GetAsync($"{Class}/{page}");
            answer.StatusCode.ShouldBeOneOf(HttpStatusCode.OK, HttpStatusCode.NotFound);
            (await answer.Content.ReadAsStringAsync()).ShouldNotContain(Unusual, Case.Sensitive, page);
        }
    }

    [Fact]
    public async Task A_backup_that_is_put_back_is_erased_again_and_nobody_is_erased_in_the_childs_place()
    {
        var ines = await _school.ComeInAsAsync("ines");
        await ines.PostCsvAsync($"{Class}/class-list", $"Name\n{Unusual} Abernathy\nWrenna Abernathy\n");
        using var scope = _school.Scope();
        var db = _school.Db(scope);
        var erasing = _school.Services.GetRequiredService<Erasing>();
        var last = await db.Children.OrderByDescending(c => c.Id).FirstAsync(TestContext.Current.CancellationToken);
        foreach (var child in await db.Children.AsNoTracking().Where(c => c.FamilyName == "Abernathy").ToListAsync(TestContext.Current.CancellationToken))
        {
            await Visitor.ReadAsync<Erasure>(
                await ines.PostAsync($"{Class}/children/{child.Id}/erase", new EraseChild($"{child.GivenName} {child.FamilyName}"))
            );
        }

        // A backup from when the first of the two was there, and the second had not come yet.
        db.ChangeTracker.Clear();
        await db.Erased.ExecuteDeleteAsync(TestContext.Current.CancellationToken);
        db.Children.Add(
            new Child
            {
                Id = last.Id - 1,
                ClassId = 1,
                GivenName = Unusual,
                FamilyName = "Abernathy",
            }
        );
        await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        await db.Database.ExecuteSqlAsync($"UPDATE sqlite_sequence SET seq = {last.Id - 1} WHERE name = 'Children'", TestContext.Current.CancellationToken);

        await erasing.ReplayAsync(TestContext.Current.CancellationToken);
        StandsInTheFiles(Encoding.UTF8.GetBytes(Unusual)).ShouldBeFalse();
        await ines.PostCsvAsync($"{Class}/class-list", "Name\nTamsin Orr\n");
        await erasing.ReplayAsync(TestContext.Current.CancellationToken);
        var tamsin = await db.Children.AsNoTracking().SingleOrDefaultAsync(c => c.GivenName == "Tamsin", TestContext.Current.CancellationToken);
        tamsin.ShouldNotBeNull("she is not taken for the one whose number the backup had free");
        tamsin.Id.ShouldBeGreaterThan(last.Id);
    }

    [Fact]
    public async Task A_name_in_notes_about_others_is_said_and_left()
    {
        var ines = await _school.ComeInAsAsync("ines");
        using var scope = _school.Scope();
        var db = _school.Db(scope);
        var children = await db.Children.Where(c => c.ClassId == 1).OrderBy(c => c.Id).Take(2).ToListAsync(TestContext.Current.CancellationToken);
        children[0].GivenName = Unusual;
        var like = await db.Observations.AsNoTracking().FirstAsync(o => o.ChildId == children[1].Id, TestContext.Current.CancellationToken);
        like.Id = Guid.NewGuid();
        like.Sequence = 0;
        like.Note = $"counted for {Unusual}, too";
        db.Observations.Add(like);
        await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        var erased = await ines.PostAsync($"{Class}/children/{children[0].Id}/erase", new EraseChild($"{Unusual} {children[0].FamilyName}"));
        (await Visitor.ReadAsync<Erasure>(erased)).Mentions.ShouldBe(1);
    }
}
