using Fobble.Core.Chance;
using Fobble.Core.Cupboard;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;

namespace Fobble.Core.Activities;

public readonly record struct ActivityId(string Value)
{
    public override string ToString() => Value;
}

/// <summary>When in the day an activity is for; many serve in more than one place.</summary>
public enum Place
{
    Starter,
    Carpet,
    Group,
    Choice,
    Transition,
}

/// <summary>How an activity is set for one skill: what is asked, with which numbers.</summary>
public sealed record ActivitySkill(SkillId Skill, ItemKind Items, NumberRange Range);

/// <summary>A sheet and the way it is had.</summary>
public sealed record SheetChoice(SheetKind Kind, SheetVariant Variant)
{
    /// <summary>Reads <c>bonds/one-part-missing</c>, or <c>half-cards</c> for the first way on offer.</summary>
    /// <exception cref="RefusedException">There is no such sheet, or not in that way.</exception>
    public static SheetChoice Parse(string where, string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var words = text.Split('/');
        var offer = SheetOffer.Of(ContentFile.Word<SheetKind>(where, words[0]));
        var variant = words.Length > 1 ? ContentFile.Word<SheetVariant>(where, words[1]) : offer.Variants[0];
        return offer.Variants.Contains(variant)
            ? new(offer.Kind, variant)
            : throw new RefusedException("activity", Phrase($"{where}: {offer.Name} are not to be had as '{words[1]}'."));
    }

    public override string ToString() => $"{ContentFile.Dashed(Kind)}/{ContentFile.Dashed(Variant)}";
}

/// <summary>Something to fetch and its amount as a formula.</summary>
/// <param name="Alike">Whether all have to look the same, because the point is to see.</param>
/// <param name="Print">What to print where it is not in the cupboard.</param>
public sealed record Material(CupboardItem Item, Amount Amount, bool Alike, SheetChoice? Print);

/// <summary>A game whose length is chance: dice are rolled and a piece moves until one player is at the target.</summary>
public sealed record Game(IReadOnlyList<Die> Dice, DiceOperation Operation, int Target, bool Exact)
{
    /// <summary>Minutes within which four games of five are over (rule R7); null where it may never end.</summary>
    public int? MinutesFor(int players) =>
        new Race(new Throws(Dice, Operation), Target, Exact, Math.Clamp(players, 1, Race.MostPlayers)).Length() is { } length
            ? Math.Max(1, (int)Math.Ceiling(GameLength.Minutes(length.Eighty)))
            : null;
}

/// <summary>Something to do with children, complete: an adult who has never seen it can run it from this.</summary>
/// <param name="Parts">The parts of the job that it covers.</param>
/// <param name="Minutes">How long it takes in a small group of usual size.</param>
/// <param name="Game">Where its length is chance.</param>
/// <param name="Quiet">True where the point is to see: the adult says no counting word.</param>
/// <param name="Sheet">How the same aim is met on paper.</param>
/// <param name="SheetPrint">The paper to print for that.</param>
/// <param name="Mat">The mat on which it can be shown, as the rest of an address after the class's <c>/mats/</c>.</param>
public sealed record Activity(
    ActivityId Id,
    string Name,
    IReadOnlyList<int> Parts,
    string Purpose,
    IReadOnlyList<Place> Places,
    NumberRange GroupSize,
    int Minutes,
    Game? Game,
    bool Quiet,
    IReadOnlyList<ActivitySkill> Skills,
    IReadOnlyList<Material> Materials,
    IReadOnlyList<string> Prepare,
    IReadOnlyList<string> Steps,
    IReadOnlyList<string> Say,
    IReadOnlyList<string> LookFor,
    string Easier,
    string Harder,
    string Sheet,
    SheetChoice SheetPrint,
    string Mat
)
{
    public ActivitySkill? For(SkillId skill) => Skills.FirstOrDefault(s => s.Skill == skill);

    /// <summary>Minutes for this many children: as written, or as long as the dice make it.</summary>
    public int MinutesFor(int children) => Game?.MinutesFor(children) ?? Minutes;

    /// <summary>
    /// Which numbers a sheet has when it is printed for this activity: those that are used, as far as the sheet goes. Cards, labels and paths begin at the
    /// beginning, whatever numbers are asked for with them; a path for a game reaches to the end of it.
    /// </summary>
    public NumberRange RangeOn(SheetKind sheet, NumberRange used)
    {
        var widest = SheetOffer.Of(sheet).Widest;
        var asked = sheet == SheetKind.NumberPath && Game is { } game ? Math.Max(game.Target, used.High) : used.High;
        var high = Math.Clamp(asked, Math.Max(1, widest.Low), widest.High);
        var fromTheBeginning = sheet is SheetKind.NumeralCards or SheetKind.TinLabels or SheetKind.NumberPath or SheetKind.Dominoes;
        return new(Math.Clamp(fromTheBeginning ? 0 : used.Low, widest.Low, high), high);
    }

    /// <summary>Minutes to get its things ready.</summary>
    public int PrepareMinutes => Materials.Sum(m => m.Item.PrepareMinutes);

    public IEnumerable<CupboardItem> Items => Materials.Select(m => m.Item);

    /// <summary>The same activity in the language of this request, with the class's words put in.</summary>
    /// <param name="own">Written by the school: nothing but the class's words is changed in it.</param>
    public Activity InWords(Wording words, bool own = false)
    {
        ArgumentNullException.ThrowIfNull(words);
        string Said(string text) => words.Say(own ? text : Phrase(text));
        return this with
        {
            Name = Said(Name),
            Purpose = Said(Purpose),
            Prepare = [.. Prepare.Select(Said)],
            Steps = [.. Steps.Select(Said)],
            Say = [.. Say.Select(Said)],
            LookFor = [.. LookFor.Select(Said)],
            Easier = Said(Easier),
            Harder = Said(Harder),
            Sheet = Said(Sheet),
        };
    }
}
