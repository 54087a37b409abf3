using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>How far rule R10 can be trusted, beside how it was before: on made-up classes of every world, of whom it is known what each child truly holds.</summary>
internal static class JudgementBench
{
    private const int Classes = 4;
    private const int Children = 24;
    private const int OftenSeen = 5;

    /// <summary>A child that shows less than this of what it holds without a nod is shy; one that shows more than the other is bold.</summary>
    private const double Shy = 0.58,
        Bold = 0.82;

    private static readonly DateOnly First = new(2026, 9, 7);
    private static readonly DateOnly Today = First.AddDays(7 * 12);
    private static readonly SkillMap Map = SkillMapLoader.Shipped();
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);
    private static readonly SchoolCalendar Calendar = new([new("Autumn", Season.Autumn, First, First.AddDays(150))], []);
    private static readonly ChildId[] Ids = [.. Enumerable.Range(1, Children).Select(i => new ChildId(i))];

    public static IEnumerable<Figure> Run()
    {
        foreach (var world in MadeUpWorld.All)
        {
            var played = Enumerable.Range(1, Classes).Select(seed => Play(world, (ulong)seed)).ToList();
            var now = played.SelectMany(h => Now(h, Strictness.Usual)).ToList();
            var before = played.SelectMany(Before).ToList();
            yield return new(
                $"{world.Name}: “secure”, {Classes} classes of {Children}, twelve weeks: precision; recall of what is held and was seen five times; of shy children; of bold ones",
                $"before {Told(before)}; now {Told(now)}; strict {Told([.. played.SelectMany(h => Now(h, Strictness.Strict))])}; light {Told([.. played.SelectMany(h => Now(h, Strictness.Light))])}"
            );
            yield return new($"{world.Name}: foundations of secure skills that are not secure", $"before {Contradicting(before)}; now {Contradicting(now)}");
            yield return new(
                $"{world.Name}: found not to be there among the first 10 / 20 / 50 to be looked at again, a class",
                $"before {Finds(played, BeforeOrder, false)}; never quite sure {Finds(played, h => Order(h, Doubt.NeverSure), false)}"
            );
            yield return new(
                $"{world.Name}: found lost (was held, is not) among the first 10 / 20 / 50, a class",
                $"before {Finds(played, BeforeOrder, true)}; may have faded {Finds(played, h => Order(h, Doubt.MayHaveFaded), true)}; in any order {Finds(played, AnyOrder, true)}"
            );
            var listed = played.Select(h => EvidenceOf(h, Strictness.Usual)).Zip(played).ToList();
            yield return new(
                $"{world.Name}: the list for a week",
                $"{listed.Average(p => p.First.LookAgain.Count):0} marks a class, {listed.Average(p => p.First.LookAgain.Select(l => l.Skill).Distinct().Count()):0.0} skills, {listed.Average(p => p.First.LookAgain.Count(l => !p.Second.Holds[l.Child].Contains(l.Skill))):0.0} of the marks not there; in doubt altogether {listed.Average(p => p.First.AllInDoubt.Count):0}, before {played.Average(h => BeforeOrder(h).Count()):0}"
            );
        }
    }

    private static History Play(MadeUpWorld world, ulong seed) =>
        MadeUpHistory.Play(new(Map, Library, Calendar, Ids, First, new DateTimeOffset(Today.ToDateTime(new(7, 0)), TimeSpan.Zero), 2, seed) { World = world });

    private static ClassEvidence EvidenceOf(History history, Strictness strictness) =>
        new(Map, Calendar, EvidenceSettings.Default with { Strictness = strictness }, Ids, history.Observations, Today);

    private static IEnumerable<Judged> Now(History history, Strictness strictness)
    {
        var evidence = EvidenceOf(history, strictness);
        return Ids.SelectMany(c =>
            Map.Skills.Select(s => new Judged(
                (history, c),
                s,
                evidence[c, s.Id].Strength >= Strength.Secure,
                evidence[c, s.Id].Strength >= Strength.Secure || evidence[c, s.Id].Belief >= EvidenceSettings.Default.LikelyFrom,
                history.Holds[c].Contains(s.Id),
                evidence.Seen(c, s.Id).Count,
                history.Boldness[c]
            ))
        );
    }

    private static IEnumerable<Judged> Before(History history) =>
        EachBefore(history)
            .Select(p => new Judged(
                (history, p.Child),
                p.Skill,
                p.Judged.Secure,
                p.Judged.Nearly,
                history.Holds[p.Child].Contains(p.Skill.Id),
                p.Seen,
                history.Boldness[p.Child]
            ));

    private static IEnumerable<(ChildId Child, Skill Skill, (bool Secure, bool Nearly, double Belief, bool LookAgain) Judged, int Seen)> EachBefore(
        History history
    )
    {
        var seen = history.Observations.ToLookup(o => (o.Child, o.Skill));
        return Ids.SelectMany(child => Map.Skills.Select(skill => (child, skill, own: seen[(child, skill.Id)].ToList())))
            .Select(x => (x.child, x.skill, EachAlone.Judge(x.skill, Calendar, x.own, Today), x.own.Count));
    }

    private static string Told(IReadOnlyList<Judged> marks)
    {
        string Recall(Func<Judged, bool> whose) =>
            marks.Where(m => m.Holds && m.Seen >= OftenSeen && whose(m)).ToList() is { Count: > 0 } all
                ? $"{100.0 * all.Count(m => m.Secure) / all.Count:0}"
                : "–";
        var secure = marks.Where(m => m.Secure).ToList();
        return $"{100.0 * secure.Count(m => m.Holds) / Math.Max(1, secure.Count):0.0} / {Recall(_ => true)} / {Recall(m => m.Boldness < Shy)} / {Recall(m => m.Boldness > Bold)} %";
    }

    private static string Contradicting(IReadOnlyList<Judged> marks)
    {
        var by = marks.ToDictionary(m => (m.Child, m.Skill.Id));
        var pairs = marks.Where(m => m.Secure).SelectMany(m => m.Skill.Needs.Where(n => by.ContainsKey((m.Child, n))).Select(n => by[(m.Child, n)])).ToList();
        var seen = pairs.Where(p => p.Seen > 0).ToList();
        return $"{seen.Count(p => !p.Secure)} of {seen.Count} that were seen ({100.0 * seen.Count(p => !p.Secure) / Math.Max(1, seen.Count):0} %), and {pairs.Count - seen.Count} that nobody has seen; {pairs.Count(p => !p.Likely)} not even likely";
    }

    private static IEnumerable<(ChildId, SkillId)> BeforeOrder(History history) =>
        EachBefore(history).Where(p => p.Judged.LookAgain).OrderBy(p => p.Judged.Belief).Select(p => (p.Child, p.Skill.Id));

    private static IEnumerable<(ChildId, SkillId)> AnyOrder(History history) =>
        EachBefore(history)
            .Where(p => p.Judged.Nearly)
            .OrderBy(p => HashCode.Combine(p.Child.Value * 7919, p.Skill.Id.Value.Length * 104729))
            .Select(p => (p.Child, p.Skill.Id));

    private static IEnumerable<(ChildId, SkillId)> Order(History history, Doubt doubt) =>
        EvidenceOf(history, Strictness.Usual).AllInDoubt.Where(l => l.Doubt == doubt).Select(l => (l.Child, l.Skill));

    private static string Finds(IReadOnlyList<History> played, Func<History, IEnumerable<(ChildId Child, SkillId Skill)>> order, bool lost)
    {
        var orders = played.Select(h => (h, order(h).ToList())).ToList();
        return string.Join(
            " / ",
            ((int[])[10, 20, 50]).Select(n =>
                $"{orders.Average(o => o.Item2.Take(n).Count(p => !o.h.Holds[p.Child].Contains(p.Skill) && (!lost || o.h.EverHeld.Contains((p.Child, p.Skill))))):0.0}"
            )
        );
    }

    private sealed record Judged((History, ChildId) Child, Skill Skill, bool Secure, bool Likely, bool Holds, int Seen, double Boldness);
}
