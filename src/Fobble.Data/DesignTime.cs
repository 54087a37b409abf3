using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Fobble.Data;

/// <summary>For <c>dotnet ef migrations add</c>, which needs a model but no database.</summary>
public sealed class DesignTime : IDesignTimeDbContextFactory<FobbleDb>
{
    public FobbleDb CreateDbContext(string[] args)
    {
        var options = new DbContextOptionsBuilder<FobbleDb>();
        FobbleDb.Configure(options, "design.db");
        return new FobbleDb(options.Options);
    }
}
