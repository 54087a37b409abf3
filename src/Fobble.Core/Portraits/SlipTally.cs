using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Portraits;

/// <summary>A child who shows a slip.</summary>
public sealed record SlipChild(ChildId Child, int Times, DateOnly Last);

/// <summary>A slip on one skill: who shows it, and what helps.</summary>
public sealed record TalliedSlip(SkillId Skill, Slip Slip, IReadOnlyList<SlipChild> Children, IReadOnlyList<string> Helps, Activity? Activity);

/// <summary>Which slips go about in a class, the most widespread first.</summary>
public static class SlipTally
{
    /// <param name="days">School days back from today that count.</param>
    public static IReadOnlyList<TalliedSlip> Of(ClassEvidence evidence, ActivityLibrary library, int days)
    {
        ArgumentNullException.ThrowIfNull(evidence);
        ArgumentNullException.ThrowIfNull(library);
        return
        [
            .. evidence
                .Map.Skills.SelectMany(skill => skill.Slips.Select(slip => (skill, slip, children: ShowingIt(evidence, skill, slip, days))))
                .Where(p => p.children.Count > 0)
                .Select(p => (p, activity: library.For(p.skill.Id, Place.Group) is [var first, ..] ? first : null))
                .Select(p => new TalliedSlip(p.p.skill.Id, p.p.slip, p.p.children, Helps(evidence, p.p.skill, p.p.slip, p.p.children, p.activity), p.activity))
                .OrderByDescending(b => b.Children.Count)
                .ThenByDescending(b => b.Children.Sum(c => c.Times))
                .ThenBy(b => evidence.Map.IndexOf(b.Skill)),
        ];
    }

    // Who has become secure since has outgrown it.
    private static List<SlipChild> ShowingIt(ClassEvidence evidence, Skill skill, Slip slip, int days) =>
        [
            .. evidence
                .Children.Where(c => evidence[c, skill.Id].Strength < Strength.Secure)
                .Select(c =>
                    (
                        c,
                        seen: evidence
                            .Seen(c, skill.Id)
                            .Where(o => o.SlipId == slip.Id && evidence.Calendar.SchoolDaysBetween(o.Day, evidence.Today) <= days)
                            .ToList()
                    )
                )
                .Where(p => p.seen.Count > 0)
                .Select(p => new SlipChild(p.c, p.seen.Count, p.seen.Max(o => o.Day)))
                .OrderByDescending(c => c.Times)
                .ThenByDescending(c => c.Last),
        ];

    private static List<string> Helps(ClassEvidence evidence, Skill skill, Slip slip, IReadOnlyList<SlipChild> children, Activity? activity)
    {
        List<string> helps = [];
        if (slip.Confuses is { } pair)
        {
            helps.Add(Phrase($"Lay {pair.One} and {pair.Other} beside each other: what is the same, what is different? Then sort a few of each."));
        }

        // What comes before is shaky with most who show it: begin there.
        helps.AddRange(
            skill
                .Needs.Where(n => children.Count(c => evidence[c.Child, n].Strength < Strength.Secure) * 2 > children.Count)
                .Take(1)
                .Select(n => Phrase($"First make {evidence.Map[n].InSentence} firm: with most of them it is not secure yet."))
        );
        if (skill.ShownIn.Contains(Representation.Objects) && skill.ShownIn.Count > 1)
        {
            helps.Add(Phrase("Go back to things that can be moved by hand before drawings and numerals."));
        }

        if (activity is not null)
        {
            helps.Add(Phrase($"{activity.Name}, the easier way: {activity.Easier}"));
        }

        return helps;
    }
}
