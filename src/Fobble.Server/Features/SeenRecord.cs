using System.Linq.Expressions;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Skills;
using Fobble.Data.Model;

namespace Fobble.Server.Features;

/// <summary>One observation with everything around it, as every page shows it.</summary>
/// <param name="By">Who saw it; where it came with a file, who had seen it elsewhere.</param>
/// <param name="BroughtBy">Who brought it in, where it came with a file.</param>
public sealed record SeenOnce(
    Guid Id,
    DateTimeOffset At,
    string Skill,
    string Short,
    string By,
    string? BroughtBy,
    Setting Setting,
    Support Support,
    Representation Representation,
    string? Numbers,
    string? Slip,
    string? Strategy,
    string? Note,
    bool HasPhoto,
    string? WithdrawnWhy,
    string? WithdrawnBy,
    DateTimeOffset? WithdrawnAt
);

internal static class SeenRecord
{
    internal static readonly Expression<Func<ObservationRow, SeenOnce>> Projection = o => new SeenOnce(
        o.Id,
        o.At,
        o.Skill,
        "",
        o.SeenBy ?? o.Adult!.FullName,
        o.SeenBy == null ? null : o.Adult!.FullName,
        o.Setting,
        o.Support,
        o.Representation,
        o.Numbers,
        o.Slip,
        o.Strategy,
        o.Note,
        o.Photo != null,
        o.Withdrawal!.Why,
        o.Withdrawal.Adult!.FullName,
        (DateTimeOffset?)o.Withdrawal.At
    );

    internal static SeenOnce InWords(SeenOnce found, ClassRoom room)
    {
        var (map, seen) = (room.Map, room.NotesFrom > room.Zone.DayOf(found.At) ? found with { Note = null, HasPhoto = false, WithdrawnWhy = null } : found);
        if (!map.Has(new(seen.Skill)))
        {
            return seen with { Short = seen.Skill };
        }

        var skill = map[new(seen.Skill)];
        return seen with
        {
            Short = skill.Short,
            Numbers = seen.Numbers is { } key ? ItemCase.InWords(key) : null,
            Slip = skill.Slips.FirstOrDefault(s => s.Id == seen.Slip)?.Text,
            Strategy = skill.Strategies.FirstOrDefault(s => s.Id == seen.Strategy)?.Text,
        };
    }
}
