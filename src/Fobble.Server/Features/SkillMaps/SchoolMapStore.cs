using Fobble.Core.Skills;
using Fobble.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.SkillMaps;

/// <summary>Keeps a school's map: all of what is wanted, or nothing with the reason.</summary>
internal sealed class SchoolMapStore(ClassRoom room, Decisions decisions)
{
    /// <param name="wanted">The whole map, changed from the one that the room has.</param>
    /// <param name="about">The skill that the change is about, so that a circle can be told by it.</param>
    /// <exception cref="RefusedException">It is no sound map.</exception>
    /// <exception cref="ChangedMeanwhileException">Somebody else has changed the map since.</exception>
    public async Task TakeAsync(IReadOnlyList<Skill> wanted, Skill? about, CancellationToken stop)
    {
        room.Content.School.CheckChange(about);
        var changes = SchoolMap.Between(SkillMapLoader.AsWritten(), wanted);
        _ = new SchoolMap(SkillMapLoader.AsWritten(), changes);
        await decisions.DecideAsync(
            Expected.Unchanged(room, Parts.Content),
            async db =>
            {
                await db.SkillChanges.Where(c => c.SchoolId == room.SchoolId).ExecuteDeleteAsync(stop);
                db.SkillChanges.AddRange(
                    changes.Select(c => new SkillChangeRow
                    {
                        SchoolId = room.SchoolId,
                        Skill = c.Skill.Value,
                        Hidden = c.Hidden,
                        Instead = c.Instead is { } skill ? SkillMapLoader.WriteOne(skill) : null,
                    })
                );
            },
            stop
        );
    }
}
