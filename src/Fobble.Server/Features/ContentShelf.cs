using System.Collections.Concurrent;
using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.ClassApproach;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features;

/// <summary>What a class plans and judges with: its school's map and activities, in the class's words.</summary>
/// <param name="Written">The activities with the places for a class's words left open, to be changed and handed on.</param>
internal sealed record ClassContent(SchoolMap School, SkillMap Map, ActivityLibrary Library, IReadOnlyList<Activity> Written)
{
    public static ClassContent Shipped { get; } = Of([], [], Wording.Usual);

    public static ClassContent Of(IReadOnlyList<SkillChange> changes, IReadOnlyList<Activity> own, Wording words)
    {
        SchoolMap school = new(SkillMapLoader.AsWritten(), changes);
        var map = school.Map.InWords(words);
        var ownIds = own.Select(a => a.Id).ToHashSet();
        List<Activity> written = [.. ActivityLoader.AsWritten.Where(a => !ownIds.Contains(a.Id)), .. own];
        return new(school, map, new ActivityLibrary(map, [.. written.Select(a => a.InWords(words))]), written);
    }
}

/// <summary>
/// Keeps the content of each school, as it changes a few times a year and is asked for by every page. Whoever changes a map, an activity
/// or a class's words calls <see cref="Forget"/>.
/// </summary>
internal sealed class ContentShelf
{
    private readonly ConcurrentDictionary<int, (int School, Wording Words)> _classes = new();
    private readonly ConcurrentDictionary<(int School, Wording Words), ClassContent> _contents = new();

    public ClassContent Of(int classId, FobbleDb db)
    {
        var key = _classes.GetOrAdd(classId, id => db.Classes.AsNoTracking().FirstOrDefault(c => c.Id == id) is { } found ? (found.SchoolId, found.Approach().Words) : (0, Wording.Usual));
        return _contents.GetOrAdd(key, k => Read(k.School, k.Words, db));
    }

    public void Forget()
    {
        _classes.Clear();
        _contents.Clear();
    }

    private static ClassContent Read(int school, Wording words, FobbleDb db)
    {
        var changes = ChangesOf(db.SkillChanges.AsNoTracking().Where(c => c.SchoolId == school).OrderBy(c => c.Skill).ToList());
        var own = db.OwnActivities.AsNoTracking().Where(a => a.SchoolId == school).OrderBy(a => a.Activity).ToList();
        if (changes.Count == 0 && own.Count == 0 && words == Wording.Usual)
        {
            return ClassContent.Shipped;
        }

        var written = new SchoolMap(SkillMapLoader.AsWritten(), changes);
        SkillMap all = new(written.Map.Strands, written.Written);
        return ClassContent.Of(changes, [.. own.SelectMany(a => ActivityLoader.Read(all, [(a.Activity, a.Content)]))], words);
    }

    internal static IReadOnlyList<SkillChange> ChangesOf(IReadOnlyList<SkillChangeRow> rows) =>
        [.. rows.Select(r => new SkillChange(new(r.Skill), r.Hidden, r.Instead is { } text ? SkillMapLoader.ReadOne(text) : null))];
}

/// <summary>The content for the class that the request's address names; what ships where there is none.</summary>
internal sealed class RequestContent(IHttpContextAccessor http, ContentShelf shelf, FobbleDb db)
{
    public ClassContent Content { get; } =
        int.TryParse($"{http.HttpContext?.GetRouteValue("classId")}", out var classId) ? shelf.Of(classId, db) : ClassContent.Shipped;
}
