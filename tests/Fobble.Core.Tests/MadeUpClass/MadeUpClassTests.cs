using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Numbers;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.MadeUpClass;

public class MadeUpClassTests
{
    private static readonly ChildId[] Children = [.. Enumerable.Range(1, 12).Select(i => new ChildId(i))];
    private static readonly DateTimeOffset Now = new(SchoolDay(22).ToDateTime(new(7, 0)), TimeSpan.Zero);

    [Fact]
    public void A_child_holds_a_skill_only_with_all_it_needs_before_and_after_teaching() =>
        Gen.ULong.Sample(seed =>
        {
            var random = new SeededRandom(seed);
            var child = new MadeUpChild(new(1), Map, 0.5, random);
            for (var lesson = 0; lesson < 40; lesson++)
            {
                child.Teach(random.Pick(Map.Skills).Id, Setting.Group, SchoolDay(lesson), random);
            }

            child.Holds.ShouldAllBe(s => Map[s].Needs.All(child.Holds.Contains));
        });

    public static TheoryData<string> Worlds => [.. MadeUpWorld.All.Select(w => w.Name)];

    [Theory]
    [MemberData(nameof(Worlds))]
    public void In_every_world_a_class_can_be_played_and_shows_what_is_there_more_often_than_what_is_not(string name)
    {
        var world = MadeUpWorld.All.Single(w => w.Name == name);
        var history = Play(4, world);
        history.Observations.ShouldBe(Play(4, world).Observations);
        double ShareAlone(bool held) =>
            history.Observations.Where(o => history.Holds[o.Child].Contains(o.Skill) == held).Average(o => o.Support == Support.Alone ? 1.0 : 0);
        ShareAlone(true).ShouldBeGreaterThan(ShareAlone(false) + 0.2);
        history.Holds.SelectMany(h => h.Value.Select(s => (h.Key, s))).ShouldBeSubsetOf(history.EverHeld);
    }

    [Theory]
    [InlineData(null, 1.0)]
    [InlineData(30.0, 0.25)]
    [InlineData(90.0, 0.63)]
    public void What_is_not_used_is_forgotten_by_half_in_the_half_life_and_what_is_used_longer_kept(double? halfLife, double left)
    {
        var world = MadeUpWorld.Usual with { HalfLife = halfLife };
        var random = new SeededRandom(3);
        var root = Map.Skills.First(s => s.Needs.Count == 0).Id;
        var (idle, used, all) = (0, 0, 0);
        for (var i = 0; i < 1500; i++)
        {
            var (one, other) = (new MadeUpChild(new(1), Map, 2, random, world), new MadeUpChild(new(2), Map, 2, random, world));
            for (var day = Monday; day <= Monday.AddDays(60); day = day.AddDays(1))
            {
                one.Wake(day, random);
                other.Wake(day, random);
                if ((day.DayNumber - Monday.DayNumber) % 10 == 5 && other.Holds.Contains(root))
                {
                    other.Teach(root, Setting.Group, day, random);
                }
            }

            all++;
            idle += one.Holds.Contains(root) ? 1 : 0;
            used += other.Holds.Contains(root) ? 1 : 0;
        }

        // Two half-lives of thirty days leave a quarter, two thirds of one of ninety leave 2^(−⅔).
        ((double)idle / all).ShouldBe(left, halfLife is null ? 0 : 0.04);
        used.ShouldBeGreaterThanOrEqualTo(idle);
    }

    [Fact]
    public void The_same_seed_plays_the_same_history()
    {
        var (one, other) = (Play(4), Play(4));
        one.Observations.ShouldBe(other.Observations);
        Play(5).Observations.ShouldNotBe(one.Observations);
    }

    [Fact]
    public void Nothing_is_made_up_for_today_or_later()
    {
        var history = Play(4);
        history.Observations.ShouldAllBe(o => o.At < Now && Calendar.IsSchoolDay(o.Day));
        history.Away.ShouldAllBe(a => a.Day < SchoolDay(22));
        history.Weeks.Count.ShouldBe(5);
        history.Observations.Count.ShouldBeGreaterThan(200);
    }

    [Fact]
    public void Secure_is_right_far_more_often_than_chance()
    {
        // What is judged secure should mostly be held: the judgement is measured on children whose state is known.
        var random = new SeededRandom(9);
        var (right, all) = (0, 0);
        for (var id = 1; id <= 60; id++)
        {
            var child = new MadeUpChild(new(id), Map, 0.5, random);
            var seen =
                from i in Enumerable.Range(0, 5)
                from skill in Map.Skills.Take(25)
                select child.Show(skill.Id, Setting.Choice, new(SchoolDay(i * 2).ToDateTime(new(9, 0)), TimeSpan.Zero), SchoolDay(i * 2), null, random);
            var secure = EvidenceOf(EvidenceSettings.Default, 9, [.. seen]).SecureSkills(new(id));
            all += secure.Count;
            right += secure.Count(child.Holds.Contains);
        }

        all.ShouldBeGreaterThan(100);
        ((double)right / all).ShouldBeGreaterThan(0.95);
    }

    private static History Play(ulong seed, MadeUpWorld? world = null) =>
        MadeUpHistory.Play(new(Map, ActivityLoader.Shipped(Map), Calendar, Children, Monday, Now, 2, seed) { World = world ?? MadeUpWorld.Usual });
}
