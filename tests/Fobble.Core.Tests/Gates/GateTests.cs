using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Gates;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Skills;
using Fobble.Core.Stories;
using Fobble.Core.Strategies;

namespace Fobble.Core.Tests.Gates;

/// <summary>All content goes through the gates, in every set of words a class can choose; and what is broken on purpose does not come through.</summary>
public class GateTests(ITestOutputHelper output)
{
    private static readonly SkillMap Map = SkillMapLoader.Shipped();

    private static readonly Wording[] Words =
    [
        Wording.Usual,
        new(OnesWord.Units, FewerWord.Less, TakeWord.Subtract, SentenceWord.Equation, YearWord.Reception),
        new(Sentence: SentenceWord.Sum),
    ];

    // Each set a group of four and a class on the carpet would really get, a few times over.
    private static IEnumerable<(Activity Activity, ActivitySkill Setting, Wording Words, IReadOnlyList<Item> Items)> Sets() =>
        from words in Words
        from activity in ActivityLoader.AsWritten
        from setting in activity.Skills
        from seed in (ulong[])[1, 2, 3]
        select (
            activity,
            setting,
            words,
            ItemSetMaker.Make(
                new(setting.Items, setting.Range, 12, ItemHistory.None, seed)
                {
                    Approach = Approach.Usual with { Words = words },
                    Zero = Map.KnowsZero(setting.Skill),
                }
            )
        );

    [Fact]
    public void Every_set_of_items_is_weighed()
    {
        var sets = Sets().ToList();
        sets.SelectMany(s => WeighingGate.Faults(Map, s.Setting, s.Items).Select(f => $"{s.Activity.Id} for {s.Setting.Skill}: {f}"))
            .Distinct()
            .ShouldBeEmpty();
        output.WriteLine($"Weighed {sets.Count} sets, {sets.Sum(s => s.Items.Count)} items.");
    }

    [Fact]
    public void Every_activity_is_played_out()
    {
        var played = 0;
        List<string> faults = [];
        foreach (var (activity, setting, words, items) in Sets().Where(s => s.Words == Wording.Usual))
        {
            for (var children = activity.GroupSize.Low; children <= Math.Min(6, activity.GroupSize.High); children++)
            {
                played++;
                faults.AddRange(PlayingGate.Faults(activity, setting, items, children).Select(f => $"{activity.Id} for {setting.Skill}: {f}"));
            }
        }

        faults.Distinct().Take(80).ShouldBeEmpty();
        output.WriteLine($"Played {played} times.");
    }

    [Fact]
    public void Every_item_is_read()
    {
        var read = 0;
        List<string> faults = [];
        foreach (var (activity, setting, words, items) in Sets())
        {
            foreach (var item in items)
            {
                read++;
                // Of a half ticket and a card with a word on it the digit and the word are the two halves.
                var mixed = setting.Items is ItemKind.TornTicket or ItemKind.NumberWord or ItemKind.HiddenPart;
                faults.AddRange(ReadingGate.Faults(item.Ask, words, mixed).Select(f => $"{setting.Items}: {item.Ask} – {f}"));
                faults.AddRange(ReadingGate.Faults(Core.Words.Capital(item.Answer), words, mixed: true).Select(f => $"{setting.Items}: {item.Answer} – {f}"));
            }
        }

        faults.Distinct().Take(60).ShouldBeEmpty();
        output.WriteLine($"Read {read} items.");
    }

    [Fact]
    public void Every_story_is_read()
    {
        var read = 0;
        List<string> faults = [];
        foreach (var kind in Enum.GetValues<StoryKind>())
        {
            foreach (var setting in StorySetting.Shipped)
            {
                foreach (var words in Words)
                {
                    foreach (var parts in (Split[])[new(1, 1), new(1, 4), new(4, 1), new(3, 5)])
                    {
                        var story = StoryTeller.Tell(kind, setting, parts, (Person.All[0], Person.All[4]), words);
                        read++;
                        foreach (var line in story.Lines.Append(story.Answer))
                        {
                            faults.AddRange(ReadingGate.Faults(line, words).Select(f => $"{kind}, {setting.Id}: {line} – {f}"));
                        }
                    }
                }
            }
        }

        faults.Distinct().Take(60).ShouldBeEmpty();
        output.WriteLine($"Read {read} stories.");
    }

    // Every sum to twenty and every seventh beyond, in every set of words.
    [Fact]
    public void Every_step_of_every_way_of_working_is_read()
    {
        var read = 0;
        HashSet<string> faults = [];
        foreach (var words in Words)
        {
            var approach = Approach.Usual with { Words = words };
            for (var a = 0; a <= Adviser.Largest; a++)
            {
                for (var b = a <= 20 ? 0 : a % 7; b <= Adviser.Largest; b += a <= 20 && b < 20 ? 1 : 7)
                {
                    var worked = Adviser.Work(a, Operation.Add, b, approach).Concat(b <= a ? Adviser.Work(a, Operation.TakeAway, b, approach) : []);
                    foreach (var way in worked)
                    {
                        foreach (var said in way.Steps.Select(s => s.Says).Append(way.Fits).Append(way.Name))
                        {
                            read++;
                            faults.UnionWith(ReadingGate.Faults(said, words).Select(f => $"{way.Kind}: {said} – {f}"));
                        }
                    }
                }
            }
        }

        faults.Take(60).ShouldBeEmpty();
        output.WriteLine($"Read {read} sentences.");
    }

    [Fact]
    public void Every_reading_of_a_frame_is_read()
    {
        var readings = Enumerable
            .Range(0, 21)
            .SelectMany(n => FrameReadings.Of(n))
            .Concat(Enumerable.Range(0, 6).SelectMany(FrameReadings.OnFive))
            .Concat(Enumerable.Range(1, 20).Select(FrameReadings.InPairs));
        readings.SelectMany(r => ReadingGate.Faults(Core.Words.Capital(r), Wording.Usual).Select(f => $"{r} – {f}")).ShouldBeEmpty();
    }

    // What is printed and said of an activity, in the words of each class.
    [Fact]
    public void Every_line_of_every_activity_is_read()
    {
        List<string> faults = [];
        foreach (var words in Words)
        {
            foreach (var activity in ActivityLoader.AsWritten.Select(a => a.InWords(words)))
            {
                foreach (
                    var line in activity
                        .Prepare.Concat(activity.Steps)
                        .Concat(activity.Say)
                        .Concat(activity.LookFor)
                        .Append(activity.Purpose)
                        .Append(activity.Easier)
                        .Append(activity.Harder)
                )
                {
                    faults.AddRange(ReadingGate.Faults(line, words, mixed: true).Select(f => $"{activity.Id}: {line} – {f}"));
                }
            }
        }

        faults.Distinct().Take(60).ShouldBeEmpty();
    }

    [Fact]
    public void Every_line_of_every_skill_is_read()
    {
        List<string> faults = [];
        foreach (var words in Words)
        {
            foreach (var skill in SkillMapLoader.AsWritten().InWords(words).Skills)
            {
                foreach (var line in skill.LookFor.Concat(skill.Slips.Select(s => s.Text)).Concat(skill.Strategies.Select(s => s.Text)).Append(skill.ICan))
                {
                    faults.AddRange(ReadingGate.Faults(line, words, mixed: true).Select(f => $"{skill.Id}: {line} – {f}"));
                }
            }
        }

        faults.Distinct().Take(60).ShouldBeEmpty();
    }

    [Fact]
    public void A_game_whose_dice_never_show_half_of_the_facts_does_not_come_through()
    {
        var activity = ActivityLoader.AsWritten.Single(a => a.Id.Value == "two-sums-a-breath");
        var toTen = new ActivitySkill(new("join.fluent-10"), ItemKind.Adding, new(5, 10));
        PlayingGate.Faults(activity, toTen, [], 2).ShouldContain(f => f.Contains("of the facts in 5-10", StringComparison.Ordinal));
    }

    // Every activity that is laid out with things, with one thing of each kind; every game with a goal too far; every lesson in a minute.
    [Fact]
    public void Too_few_things_a_goal_too_far_and_too_short_a_lesson_do_not_come_through()
    {
        var one = new Amount("1");
        var (few, far, hurried) = (0, 0, 0);
        foreach (var (activity, setting, _, items) in Sets().Where(s => s.Words == Wording.Usual).DistinctBy(s => (s.Activity.Id, s.Setting)))
        {
            IReadOnlyList<string> Faults(Activity changed) => PlayingGate.Faults(changed, setting, items, activity.GroupSize.High is var h && h > 6 ? 6 : h);
            few += Faults(activity with { Materials = [.. activity.Materials.Select(m => m with { Amount = one })] }).Any(f => f.Contains("are there")) ? 1 : 0;
            far += activity.Game is { } game && Faults(activity with { Game = game with { Target = 900 } }).Any(f => f.Contains("the game takes")) ? 1 : 0;
            hurried += activity.Game is null && Faults(activity with { Minutes = 0 }).Any(f => f.Contains("minutes, not 0")) ? 1 : 0;
        }

        few.ShouldBeGreaterThan(60);
        far.ShouldBe(ActivityLoader.AsWritten.Where(a => a.Game is not null).Sum(a => a.Skills.Count));
        hurried.ShouldBeGreaterThan(250);
    }

    [Fact]
    public void A_step_that_the_things_or_the_numbers_do_not_allow_does_not_come_through()
    {
        var (activity, setting, _, items) = Sets().First(s => s.Activity.Id.Value == "sums-on-the-balance");
        IReadOnlyList<string> Faults(string step, params IReadOnlyList<Item> with) =>
            PlayingGate.Faults(activity with { Steps = [step] }, setting, with.Count > 0 ? with : items, 2);
        Faults("Hang four cubes on each side.").ShouldBeEmpty();
        Faults("Stand two boxes beside it.").ShouldContain(f => f.Contains("no boxes is on the list"));
        PlayingGate
            .Faults(activity with { Steps = ["Turn twelve cards."] }, setting, items, 2)
            .ShouldContain(f => f.Contains("no cards is on the list") || f.Contains("12 cards are needed"));

        var oneApart = ItemSetMaker
            .Make(new(ItemKind.CompareSets, new(3, 10), 12, ItemHistory.None, 1))
            .Where(i => Math.Abs(i.Case.Numbers[0] - i.Case.Numbers[1]) == 1);
        Faults("Move one across until it hangs level.", [.. oneApart]).ShouldContain(f => f.Contains("can't come level"));
    }

    [Fact]
    public void More_in_hand_than_on_the_list_and_too_slowa_lesson_do_not_come_through()
    {
        var (few, slow) = (0, 0);
        var lessons = Sets().Where(s => s.Words == Wording.Usual && s.Activity.Game is null).DistinctBy(s => (s.Activity.Id, s.Setting)).ToList();
        foreach (var (activity, setting, _, items) in lessons)
        {
            slow += PlayingGate.Faults(activity with { Minutes = 60 }, setting, items, 2).Any(f => f.Contains("at most, not 60")) ? 1 : 0;
            few += PlayingGate
                .Faults(
                    activity with
                    {
                        Prepare = ["Lay out twenty counters, twenty cards, twenty frames, twenty boxes."],
                        Materials = [.. activity.Materials.Select(m => m with { Amount = new("1") })],
                    },
                    setting,
                    items,
                    2
                )
                .Any(f => f.Contains("are needed, 1 are there") || f.Contains("are needed, 2 are there"))
                ? 1
                : 0;
        }

        slow.ShouldBeGreaterThan(lessons.Count * 9 / 10);
        few.ShouldBeGreaterThan(lessons.Count / 2);
    }

    [Fact]
    public void A_slip_that_comes_to_what_is_right_does_not_come_through()
    {
        IReadOnlyList<Item> Alike(params int[] halves) =>
            [
                .. halves.Select(h =>
                    ItemSetMaker.Make(new(ItemKind.Adding, new(2 * h, 2 * h), 12, ItemHistory.None, 1)).First(i => i.Case.Numbers[1] == i.Case.Numbers[2])
                ),
            ];
        WeighingGate
            .Faults(Map, new(new("bond.hidden-10"), ItemKind.HiddenPart, new(6, 10)), Alike(3, 4, 5))
            .ShouldContain(f => f.Contains("'Gives the part in sight' comes to what is right"));
    }

    // Two people are named: a question about "she" or "they" has two answers.
    [Fact]
    public void No_question_asks_about_a_pronoun()
    {
        string[] pronouns = ["he", "she", "they", "it", "her", "him", "them"];
        foreach (var kind in Enum.GetValues<StoryKind>())
        {
            foreach (var setting in StorySetting.Shipped)
            {
                var story = StoryTeller.Tell(kind, setting, new(3, 5), (Person.All[4], Person.All[7]), Wording.Usual);
                story.Lines[^1].Split(' ', '?', '.', ',').Select(w => w.ToLowerInvariant()).Intersect(pronouns).ShouldBeEmpty(story.Lines[^1]);
            }
        }
    }

    [Theory]
    [InlineData("One lantern hang here.")]
    [InlineData("One lie there.")]
    [InlineData("1 tens, 4 ones")]
    [InlineData("1 fits one dots")]
    [InlineData("3 wagon wait.")]
    [InlineData("3 wagons waits.")]
    [InlineData("Two more goes out.")]
    [InlineData("kind by kind")]
    [InlineData("Five, ten … ten")]
    [InlineData("Three lanterns hang here. 2 more are lit, and then four.")]
    [InlineData("Subtract three.")]
    [InlineData("Write it as tens and units.")]
    public void A_sentence_that_is_broken_does_not_come_through(string sentence) => ReadingGate.Faults(sentence, Wording.Usual).ShouldNotBeEmpty();

    [Theory]
    [InlineData("One lantern hangs here. Two more are lit. How many now?")]
    [InlineData("Two ten frames, one full")]
    [InlineData("Take away three.")]
    [InlineData("13 = 10 + 3")]
    [InlineData("Ten and one are eleven.")]
    [InlineData("Two hundred and twenty one")]
    public void A_sound_sentence_does(string sentence) => ReadingGate.Faults(sentence, Wording.Usual).ShouldBeEmpty();

    [Fact]
    public void A_set_with_a_zero_too_early_or_without_its_point_does_not_come_through()
    {
        IReadOnlyList<Item> Make(ItemKind kind, int low, int high) => ItemSetMaker.Make(new(kind, new(low, high), 12, ItemHistory.None, 1));
        IReadOnlyList<string> Weighed(string skill, ItemKind kind, int low, int high) =>
            WeighingGate.Faults(Map, new(new(skill), kind, new(low, high)), Make(kind, low, high));
        Weighed("take.act-5", ItemKind.TakingAway, 2, 5).ShouldContain(f => f.StartsWith("zero before it was taught"));
        Weighed("strategy.from-larger", ItemKind.CountOn, 5, 10).ShouldContain(f => f.StartsWith("the smaller number first"));
        Weighed("strategy.near-doubles", ItemKind.NearDoubles, 13, 19).ShouldNotBeEmpty();
        Weighed("compare.fewer-10", ItemKind.CompareSets, 3, 10).ShouldNotBeEmpty();
        WeighingGate
            .Faults(
                Map,
                new(new("numeral.name-20"), ItemKind.Numeral, new(11, 19)),
                [.. Make(ItemKind.Numeral, 13, 19).Select(i => i with { Distractors = [i.Value + 1] })]
            )
            .ShouldContain(f => f.Contains("is what children say"));
    }
}
