using CsCheck;
using Fobble.Core.People;

namespace Fobble.Core.Tests.People;

/// <summary>An office's list and what is here: made up with few names and days of birth, so that children of one name are common, and then played out.</summary>
public class RosterTests
{
    private static readonly DateOnly Today = new(2026, 12, 1);
    private static readonly string[] Given = ["Ada", "Bo", "Cai"];
    private static readonly string[] Family = ["Okafor", "Lund", "Reyes", "Haas"];
    private static readonly DateOnly?[] Days = [null, new(2021, 3, 4), new(2021, 5, 6)];
    private static readonly OfficeClass[] Office = [new("k1", "Rowan"), new("k2", "Alder"), new("k9", "Year 6")];
    private static readonly ClassHere[] Here = [new(1, "rowan", null), new(2, "Alder", null), new(3, "Hazel", null), new(4, "Alder", null, Taught: false)];

    private static Gen<T> OneOf<T>(params T[] all) => Gen.Int[0, all.Length - 1].Select(i => all[i]);

    private static readonly Gen<OfficeChild> OfOffice = Gen.Select(
        OneOf(Given),
        OneOf(Family),
        OneOf(Days),
        OneOf("k1", "k2", "k9"),
        OneOf("", "k1", "k2"),
        (given, family, born, room, more) => new OfficeChild("", given, family, born, [.. new[] { room, more }.Where(k => k.Length > 0).Distinct()])
    );

    private static readonly Gen<ChildHere> OfHere = Gen.Select(
        OneOf(Given),
        OneOf(Family),
        OneOf(Days),
        Gen.Int[1, 4],
        Gen.Bool,
        Gen.Int[-3, 8],
        (given, family, born, room, left, key) => new ChildHere(0, new(given, family, born, null), room, left, key < 0 ? null : $"c{key}")
    );

    private static readonly Gen<(OfficeList List, IReadOnlyList<ChildHere> Children)> Worlds = Gen.Select(
        OfOffice.Array[0, 8],
        OfHere.Array[0, 8],
        (office, here) =>
            (
                new OfficeList(Office, [.. office.Select((c, i) => c with { Key = $"c{i}" })]),
                (IReadOnlyList<ChildHere>)[.. here.Select((c, i) => c with { Id = i + 1 }).DistinctBy(c => c.Key ?? $"none {c.Id}")]
            )
    );

    private static List<ChildHere> Done(IReadOnlyList<ChildHere> children, IEnumerable<Proposal> proposals)
    {
        var after = children.ToDictionary(c => c.Id);
        foreach (var p in proposals)
        {
            if (p.Kind == ProposalKind.Joined)
            {
                var id = after.Keys.Append(0).Max() + 1;
                after.Add(id, new(id, p.Naming!, p.ClassId!.Value, false, p.Key));
                continue;
            }

            var child = after[p.ChildId!.Value];
            child = child with { Key = p.Key ?? child.Key };
            after[child.Id] = p.Kind switch
            {
                ProposalKind.Moved or ProposalKind.CameBack => child with { ClassId = p.ClassId!.Value, Left = false },
                ProposalKind.Left => child with { Left = true },
                ProposalKind.Renamed => child with { Naming = p.Naming! },
                _ => child,
            };
        }

        return [.. after.Values];
    }

    [Fact]
    public void Once_all_is_done_that_a_list_proposes_it_proposes_nothing() =>
        Worlds.Sample(
            world =>
            {
                var first = Roster.Compare(world.List, Here, world.Children, Today);
                var after = Done(world.Children, first.Proposals);
                Roster.Compare(world.List, Here, after, Today).Proposals.Select(p => p.Sentence).ShouldBeEmpty();

                // Who is on the list in a class of ours is here once, in one of the classes the list says.
                foreach (var child in world.List.Children.Where(c => c.Classes.Any(first.Classes.ContainsKey)))
                {
                    var one = after.Where(c => c.Key == child.Key).ShouldHaveSingleItem();
                    one.Left.ShouldBeFalse();
                    child.Classes.Where(first.Classes.ContainsKey).Select(k => first.Classes[k]).ShouldContain(one.ClassId);
                    ShortNames.Same(one.Naming.Whole).ShouldBe(ShortNames.Same($"{child.GivenName} {child.FamilyName}"));
                }

                after.Select(c => c.Key).OfType<string>().ShouldBeUnique();
            },
            iter: Cases.Of(4_000)
        );

    [Fact]
    public void Nobody_is_two_children_and_nobody_of_a_class_that_is_not_on_the_list_leaves() =>
        Worlds.Sample(
            world =>
            {
                var all = Roster.Compare(world.List, Here, world.Children, Today).Proposals;
                all.Select(p => p.Id).ShouldBeUnique();
                all.Where(p => p.ChildId is not null).ShouldAllBe(p => world.Children.Any(c => c.Id == p.ChildId));
                all.Where(p => p.Kind is ProposalKind.Same or ProposalKind.CameBack or ProposalKind.Moved && p.Key is not null)
                    .GroupBy(p => p.Key)
                    .ShouldAllBe(g => g.Select(p => p.ChildId).Distinct().Count() == 1);
                foreach (var left in all.Where(p => p.Kind == ProposalKind.Left))
                {
                    var child = world.Children.Single(c => c.Id == left.ChildId);
                    child.ClassId.ShouldBeInRange(1, 2);
                    child.Left.ShouldBeFalse();
                }

                // Two who could be told apart by nothing are never taken for one another.
                foreach (var same in all.Where(p => p.Kind == ProposalKind.Same))
                {
                    var (here, there) = (world.Children.Single(c => c.Id == same.ChildId), world.List.Children.Single(c => c.Key == same.Key));
                    (here.Naming.Born is null || there.Born is null || here.Naming.Born == there.Born).ShouldBeTrue();
                }
            },
            iter: Cases.Of(4_000)
        );

    private static readonly OfficeChild Ada = new("c1", "Ada", "Okafor", Days[1], ["k1"]);
    private static readonly ChildHere AdaHere = new(1, new("Ada", "Okafor", Days[1], null), 1, false, "c1");

    private static IReadOnlyList<Proposal> Of(OfficeChild[] office, params ChildHere[] here) =>
        Roster.Compare(new(Office, office), Here, here, Today).Proposals;

    [Fact]
    public void A_list_that_says_the_same_proposes_nothing() => Of([Ada], AdaHere).ShouldBeEmpty();

    [Fact]
    public void What_a_list_says_is_a_sentence()
    {
        Of([Ada], AdaHere with { Key = null }).ShouldHaveSingleItem().Sentence.ShouldBe("Ada Okafor of rowan is on the list under this name.");
        Of([Ada]).ShouldHaveSingleItem().Sentence.ShouldBe("Ada Okafor is new on the list, in rowan.");
        Of([], AdaHere).ShouldHaveSingleItem().Sentence.ShouldBe("Ada Okafor of rowan is on the list no more.");
        Of([], AdaHere with { Key = null }).ShouldHaveSingleItem().Sentence.ShouldBe("Ada Okafor of rowan is not on the list.");
        Of([Ada with { Classes = ["k9"] }], AdaHere)
            .ShouldHaveSingleItem()
            .Sentence.ShouldBe("Ada Okafor of rowan is in Year 6 on the list, which is no class here.");
        Of([Ada with { Classes = [] }], AdaHere).ShouldHaveSingleItem().Sentence.ShouldBe("Ada Okafor of rowan is in no class on the list.");
        Of([Ada], AdaHere with { ClassId = 3 }).ShouldHaveSingleItem().Sentence.ShouldBe("Ada Okafor is in rowan on the list, and in Hazel here.");
        Of([Ada], AdaHere with { Left = true }).ShouldHaveSingleItem().Sentence.ShouldBe("Ada Okafor had left, and is on the list again, in rowan.");
        Of([Ada with { FamilyName = "Lund" }], AdaHere).ShouldHaveSingleItem().Sentence.ShouldBe("Ada Okafor is called Ada Lund on the list.");
        Of([Ada with { Born = Days[2] }], AdaHere).ShouldHaveSingleItem().Sentence.ShouldBe("Ada Okafor was born on 6 May 2021, as the list says.");
    }

    [Fact]
    public void A_list_without_days_of_birth_takes_none_away() => Of([Ada with { Born = null }], AdaHere).ShouldBeEmpty();

    [Fact]
    public void Twins_of_one_name_are_nobody_s_guess()
    {
        var twin = AdaHere with { Id = 2 };
        var all = Of([Ada with { Key = "x" }, Ada with { Key = "y" }], AdaHere with { Key = null }, twin with { Key = null });
        all.Select(p => p.Kind).ShouldBe([ProposalKind.Joined, ProposalKind.Joined, ProposalKind.Left, ProposalKind.Left]);
    }

    [Fact]
    public void A_child_that_can_t_be_is_said_to_be_so()
    {
        Of([Ada with { Born = Today.AddDays(1) }]).ShouldHaveSingleItem().CantBe.ShouldBe("This day is still to come.");
        Of([Ada with { GivenName = "" }]).ShouldHaveSingleItem().CantBe.ShouldBe("The first name is missing.");
    }

    [Fact]
    public void A_key_of_the_list_goes_before_a_name_and_a_class_that_changes_its_name_stays_the_same()
    {
        ClassHere[] renamed = [new(1, "Robins", "k1"), new(2, "Rowan", null)];
        Roster.Compare(new(Office, []), renamed, [], Today).Classes.ShouldBe(new Dictionary<string, int> { ["k1"] = 1 });
        ClassHere[] twice = [new(1, "Rowan", null), new(2, "ROWAN", null)];
        Roster.Compare(new(Office, []), twice, [], Today).Classes.ShouldBeEmpty("two of one name");
    }

    [Fact]
    public void Answers_to_what_is_not_proposed_and_two_who_would_be_one_are_refused_whole()
    {
        var bo = Ada with { Key = "c2", GivenName = "Bo" };
        var compared = Roster.Compare(new(Office, [Ada, bo]), Here, [new(7, new("Cai", "Lund", null, null), 1, false, null)], Today);
        var (first, second) = (compared.Proposals[0].Id, compared.Proposals[1].Id);
        IReadOnlyList<string> Wrong(params RosterAnswer[] answers) =>
            [.. Should.Throw<RefusedException>(() => compared.Checked(answers)).Reasons.Select(r => r.Sentence)];

        Wrong(new(first, true, null), new("joined:c9:1", true, null)).ShouldHaveSingleItem().ShouldContain("has changed meanwhile");
        Wrong(new(first, true, null), new(first, false, null)).ShouldBe(["One of them is answered twice."]);
        Wrong(new(first, true, 7), new(second, true, 7)).ShouldBe(["Two who are new on the list can’t both be the same child."]);
        Wrong(new RosterAnswer(first, true, 8)).ShouldHaveSingleItem().ShouldContain("only whom the list does not have");
        Wrong(new RosterAnswer("left:7", true, 7)).ShouldHaveSingleItem();
        compared
            .Checked([new("left:7", true, null), new(second, true, null), new(first, true, 7)])
            .Select(a => a.Answer.Id)
            .ShouldBe([second, first, "left:7"], ignoreOrder: true);
        compared.Checked([new("left:7", true, null), new(first, true, null)]).Select(a => a.Proposal.Kind).ShouldBe([ProposalKind.Joined, ProposalKind.Left]);
    }

    [Theory]
    [InlineData(3, 20, false)]
    [InlineData(4, 20, false)]
    [InlineData(5, 20, true)]
    [InlineData(3, 4, false)]
    [InlineData(4, 4, true)]
    public void A_list_that_lacks_many_is_looked_at_twice(int gone, int of, bool caution)
    {
        var here = Enumerable.Range(1, of).Select(i => new ChildHere(i, new($"Kim{i}", "Lee", null, null), 1, false, $"c{i}")).ToArray();
        OfficeList list = new(Office, [.. here.Skip(gone).Select(c => new OfficeChild(c.Key!, c.Naming.GivenName, "Lee", null, ["k1"]))]);
        var compared = Roster.Compare(list, Here, here, Today);
        compared.Proposals.Count.ShouldBe(gone);
        compared.Caution.ShouldBe(caution ? $"This list lacks {gone} of {of} children: is it cut short, or of another year?" : null);
    }
}
