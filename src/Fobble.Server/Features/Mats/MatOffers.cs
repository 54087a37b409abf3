using Fobble.Core.Approaches;
using Fobble.Core.Mats;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Strategies;

namespace Fobble.Server.Features.Mats;

/// <summary>The mats there are, each with a picture of it in use.</summary>
internal static class MatOffers
{
    public static IReadOnlyList<MatOnOffer> For(Approach approach)
    {
        return
        [
            new("sums", null, Phrase("Sums, worked"), Phrase("Any sum, by every strategy that fits, step by step."), WorkedOnFrames()),
            new(
                "story",
                null,
                Phrase("Story"),
                Phrase("A story told, drawn, marked and checked."),
                StoryDrawings.OneSet([.. Enumerable.Range(1, 5).Select(i => new DrawnThing(ShapeRole.CounterA, i <= 3, i > 3))])
            ),
            Counters(MatKind.TenFrame, Phrase("Five and some, short of ten."), 5, 2),
            Counters(MatKind.TwoTenFrames, Phrase("Teens; move a counter to fill the ten."), 8, 4),
            Counters(MatKind.FiveFrame, Phrase("Numbers to five and what is missing."), 3, 0),
            Counters(MatKind.Bond, Phrase("Take a whole apart, put it together."), 3, 2),
            Counters(MatKind.TwoRows, Phrase("Compare, partner under partner."), 6, 4),
            Counters(MatKind.Tray, Phrase("Shake into three wells."), 4, 2),
            Counters(MatKind.Ring, Phrase("Drop over a ring: inside, outside."), 3, 2),
            Counters(MatKind.Heap, Phrase("Put out, scatter, circle, take away."), 5, 2),
            new("look", null, Phrase("See it, say it"), Phrase("A number for a moment: frame, dice, fingers, bunches."), Patterns.Dice(5)),
            new("path", null, Phrase("Path and line"), Phrase("Hop on and back."), NumberPath.Stones(new NumberRange(0, 6), 5, [new Hop(2, 5, "+ 3")])),
            new(
                "kinds",
                null,
                Phrase($"Hundreds, tens, {approach.Words.OnesName}"),
                Phrase("Blocks, layered cards, exchanges."),
                PlaceValues.Blocks(PlaceValue.Of(124))
            ),
            new("dice", null, Phrase("Dice desk"), Phrase("What dice can show, and how long a game takes."), Patterns.Thrown([("5", true), ("3", true)])),
            new("shakes", null, Phrase("Tray and ring desk"), Phrase("How likely each split is."), Things.Ring(4, 2)),
            new("jar", null, Phrase("Guess jar"), Phrase("How many it holds, what to put in next."), Patterns.HeapsOfTen(23)),
        ];

        MatOnOffer Counters(MatKind kind, string purpose, int first, int more) =>
            new(
                "counters",
                kind,
                MatKinds.NameOf(kind),
                purpose,
                MatView.Of(MatDeeds.Do(MatState.Empty(kind), new(MatDeed.Deal, First: first, More: more, Seed: 7)).State, approach).Picture
            );

        Picture WorkedOnFrames() => Adviser.Work(8, Operation.Add, 5, approach).First(w => w.Kind == StrategyKind.MakeTen).Steps[^1].Picture;
    }
}
