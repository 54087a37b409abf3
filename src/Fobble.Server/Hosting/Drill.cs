using System.Globalization;
using Fobble.Data;
using Fobble.Data.Backups;
using Fobble.Data.Keeping;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Hosting;

/// <summary>
/// Puts the newest backup back beside the school, has a second Fobble judge what is in it, and compares. What nobody has ever put back is not known to be a backup.
/// </summary>
internal static class Drill
{
    private const string Folder = "drill";

    /// <returns>What was found, in a sentence.</returns>
    /// <exception cref="NotWholeException">There is no backup, it can't be put back, or what is in it is judged otherwise than the school.</exception>
    public static async Task<string> RunAsync(IServiceProvider school, CancellationToken stop)
    {
        var settings = school.GetRequiredService<FobbleSettings>();
        var newest = school.GetRequiredService<Backups>().Newest ?? throw new NotWholeException(Phrase("There is no backup yet."));
        var beside = Path.Combine(settings.Data, Folder);
        if (Directory.Exists(beside))
        {
            // Of a drill that was ended in the middle.
            Directory.Delete(beside, recursive: true);
        }

        try
        {
            var facts = BackupFile.PutBack(newest, beside, settings.Backup.Passphrase ?? "");
            if (Schema.Of(Path.Combine(beside, DataFolder.DatabaseFile)).Age != SchemaAge.OfNow)
            {
                throw new NotWholeException(
                    Phrase($"{newest} was put back and is whole, but of an earlier version of Fobble: what it judges can be compared after the next backup.")
                );
            }

            await using var other = Other(beside, settings.Now);
            var (here, there) = (await JudgedAsync(school, stop), await JudgedAsync(other.Services, stop));
            var same = here.Where(c => there.TryGetValue(c.Key, out var back) && back.Versions == c.Value.Versions).Select(c => c.Key).ToList();
            foreach (var id in same.Where(id => here[id].Marks != there[id].Marks))
            {
                throw new NotWholeException(Phrase($"Class {id} is judged otherwise in the backup {newest} than in the school."));
            }

            return Phrase(
                $"{newest}, of {facts.At:u}, was put back beside the school: {facts.Rows.Values.Sum()} rows are whole, {same.Count} of {here.Count} classes have not changed since and are judged the same."
            );
        }
        finally
        {
            Directory.Delete(beside, recursive: true);
        }
    }

    // Put together as a server is, and never started: it only reads.
    private static WebApplication Other(string data, DateTime? now)
    {
        var builder = WebApplication.CreateBuilder();
        builder.Configuration.AddInMemoryCollection(
            new Dictionary<string, string?>
            {
                ["Fobble:Data"] = data,
                ["Fobble:Demo"] = "false",
                ["Fobble:Now"] = now?.ToString("O", CultureInfo.InvariantCulture),
                ["Fobble:Backup:Folder"] = null,
            }
        );
        builder.AddFobble();
        return builder.Build();
    }

    private static async Task<Dictionary<int, (string Versions, string Marks)>> JudgedAsync(IServiceProvider services, CancellationToken stop)
    {
        await using var scope = services.CreateAsyncScope();
        var ids = await scope.ServiceProvider.GetRequiredService<FobbleDb>().Classes.OrderBy(c => c.Id).Select(c => c.Id).ToListAsync(stop);
        Dictionary<int, (string, string)> judged = [];
        foreach (var id in ids)
        {
            await using var room = await scope.ServiceProvider.GetRequiredService<ClassRooms>().OpenAsync(new(id), stop);
            var evidence = await room.EvidenceAsync(stop);
            var v = room.Versions;
            var marks = evidence.Children.Select(c =>
                $"{c}: {string.Join(' ', evidence.Row(c).Select(m => $"{m.Strength}{m.Belief.ToString("R", CultureInfo.InvariantCulture)}{m.Doubt}"))}"
            );
            judged[id] = ($"{v.Record}.{v.LastSeen}.{v.Calendar}.{room.ContentKey}.{room.Today:O}", string.Join('\n', marks));
        }

        return judged;
    }
}
