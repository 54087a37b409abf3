using Fobble.Data;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;

namespace Fobble.Server.Rooms;

/// <summary>Contexts that can only read: what would write through them is refused by SQLite itself.</summary>
internal sealed class ReadingContexts : IDisposable
{
    private readonly PooledDbContextFactory<FobbleDb> _pool;
    private readonly SqliteConnection _keeper;

    public ReadingContexts(string file)
    {
        DbContextOptionsBuilder<FobbleDb> options = new();
        FobbleDb.ConfigureReading(options, file);
        _pool = new(options.Options, FobbleDb.MostKeptOpen);
        _keeper = FobbleDb.KeepOpen(file);
    }

    public FobbleDb Open() => _pool.CreateDbContext();

    public void Dispose() => _keeper.Dispose();
}
