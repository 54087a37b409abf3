using System.Globalization;
using Fobble.Core.People;
using Fobble.Data;
using Fobble.Formats.Rosters;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Demo;

/// <summary>
/// Stands in for a school's office: puts a list a night into the folder. The first is of who is here; then a child is new, one has left, a file is broken, one moves and
/// another is called otherwise, and so on from there. What it has is its own: nothing that is decided here changes it.
/// </summary>
internal sealed class StandInOffice(IServiceScopeFactory scopes)
{
    public const string Folder = "office";

    private static readonly (string Given, string Family)[] NewOnes = [("Ilse", "Brandvold"), ("Tendai", "Moyo"), ("Noor", "Elahi"), ("Pavel", "Hruska")];

    private const int Nights = 5;

    public async Task PutNextAsync(string folder, DateOnly today, CancellationToken stop)
    {
        Directory.CreateDirectory(folder);
        var night = Directory.EnumerateFiles(folder, "*.zip").Count();
        var file = OneRosterWriter.Write(await OnAsync(night, today, stop), today);
        if (night % Nights == 3)
        {
            // Cut off, as when a disk is full.
            file = file[..(file.Length / 2)];
        }

        var path = Path.Combine(folder, string.Create(CultureInfo.InvariantCulture, $"roster-{night + 1:000}.zip"));
        await File.WriteAllBytesAsync($"{path}.part", file, stop);
        File.Move($"{path}.part", path);
    }

    /// <summary>What the office has after so many nights.</summary>
    private async Task<RosterSchool> OnAsync(int night, DateOnly today, CancellationToken stop)
    {
        var (rowan, alder) = (new OfficeClass("lh-r", "Rowan"), new OfficeClass("lh-a", "Alder"));
        var born = await BornAsync(stop);
        List<OfficeChild> all =
        [
            .. DemoNames.Rowan.Select((n, i) => Child($"lh-{101 + i}", n, rowan)),
            .. DemoNames.Alder.Select((n, i) => Child($"lh-{201 + i}", n, alder)),
        ];
        for (var n = 1; n <= night; n++)
        {
            var round = n / Nights;
            switch (n % Nights)
            {
                case 1:
                    all.Add(
                        new($"lh-{301 + round}", NewOnes[round % NewOnes.Length].Given, NewOnes[round % NewOnes.Length].Family, today.AddYears(-5), [rowan.Key])
                    );
                    break;
                case 2:
                    all.RemoveAt(5);
                    break;
                case 4:
                    all[8 + round] = all[8 + round] with { Classes = [alder.Key] };
                    all[12 + round] = all[12 + round] with { FamilyName = $"{all[12 + round].FamilyName}-Voss" };
                    break;
                default:
                    break;
            }
        }

        return new("lh", "Lantern Hill School", today.AddMonths(-6), today.AddMonths(6), [], new([rowan, alder], all), []);

        OfficeChild Child(string key, (string Given, string Family) name, OfficeClass room) =>
            new(key, name.Given, name.Family, born.GetValueOrDefault($"{name.Given} {name.Family}"), [room.Key]);
    }

    private async Task<Dictionary<string, DateOnly?>> BornAsync(CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var children = await scope.ServiceProvider.GetRequiredService<FobbleDb>().Children.AsNoTracking().ToListAsync(stop);
        return children.DistinctBy(c => $"{c.GivenName} {c.FamilyName}").ToDictionary(c => $"{c.GivenName} {c.FamilyName}", c => c.Born);
    }
}
