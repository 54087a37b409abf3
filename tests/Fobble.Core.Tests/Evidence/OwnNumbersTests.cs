using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Evidence;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Numbers;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Evidence;

/// <summary>A class's own guess, slip and learning: taken only where they foresee what they were not fitted to.</summary>
public class OwnNumbersTests
{
    private static readonly EvidenceSettings Usual = EvidenceSettings.Default;
    private static readonly IReadOnlyList<Observation> Term = Played(1);

    private static IReadOnlyList<Observation> Played(ulong seed) =>
        MadeUpHistory
            .Play(
                new(
                    Map,
                    ActivityLoader.Shipped(Map),
                    Calendar,
                    [.. Enumerable.Range(1, 16).Select(i => new ChildId(i))],
                    Monday,
                    new DateTimeOffset(Monday.AddDays(7 * 10).ToDateTime(new(7, 0)), TimeSpan.Zero),
                    2,
                    seed
                )
                {
                    World = MadeUpWorld.All[2],
                }
            )
            .Observations;

    [Fact]
    public void The_usual_numbers_by_themselves_change_nothing()
    {
        var same = Usual.By(Usual.Numbers);
        foreach (var support in Enum.GetValues<Support>())
        {
            same.For(support, 0.6).IfHas.ShouldBe(Usual.For(support, 0.6).IfHas, 1e-12);
            same.For(support, 0.6).IfNot.ShouldBe(Usual.For(support, 0.6).IfNot, 1e-12);
        }
    }

    [Fact]
    public void Whatever_the_numbers_chances_are_shares_of_one() =>
        Gen.Select(Gen.Double[0.02, 0.4], Gen.Double[0.02, 0.4], Gen.Double[0.01, 0.3], Gen.Double[0.2, 0.99])
            .Sample(
                (guess, slip, learning, style) =>
                {
                    var own = Usual.By(new(guess, slip, learning));
                    own.Numbers.ShouldSatisfyAllConditions(
                        n => n.Guess.ShouldBe(guess, 1e-9),
                        n => n.Slip.ShouldBe(slip, 1e-9),
                        n => n.Learning.ShouldBe(learning, 1e-9)
                    );
                    own.UsualStyle.ShouldBe(Usual.UsualStyle, 1e-9);
                    Enum.GetValues<Support>().Sum(s => own.For(s, style).IfHas).ShouldBe(1, 1e-9);
                    Enum.GetValues<Support>().Sum(s => own.For(s, style).IfNot).ShouldBe(1, 1e-9);
                },
                iter: Cases.Of(200)
            );

    [Fact]
    public void Too_little_on_record_says_so_and_changes_nothing()
    {
        var found = OwnNumbersFit.Of(Map, Calendar, Usual, [.. Term.Take(100)], []);
        found.ShouldSatisfyAllConditions(
            f => f.Numbers.ShouldBeNull(),
            f => f.Better.ShouldBeFalse(),
            f => f.Sentences.ShouldHaveSingleItem().ShouldContain("100")
        );
    }

    [Fact]
    public void A_class_with_little_on_record_starts_from_what_its_school_shows()
    {
        // Everybody in the school is lenient; of this class there are a few weeks only.
        var school = Lenient(Elsewhere(2)).ToList();
        List<Observation> own = [.. Lenient(Term).Take(OwnNumbersFit.FewestOwn + 60)];
        OwnNumbersFit.Of(Map, Calendar, Usual, own, []).Numbers.ShouldBeNull();
        var found = OwnNumbersFit.Of(Map, Calendar, Usual, own, school);
        found.Numbers!.Guess.ShouldBeGreaterThan(Usual.Numbers.Guess);
        found.Own.ShouldBeGreaterThan(found.Usual);
        found.Sentences.ShouldContain(s => s.Contains($"other classes ({school.Count} observations"));
        OwnNumbersFit
            .Of(Map, Calendar, Usual, [.. own.Take(50)], school)
            .Sentences.ShouldHaveSingleItem()
            .ShouldStartWith($"50 observations are on record, and {school.Count} in the school’s other classes");
    }

    [Fact]
    public void A_school_that_is_otherwise_does_not_lead_a_class_astray()
    {
        var found = OwnNumbersFit.Of(Map, Calendar, Usual, Term, [.. Lenient(Elsewhere(2))]);
        (found.Better && found.Own <= found.Usual).ShouldBeFalse();
        var alone = OwnNumbersFit.Of(Map, Calendar, Usual, Term, []);
        found.Own.ShouldBeGreaterThan(alone.Own - 0.01);

        // What lies more than a year back counts nothing.
        var old = Elsewhere(2).Select(o => o with { Day = o.Day.AddDays(-400), At = o.At.AddDays(-400) }).ToList();
        OwnNumbersFit.Of(Map, Calendar, Usual, Term, old).Numbers.ShouldBe(alone.Numbers);
    }

    private static IEnumerable<Observation> Elsewhere(ulong seed) => Played(seed).Select(o => o with { Child = new(o.Child.Value + 100) });

    // Of what was not shown at all, one in five is written down as alone.
    private static IEnumerable<Observation> Lenient(IEnumerable<Observation> seen)
    {
        SeededRandom random = new(3);
        return seen.Select(o => o.Support is Support.NotYet or Support.Together && random.Chance(0.2) ? o with { Support = Support.Alone } : o);
    }

    [Fact]
    public void Adults_who_write_down_alone_what_was_luck_are_found_out()
    {
        List<Observation> lenient = [.. Lenient(Term)];
        var found = OwnNumbersFit.Of(Map, Calendar, Usual, lenient, []);
        found.Numbers!.Guess.ShouldBeGreaterThan(Usual.Numbers.Guess);
        found.Better.ShouldBeTrue();
        found.Own.ShouldBeGreaterThan(found.Usual);
        found.Sentences[^1].ShouldContain("foresee this class better");
    }

    [Fact]
    public void Numbers_that_are_no_better_by_more_than_chance_are_not_taken()
    {
        var found = OwnNumbersFit.Of(Map, Calendar, Usual, Term, []);
        found.Seen.ShouldBeGreaterThan(100);
        if (!found.Better)
        {
            found.Sentences[^1].ShouldContain("usual numbers");
        }

        (found.Better && found.Own <= found.Usual).ShouldBeFalse();
    }

    [Fact]
    public void A_record_foresees_from_what_was_seen_before_the_day_only()
    {
        List<(Observation, double)> told = [];
        var seen = Term.Where(o => o.Child == new ChildId(3)).ToList();
        _ = new ChildRecord(Map, SkillsTogether.Of(Map, Usual.Together), Calendar, Usual, seen, foreseen: (o, chance) => told.Add((o, chance)));
        told.Count.ShouldBe(seen.Count);
        var cut = seen.Count / 2;
        List<(Observation, double)> again = [];
        var changed = seen.Select((o, i) => i < cut ? o : o with { Support = Support.NotYet });
        _ = new ChildRecord(Map, SkillsTogether.Of(Map, Usual.Together), Calendar, Usual, changed, foreseen: (o, chance) => again.Add((o, chance)));
        again
            .TakeWhile(a => a.Item1.Day <= seen[cut].Day)
            .Select(a => a.Item2)
            .ShouldBe(told.TakeWhile(a => a.Item1.Day <= seen[cut].Day).Select(a => a.Item2));
    }

    [Fact]
    public void A_class_that_chooses_is_judged_as_it_chose()
    {
        var chosen = EvidenceSettings.Of(Approach.Usual with { Numbers = new(0.2, 0.05, 0.1), Fading = Fading.Never, Looks = SecondLookTime.Much });
        chosen.Numbers.Guess.ShouldBe(0.2, 1e-12);
        double.IsPositiveInfinity(chosen.SecondLook.HalfLife).ShouldBeTrue();
        chosen.SecondLook.Minutes.ShouldBe(2 * Usual.SecondLook.Minutes);
        EvidenceSettings.Of(Approach.Usual).ShouldBe(Usual);
    }

    [Fact]
    public void Where_time_never_puts_a_mark_in_doubt_nothing_may_have_faded_and_sooner_finds_more()
    {
        ClassEvidence With(Fading fading) =>
            new(
                Map,
                Calendar,
                EvidenceSettings.Of(Approach.Usual with { Fading = fading }),
                [.. Enumerable.Range(1, 16).Select(i => new ChildId(i))],
                Term,
                Monday.AddDays(120)
            );
        int Faded(Fading fading) => With(fading).AllInDoubt.Count(l => l.Doubt == Doubt.MayHaveFaded);
        Faded(Fading.Never).ShouldBe(0);
        Faded(Fading.Later).ShouldBeLessThan(Faded(Fading.Usual));
        Faded(Fading.Usual).ShouldBeLessThanOrEqualTo(Faded(Fading.Sooner));
    }
}
