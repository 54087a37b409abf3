using System.Collections.Concurrent;
using System.Text;
using Fobble.Data;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Net.Http.Headers;

namespace Fobble.Server.Tests;

/// <summary>A page that has not changed is not worked out and not sent again; one that has is never held back.</summary>
public sealed class UnchangedAnswersTests(School school) : IClassFixture<School>
{
    private static readonly string[] Pages =
    [
        "/api/classes/1/grid",
        "/api/classes/1/days/2026-11-25",
        "/api/classes/1/weeks/2026-11-23",
        "/api/classes/1/look-again",
    ];

    // Of all kinds, by a program that nobody here knows of: what a page rests on is not for this test to say either.
    private static readonly string[] Changes =
    [
        "INSERT INTO Observations (Id, ChildId, Skill, At, Day, AdultId, Setting, Support, Representation) SELECT hex(randomblob(16)), ChildId, Skill, At, Day, AdultId, Setting, Support, Representation FROM Observations WHERE Sequence = 900",
        "UPDATE Children SET GivenName = 'Zebedee' WHERE Id = 3",
        "UPDATE AspNetUsers SET FullName = 'Somebody Else' WHERE Id = 1",
        "UPDATE Classes SET Name = 'Larch' WHERE Id = 1",
        "DELETE FROM GroupMembers",
        "DELETE FROM LessonSlots WHERE Id IN (SELECT MIN(Id) FROM LessonSlots WHERE ClassId = 1)",
        "UPDATE Schools SET Locale = 'en-US', ContentVersion = ContentVersion + 1",
        "DELETE FROM Observations WHERE ChildId = 5",
    ];

    [Fact]
    public async Task Whatever_is_written_by_whoever_each_page_is_as_it_would_be_worked_out_anew()
    {
        using School own = new();
        var ines = await own.ComeInAsAsync("ines");
        var (fresh, changed) = (0, 0);
        var before = await PagesAsync(ines, "");
        foreach (var change in Changes)
        {
            (await PagesAsync(ines, "")).ShouldBe(before, "asked for again, they are the same");
            using (var scope = own.Scope())
            {
                await own.Db(scope).Database.ExecuteSqlRawAsync(change, TestContext.Current.CancellationToken);
            }

            var now = await PagesAsync(ines, "");
            now.ShouldBe(await PagesAsync(ines, $"?question={++fresh}"), change);
            changed += now.Zip(before).Count(p => p.First != p.Second);
            before = now;
        }

        changed.ShouldBeGreaterThan(Changes.Length, "most of them are seen on more than one page");
    }

    [Fact]
    public async Task Who_has_a_page_already_is_sent_none_until_it_changes_and_who_may_not_see_it_hears_nothing_of_it()
    {
        var ines = await school.ComeInAsAsync("ines");
        foreach (var page in Pages)
        {
            var first = await ines.GetAsync(page);
            ines.Headers["If-None-Match"] = first.Headers.ETag!.ToString();
            var again = await ines.GetAsync(page);
            again.StatusCode.ShouldBe(HttpStatusCode.NotModified, page);
            again.Headers.ETag.ShouldBe(first.Headers.ETag);
            (await again.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken)).ShouldBeEmpty();
            again.Headers.CacheControl!.NoStore.ShouldBeTrue("nothing of it stays with the browser");

            // Packed otherwise it is another thing, and so is another page.
            ines.Headers["Accept-Encoding"] = "br";
            (await ines.GetAsync(page)).StatusCode.ShouldBe(HttpStatusCode.OK);
            ines.Headers.Remove("Accept-Encoding");
            (await ines.GetAsync(Pages.First(p => p != page))).StatusCode.ShouldBe(HttpStatusCode.OK);
        }

        var grid = await ines.GetAsync(Pages[0]);
        ines.Headers.Clear();
        ines.Headers["If-None-Match"] = grid.Headers.ETag!.ToString();
        await Board.SeenAsync(ines, 7, "see.to-3", StandingClock.At("2026-11-25T07:30:00"));
        var after = await ines.GetAsync(Pages[0]);
        after.StatusCode.ShouldBe(HttpStatusCode.OK);
        after.Headers.ETag.ShouldNotBe(grid.Headers.ETag);

        var nobody = await school.VisitAsync();
        nobody.Headers["If-None-Match"] = after.Headers.ETag!.ToString();
        (await nobody.GetAsync(Pages[0])).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task A_new_day_brings_a_new_page_though_nothing_was_written()
    {
        StandingClock clock = new("2026-11-25T23:59:00");
        using var own = School.By(clock);
        var ines = await own.ComeInAsAsync("ines");
        var today = await PagesAsync(ines, "");
        clock.Goes("2026-11-26T00:00:00");
        var tomorrow = await PagesAsync(ines, "");
        tomorrow.ShouldBe(await PagesAsync(ines, "?question=1"));
        tomorrow.ShouldNotBe(today);
    }

    /// <summary>Many write and many ask, by connections of their own, as fast as they can.</summary>
    [Fact]
    public async Task An_answer_is_never_older_than_what_had_been_written_when_it_was_asked_for()
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("fobble-unchanged-").FullName, "any.db");
        Write(file, "PRAGMA journal_mode=WAL; CREATE TABLE Counts (Count INTEGER); INSERT INTO Counts VALUES (0)");
        using UnchangedAnswers answers = new(new ChangeWatch(file), TimeProvider.System);
        var (written, found, asked) = (0, 0, 0);
        ConcurrentBag<string> wrong = [];
        using CancellationTokenSource over = new();
        Lock writing = new();
        var writers = Enumerable
            .Range(0, 2)
            .Select(i =>
                Task.Run(async () =>
                {
                    for (var times = 0; times < 40; times++)
                    {
                        lock (writing)
                        {
                            Write(file, "UPDATE Counts SET Count = Count + 1");
                            written++;
                        }

                        await Task.Delay(new Random(i + written).Next(6));
                    }
                })
            );
        var askers = Enumerable
            .Range(0, 6)
            .Select(_ =>
                Task.Run(() =>
                {
                    while (!over.IsCancellationRequested)
                    {
                        var before = Volatile.Read(ref written);
                        var answer = answers.Find("page");
                        if (answer is null)
                        {
                            var of = answers.Now();
                            answer = new(Encoding.UTF8.GetBytes(Read(file)), null, new EntityTagHeaderValue("\"any\""));
                            answers.Keep("page", of, answer);
                        }
                        else
                        {
                            Interlocked.Increment(ref found);
                        }

                        var says = int.Parse(Encoding.UTF8.GetString(answer.Body.Span), System.Globalization.CultureInfo.InvariantCulture);
                        if (says < before)
                        {
                            wrong.Add($"{says} where {before} was written");
                        }

                        Interlocked.Increment(ref asked);
                    }
                })
            );
        var asking = askers.ToList();
        await Task.WhenAll(writers);
        await over.CancelAsync();
        await Task.WhenAll(asking);
        wrong.ShouldBeEmpty();
        written.ShouldBe(80);
        found.ShouldBeInRange(1, asked - 10, "some were found, and what was written made others be read");
    }

    private static void Write(string file, string change)
    {
        using SqliteConnection connection = new($"Data Source={file};Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = change;
        command.ExecuteNonQuery();
    }

    private static string Read(string file)
    {
        using SqliteConnection connection = new($"Data Source={file};Mode=ReadOnly;Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = "SELECT Count FROM Counts";
        return command.ExecuteScalar()!.ToString()!;
    }

    private static async Task<List<string>> PagesAsync(Visitor visitor, string question)
    {
        List<string> pages = [];
        foreach (var page in Pages)
        {
            var answer = await visitor.GetAsync(page + question);
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, page);
            pages.Add(await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        }

        return pages;
    }
}
