using System.ComponentModel;
using Fobble.Core.Activities;
using Fobble.Core.Baseline;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Hybrid;

namespace Fobble.Server.Rooms;

/// <summary>What a class plans and judges with: its school's map and activities, in the class's words.</summary>
/// <param name="Written">The activities with the places for a class's words left open, to be changed and handed on.</param>
/// <param name="OwnActivities">Those of them that the school wrote or changed.</param>
[ImmutableObject(true)]
internal sealed record ClassContent(
    SchoolMap School,
    SkillMap Map,
    ActivityLibrary Library,
    IReadOnlyList<Activity> Written,
    IReadOnlySet<ActivityId> OwnActivities
)
{
    private readonly Lazy<IReadOnlyDictionary<SkillId, string>> _materials = new(() => BaselineQuestion.Materials(Map, Library));

    /// <summary>What is laid out for a baseline question on each skill.</summary>
    public IReadOnlyDictionary<SkillId, string> BaselineMaterials => _materials.Value;

    public static ClassContent Shipped { get; } = Of([], [], Wording.Usual);

    public static ClassContent Of(IReadOnlyList<SkillChange> changes, IReadOnlyList<Activity> own, Wording words)
    {
        SchoolMap school = new(SkillMapLoader.AsWritten(), changes);
        var map = school.Map.InWords(words, changes.Where(c => c.Instead is not null).Select(c => c.Skill).ToHashSet());
        var ownIds = own.Select(a => a.Id).ToHashSet();
        List<Activity> written = [.. ActivityLoader.AsWritten.Where(a => !ownIds.Contains(a.Id)), .. own];
        return new(school, map, new ActivityLibrary(map, [.. written.Select(a => a.InWords(words, ownIds.Contains(a.Id)))]), written, ownIds);
    }
}

/// <summary>
/// Keeps the content of each school, as it changes a few times a year and every page asks for it. It is kept by the number that the database raises with each
/// change, so that nobody has to remember to let go of it.
/// </summary>
internal sealed class ContentCache(HybridCache cache)
{
    private static readonly HybridCacheEntryOptions Keep = new() { Expiration = TimeSpan.FromHours(6), LocalCacheExpiration = TimeSpan.FromHours(6) };

    public static string KeyOf(School school, Wording words) =>
        $"{school.Id}.{school.ContentVersion}.{words.Ones}.{words.Less}.{words.Take}.{words.Sentence}.{words.Year}";

    /// <param name="db">The snapshot in which the school's number was read.</param>
    public ValueTask<ClassContent> OfAsync(FobbleDb db, School school, Wording words, CancellationToken stop) =>
        cache.KeptAsync($"content/{KeyOf(school, words)}", until => ReadAsync(db, school.Id, words, until), Keep, stop);

    private static async ValueTask<ClassContent> ReadAsync(FobbleDb db, int school, Wording words, CancellationToken stop)
    {
        var rows = await db.SkillChanges.AsNoTracking().Where(c => c.SchoolId == school).OrderBy(c => c.Skill).ToListAsync(stop);
        var own = await db.OwnActivities.AsNoTracking().Where(a => a.SchoolId == school).OrderBy(a => a.Activity).ToListAsync(stop);
        if (rows.Count == 0 && own.Count == 0 && words == Wording.Usual && AsWritten)
        {
            return ClassContent.Shipped;
        }

        List<SkillChange> changes = [.. rows.Select(r => new SkillChange(new(r.Skill), r.Hidden, r.Instead is { } text ? SkillMapLoader.ReadOne(text) : null))];
        SchoolMap written = new(SkillMapLoader.AsWritten(), changes);
        SkillMap all = new(written.Map.Strands, written.Written);
        return ClassContent.Of(changes, [.. own.SelectMany(a => ActivityLoader.Read(all, [(a.Activity, a.Content)]))], words);
    }
}
