using CsCheck;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Tests.Evidence;

/// <summary>What is added bit by bit is what is read at once, and nothing of a child changes by what is added for another.</summary>
public class SeenOfClassTests
{
    private static readonly DateTimeOffset Start = new(2026, 11, 2, 8, 0, 0, TimeSpan.Zero);

    // Few moments, so that many are of the same one.
    private static readonly Gen<Observation> One = Gen.Select(Gen.Int[1, 4], Gen.Int[0, 12], Gen.Int[0, 3])
        .Select(
            (child, minute, support) =>
                new Observation(
                    new ChildId(child),
                    new SkillId("see.to-3"),
                    Start.AddMinutes(minute),
                    DateOnly.FromDateTime(Start.Date),
                    Setting.Group,
                    (Support)support,
                    Representation.Objects
                )
        );

    [Fact]
    public void In_pieces_it_is_the_same_as_at_once() =>
        One.Array[0, 12]
            .Array[0, 6]
            .Sample(pieces =>
            {
                var seen = pieces.Aggregate(SeenOfClass.Of([]), (s, piece) => s.With(piece));
                var once = SeenOfClass.Of(pieces.SelectMany(p => p).OrderBy(o => o.At));

                // The very ones in the same places: of one moment, what came first stays first.
                seen.All.Count.ShouldBe(once.All.Count);
                seen.All.Zip(once.All).ShouldAllBe(p => ReferenceEquals(p.First, p.Second));
                for (var child = 1; child <= 4; child++)
                {
                    seen.Of(new(child)).ShouldBe(once.All.Where(o => o.Child.Value == child));
                }
            });

    [Fact]
    public void What_is_added_for_one_child_leaves_the_others_lists_the_very_same() =>
        Gen.Select(One.Array[1, 20], One.Array[1, 5])
            .Sample(
                (before, more) =>
                {
                    var seen = SeenOfClass.Of(before.OrderBy(o => o.At));
                    var after = seen.With(more);
                    var touched = more.Select(o => o.Child).ToHashSet();
                    foreach (var child in Enumerable.Range(1, 4).Select(c => new ChildId(c)).Where(c => !touched.Contains(c)))
                    {
                        after.Of(child).ShouldBeSameAs(seen.Of(child));
                    }
                }
            );
}
