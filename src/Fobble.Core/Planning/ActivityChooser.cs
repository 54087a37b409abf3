using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>An activity that was done, or is planned, on a day.</summary>
public sealed record ActivityUse(ActivityId Activity, DateOnly Day);

/// <summary>An activity with the points that speak for it and the reason in a sentence.</summary>
public sealed record RankedActivity(Activity Activity, int Points, int Minutes, string Reason);

/// <summary>What an activity is wanted for.</summary>
/// <param name="Skill">Null where any will do that the class has met.</param>
/// <param name="Stage">Of a focus lesson.</param>
/// <param name="Minutes">How long there is for it.</param>
public sealed record ActivityWish(Place Place, SkillId? Skill, LessonStage? Stage, DateOnly Day, int Minutes);

/// <summary>Ranks activities for a place in the day: variety, what the cupboard has, time, the stage of the lesson and the class's approach, what the class has met.</summary>
/// <param name="stock">Null where the cupboard is not known.</param>
/// <param name="uses">What was done lately or is planned already, in any order.</param>
public sealed class ActivityChooser(
    ActivityLibrary library,
    ClassEvidence evidence,
    Approach approach,
    IReadOnlyList<StockLine>? stock,
    IReadOnlyList<ActivityUse> uses
)
{
    private const int UsedThisWeek = -40;
    private const int UsedLately = -15;
    private const int ShortOf = -35;
    private const int StoodIn = -6;
    private const int FitsStage = 12;
    private const int EachMinuteOver = -4;
    private const int EachMorePointed = -2;
    private const int Met = 30;
    private const int LatelyDays = 14;

    // In places without a skill of their own, an activity counts as met when half of the class has begun one of its skills.
    private const double MetByHalf = 0.5;

    private readonly List<ActivityUse> _uses = [.. uses];
    private readonly Dictionary<ActivityId, double> _met = [];
    private readonly Dictionary<ActivityId, Supplied?> _worst = [];

    /// <summary>From now on this counts as used on that day.</summary>
    public void Use(ActivityId activity, DateOnly day) => _uses.Add(new(activity, day));

    /// <summary>All that will do, the best first; for a place without a skill only what half of the class has met, if <paramref name="from"/> is given only on those skills.</summary>
    public IReadOnlyList<RankedActivity> Rank(ActivityWish wish, IReadOnlySet<SkillId>? from = null)
    {
        ArgumentNullException.ThrowIfNull(wish);
        var open = wish.Skill is { } skill
            ? library.For(skill, wish.Place)
            :
            [
                .. library.Activities.Where(a =>
                    a.Places.Contains(wish.Place)
                    && (wish.Place != Place.Choice || MetBy(a) >= MetByHalf)
                    && (from is null || a.Skills.Any(s => from.Contains(s.Skill)))
                ),
            ];
        return
        [
            .. open.Select((activity, order) => (Ranked: Weigh(activity, wish), order))
                .OrderByDescending(p => p.Ranked.Points)
                .ThenBy(p => p.order)
                .Select(p => p.Ranked),
        ];
    }

    private RankedActivity Weigh(Activity activity, ActivityWish wish)
    {
        var minutes = activity.MinutesFor(Math.Max(1, Math.Min(evidence.Children.Count, activity.GroupSize.High)));
        List<string> reasons = [];
        var points = 0;

        var last = _uses
            .Where(u => u.Activity == activity.Id && u.Day != wish.Day && Math.Abs(u.Day.DayNumber - wish.Day.DayNumber) < LatelyDays)
            .Select(u => Math.Abs(u.Day.DayNumber - wish.Day.DayNumber))
            .DefaultIfEmpty(int.MaxValue)
            .Min();
        points +=
            last < 7 ? UsedThisWeek
            : last < LatelyDays ? UsedLately
            : 0;
        reasons.Add(
            last == int.MaxValue ? Phrase("not used for two weeks")
            : last < 7 ? Phrase("used within a week")
            : Phrase("used within two weeks")
        );

        if (Worst(activity) is { } missing)
        {
            points += missing.StillShort > 0 ? ShortOf : StoodIn;
            reasons.Add(Phrase($"{missing.Need.Item.InSentence} short by {missing.ShortBy}{(missing.StillShort > 0 ? "" : ", something else stands in")}"));
        }
        else if (stock is not null)
        {
            reasons.Add(Phrase("all of it is in the cupboard"));
        }

        if (minutes > wish.Minutes)
        {
            points += EachMinuteOver * (minutes - wish.Minutes);
            reasons.Add(Phrase($"{minutes} minutes, {minutes - wish.Minutes} more than there are"));
        }
        else
        {
            reasons.Add(Phrase($"{minutes} minutes"));
        }

        if (wish.Stage is { } stage && StageFit(activity, wish.Skill, stage) is { } fits)
        {
            points += FitsStage;
            reasons.Add(fits);
        }

        points += wish.Skill is null ? (int)Math.Round(Met * MetBy(activity)) : EachMorePointed * Math.Min(8, activity.Skills.Count);
        if (wish.Skill is null)
        {
            reasons.Add(Phrase($"{Words.Percent(MetBy(activity))} of the class have begun with it"));
        }

        return new(activity, points, minutes, $"{Words.Capital(string.Join("; ", reasons))}.");
    }

    // Objects first, then drawing and talk, then stories or signs; with signs from the start, they count in every stage.
    private string? StageFit(Activity activity, SkillId? skill, LessonStage stage)
    {
        var items = skill is { } id ? activity.For(id)?.Items : null;
        var things = activity.Materials.Any(m => m.Print is null && m.Item.Purpose is not (Purpose.Paper or Purpose.Writing));
        var signs =
            items is ItemKind.Adding or ItemKind.TakingAway or ItemKind.MissingAddend or ItemKind.CompareSigns or ItemKind.CompareNumerals or ItemKind.Numeral;
        var draws = activity.Materials.Any(m => m.Item.Purpose is Purpose.Paper or Purpose.Writing) || activity.Materials.Any(m => m.Print is not null);
        return stage switch
        {
            LessonStage.Introduce when things => Phrase("with things in hand, as an introduction should be"),
            LessonStage.Practise when draws => Phrase("drawn and talked about, to practise"),
            LessonStage.Apply when IsStory(activity) => Phrase("in a story, to use it"),
            LessonStage.Apply when signs && approach.Symbols == SymbolsWhen.AfterObjects => Phrase("with signs, now that objects and drawings are known"),
            _ when signs && approach.Symbols == SymbolsWhen.FromTheStart => Phrase("with signs beside, as the class has them from the start"),
            _ => null,
        };
    }

    private static bool IsStory(Activity activity) => activity.Parts.Any(p => p is 3 or 5 or 16 or 19);

    private double MetBy(Activity activity) =>
        _met.TryGetValue(activity.Id, out var known)
            ? known
            : _met[activity.Id] = activity.Skills.Max(s => evidence.Share(child => evidence[child, s.Skill].Strength >= Strength.Prompted));

    // What is missing most if as many work with it as it is made for.
    private Supplied? Worst(Activity activity)
    {
        if (stock is null)
        {
            return null;
        }

        if (_worst.TryGetValue(activity.Id, out var known))
        {
            return known;
        }

        var children = Math.Max(1, Math.Min(evidence.Children.Count, activity.GroupSize.High));
        var range = activity.Skills.Select(s => s.Range).MaxBy(r => r.High)!;
        Supply supply = new(stock);
        return _worst[activity.Id] = activity
            .Materials.Where(m => m.Print is null)
            .Select(m => supply.Meet(new(m.Item, m.Amount.For(range.High, children), m.Alike)))
            .Where(s => s.ShortBy > 0)
            .OrderByDescending(s => s.StillShort)
            .FirstOrDefault();
    }
}
