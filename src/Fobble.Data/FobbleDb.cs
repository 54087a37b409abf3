using System.Globalization;
using System.Text.Json;
using Fobble.Core.People;
using Fobble.Data.Model;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Fobble.Data;

/// <summary>The database: facts only. Days are stored as day numbers and instants as UTC milliseconds, small and quick to read.</summary>
public sealed class FobbleDb(DbContextOptions<FobbleDb> options) : IdentityUserContext<Adult, int>(options)
{
    /// <summary>Contexts, and with each an open connection, that are kept for the next who ask. A process may have a thousand files open, and a connection is three.</summary>
    public const int MostKeptOpen = 32;

    public DbSet<School> Schools => Set<School>();

    public DbSet<SchoolClass> Classes => Set<SchoolClass>();

    public DbSet<ClassVersionRow> ClassVersions => Set<ClassVersionRow>();

    public DbSet<SignedInRow> SignedIn => Set<SignedInRow>();

    public DbSet<SpareCodeRow> SpareCodes => Set<SpareCodeRow>();

    public DbSet<Membership> Memberships => Set<Membership>();

    public DbSet<SchoolLead> SchoolLeads => Set<SchoolLead>();

    public DbSet<Child> Children => Set<Child>();

    public DbSet<StayRow> Stays => Set<StayRow>();

    public DbSet<NewYearRow> NewYears => Set<NewYearRow>();

    public DbSet<RosterRow> Rosters => Set<RosterRow>();

    public DbSet<Absence> Absences => Set<Absence>();

    public DbSet<PairWish> PairWishes => Set<PairWish>();

    public DbSet<AdultWishRow> AdultWishes => Set<AdultWishRow>();

    public DbSet<TimeOutRow> TimesOut => Set<TimeOutRow>();

    public DbSet<TermRow> Terms => Set<TermRow>();

    public DbSet<ClosureRow> Closures => Set<ClosureRow>();

    public DbSet<LessonSlotRow> LessonSlots => Set<LessonSlotRow>();

    public DbSet<PlannedDayRow> PlannedDays => Set<PlannedDayRow>();

    public DbSet<YearPlanRow> YearPlans => Set<YearPlanRow>();

    public DbSet<AdultHoursRow> AdultHours => Set<AdultHoursRow>();

    public DbSet<CalendarEntryRow> CalendarEntries => Set<CalendarEntryRow>();

    public DbSet<CalendarAddressRow> CalendarAddresses => Set<CalendarAddressRow>();

    public DbSet<GroupSetRow> GroupSets => Set<GroupSetRow>();

    public DbSet<GroupSession> GroupSessions => Set<GroupSession>();

    public DbSet<GroupMember> GroupMembers => Set<GroupMember>();

    public DbSet<GroupSettingsRow> GroupSettings => Set<GroupSettingsRow>();

    public DbSet<AdultGroupsRow> AdultGroups => Set<AdultGroupsRow>();

    public DbSet<DayMoveRow> DayMoves => Set<DayMoveRow>();

    public DbSet<ObservationRow> Observations => Set<ObservationRow>();

    public DbSet<Withdrawal> Withdrawals => Set<Withdrawal>();

    public DbSet<PhotoRow> Photos => Set<PhotoRow>();

    public DbSet<BaselineCheckRow> BaselineChecks => Set<BaselineCheckRow>();

    public DbSet<JarRoundRow> JarRounds => Set<JarRoundRow>();

    public DbSet<JarGuessRow> JarGuesses => Set<JarGuessRow>();

    public DbSet<SkillChangeRow> SkillChanges => Set<SkillChangeRow>();

    public DbSet<OwnActivityRow> OwnActivities => Set<OwnActivityRow>();

    public DbSet<ErasedRow> Erased => Set<ErasedRow>();

    public DbSet<TraceRow> Traces => Set<TraceRow>();

    public DbSet<MailRow> Mails => Set<MailRow>();

    public DbSet<StockRow> Stock => Set<StockRow>();

    /// <summary>Options for a database file: foreign keys on, up to five seconds of patience while another writer is at work, and a commit that is on disk.</summary>
    public static void Configure(DbContextOptionsBuilder options, string file) =>
        options.UseSqlite(Writing(file)).AddInterceptors(AskedOfSqlite.Instance, StaysOpen.Instance);

    /// <summary>Options for reading only: nothing is tracked, and what would write is refused by SQLite itself.</summary>
    public static void ConfigureReading(DbContextOptionsBuilder options, string file) =>
        options.UseSqlite(Reading(file)).UseQueryTrackingBehavior(QueryTrackingBehavior.NoTracking).AddInterceptors(StaysOpen.Instance);

    /// <summary>
    /// A connection that does nothing but be open, until it is disposed of. Whoever closes a file's last connection has SQLite move the whole log into it.
    /// </summary>
    public static SqliteConnection KeepOpen(string file)
    {
        SqliteConnection keeper = new(Reading(file));
        keeper.Open();
        using var command = keeper.CreateCommand();

        // SQLite opens the log with the first read.
        command.CommandText = "SELECT COUNT(*) FROM sqlite_master";
        command.ExecuteScalar();
        return keeper;
    }

    /// <summary>Reads a row, then takes the lock that whoever writes holds, and lets go of it: nothing is changed.</summary>
    /// <exception cref="SqliteException">It can't be done.</exception>
    public static void TryReadingAndWriting(string file)
    {
        using SqliteConnection connection = new($"Data Source={file};Mode=ReadWrite;Pooling=False;Default Timeout=5");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = "SELECT COUNT(*) FROM Schools; BEGIN IMMEDIATE; ROLLBACK";
        command.ExecuteNonQuery();
    }

    internal static string Writing(string file) => $"Data Source={file};Foreign Keys=True;Pooling=False;Default Timeout=5";

    internal static string Reading(string file) => $"Data Source={file};Mode=ReadOnly;Pooling=False;Default Timeout=5";

    /// <summary>Brings the schema up to date and switches to write-ahead logging, so that reading never waits for recording.</summary>
    public void Prepare()
    {
        Database.Migrate();
        Database.ExecuteSqlRaw("PRAGMA journal_mode=WAL");

        // A migration that builds a table anew switches them off, and this connection stays open.
        Database.ExecuteSqlRaw("PRAGMA foreign_keys=ON");
    }

    /// <summary>Makes sure that an answer means "on disk": what was asked of SQLite is what it does.</summary>
    /// <exception cref="InvalidOperationException">It is not.</exception>
    public void CheckDurable()
    {
        var journal = Database.SqlQueryRaw<string>("SELECT journal_mode AS Value FROM pragma_journal_mode").AsEnumerable().Single();
        var synchronous = Database.SqlQueryRaw<int>("SELECT synchronous AS Value FROM pragma_synchronous").AsEnumerable().Single();
        if (journal != "wal" || synchronous != AskedOfSqlite.Full)
        {
            throw new InvalidOperationException(
                $"The database does not keep what it is told before it answers (journal {journal}, synchronous {synchronous}): is the data folder on a disk of this machine?"
            );
        }
    }

    /// <summary>
    /// Moves the log into the file and empties it: what was deleted stands in neither. Waits for whoever reads what was before; outside of a transaction.
    /// </summary>
    /// <returns>Whether it could; if not, SQLite does it at the next quiet moment or at the end.</returns>
    public async Task<bool> EmptyLogAsync(CancellationToken stop)
    {
        await Database.OpenConnectionAsync(stop);
        await using var command = Database.GetDbConnection().CreateCommand();
        command.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
        for (var tries = 0; tries < 50; tries++)
        {
            // The first column says whether somebody was in the way.
            if (Convert.ToInt64(await command.ExecuteScalarAsync(stop), CultureInfo.InvariantCulture) == 0)
            {
                return true;
            }

            await Task.Delay(100, stop);
        }

        return false;
    }

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<DateOnly>().HaveConversion<DayConverter>();
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<InstantConverter>();
    }

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<ClassVersionRow>(e =>
        {
            e.HasKey(v => v.ClassId);
            e.HasOne<SchoolClass>().WithOne().HasForeignKey<ClassVersionRow>(v => v.ClassId);
        });
        builder.Entity<SpareCodeRow>(e =>
        {
            e.HasKey(s => new { s.AdultId, s.Hash });
            e.HasOne<Adult>().WithMany().HasForeignKey(s => s.AdultId);
        });
        builder.Entity<SignedInRow>().HasOne<Adult>().WithMany().HasForeignKey(s => s.AdultId);
        builder.Entity<Membership>().HasKey(m => new { m.ClassId, m.AdultId });
        builder.Entity<SchoolLead>().HasKey(l => new { l.SchoolId, l.AdultId });
        builder.Entity<ErasedRow>(e =>
        {
            e.HasKey(x => x.ChildId);
            e.Property(x => x.ChildId).ValueGeneratedNever();
        });
        builder.Entity<TraceRow>().HasIndex(t => t.At);
        builder.Entity<StayRow>(e =>
        {
            e.HasOne<SchoolClass>().WithMany().HasForeignKey(s => s.ClassId);
            e.HasIndex(s => new { s.ClassId, s.ChildId });
        });
        builder.Entity<NewYearRow>().HasOne<School>().WithMany().HasForeignKey(y => y.SchoolId);
        builder.Entity<RosterRow>(e =>
        {
            e.HasKey(r => r.SchoolId);
            e.Property(r => r.SchoolId).ValueGeneratedNever();
            e.HasOne<School>().WithOne().HasForeignKey<RosterRow>(r => r.SchoolId);
            e.Property(r => r.List).HasConversion(new JsonConverter<OfficeList?>(), new JsonComparer<OfficeList?>());
            e.Property(r => r.Faults).HasConversion(new JsonConverter<List<RosterFaultRow>>(), new JsonComparer<List<RosterFaultRow>>());
        });
        builder.Entity<Absence>().HasKey(a => new { a.ChildId, a.Day });
        builder.Entity<PairWish>(e =>
        {
            e.HasKey(w => new { w.FirstId, w.SecondId });
            e.HasOne(w => w.First).WithMany().HasForeignKey(w => w.FirstId);
            e.HasOne(w => w.Second).WithMany().HasForeignKey(w => w.SecondId);
        });
        builder.Entity<AdultWishRow>(e =>
        {
            e.HasKey(w => new { w.ChildId, w.AdultId });
            e.HasOne<Adult>().WithMany().HasForeignKey(w => w.AdultId);
        });
        builder.Entity<GroupSettingsRow>(e =>
        {
            e.HasKey(s => s.ClassId);
            e.HasOne<SchoolClass>().WithOne().HasForeignKey<GroupSettingsRow>(s => s.ClassId);
        });
        builder.Entity<AdultGroupsRow>(e =>
        {
            e.HasKey(a => new { a.ClassId, a.AdultId });
            e.HasOne<SchoolClass>().WithMany().HasForeignKey(a => a.ClassId);
            e.HasOne<Adult>().WithMany().HasForeignKey(a => a.AdultId);
        });
        builder.Entity<DayMoveRow>(e =>
        {
            e.HasIndex(m => new { m.AwayChildId, m.Day });
            e.HasOne<GroupSession>().WithMany().HasForeignKey(m => m.ToSessionId);
        });
        builder.Entity<TermRow>().HasOne<School>().WithMany().HasForeignKey(t => t.SchoolId);
        builder.Entity<ClosureRow>().HasOne<School>().WithMany().HasForeignKey(t => t.SchoolId);
        builder.Entity<LessonSlotRow>().HasOne<SchoolClass>().WithMany().HasForeignKey(s => s.ClassId);
        builder.Entity<PlannedDayRow>(e =>
        {
            e.HasOne<SchoolClass>().WithMany().HasForeignKey(d => d.ClassId);
            e.HasIndex(d => new { d.ClassId, d.Day }).IsUnique();
        });
        builder.Entity<YearPlanRow>(e =>
        {
            e.HasOne<SchoolClass>().WithMany().HasForeignKey(p => p.ClassId);
            e.HasIndex(nameof(YearPlanRow.ClassId), nameof(YearPlanRow.Year), nameof(YearPlanRow.Version)).IsUnique();
        });
        builder.Entity<AdultHoursRow>().HasOne<SchoolClass>().WithMany().HasForeignKey(h => h.ClassId);
        builder.Entity<CalendarEntryRow>(e =>
        {
            e.HasKey(c => c.Uid);
            e.HasOne<SchoolClass>().WithMany().HasForeignKey(c => c.ClassId);
            e.HasIndex(c => new { c.ClassId, c.Day });
        });
        builder.Entity<CalendarAddressRow>(e =>
        {
            e.HasKey(a => new { a.ClassId, a.AdultId });
            e.HasIndex(a => a.KeyHash).IsUnique();
            e.HasOne<SchoolClass>().WithMany().HasForeignKey(a => a.ClassId);
            e.HasOne<Adult>().WithMany().HasForeignKey(a => a.AdultId);
        });
        builder.Entity<PlannedMoreRow>().HasOne<PlannedDayRow>().WithMany(d => d.More).HasForeignKey(m => m.PlannedDayId);
        builder.Entity<PlannedStarterRow>().HasOne<PlannedDayRow>().WithMany(d => d.Starters).HasForeignKey(s => s.PlannedDayId);
        builder.Entity<GroupSetRow>(e =>
        {
            // The table keeps the name under which it was first made, and its triggers know it.
            e.ToTable("GroupCycles");
            e.HasOne<SchoolClass>().WithMany().HasForeignKey(c => c.ClassId);
            e.HasIndex(c => new { c.ClassId, c.Monday });
        });
        builder.Entity<GroupSession>(e =>
        {
            e.HasOne<SchoolClass>().WithMany().HasForeignKey(s => s.ClassId);
            e.HasIndex(s => new { s.ClassId, s.Day });
            e.Property(s => s.SetId).HasColumnName("CycleId");
        });
        builder.Entity<GroupMember>(e =>
        {
            e.HasKey(m => new { m.SessionId, m.ChildId });
            e.HasOne<GroupSession>().WithMany(s => s.Members).HasForeignKey(m => m.SessionId);
        });
        builder.Entity<ObservationRow>(e =>
        {
            e.Property(o => o.Id).ValueGeneratedNever();
            e.Property(o => o.Sequence).ValueGeneratedOnAdd();
            e.HasIndex(o => new
            {
                o.ChildId,
                o.Skill,
                o.At,
            });
            e.HasIndex(o => new { o.ChildId, o.Day });
            e.HasIndex(o => o.SessionId);
            e.HasOne<GroupSession>().WithMany().HasForeignKey(o => o.SessionId).OnDelete(DeleteBehavior.Restrict);

            // No foreign key: SQLite would have to build the table anew, and with it the trigger that guards it.
            e.HasIndex(o => o.CheckId);
            e.HasOne(o => o.Photo).WithOne().HasForeignKey<PhotoRow>(p => p.ObservationId);
            e.HasOne(o => o.Withdrawal).WithOne().HasForeignKey<Withdrawal>(w => w.ObservationId);
        });
        builder.Entity<Withdrawal>().HasKey(w => w.ObservationId);
        builder.Entity<PhotoRow>().HasKey(p => p.ObservationId);
        builder.Entity<BaselineCheckRow>(e =>
        {
            e.HasOne<SchoolClass>().WithMany().HasForeignKey(c => c.ClassId);
            e.HasIndex(c => new { c.ClassId, c.ChildId });
            e.Property(c => c.Inferred).HasConversion(new JsonConverter<Dictionary<string, double>>(), new JsonComparer<Dictionary<string, double>>());
        });
        builder.Entity<CheckOverride>(e =>
        {
            e.HasKey(o => new { o.CheckId, o.Skill });
            e.HasOne<BaselineCheckRow>().WithMany(c => c.Overrides).HasForeignKey(o => o.CheckId);
        });
        builder.Entity<SkillChangeRow>(e =>
        {
            e.HasKey(c => new { c.SchoolId, c.Skill });
            e.HasOne<School>().WithMany().HasForeignKey(c => c.SchoolId);
        });
        builder.Entity<OwnActivityRow>(e =>
        {
            e.HasKey(a => new { a.SchoolId, a.Activity });
            e.HasOne<School>().WithMany().HasForeignKey(a => a.SchoolId);
        });
        builder.Entity<StockRow>(e =>
        {
            e.HasKey(s => new { s.ClassId, s.Item });
            e.HasOne<SchoolClass>().WithMany().HasForeignKey(s => s.ClassId);
            e.OwnsOne(s => s.Own, own => own.ToJson());
        });
        builder.Entity<JarRoundRow>(e =>
        {
            e.HasOne<SchoolClass>().WithMany().HasForeignKey(r => r.ClassId);
            e.HasIndex(r => new { r.ClassId, r.Filled });
        });
        builder.Entity<JarGuessRow>(e =>
        {
            e.HasKey(g => new { g.RoundId, g.ChildId });
            e.HasOne<JarRoundRow>().WithMany(r => r.Guesses).HasForeignKey(g => g.RoundId);
        });
    }

#pragma warning disable CA1812 // Made by EF Core.
    private sealed class DayConverter() : ValueConverter<DateOnly, int>(day => day.DayNumber, number => DateOnly.FromDayNumber(number));

    // Kept as one text, and another one when any of it is another.
    private sealed class JsonConverter<T>()
        : ValueConverter<T, string>(
            value => JsonSerializer.Serialize(value, JsonSerializerOptions.Default),
            text => JsonSerializer.Deserialize<T>(text, JsonSerializerOptions.Default)!
        );

    private sealed class JsonComparer<T>()
        : ValueComparer<T>(
            (one, other) => JsonSerializer.Serialize(one, JsonSerializerOptions.Default) == JsonSerializer.Serialize(other, JsonSerializerOptions.Default),
            value => JsonSerializer.Serialize(value, JsonSerializerOptions.Default).GetHashCode(StringComparison.Ordinal),
            value => JsonSerializer.Deserialize<T>(JsonSerializer.Serialize(value, JsonSerializerOptions.Default), JsonSerializerOptions.Default)!
        );

    private sealed class InstantConverter()
        : ValueConverter<DateTimeOffset, long>(at => at.ToUnixTimeMilliseconds(), ms => DateTimeOffset.FromUnixTimeMilliseconds(ms));
#pragma warning restore CA1812
}
