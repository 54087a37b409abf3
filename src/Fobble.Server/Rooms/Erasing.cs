using System.Globalization;
using Fobble.Core.Calendars;
using Fobble.Core.People;
using Fobble.Data;
using Fobble.Data.Keeping;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Rooms;

/// <summary>
/// Takes everything about a child out of the database, so that no byte of it is left in the file. Who was erased is also listed, by number only, in a file beside the
/// database: a backup of before that is put back holds the child again, and the next start erases it again.
/// </summary>
internal sealed class Erasing(FobbleSettings settings, IServiceScopeFactory scopes, TimeProvider clock)
{
    internal const string ListFile = "erased.txt";

    private string ListPath => Path.Combine(settings.Data, ListFile);

    /// <summary>Within a decision.</summary>
    /// <returns>What is kept; null where the class has no such child.</returns>
    public async Task<ErasedRow?> EraseAsync(FobbleDb db, int classId, int childId, DateOnly today, CancellationToken stop)
    {
        if (!await db.Children.AnyAsync(c => c.Id == childId && c.ClassId == classId, stop))
        {
            return null;
        }

        // The data of before an update hold the child, too.
        SchemaUpdate.ForgetBefore(settings.Data);

        // Before it is so: a server that ends in between does at its next start what was asked for.
        await File.AppendAllLinesAsync(ListPath, [childId.ToString(CultureInfo.InvariantCulture)], stop);
        return await RemoveAsync(db, classId, childId, today, stop);
    }

    /// <summary>Once the decision is kept and the room is left: the log of the database forgets what stood in it.</summary>
    /// <returns>Whether it could; where others read for long, the next start does it at the latest.</returns>
    public async Task<bool> EmptyLogAsync(CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await scope.ServiceProvider.GetRequiredService<FobbleDb>().EmptyLogAsync(stop);
    }

    /// <summary>At a start, before anybody is let in: erases again what a backup has brought back.</summary>
    public async Task ReplayAsync(CancellationToken stop)
    {
        var erased = File.Exists(ListPath) ? (await File.ReadAllLinesAsync(ListPath, stop)).Select(ParseId).OfType<int>().ToHashSet() : [];
        if (erased.Count == 0)
        {
            return;
        }

        await using (var scope = scopes.CreateAsyncScope())
        {
            await scope.ServiceProvider.GetRequiredService<Decisions>().DecideAsync(db => EraseAgainAsync(db, erased, stop), stop);
        }

        await EmptyLogAsync(stop);
    }

    private async Task EraseAgainAsync(FobbleDb db, HashSet<int> erased, CancellationToken stop)
    {
        var today = new SchoolZone(clock.LocalTimeZone).DayOf(clock.GetUtcNow());
        foreach (var child in await db.Children.AsNoTracking().Where(c => erased.Contains(c.Id)).ToListAsync(stop))
        {
            await RemoveAsync(db, child.ClassId, child.Id, today, stop);
        }

        // The backup may be from before an erased child came: nobody who comes now is given its number, and erased in its place.
        var highest = erased.Max();
        await db.Database.ExecuteSqlAsync(
            $"INSERT INTO sqlite_sequence (name, seq) SELECT 'Children', 0 WHERE NOT EXISTS (SELECT 1 FROM sqlite_sequence WHERE name = 'Children')",
            stop
        );
        await db.Database.ExecuteSqlAsync($"UPDATE sqlite_sequence SET seq = MAX(seq, {highest}) WHERE name = 'Children'", stop);
    }

    private static int? ParseId(string line) => int.TryParse(line, NumberStyles.None, CultureInfo.InvariantCulture, out var id) ? id : null;

    private static async Task<ErasedRow> RemoveAsync(FobbleDb db, int classId, int childId, DateOnly today, CancellationToken stop)
    {
        var seen = db.Observations.Where(o => o.ChildId == childId);
        ErasedRow left = new()
        {
            ChildId = childId,
            ClassId = classId,
            On = today,
            Observations = await seen.CountAsync(stop),
        };
        db.Erased.Add(left);
        await ForgetInListsAsync(db, childId, stop);
        await db.Photos.Where(p => seen.Any(o => o.Id == p.ObservationId)).ExecuteDeleteAsync(stop);
        await db.Withdrawals.Where(w => seen.Any(o => o.Id == w.ObservationId)).ExecuteDeleteAsync(stop);
        await seen.ExecuteDeleteAsync(stop);
        await db.Absences.Where(a => a.ChildId == childId).ExecuteDeleteAsync(stop);
        await db.PairWishes.Where(w => w.FirstId == childId || w.SecondId == childId).ExecuteDeleteAsync(stop);
        await db.AdultWishes.Where(w => w.ChildId == childId).ExecuteDeleteAsync(stop);
        await db.TimesOut.Where(t => t.ChildId == childId).ExecuteDeleteAsync(stop);
        await db.DayMoves.Where(m => m.ChildId == childId || m.AwayChildId == childId).ExecuteDeleteAsync(stop);
        await db.GroupMembers.Where(m => m.ChildId == childId).ExecuteDeleteAsync(stop);
        await db.JarGuesses.Where(g => g.ChildId == childId).ExecuteDeleteAsync(stop);
        var checks = db.BaselineChecks.Where(c => c.ChildId == childId);
        await db.Set<CheckOverride>().Where(o => checks.Any(c => c.Id == o.CheckId)).ExecuteDeleteAsync(stop);
        await checks.ExecuteDeleteAsync(stop);
        await db.Children.Where(c => c.Id == childId).ExecuteDeleteAsync(stop);
        return left;
    }

    // The office's newest list is kept here, too. Where the office still has the child, its next list brings it up again.
    private static async Task ForgetInListsAsync(FobbleDb db, int childId, CancellationToken stop)
    {
        var children = await db
            .Children.AsNoTracking()
            .Select(c => new
            {
                c.Id,
                c.GivenName,
                c.FamilyName,
                c.OfficeKey,
            })
            .ToListAsync(stop);
        var child = children.Single(c => c.Id == childId);
        var name = ShortNames.Same($"{child.GivenName} {child.FamilyName}");
        var others = children.Where(c => c.Id != childId).Select(c => c.OfficeKey).OfType<string>().ToHashSet();
        foreach (var roster in await db.Rosters.Where(r => r.List != null).ToListAsync(stop))
        {
            roster.List = roster.List! with
            {
                Children =
                [
                    .. roster.List.Children.Where(c =>
                        c.Key != child.OfficeKey && (others.Contains(c.Key) || ShortNames.Same($"{c.GivenName} {c.FamilyName}") != name)
                    ),
                ],
            };
        }
    }
}
