using System.Text;
using Fobble.Core.Skills;

namespace Fobble.Core.Standards;

/// <summary>Which skills reach which standard.</summary>
public static class Coverage
{
    public static IReadOnlyList<Skill> Reaching(SkillMap map, string code)
    {
        ArgumentNullException.ThrowIfNull(map);
        return [.. map.Skills.Where(s => s.Standards.Contains(code))];
    }

    /// <summary>docs/standards.md: every standard with the skills that reach it.</summary>
    public static string AsMarkdown(SkillMap map)
    {
        StringBuilder page = new();
        page.Append(
            "# Standards and the skills that reach them\n\nWritten by `./fobble standards` from `src/Fobble.Core/Standards/Content` and `src/Fobble.Core/Skills/Content`; a test keeps it true.\n"
        );
        foreach (var framework in Framework.Shipped)
        {
            page.Append($"\n## {framework.Name}\n\n{framework.Source}\n\n| code | standard | skills |\n| --- | --- | --- |\n");
            foreach (var standard in framework.Standards)
            {
                page.Append(
                    $"| {standard.Code} | {standard.Text} | {string.Join(", ", Reaching(map, standard.Code).Select(s => $"{s.Short} (`{s.Id}`)"))} |\n"
                );
            }
        }

        return page.ToString();
    }
}
