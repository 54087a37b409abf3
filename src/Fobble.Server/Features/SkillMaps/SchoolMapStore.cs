using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.SkillMaps;

/// <summary>Keeps a school's map: all of what is wanted, or nothing with the reason.</summary>
internal sealed class SchoolMapStore(FobbleDb db, ClassContent content, ContentShelf shelf)
{
    /// <param name="about">The skill that the change is about, so that a circle can be told by it.</param>
    /// <returns>Null where the map was taken.</returns>
    public async Task<ValidationProblem?> TakeAsync(int classId, IReadOnlyList<Skill> wanted, Skill? about, CancellationToken stop)
    {
        if (about is not null && FaultOf(about) is { } fault)
        {
            return fault;
        }

        var changes = SchoolMap.Between(SkillMapLoader.AsWritten(), wanted);
        try
        {
            _ = new SchoolMap(SkillMapLoader.AsWritten(), changes);
        }
        catch (InvalidSkillMapException invalid)
        {
            return Faults.One("skills", invalid.Message);
        }

        var school = await db.Classes.Where(c => c.Id == classId).Select(c => c.SchoolId).SingleAsync(stop);
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        await db.SkillChanges.Where(c => c.SchoolId == school).ExecuteDeleteAsync(stop);
        db.SkillChanges.AddRange(changes.Select(c => new SkillChangeRow { SchoolId = school, Skill = c.Skill.Value, Hidden = c.Hidden, Instead = c.Instead is { } skill ? SkillMapLoader.WriteOne(skill) : null }));
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        shelf.Forget();
        return null;
    }

    private ValidationProblem? FaultOf(Skill about)
    {
        try
        {
            _ = SkillMapLoader.ReadOne(SkillMapLoader.WriteOne(about));
        }
        catch (FormatException fault)
        {
            return Faults.One("skill", fault.Message);
        }

        if (about.Needs.FirstOrDefault(n => content.School.Written.All(s => s.Id != n)) is { Value: not null } unknown)
        {
            return Faults.One("needs", $"There is no skill '{unknown}'.");
        }

        return about.Needs.Select(need => content.School.Written.Any(s => s.Id == about.Id) ? content.School.CircleIf(about.Id, need) : null).FirstOrDefault(c => c is not null) is { } circle ? Faults.One("needs", circle) : null;
    }
}
