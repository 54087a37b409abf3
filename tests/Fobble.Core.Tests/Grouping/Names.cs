using Fobble.Core.Grouping;

namespace Fobble.Core.Tests.Grouping;

internal static class Names
{
    public static readonly GroupNames Plain = new(c => $"Child {c}", s => $"{s}", a => $"adult {a}", s => $"place {s}");
}
