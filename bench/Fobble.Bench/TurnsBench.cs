using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.MadeUpClass;

namespace Fobble.Bench;

/// <summary>
/// What a second turn in the week is worth: the same made-up classes over a term, two places for groups a day, with one turn a child and week, with two that are both
/// formed on Monday, and with the second formed when the first is known. On worlds of several kinds; figures are gains beside one turn, in the same class.
/// </summary>
internal static class TurnsBench
{
    private const int Seeds = 20;
    private const int Weeks = 12;
    private const int Children = 30;

    private static readonly (string Name, TurnsAWeek Turns, bool Anew)[] Ways =
    [
        ("one turn", TurnsAWeek.One, false),
        ("two turns, both formed on Monday", TurnsAWeek.Two, false),
        ("two turns, the second asked for anew in the middle of the week", TurnsAWeek.Two, true),
    ];

    public static IEnumerable<Figure> Run()
    {
        foreach (var world in (MadeUpWorld[])[MadeUpWorld.All[0], MadeUpWorld.All[2], MadeUpWorld.All[4]])
        {
            var gains = Ways.Select(_ => new (double Secure, double Held, double Least)[Seeds]).ToArray();
            Parallel.For(0, Seeds * Ways.Length, run =>
            {
                var (way, seed) = (run % Ways.Length, run / Ways.Length);
                var (history, evidence, _) = MadeUpTerm.Play(
                    (ulong)seed + 1,
                    Weeks,
                    week => Formed(week, Ways[way].Turns),
                    world,
                    Ways[way].Anew ? DayOfWeek.Thursday : null
                );
                var held = history.Holds.Values.Select(h => (double)h.Count).ToList();
                gains[way][seed] = (evidence.Children.Average(c => evidence.SecureSkills(c).Count), held.Average(), held.Order().Take(6).Average());
            });
            for (var way = 1; way < Ways.Length; way++)
            {
                var more = gains[way].Zip(gains[0]).ToList();
                yield return new(
                    $"{world.Name}: {Ways[way].Name}, beside {Ways[0].Name}, {Seeds} classes, {Weeks} weeks: secure / held / held by the six with fewest, more a child",
                    $"{Spread(more.Select(m => m.First.Secure - m.Second.Secure))} / {Spread(more.Select(m => m.First.Held - m.Second.Held))} / {Spread(more.Select(m => m.First.Least - m.Second.Least))}",
                    "+ 1.3 / + 1.2 / + 1.8"
                );
            }
        }
    }

    // Part after part of what is left of the week, each beside those before it.
    private static IReadOnlyList<PastGroup> Formed(WeekToGroup week, TurnsAWeek turns)
    {
        var monday = week.Days[0].AddDays(DayOfWeek.Monday - week.Days[0].DayOfWeek);
        List<PastGroup> groups = [];
        var held = week.Past.Where(g => g.Day >= monday).ToList();

        // The parts are those of the whole week, however much of it is over.
        List<DateOnly> places = [.. held.Select(g => g.Day).Concat(week.Days).Distinct().Order().SelectMany(d => Enumerable.Repeat(d, week.GroupsADay))];
        foreach (var part in WeekParts.Of(places, Children, new GroupRules().MaxSize, turns).Where(p => p.From >= week.Days[0]))
        {
            List<GroupSlot> slots = [.. places.Where(part.Has).Select((d, i) => new GroupSlot(0, i) { Day = d })];
            GroupingBrief brief = new(
                week.Evidence,
                part.From,
                week.Focus,
                [.. week.Past.Where(g => g.Day < monday)],
                new Dictionary<ChildId, IReadOnlySet<int>>(),
                new HashSet<ChildId>()
            )
            {
                Beside = [.. held.Where(g => !part.Has(g.Day)), .. groups],
            };
            var found = Grouper.Form(new(Candidates.From(brief), slots, new(), brief.MetLately));
            groups.AddRange(found.Groups.Select(g => new PastGroup(slots[g.Slot].Day!.Value, AcceptedGroup.WeekOf(part.From), g.Skill, g.Children)));
        }

        return groups;
    }

    private static string Spread(IEnumerable<double> values)
    {
        var all = values.ToList();
        var mean = all.Average();
        var error = Math.Sqrt(all.Sum(v => (v - mean) * (v - mean)) / (all.Count - 1) / all.Count);
        return $"{mean:+0.00;-0.00} ± {error:0.00}";
    }
}
