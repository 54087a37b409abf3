using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>How far rule R10 can be trusted: on made-up classes, of whom it is known what each child truly holds.</summary>
internal static class JudgementBench
{
    private const int Classes = 6;
    private const int Children = 24;
    private static readonly DateOnly First = new(2026, 9, 7);
    private static readonly DateOnly Today = First.AddDays(7 * 12);
    private static readonly (double From, double To)[] Bins = [(0, 0.1), (0.1, 0.3), (0.3, 0.5), (0.5, 0.7), (0.7, 0.85), (0.85, 0.95), (0.95, 1.01)];

    public static IEnumerable<Figure> Run()
    {
        var map = SkillMapLoader.Shipped();
        var library = ActivityLoader.Shipped(map);
        SchoolCalendar calendar = new([new("Autumn", Season.Autumn, First, First.AddDays(150))], []);
        ChildId[] children = [.. Enumerable.Range(1, Children).Select(i => new ChildId(i))];
        var played = Enumerable
            .Range(1, Classes)
            .Select(seed =>
                MadeUpHistory.Play(new(map, library, calendar, children, First, new DateTimeOffset(Today.ToDateTime(new(7, 0)), TimeSpan.Zero), 2, (ulong)seed))
            )
            .ToList();
        foreach (var strictness in new[] { Strictness.Light, Strictness.Usual, Strictness.Strict })
        {
            var marks = played.SelectMany(h => MarksOf(h, map, calendar, children, strictness)).ToList();
            var secure = marks.Where(m => m.Mark.Strength >= Strength.Secure).ToList();
            var held = marks.Where(m => m.Holds && m.Seen >= 5).ToList();
            yield return new(
                $"“secure”, {strictness.ToString().ToLowerInvariant()}: {Classes} made-up classes of {Children}, twelve weeks, {played.Sum(h => h.Observations.Count):n0} observations",
                $"{secure.Count} marks, of them {100.0 * secure.Count(m => m.Holds) / secure.Count:0.0} % truly held; of held skills seen five times or more {100.0 * held.Count(m => m.Mark.Strength >= Strength.Secure) / held.Count:0} % are secure"
            );
        }

        var usual = played.SelectMany(h => MarksOf(h, map, calendar, children, Strictness.Usual)).Where(m => m.Seen > 0).ToList();
        yield return new(
            "calibration: of skills with a belief of … so many are truly held, and how many there are",
            string.Join(
                "; ",
                Bins.Select(b => (b, all: usual.Where(m => m.Mark.Belief >= b.From && m.Mark.Belief < b.To).ToList()))
                    .Where(p => p.all.Count > 0)
                    .Select(p => $"{p.b.From:0.00}–{Math.Min(1, p.b.To):0.00}: {100.0 * p.all.Count(m => m.Holds) / p.all.Count:0} % of {p.all.Count}")
            )
        );
        yield return new(
            "“look again”: of hatched marks, and of other marks from “nearly” up, so many are truly held",
            $"{Held(usual.Where(m => m.Mark.LookAgain))} of hatched; {Held(usual.Where(m => !m.Mark.LookAgain && m.Mark.Strength >= Strength.Nearly))} of the others"
        );
    }

    private static string Held(IEnumerable<(Mark Mark, bool Holds, int Seen)> marks) =>
        marks.ToList() is var all && all.Count > 0 ? $"{100.0 * all.Count(m => m.Holds) / all.Count:0} % of {all.Count}" : "none";

    private static IEnumerable<(Mark Mark, bool Holds, int Seen)> MarksOf(
        History history,
        SkillMap map,
        SchoolCalendar calendar,
        ChildId[] children,
        Strictness strictness
    )
    {
        ClassEvidence evidence = new(map, calendar, EvidenceSettings.Default with { Strictness = strictness }, children, history.Observations, Today);
        return children.SelectMany(c => map.Skills.Select(s => (evidence[c, s.Id], history.Holds[c].Contains(s.Id), evidence.Seen(c, s.Id).Count)));
    }
}
