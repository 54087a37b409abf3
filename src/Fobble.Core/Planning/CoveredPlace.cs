namespace Fobble.Core.Planning;

/// <summary>On some days another adult takes a place of the timetable, whose own adult is away.</summary>
/// <param name="Slot">Which place.</param>
/// <param name="From">The first day; the last one is among them, too.</param>
public sealed record CoveredPlace(int Slot, DateOnly From, DateOnly Until, int AdultId, string Adult);
