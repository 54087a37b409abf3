using CsCheck;
using Fobble.Data.Backups;
using Microsoft.Data.Sqlite;

namespace Fobble.Server.Tests;

/// <summary>Backups are taken from a school that goes on writing, and tried to be broken.</summary>
public sealed class BackupFileTests : IDisposable
{
    private const string Passphrase = "seven lanterns in fog";
    private static readonly DateTimeOffset At = new(2026, 11, 25, 8, 0, 0, TimeSpan.Zero);
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("fobble-backup-");

    public void Dispose() => _folder.Delete(recursive: true);

    private string In(string name) => Path.Combine(_folder.FullName, name);

    private static byte[] Closed(byte[] plain)
    {
        using MemoryStream to = new();
        using (var seal = Sealed.Write(to, Passphrase))
        {
            seal.Write(plain);
        }

        return to.ToArray();
    }

    private static byte[] Open(byte[] file, string passphrase = Passphrase)
    {
        using MemoryStream to = new();
        using var from = Sealed.Read(new MemoryStream(file), passphrase);
        from.CopyTo(to);
        return to.ToArray();
    }

    private const int Piece = 65_536;

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(Piece - 1)]
    [InlineData(Piece)]
    [InlineData(Piece + 1)]
    [InlineData(2 * Piece)]
    [InlineData((3 * Piece) + 17)]
    public void What_is_sealed_opens_again_whatever_its_length(int length)
    {
        var plain = new byte[length];
        new Random(length).NextBytes(plain);
        var file = Closed(plain);
        Open(file).ShouldBe(plain);
        if (length > 16)
        {
            file.AsSpan().IndexOf(plain.AsSpan(0, 16)).ShouldBe(-1);
        }

        Closed(plain).ShouldNotBe(file, "no two are alike");
    }

    [Fact]
    public void Whatever_bit_is_turned_and_wherever_it_is_cut_it_does_not_open()
    {
        var plain = new byte[(2 * Piece) + 100];
        new Random(1).NextBytes(plain);
        var file = Closed(plain);

        // Deriving the key takes its time, on purpose: some places, among them the edges of pieces.
        int[] edges = [0, 20, 36, 40, 43, 43 + Piece + 16, 43 + Piece + 17, file.Length - 1];
        foreach (var at in edges)
        {
            var turned = file.ToArray();
            turned[at] ^= 0x10;
            Should.Throw<NotWholeException>(() => Open(turned), $"byte {at}");
        }

        foreach (var length in new[] { 0, 10, 43, 50, 43 + Piece + 16, 43 + (2 * (Piece + 16)), file.Length - 1 })
        {
            Should.Throw<NotWholeException>(() => Open(file[..length]), $"{length} bytes");
        }

        // Two pieces change places; one comes twice; something is put behind.
        var (first, second) = (file[43..(43 + Piece + 16)], file[(43 + Piece + 16)..(43 + (2 * (Piece + 16)))]);
        Should.Throw<NotWholeException>(() => Open([.. file[..43], .. second, .. first, .. file[(43 + (2 * (Piece + 16)))..]]));
        Should.Throw<NotWholeException>(() => Open([.. file[..43], .. first, .. first, .. second, .. file[(43 + (2 * (Piece + 16)))..]]));
        Should.Throw<NotWholeException>(() => Open([.. file, 0]));
        Should.Throw<NotWholeException>(() => Open(file, "seven lanterns in frog")).Message.ShouldContain("passphrase");
    }

    private string School()
    {
        var data = Directory.CreateDirectory(In("data")).FullName;
        using SqliteConnection connection = new($"Data Source={Path.Combine(data, "fobble.db")};Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = """
            PRAGMA journal_mode=WAL; PRAGMA foreign_keys=ON;
            CREATE TABLE Children (Id INTEGER PRIMARY KEY, Name TEXT);
            CREATE TABLE Seen (Id INTEGER PRIMARY KEY, ChildId INTEGER NOT NULL REFERENCES Children(Id), Twice INTEGER NOT NULL);
            INSERT INTO Children VALUES (1, 'Ada');
            """;
        command.ExecuteNonQuery();
        Directory.CreateDirectory(Path.Combine(data, "keys"));
        File.WriteAllText(Path.Combine(data, "keys", "key-1.xml"), "<key/>");
        return data;
    }

    // Each transaction writes two rows: a copy with an odd number of them is of no moment.
    [Fact]
    public async Task A_backup_is_of_one_moment_whoever_writes_meanwhile()
    {
        var data = School();
        using CancellationTokenSource enough = new();
        var writing = Task.Run(() =>
        {
            using SqliteConnection connection = new($"Data Source={Path.Combine(data, "fobble.db")};Pooling=False;Default Timeout=30");
            connection.Open();
            for (var i = 0; !enough.IsCancellationRequested; i++)
            {
                using var command = connection.CreateCommand();
                command.CommandText = $"BEGIN; INSERT INTO Seen (ChildId, Twice) VALUES (1, {i}); INSERT INTO Seen (ChildId, Twice) VALUES (1, {i}); COMMIT";
                command.ExecuteNonQuery();
            }
        });
        List<long> counts = [];
        for (var i = 0; i < 6; i++)
        {
            var facts = BackupFile.PutBack(BackupFile.Take(data, In("backups"), Passphrase, At.AddSeconds(i), "1"), In($"back-{i}"), Passphrase);
            (facts.Rows["Seen"] % 2).ShouldBe(0);
            facts.At.ShouldBe(At.AddSeconds(i));
            counts.Add(facts.Rows["Seen"]);
            File.ReadAllText(Path.Combine(In($"back-{i}"), "keys", "key-1.xml")).ShouldBe("<key/>");
            if (!OperatingSystem.IsWindows())
            {
                File.GetUnixFileMode(Path.Combine(In($"back-{i}"), "fobble.db")).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite);
            }
        }

        await enough.CancelAsync();
        await writing;
        counts.ShouldBeInOrder();
        counts[^1].ShouldBeGreaterThan(counts[0], "somebody did write");
        Directory.GetFiles(In("backups")).Select(Path.GetFileName).ShouldAllBe(name => BackupFile.TakenAt(name!) != null);
        Directory.GetDirectories(In("backups")).ShouldBeEmpty("nothing half done is left");
    }

    [Fact]
    public void A_damaged_school_is_not_backed_up_and_says_so()
    {
        var data = School();
        using (SqliteConnection connection = new($"Data Source={Path.Combine(data, "fobble.db")};Pooling=False;Foreign Keys=False"))
        {
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = "INSERT INTO Seen (ChildId, Twice) VALUES (99, 1)";
            command.ExecuteNonQuery();
        }

        Should.Throw<NotWholeException>(() => BackupFile.Take(data, In("backups"), Passphrase, At, "1")).Message.ShouldContain("a row of Seen");
        Directory.GetFileSystemEntries(In("backups")).ShouldBeEmpty();

        var file = Path.Combine(data, "fobble.db");
        using (FileStream open = new(file, FileMode.Open, FileAccess.ReadWrite))
        {
            open.SetLength(open.Length / 2);
        }

        Should.Throw<NotWholeException>(() => BackupFile.Take(data, In("backups"), Passphrase, At, "1"));
        Directory.GetFileSystemEntries(In("backups")).ShouldBeEmpty();
    }

    [Fact]
    public void A_backup_is_never_put_over_a_school_and_one_that_fails_leaves_nothing()
    {
        var data = School();
        var backup = BackupFile.Take(data, In("backups"), Passphrase, At, "1");
        Should.Throw<NotWholeException>(() => BackupFile.PutBack(backup, data, Passphrase)).Message.ShouldContain("never over a school");
        File.Exists(Path.Combine(data, "fobble.db")).ShouldBeTrue();
        Should.Throw<NotWholeException>(() => BackupFile.PutBack(backup, In("new"), "another one"));
        Directory.Exists(In("new")).ShouldBeFalse();
        File.WriteAllBytes(In("cut.fobble"), File.ReadAllBytes(backup)[..^20]);
        Should.Throw<NotWholeException>(() => BackupFile.PutBack(In("cut.fobble"), In("new"), Passphrase));
        Directory.Exists(In("new")).ShouldBeFalse();
        BackupFile.PutBack(backup, In("new"), Passphrase).Rows["Children"].ShouldBe(1);
    }

    [Theory]
    [InlineData("fobble-2026-11-25-080000.fobble", true)]
    [InlineData("fobble-2026-13-25-080000.fobble", false)]
    [InlineData("other-2026-11-25-080000.fobble", false)]
    [InlineData("fobble-2026-11-25-080000.zip", false)]
    public void A_backup_is_known_by_its_name(string name, bool known)
    {
        BackupFile.TakenAt(name).ShouldBe(known ? At : null);
        BackupFile.NameAt(At.ToOffset(TimeSpan.FromHours(11))).ShouldBe("fobble-2026-11-25-080000.fobble");
    }

    [Fact]
    public void Backups_stay_closely_for_what_is_new_and_months_back_and_the_newest_always() =>
        Gen.Int[0, 500 * 24 * 12]
            .Array[1, 200]
            .Sample(minutes =>
            {
                var taken = minutes.Select(m => At.AddMinutes(-5 * m)).Distinct().ToList();
                var over = Rotation.Over(taken);
                var stays = taken.Except(over).ToList();
                stays.ShouldContain(taken.Max());
                over.ShouldAllBe(at => at < At.AddHours(-2));

                // Whatever moment of the last two weeks: something of the time around it is still there, where something was taken.
                foreach (var at in taken.Where(at => at >= At.AddDays(-13)))
                {
                    stays.ShouldContain(s => Math.Abs((s - at).TotalHours) <= 24);
                }

                stays.Count.ShouldBeLessThanOrEqualTo(24 + 48 + 14 + 8 + 12);
                Rotation.Over(stays).ShouldBeEmpty("once is enough");
            });

    [Fact]
    public void Of_a_school_in_use_nothing_stays_for_longer_than_a_year()
    {
        List<DateTimeOffset> there = [];
        for (var at = At; at < At.AddDays(800); at += TimeSpan.FromHours(7))
        {
            there.Add(at);
            there = [.. there.Except(Rotation.Over(there))];
            there.ShouldAllBe(kept => kept >= at.AddDays(-366));
        }
    }

    /// <summary>A battery that is empty, somebody who turns the wrong wheel: for some hours the clock stands elsewhere, and then it is right again.</summary>
    [Fact]
    public void A_clock_that_leaps_takes_no_backup_with_it_and_hides_none() =>
        Gen.Select(Gen.Int[-4000, 4000], Gen.Int[1, 30], Gen.Int[0, 200])
            .Sample(
                (days, wrongly, until) =>
                {
                    HashSet<DateTimeOffset> there = [];
                    void Take(DateTimeOffset at)
                    {
                        there.Add(at);
                        there.ExceptWith(Rotation.Over(there, at));
                        there.ShouldContain(at);
                    }

                    for (var i = 0; i < 150 + until; i++)
                    {
                        Take(At.AddHours(-7 * (150 + until - i)));
                    }

                    var before = there.ToList();
                    for (var i = 0; i < wrongly; i++)
                    {
                        Take(At.AddDays(days).AddMinutes(5 * i));
                    }

                    Take(At.AddHours(1));
                    Rotation.Newest(there, At.AddHours(1)).ShouldBe(At.AddHours(1));
                    var lost = before.Except(there).ToList();
                    (before.Count - lost.Count).ShouldBeGreaterThanOrEqualTo(
                        before.Count / 2,
                        "the leap stands for a few moments, and not for all that went before"
                    );
                    there.ShouldContain(at => at < At.AddDays(-28));
                },
                iter: 40
            );
}
