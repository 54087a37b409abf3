using System.ComponentModel;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using Fobble.Server.Features.Activities;
using Fobble.Server.Features.ClassApproach;
using Fobble.Server.Features.ClassGrid;
using Fobble.Server.Features.Clipboard;
using Fobble.Server.Features.Groups;
using Fobble.Server.Features.Sheets;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.TestHost;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Hybrid;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;

namespace Fobble.Server.Tests;

/// <summary>A room is one moment; what it shows is in force; and what goes wrong is told to whoever can mend it.</summary>
public sealed class RoomTests : IDisposable
{
    private const string Class = "/api/classes/1";
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    // Whatever is read of it while it is kept would be its being written out, each time it is made and however large.
    [Fact]
    public async Task What_never_changes_is_kept_as_it_is_and_not_written_out()
    {
        await using var scope = _school.Services.CreateAsyncScope();
        var cache = scope.ServiceProvider.GetRequiredService<HybridCache>();
        Immutable made = new();
        (await cache.GetOrCreateAsync("kept", _ => ValueTask.FromResult(made))).ShouldBeSameAs(made);
        (await cache.GetOrCreateAsync("kept", _ => ValueTask.FromResult(new Immutable()))).ShouldBeSameAs(made);
        made.TimesRead.ShouldBe(0);
    }

    [ImmutableObject(true)]
    private sealed class Immutable
    {
        internal int TimesRead { get; private set; }

        public string Text
        {
            get
            {
                TimesRead++;
                return "";
            }
        }
    }

    [Fact]
    public async Task Whoever_could_not_come_in_keeps_no_snapshot_open()
    {
        await using var scope = _school.Services.CreateAsyncScope();
        var rooms = scope.ServiceProvider.GetRequiredService<ClassRooms>();
        await Should.ThrowAsync<KeyNotFoundException>(() => rooms.OpenAsync(new(77), default));
        var db = _school.Db(scope);
        await db.Database.ExecuteSqlAsync($"UPDATE Schools SET Name = Name || '.'");

        // Somebody who reads at this moment is soon gone; what was left open stays.
        var busy = 1;
        for (var tries = 0; busy == 1 && tries < 50; tries++)
        {
            await Task.Delay(100);
            busy = (await db.Database.SqlQuery<int>($"PRAGMA wal_checkpoint(TRUNCATE)").ToListAsync())[0];
        }

        busy.ShouldBe(0);
    }

    [Fact]
    public async Task A_room_that_nobody_left_is_left_at_the_end_of_the_request()
    {
        for (var i = 0; i < 20; i++)
        {
            await using var scope = _school.Services.CreateAsyncScope();
            await scope.ServiceProvider.GetRequiredService<ClassRooms>().OpenAsync(new(1), default);
        }

        // Were they left to the collector, their connections would come back with a transaction still open.
        GC.Collect();
        GC.WaitForPendingFinalizers();
        await using var next = _school.Services.CreateAsyncScope();
        for (var i = 0; i < 40; i++)
        {
            (await next.ServiceProvider.GetRequiredService<ClassRooms>().OpenAsync(new(1), default)).Name.ShouldNotBeEmpty();
        }
    }

    [Fact]
    public async Task What_is_written_meanwhile_is_not_seen_until_the_room_is_entered_again()
    {
        await using var scope = _school.Services.CreateAsyncScope();
        await using var room = await scope.ServiceProvider.GetRequiredService<ClassRooms>().OpenAsync(new(1), default);

        // Nothing but the class has been read yet: the children, the evidence and the calendar are still of the moment of entering.
        var ines = await _school.ComeInAsAsync("ines");
        NewObservation seen = new(
            Guid.NewGuid(),
            1,
            "count.say-5",
            ClipboardTests.Now.AddMinutes(-5),
            Setting.Choice,
            Support.Alone,
            Representation.Spoken,
            null,
            null,
            null,
            null,
            null
        );
        (await ines.PostAsync($"{Class}/observations", seen)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        _school
            .Db(scope)
            .Children.Add(
                new Data.Model.Child
                {
                    ClassId = 1,
                    GivenName = "Late",
                    FamilyName = "Comer",
                }
            );
        await _school.Db(scope).SaveChangesAsync();

        (await room.ChildrenAsync(default)).ShouldNotContain(c => c.Name.StartsWith("Late", StringComparison.Ordinal));
        (await room.Db.Observations.AnyAsync(o => o.Id == seen.Id)).ShouldBeFalse();
        await room.AgainAsync(default);
        (await room.ChildrenAsync(default)).ShouldContain(c => c.Name.StartsWith("Late", StringComparison.Ordinal));
        (await room.Db.Observations.AnyAsync(o => o.Id == seen.Id)).ShouldBeTrue();
    }

    [Fact]
    public async Task Nothing_can_be_written_through_a_room()
    {
        await using var scope = _school.Services.CreateAsyncScope();
        await using var room = await scope.ServiceProvider.GetRequiredService<ClassRooms>().OpenAsync(new(1), default);
        await Should.ThrowAsync<Microsoft.Data.Sqlite.SqliteException>(() =>
            room.Db.Children.Where(c => c.Id == 1).ExecuteUpdateAsync(c => c.SetProperty(x => x.GivenName, "Nobody"))
        );
    }

    [Fact]
    public async Task A_commit_is_on_disk_before_it_is_told()
    {
        await using var scope = _school.Services.CreateAsyncScope();
        var db = _school.Db(scope);
        await db.Database.OpenConnectionAsync();
        (await db.Database.SqlQueryRaw<int>("SELECT synchronous AS Value FROM pragma_synchronous").SingleAsync()).ShouldBe(
            2,
            "FULL, by SQLite's documentation of PRAGMA synchronous"
        );
        (await db.Database.SqlQueryRaw<int>("SELECT foreign_keys AS Value FROM pragma_foreign_keys").SingleAsync()).ShouldBe(1);
    }

    [Fact]
    public async Task Groups_that_were_replaced_are_shown_nowhere()
    {
        var ines = await _school.ComeInAsAsync("ines");
        const string Week = $"{Class}/weeks/2026-12-02";
        var first = await Board.AcceptAsync(ines, Week, await Board.ProposeAsync(ines, Week));
        var old = first.Groups.Select(g => g.SessionId!.Value).ToList();
        var second = await Board.AcceptAsync(ines, Week, await Board.ProposeAsync(ines, Week));
        var now = second.Groups.Select(g => g.SessionId!.Value).ToList();
        now.Intersect(old).ShouldBeEmpty();

        foreach (var session in old)
        {
            (await ines.GetAsync($"{Class}/sessions/{session}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        }

        var sheets = (await ines.ReadAsync<SheetChoices>($"{Class}/sheets/")).Groups.Select(g => g.SessionId).ToList();
        sheets.ShouldBeSubsetOf([.. now, .. (await ines.ReadAsync<Grid>($"{Class}/grid")).Groups.Select(g => g.SessionId)]);
        sheets.Intersect(old).ShouldBeEmpty();
        string[] pages = [$"{Class}/grid", Week, $"{Class}/days/2026-12-02", $"{Class}/children/1", $"{Week}/set-out", $"{Class}/sheets/"];
        foreach (var page in pages)
        {
            var text = await (await ines.GetAsync(page)).Content.ReadAsStringAsync();
            foreach (var session in old)
            {
                text.ShouldNotMatch($"\"sessionId\":{session}[,}}]", page);
            }
        }
    }

    [Fact]
    public async Task The_grid_of_a_week_with_a_replaced_set_shows_as_many_groups_as_are_in_force()
    {
        var ines = await _school.ComeInAsAsync("ines");
        const string Week = $"{Class}/weeks/2026-11-25";
        await Board.AcceptAsync(ines, Week, await Board.ProposeAsync(ines, Week));
        await Board.AcceptAsync(ines, Week, await Board.ProposeAsync(ines, Week));
        var inForce = (await ines.ReadAsync<GroupsView>($"{Week}/groups")).Groups;
        (await ines.ReadAsync<Grid>($"{Class}/grid")).Groups.Select(g => g.SessionId).ShouldBe(inForce.Select(g => g.SessionId!.Value), ignoreOrder: true);
    }

    /// <summary>Every page is asked before and after, so that whatever is kept of the old words would be seen.</summary>
    [Fact]
    public async Task A_class_that_changes_its_words_reads_them_at_once_on_every_page()
    {
        var ines = await _school.ComeInAsAsync("ines");
        async Task<string> LibraryAsync() => await (await ines.GetAsync($"{Class}/activities")).Content.ReadAsStringAsync();
        var before = await LibraryAsync();
        var choice = (await ines.ReadAsync<ApproachView>($"{Class}/approach")).Choice;
        (
            await ines.PatchAsync($"{Class}/approach", choice with { OnesWord = choice.OnesWord == OnesWord.Ones ? OnesWord.Units : OnesWord.Ones })
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var after = await LibraryAsync();
        after.ShouldNotBe(before);
        (await ines.PatchAsync($"{Class}/approach", choice)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await LibraryAsync()).ShouldBe(before);
    }

    [Fact]
    public async Task A_fault_is_told_by_a_number_that_stands_in_the_log()
    {
        Kept log = new();
        using var school = School.Empty();
        await using var broken = school.WithWebHostBuilder(b =>
            b.UseSetting("Logging:LogLevel:Default", "Error").ConfigureTestServices(s => s.AddSingleton<ILoggerProvider>(log))
        );
        var client = broken.CreateClient();
        (await client.GetAsync(new Uri("/api/account/", UriKind.Relative))).EnsureSuccessStatusCode();
        await using (var scope = broken.Services.CreateAsyncScope())
        {
            await scope.ServiceProvider.GetRequiredService<Data.FobbleDb>().Database.ExecuteSqlRawAsync("ALTER TABLE AspNetUsers RENAME TO Gone");
        }

        var answer = await client.GetAsync(new Uri("/api/account/", UriKind.Relative));
        answer.StatusCode.ShouldBe(HttpStatusCode.InternalServerError);
        using var problem = System.Text.Json.JsonDocument.Parse(await answer.Content.ReadAsStringAsync());
        var id = problem.RootElement.GetProperty("fault").GetString()!;
        problem.RootElement.GetProperty("detail").GetString()!.ShouldContain(id);
        problem.RootElement.ToString().ShouldNotContain("SQLite", Case.Insensitive, "a teacher is not told of the machine");
        log.Lines.ShouldContain(l => l.Contains(id, StringComparison.Ordinal));
    }

    private sealed class Kept : ILoggerProvider, ILogger
    {
        public System.Collections.Concurrent.ConcurrentBag<string> Lines { get; } = [];

        public ILogger CreateLogger(string categoryName) => this;

        public IDisposable? BeginScope<TState>(TState state)
            where TState : notnull => null;

        public bool IsEnabled(LogLevel logLevel) => true;

        public void Log<TState>(LogLevel logLevel, EventId eventId, TState state, Exception? exception, Func<TState, Exception?, string> formatter) =>
            Lines.Add(formatter(state, exception));

        public void Dispose() { }
    }
}
