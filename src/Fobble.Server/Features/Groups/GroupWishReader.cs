using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Server.Features.Planning;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>Everything a class has asked of its groups, as it is stored.</summary>
/// <param name="Places">For each place of the timetable its adult.</param>
internal sealed record StoredWishes(
    GroupSettingsRow Settings,
    IReadOnlyList<PairWish> Pairs,
    IReadOnlyList<AdultWishRow> AdultWishes,
    IReadOnlyList<TimeOutRow> TimesOut,
    IReadOnlyList<int> NearAdult,
    IReadOnlyList<AdultGroupsRow> AdultGroups,
    IReadOnlyDictionary<int, (int Id, string Name)> Places
)
{
    public GroupWeights Weights =>
        new()
        {
            Near = Settings.Near,
            Lessons = Settings.Lessons,
            Turns = Settings.Turns,
            LookAgain = Settings.LookAgain,
            Company = Settings.Company,
            Slips = Settings.Slips,
            Numbers = Settings.Numbers,
            Stay = Settings.Stay,
        };

    /// <summary>The wishes that count in a week.</summary>
    public IEnumerable<Wish> InForce(DateOnly monday, SkillMap map)
    {
        foreach (var pair in Pairs.Where(p => p.Until is null || p.Until >= monday))
        {
            ChildPair both = new(new(pair.FirstId), new(pair.SecondId));
            yield return pair.Together ? new TogetherWish(both) : new ApartWish(both);
        }

        foreach (var wish in AdultWishes)
        {
            yield return new AdultWish(new(wish.ChildId), wish.AdultId, wish.With);
        }

        if (Settings.MostNearAdult is { } most && NearAdult.Count > 0)
        {
            yield return new NearAdultWish(most);
        }

        foreach (var adult in AdultGroups)
        {
            if (adult.Strands.Count > 0)
            {
                yield return new RunsWish(
                    adult.AdultId,
                    map.Skills.Where(s => adult.Strands.Contains(s.Strand)).Select(s => s.Id).ToHashSet(),
                    Words.List([.. map.Strands.Where(s => adult.Strands.Contains(s.Id)).Select(s => $"“{s.Name}”")])
                );
            }

            if (adult.Most is { } limit)
            {
                yield return new MostForAdultWish(adult.AdultId, limit);
            }
        }
    }

    /// <summary>Whether a child is regularly out of class during a place.</summary>
    public bool IsOut(int child, DateOnly day, TimeOnly start, int minutes) =>
        TimesOut.Any(t => t.ChildId == child && new TimeSlice(t.Weekday, t.From, t.Until).Overlaps(TimeSlice.Of(day.DayOfWeek, start, minutes)));
}

/// <summary>Reads what a class has asked of its groups.</summary>
internal sealed class GroupWishReader(ClassRoom room)
{
    public async Task<StoredWishes> ReadAsync(CancellationToken stop) =>
        new(
            await room.Db.GroupSettings.FirstOrDefaultAsync(s => s.ClassId == room.Id.Value, stop) ?? new() { ClassId = room.Id.Value },
            await room
                .Db.PairWishes.Where(w => room.Children().Any(c => c.Id == w.FirstId) && room.Children().Any(c => c.Id == w.SecondId))
                .OrderBy(w => w.FirstId)
                .ThenBy(w => w.SecondId)
                .ToListAsync(stop),
            await room
                .Db.AdultWishes.Where(w =>
                    room.Children().Any(c => c.Id == w.ChildId) && room.Db.Memberships.Any(m => m.ClassId == room.Id.Value && m.AdultId == w.AdultId)
                )
                .OrderBy(w => w.ChildId)
                .ThenBy(w => w.AdultId)
                .ToListAsync(stop),
            await room.Db.TimesOut.Where(t => room.Children().Any(c => c.Id == t.ChildId)).OrderBy(t => t.Weekday).ThenBy(t => t.From).ToListAsync(stop),
            await room.Children().Where(c => c.NeedsAdultNear).Select(c => c.Id).ToListAsync(stop),
            await room.Db.AdultGroups.Where(a => a.ClassId == room.Id.Value).OrderBy(a => a.AdultId).ToListAsync(stop),
            await room
                .Db.LessonSlots.Where(s => s.ClassId == room.Id.Value && s.Kind == SlotKind.Group)
                .Select(s => new
                {
                    s.Id,
                    s.AdultId,
                    s.Adult!.FullName,
                })
                .ToDictionaryAsync(s => s.Id, s => (s.AdultId, s.FullName), stop)
        );

    public async Task<GroupWishesView> ViewAsync(CancellationToken stop)
    {
        var stored = await ReadAsync(stop);
        var children = await room.ChildrenAsync(stop);
        var names = children.ToDictionary(c => c.Id, c => c.Name);
        var adults = await room
            .Db.Memberships.Where(m => m.ClassId == room.Id.Value && (m.Until == null || m.Until >= room.Today))
            .OrderBy(m => m.Role)
            .ThenBy(m => m.AdultId)
            .Select(m => new { m.AdultId, m.Adult!.FullName })
            .ToListAsync(stop);
        var places = await room
            .Db.LessonSlots.Where(s => s.ClassId == room.Id.Value && s.Kind == SlotKind.Group && !s.Retired)
            .Select(s => s.AdultId)
            .ToListAsync(stop);
        string AdultName(int id) => adults.FirstOrDefault(a => a.AdultId == id)?.FullName ?? Phrase("an adult who has left");
        var (settings, weights) = (stored.Settings, stored.Weights);
        return new(
            settings.MinSize,
            settings.MaxSize,
            settings.EveryoneOnce,
            settings.MostNearAdult,
            settings.MostAtOnce,
            settings.TurnsAWeek,
            [.. GroupWeights.All.Select(w => new WeightView(w.Key, w.Name, w.Does, w.Read(weights)))],
            GroupWeights.Steps,
            [.. stored.Pairs.Select(w => new PairWishView(w.FirstId, w.SecondId, Phrase($"{names[w.FirstId]} and {names[w.SecondId]}"), w.Together, w.Until))],
            [
                .. stored.AdultWishes.Select(w => new AdultWishView(
                    w.ChildId,
                    w.AdultId,
                    $"{names[w.ChildId]} {(w.With ? Phrase("only with") : Phrase("not with"))} {AdultName(w.AdultId)}",
                    w.With
                )),
            ],
            [.. stored.TimesOut.Select(t => new TimeOutView(t.Id, t.ChildId, names[t.ChildId], t.Weekday, t.From, t.Until))],
            stored.NearAdult,
            [
                .. adults
                    .Where(a => places.Contains(a.AdultId))
                    .Select(a => (a, row: stored.AdultGroups.FirstOrDefault(g => g.AdultId == a.AdultId)))
                    .Select(p => new AdultGroupsView(p.a.AdultId, p.a.FullName, p.row?.Strands ?? [], p.row?.Most, places.Count(x => x == p.a.AdultId))),
            ],
            PlanningFeature.Strands(room),
            children
        );
    }
}
