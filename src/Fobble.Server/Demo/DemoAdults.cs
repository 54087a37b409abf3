using Fobble.Server.Features.Account;

namespace Fobble.Server.Demo;

/// <summary>The made-up adults of Lantern Hill. No real person.</summary>
internal static class DemoAdults
{
    public static IReadOnlyList<DemoAdult> All { get; } =
    [
        new("ines", "Ines Okonjo", "Leads Rowan, and the school: plans, groups, records, adults"),
        new("tomasz", "Tomasz Birk", "Assistant in Rowan: runs groups and records"),
        new("maeve", "Maeve Castellane", "Leads Alder, and looks over Rowan as maths lead"),
    ];

    public static string EmailOf(string key) => $"{key}@lantern-hill.example";
}
