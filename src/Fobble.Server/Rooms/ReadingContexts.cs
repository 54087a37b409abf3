using Fobble.Data;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;

namespace Fobble.Server.Rooms;

/// <summary>Contexts that can only read: what would write through them is refused by SQLite itself.</summary>
internal sealed class ReadingContexts
{
    private readonly PooledDbContextFactory<FobbleDb> _pool;

    public ReadingContexts(string file)
    {
        DbContextOptionsBuilder<FobbleDb> options = new();
        FobbleDb.ConfigureReading(options, file);
        _pool = new(options.Options);
    }

    public FobbleDb Open() => _pool.CreateDbContext();
}
