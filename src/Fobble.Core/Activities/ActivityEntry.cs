namespace Fobble.Core.Activities;

/// <summary>An activity as it is written: in a content file, in one that is handed on, in the form in which a teacher changes it.</summary>
public sealed record ActivityEntry
{
    public string Id { get; init; } = "";

    public string Name { get; init; } = "";

    public List<int> Parts { get; init; } = [];

    public string Purpose { get; init; } = "";

    public List<string> Places { get; init; } = [];

    public string GroupSize { get; init; } = "3-5";

    public int Minutes { get; init; }

    public GameEntry? Game { get; init; }

    public bool Quiet { get; init; }

    public string? Items { get; init; }

    public List<ActivitySkillEntry> Skills { get; init; } = [];

    public List<MaterialEntry> Materials { get; init; } = [];

    public List<string> Prepare { get; init; } = [];

    public List<string> Steps { get; init; } = [];

    public List<string> Say { get; init; } = [];

    public List<string> LookFor { get; init; } = [];

    public string Easier { get; init; } = "";

    public string Harder { get; init; } = "";

    public string Sheet { get; init; } = "";

    public string Print { get; init; } = "";

    public string Mat { get; init; } = "";

    public static ActivityEntry Of(Activity activity) =>
        new()
        {
            Id = activity.Id.Value,
            Name = activity.Name,
            Parts = [.. activity.Parts],
            Purpose = activity.Purpose,
            Places = [.. activity.Places.Select(ContentFile.Dashed)],
            GroupSize = $"{activity.GroupSize}",
            Minutes = activity.Game is null ? activity.Minutes : 0,
            Game = activity.Game is { } game
                ? new()
                {
                    Dice = [.. game.Dice.Select(d => $"{d}")],
                    Operation = ContentFile.Dashed(game.Operation),
                    Target = game.Target,
                    Exact = game.Exact,
                }
                : null,
            Quiet = activity.Quiet,
            Skills =
            [
                .. activity.Skills.Select(s => new ActivitySkillEntry
                {
                    Id = s.Skill.Value,
                    Items = ContentFile.Dashed(s.Items),
                    Range = $"{s.Range}",
                }),
            ],
            Materials =
            [
                .. activity.Materials.Select(m => new MaterialEntry
                {
                    Item = m.Item.Id.Value,
                    Amount = m.Amount.Formula,
                    Alike = m.Alike,
                    Print = m.Print is { } print ? $"{print}" : null,
                }),
            ],
            Prepare = [.. activity.Prepare],
            Steps = [.. activity.Steps],
            Say = [.. activity.Say],
            LookFor = [.. activity.LookFor],
            Easier = activity.Easier,
            Harder = activity.Harder,
            Sheet = activity.Sheet,
            Print = $"{activity.SheetPrint}",
            Mat = activity.Mat,
        };
}

public sealed record ActivitySkillEntry
{
    public string Id { get; init; } = "";

    public string? Items { get; init; }

    public string? Range { get; init; }
}

public sealed record MaterialEntry
{
    public string Item { get; init; } = "";

    public string Amount { get; init; } = "1";

    public bool Alike { get; init; }

    public string? Print { get; init; }
}

public sealed record GameEntry
{
    public List<string> Dice { get; init; } = [];

    public string? Operation { get; init; }

    public int Target { get; init; }

    public bool Exact { get; init; }
}
