using CsCheck;
using Fobble.Data;
using Fobble.Data.Keeping;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fobble.Server.Tests;

/// <summary>The data folder and its database are looked at before anything is begun: what is wrong is a sentence, and what is there stays as it is.</summary>
public sealed class KeepingTests : IDisposable
{
    private readonly DirectoryInfo _root = Directory.CreateTempSubdirectory("fobble-keeping-");

    private string Folder => Path.Combine(_root.FullName, "data");

    private string Database => Path.Combine(Folder, DataFolder.DatabaseFile);

    public void Dispose() => _root.Delete(recursive: true);

    private static string Said(Action act) => Should.Throw<DataFolderException>(act).Message;

    private FobbleDb Open()
    {
        DbContextOptionsBuilder<FobbleDb> options = new();
        FobbleDb.Configure(options, Database);
        return new(options.Options);
    }

    // A school of some version: the oldest, or the newest where none is named.
    private void Make(string? migration = null)
    {
        Directory.CreateDirectory(Folder);
        using var db = Open();
        if (migration is null)
        {
            db.Prepare();
        }
        else
        {
            db.GetService<IMigrator>().Migrate(migration);
        }

        Execute("INSERT INTO Schools (Name, TimeZone, Locale) VALUES ('Kettle Lane School', 'Europe/London', 'en-GB')", failing: migration is not null);
    }

    private void Execute(string sql, bool failing = false)
    {
        using SqliteConnection connection = new($"Data Source={Database};Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        try
        {
            command.ExecuteNonQuery();
        }
        catch (SqliteException) when (failing)
        {
            // Its columns were others then.
        }
    }

    [Fact]
    [System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
    public void A_folder_is_for_one_server_and_for_nobody_else_on_the_machine()
    {
        using (var held = DataFolder.Take(Folder))
        {
            Said(() => DataFolder.Take(Folder).Dispose()).ShouldContain("is running on");
            File.GetUnixFileMode(Folder).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        }

        // What somebody has put there by hand is shut, too; and whoever had it has let go of it.
        var loose = Path.Combine(Folder, "loose.txt");
        File.WriteAllText(loose, "");
        File.SetUnixFileMode(loose, (UnixFileMode)0b110_110_110);
        using var again = DataFolder.Take(Folder);
        File.GetUnixFileMode(loose).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite);
    }

    [Fact]
    public void A_folder_that_is_a_file_or_below_one_is_told()
    {
        File.WriteAllText(Folder, "");
        Said(() => DataFolder.Take(Folder).Dispose()).ShouldContain("can’t be written to");
        Said(() => DataFolder.Take(Path.Combine(Folder, "below")).Dispose()).ShouldContain("can’t be written to");
    }

    [Fact]
    public void A_database_that_is_empty_cut_off_or_something_else_is_told_and_left_as_it_is()
    {
        Make();
        Execute("PRAGMA wal_checkpoint(TRUNCATE)");
        var whole = File.ReadAllBytes(Database);

        void Shown(byte[] bytes, string says)
        {
            File.WriteAllBytes(Database, bytes);
            Said(() => Schema.Of(Database)).ShouldContain(says);
            File.ReadAllBytes(Database).ShouldBe(bytes);
        }

        Shown([], "empty or cut off");
        Shown(whole[..50], "empty or cut off");
        Shown(whole[..(whole.Length / 2)], "bytes are there of");
        Shown([.. new byte[4096], .. whole[4096..]], "damaged");
        Shown(
            "This is a letter to the office, and no database at all. It is long enough to have a header's length, and that is all there is to it."u8.ToArray(),
            "damaged"
        );
        File.Delete(Database);
        File.WriteAllBytes(Database + "-wal", [1]);
        Said(() => Schema.Of(Database)).ShouldContain("only its log");
    }

    [Fact]
    public void Pages_that_were_written_over_are_found_or_do_no_harm()
    {
        Make();
        Execute("PRAGMA wal_checkpoint(TRUNCATE)");
        var whole = File.ReadAllBytes(Database);
        var found = 0;

        // A page of noise anywhere but the first: found, or a page that is in no use.
        Gen.Select(Gen.Int[1, (whole.Length / 4096) - 1], Gen.Byte.Array[4096])
            .Sample(
                (page, noise) =>
                {
                    var bytes = whole.ToArray();
                    noise.CopyTo(bytes, page * 4096);
                    File.WriteAllBytes(Database, bytes);
                    try
                    {
                        Schema.Of(Database);
                    }
                    catch (DataFolderException told)
                    {
                        told.Message.ShouldContain("fobble.db");
                        found++;
                    }
                },
                iter: 60,
                threads: 1
            );
        found.ShouldBeGreaterThan(50);
    }

    [Fact]
    public void A_database_of_a_newer_program_is_not_touched_by_an_older_one()
    {
        Make();
        Execute("INSERT INTO __EFMigrationsHistory VALUES ('20990101000000_Later', '20.0.0')");
        Said(() => Schema.Of(Database)).ShouldContain("a newer Fobble than this one (it knows “20990101000000_Later”)");
    }

    [Fact]
    public void An_update_keeps_what_was_before_and_only_the_two_last()
    {
        for (var times = 0; times < 4; times++)
        {
            Directory.CreateDirectory(Folder);
            File.Delete(Database);
            Make("20261127011658_Groups");
            using var held = DataFolder.Take(Folder);
            var before = SchemaUpdate.Run(held, Schema.Of(Database).Age).ShouldNotBeNull();
            Schema.Of(Database).Age.ShouldBe(SchemaAge.OfNow);
            Schema.Of(before).Age.ShouldBe(SchemaAge.Older);

            // As if it had been some weeks ago.
            File.Move(before, Path.Combine(Path.GetDirectoryName(before)!, $"2026-01-0{times + 1}-000000.db"));
        }

        Directory.GetFiles(Path.Combine(Folder, SchemaUpdate.BeforeFolder)).Length.ShouldBe(2);
        SchemaUpdate.ForgetBefore(Folder);
        Directory.Exists(Path.Combine(Folder, SchemaUpdate.BeforeFolder)).ShouldBeFalse();
    }

    [Fact]
    public void A_lock_that_a_killed_update_has_left_keeps_nobody_waiting()
    {
        Make("20261127011658_Groups");
        Execute(
            "CREATE TABLE IF NOT EXISTS __EFMigrationsLock (Id INTEGER PRIMARY KEY, Timestamp TEXT NOT NULL); INSERT INTO __EFMigrationsLock VALUES (1, '2026-12-01')"
        );
        File.WriteAllText(Database + ".new", "half of a copy");
        using var held = DataFolder.Take(Folder);
        SchemaUpdate.Run(held, SchemaAge.Older);
        Schema.Of(Database).Age.ShouldBe(SchemaAge.OfNow);
        Directory.GetFiles(Folder, "*.new*").ShouldBeEmpty();
    }

    [Fact]
    public void An_update_that_cannot_be_done_changes_nothing()
    {
        Make("20261127011658_Groups");
        // What a later migration adds is there already, as after a change by hand.
        Execute("CREATE TABLE ClassVersions (Id INTEGER)");
        Execute("PRAGMA wal_checkpoint(TRUNCATE)");
        var before = File.ReadAllBytes(Database);
        using var held = DataFolder.Take(Folder);
        Said(() => SchemaUpdate.Run(held, SchemaAge.Older)).ShouldContain("Nothing was changed");
        File.ReadAllBytes(Database).ShouldBe(before);
        Schema.Of(Database).Age.ShouldBe(SchemaAge.Older);
    }

    [Fact]
    public void What_stands_in_the_log_only_is_updated_too()
    {
        Make("20261127011658_Groups");
        using SqliteConnection writes = new($"Data Source={Database};Pooling=False");
        writes.Open();
        using (var command = writes.CreateCommand())
        {
            command.CommandText = "PRAGMA journal_mode=WAL; CREATE TABLE Kept (Id INTEGER); INSERT INTO Kept VALUES (7)";
            command.ExecuteNonQuery();
        }

        // As after a kill: the log is there, and nobody to close it.
        var copy = Path.Combine(_root.FullName, "killed");
        Directory.CreateDirectory(copy);
        foreach (var end in (string[])["", "-wal"])
        {
            File.Copy(Database + end, Path.Combine(copy, DataFolder.DatabaseFile + end));
        }

        using var held = DataFolder.Take(copy);
        SchemaUpdate.Run(held, SchemaAge.Older);
        using SqliteConnection reads = new($"Data Source={held.Database};Mode=ReadOnly;Pooling=False");
        reads.Open();
        using var ask = reads.CreateCommand();
        ask.CommandText = "SELECT Id FROM Kept";
        ask.ExecuteScalar().ShouldBe(7L);
    }

    [Fact]
    public void While_another_program_has_it_open_nothing_is_put_in_its_place()
    {
        Make("20261127011658_Groups");
        Execute("PRAGMA journal_mode=WAL");
        using var other = FobbleDb.KeepOpen(Database);
        using var held = DataFolder.Take(Folder);
        Said(() => SchemaUpdate.Run(held, SchemaAge.Older)).ShouldContain("another program has");
        Schema.Of(Database).Age.ShouldBe(SchemaAge.Older);
    }
}
