using System.Reflection;
using Fobble.Data;
using Fobble.Data.Backups;
using Fobble.Data.Keeping;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fobble.Server.Tests;

/// <summary>A school that has used an earlier version keeps its record to the row when the schema changes.</summary>
public sealed class MigrationTests : IDisposable
{
    private readonly string _file = Path.Combine(Directory.CreateTempSubdirectory("fobble-old-").FullName, "old.db");

    public void Dispose() => Directory.Delete(Path.GetDirectoryName(_file)!, recursive: true);

    [Fact]
    public async Task Observations_withdrawals_and_photos_are_all_there_after_the_table_was_built_anew()
    {
        await MakeOldAsync();
        Schema.Of(_file).ShouldBe(new(SchemaAge.Older, Filled: true), "an older demo is brought up to date, not filled once more");
        await using var db = Open();
        db.Prepare();
        (await db.Observations.OrderBy(o => o.Sequence).Select(o => o.Note).ToListAsync()).ShouldBe(["first", "second", "third", "of another class"]);
        (await db.Observations.Select(o => o.Sequence).Distinct().CountAsync()).ShouldBe(4);
        (await db.Withdrawals.SingleAsync()).Why.ShouldBe("Wrong child");
        (await db.Photos.CountAsync()).ShouldBe(1);
        (await db.Observations.CountAsync(o => o.Withdrawal != null)).ShouldBe(1);

        (await db.SchoolLeads.Select(l => l.AdultId).ToListAsync()).ShouldBe([1], "who leads the first class began the school");
        (await db.Classes.CountAsync(c => c.ArchivedOn == null)).ShouldBe(2);

        // What two adults once began at once is one: the check with an answer stays, one without is gone, and only the last of two jars is still closed.
        (await db.BaselineChecks.CountAsync(c => c.EndedAt == null)).ShouldBe(1);
        (await db.JarRounds.CountAsync(j => j.ClassId == 1 && j.Counted == null)).ShouldBe(1);
        (await db.JarRounds.CountAsync()).ShouldBe(2);
        (await ScalarAsync(db, "SELECT COUNT(*) AS Value FROM pragma_foreign_key_check")).ShouldBe(0);
        (await ScalarAsync(db, "SELECT foreign_keys AS Value FROM pragma_foreign_keys")).ShouldBe(1, "switched off for the change only");
        (await db.ClassVersions.OrderBy(v => v.ClassId).Select(v => v.LastSeen).ToListAsync()).ShouldBe([3, 4]);
    }

    [Fact]
    public async Task A_number_is_given_once_even_when_the_last_row_was_deleted_and_an_observation_still_never_changes()
    {
        await MakeOldAsync();
        await using var db = Open();
        db.Prepare();
        var last = await db.Observations.MaxAsync(o => o.Sequence);
        await db.Observations.Where(o => o.Sequence == last).ExecuteDeleteAsync();
        await ObserveAsync(db, 1, "after");
        (await db.Observations.MaxAsync(o => o.Sequence)).ShouldBeGreaterThan(last);
        (await Should.ThrowAsync<SqliteException>(() => db.Observations.ExecuteUpdateAsync(o => o.SetProperty(x => x.Note, "other")))).Message.ShouldContain(
            "never changed"
        );

        // A child's record goes with the child, as it did before.
        await db.Children.Where(c => c.Id == 1).ExecuteDeleteAsync();
        (await db.Observations.CountAsync()).ShouldBe(0);
        (await db.Withdrawals.CountAsync()).ShouldBe(0);
    }

    public static TheoryData<string> Released() =>
        [.. typeof(FobbleDb).Assembly.GetTypes().Select(t => t.GetCustomAttribute<MigrationAttribute>()?.Id).OfType<string>().Order(StringComparer.Ordinal)];

    [Theory]
    [MemberData(nameof(Released))]
    public void Whatever_version_a_school_has_used_is_brought_to_this_one_with_all_its_rows(string version)
    {
        var folder = Path.Combine(Path.GetDirectoryName(_file)!, "data");
        Directory.CreateDirectory(folder);
        var file = Path.Combine(folder, DataFolder.DatabaseFile);
        OldSchool.Make(file, version);
        var before = Snapshot.Take(file, _file).Rows;
        var (age, _) = Schema.Of(file);
        using var held = DataFolder.Take(folder);
        if (age != SchemaAge.OfNow)
        {
            SchemaUpdate.Run(held, age);
        }

        Schema.Of(file).ShouldBe(new(SchemaAge.OfNow, Filled: true));
        var after = Snapshot.Take(file, _file + ".after").Rows;
        foreach (var (table, rows) in before.Where(b => !b.Key.StartsWith("__", StringComparison.Ordinal)))
        {
            rows.ShouldBeGreaterThan(0, table);
            after.GetValueOrDefault(table).ShouldBe(rows, $"{table} from {version}");
        }
    }

    private FobbleDb Open()
    {
        DbContextOptionsBuilder<FobbleDb> options = new();
        FobbleDb.Configure(options, _file);
        return new(options.Options);
    }

    // The schema as it was before this change, with a little of everything that the change touches.
    private async Task MakeOldAsync()
    {
        await using var db = Open();
        await db.GetService<IMigrator>().MigrateAsync("20261127011658_Groups");
        await InsertAsync(db, "Schools", ("Id", 1), ("Name", "Lantern Hill School"));
        await InsertAsync(db, "AspNetUsers", ("Id", 1), ("FullName", "Ines"));
        await InsertAsync(db, "AspNetUsers", ("Id", 2), ("FullName", "Maeve"));
        foreach (var id in new[] { 1, 2 })
        {
            await InsertAsync(db, "Classes", ("Id", id), ("SchoolId", 1), ("Name", $"Class {id}"));
            await InsertAsync(db, "Memberships", ("ClassId", id), ("AdultId", id), ("Role", 0));
            await InsertAsync(db, "Children", ("Id", id), ("ClassId", id), ("GivenName", $"Child {id}"));
        }

        await InsertAsync(db, "BaselineChecks", ("Id", 1), ("ClassId", 1), ("ChildId", 1), ("Inferred", "{}"), ("EndedAt", null), ("Strand", null));
        await InsertAsync(db, "BaselineChecks", ("Id", 2), ("ClassId", 1), ("ChildId", 1), ("Inferred", "{}"), ("EndedAt", null), ("Strand", null));
        var first = await ObserveAsync(db, 1, "first", check: 1);
        var second = await ObserveAsync(db, 1, "second");
        await ObserveAsync(db, 1, "third");
        await ObserveAsync(db, 2, "of another class");
        await InsertAsync(db, "Withdrawals", ("ObservationId", first), ("AdultId", 1), ("Why", "Wrong child"));
        await InsertAsync(db, "Photos", ("ObservationId", second));
        await InsertAsync(db, "JarRounds", ("Id", 1), ("ClassId", 1), ("Amount", 20), ("Counted", null));
        await InsertAsync(db, "JarRounds", ("Id", 2), ("ClassId", 1), ("Amount", 30), ("Counted", null));
    }

    private static async Task<string> ObserveAsync(FobbleDb db, int child, string note, int? check = null)
    {
        var id = Guid.NewGuid().ToString().ToUpperInvariant();
        await InsertAsync(db, "Observations", ("Id", id), ("ChildId", child), ("AdultId", 1), ("Skill", "count.say-5"), ("Note", note), ("CheckId", check));
        return id;
    }

    /// <summary>A row with what is said of it; whatever else must be there is nothing or zero, by its type.</summary>
    private static async Task InsertAsync(FobbleDb db, string table, params (string Column, object? Value)[] said)
    {
        await db.Database.OpenConnectionAsync();
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = $"SELECT name, type FROM pragma_table_info('{table}') WHERE \"notnull\" = 1 AND dflt_value IS NULL AND pk = 0";
        var values = said.ToDictionary(s => s.Column, s => s.Value);
        await using (var columns = await command.ExecuteReaderAsync())
        {
            while (await columns.ReadAsync())
            {
                values.TryAdd(columns.GetString(0), columns.GetString(1) == "INTEGER" ? 0 : "");
            }
        }

        command.CommandText =
            $"INSERT INTO {table} ({string.Join(", ", values.Keys.Select(k => $"\"{k}\""))}) VALUES ({string.Join(", ", values.Keys.Select(k => "@" + k))})";
        foreach (var (column, value) in values)
        {
            command.Parameters.Add(new SqliteParameter("@" + column, value ?? DBNull.Value));
        }

        await command.ExecuteNonQueryAsync();
    }

    private static Task<long> ScalarAsync(FobbleDb db, string sql) => db.Database.SqlQueryRaw<long>(sql).SingleAsync();
}
