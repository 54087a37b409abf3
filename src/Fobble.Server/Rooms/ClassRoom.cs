using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.ClassApproach;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Rooms;

/// <summary>
/// One class as it was at one moment. Everything that is asked of a room comes from the same snapshot of the database, so that no page and no decision is put
/// together from two different moments; what was read once stays for as long as the room does. A room only reads: <see cref="Decisions"/> writes.
/// </summary>
internal sealed partial class ClassRoom(ReadingContexts contexts, ContentCache contents, ObservationCache observations, PlanCache plans, TimeProvider clock)
    : IAsyncDisposable
{
    private FobbleDb? _db;
    private SqliteTransaction? _snapshot;
    private Moment? _moment;

    /// <summary>The snapshot: read from it what the room itself does not have.</summary>
    public FobbleDb Db => _db ?? throw NotEntered();

    public ClassId Id => new(Now.Class.Id);

    public int SchoolId => Now.Class.SchoolId;

    public string Name => Now.Class.Name;

    public string SchoolName => Now.Class.School!.Name;

    /// <summary>Where the school's day begins and ends.</summary>
    public SchoolZone Zone => Now.Zone;

    /// <summary>How the school writes dates, as a BCP 47 tag.</summary>
    public string Locale => Now.Class.School!.Locale;

    /// <summary>Today at the school; of an archive, the day on which it was put there: it is read as it stood then.</summary>
    public DateOnly Today { get; private set; }

    /// <summary>Notes and photos of before this day are not seen here; null where all are.</summary>
    public DateOnly? NotesFrom => Now.Class.WithoutNotesOfBefore ? Now.Class.BeginsOn : null;

    public ClassContent Content => Now.Content;

    /// <summary>Names the content: the same key, the same content.</summary>
    public string ContentKey => ContentCache.KeyOf(Now.Class.School!, Now.Approach.Words);

    /// <summary>How often the school's content had changed at this moment.</summary>
    public long ContentVersion => Now.Class.School!.ContentVersion;

    public SkillMap Map => Now.Content.Map;

    public ActivityLibrary Library => Now.Content.Library;

    /// <summary>How the class does things where schools differ.</summary>
    public Approach Approach => Now.Approach;

    /// <summary>What has to be kept in mind when things are set out for the class.</summary>
    public ClassCares Cares => Now.Class.Cares();

    /// <summary>The day on which the guess jar comes back; null while it is in use.</summary>
    public DateOnly? JarRestsUntil => Now.Class.JarRestsUntil;

    /// <summary>How often each part of the class had changed at this moment.</summary>
    public ClassVersionRow Versions => Now.Versions;

    private Moment Now => _moment ?? throw NotEntered();

    /// <summary>Opens a snapshot and reads what everything begins with.</summary>
    /// <exception cref="KeyNotFoundException">There is no such class.</exception>
    public async Task EnterAsync(ClassId id, CancellationToken stop)
    {
        await LeaveAsync();
        try
        {
            await ReadAsync(id, stop);
        }
        catch
        {
            // Whoever never came in has nothing to leave: a snapshot that stayed open would keep the log from being emptied, and end the process once it is collected.
            await LeaveAsync();
            throw;
        }
    }

    private async Task ReadAsync(ClassId id, CancellationToken stop)
    {
        _db = contexts.Open();
        await _db.Database.OpenConnectionAsync(stop);

        // Deferred, so that it takes no lock; the first query below takes the snapshot.
        _snapshot = ((SqliteConnection)_db.Database.GetDbConnection()).BeginTransaction(deferred: true);
        await _db.Database.UseTransactionAsync(_snapshot, stop);
        var own = await _db.Classes.Include(c => c.School).FirstOrDefaultAsync(c => c.Id == id.Value, stop)
            ?? throw new KeyNotFoundException($"There is no class {id}.");
        var versions = await _db.ClassVersions.SingleAsync(v => v.ClassId == id.Value, stop);
        var approach = own.Approach();
        var zone = SchoolZones.Of(own.School!, clock);
        _moment = new(own, versions, zone, approach, await contents.OfAsync(_db, own.School!, approach.Words, stop));
        Today = own.ArchivedOn ?? zone.DayOf(clock.GetUtcNow());
    }

    /// <summary>The room of now: what was read before is let go of.</summary>
    public Task AgainAsync(CancellationToken stop) => EnterAsync(Id, stop);

    public async ValueTask DisposeAsync() => await LeaveAsync();

    /// <summary>Lets go of what was read: nothing of the past is held on to for this request any more.</summary>
    public async Task LeaveAsync()
    {
        Forget();
        var (db, snapshot) = (_db, _snapshot);
        (_db, _snapshot, _moment) = (null, null, null);
        if (db is not null)
        {
            // The transaction is SQLite's own: EF was only told to use it.
            await db.Database.UseTransactionAsync(null);
            snapshot?.Dispose();
            await db.DisposeAsync();
        }
    }

    private static InvalidOperationException NotEntered() => new(Phrase("Nobody has entered this room: it is asked for outside the addresses of a class."));

    private sealed record Moment(SchoolClass Class, ClassVersionRow Versions, SchoolZone Zone, Approach Approach, ClassContent Content);
}
