namespace Fobble.Core.Stories;

/// <summary>Whether a marked drawing agrees with its story, and each thing that is off.</summary>
public sealed record Verdict(IReadOnlyList<string> Off)
{
    public bool Agrees => Off.Count == 0;
}

/// <summary>Holds a marked drawing against the story's sentence (rule R4).</summary>
public static class PictureChecker
{
    public static Verdict Check(Story story, Marking marking)
    {
        ArgumentNullException.ThrowIfNull(story);
        ArgumentNullException.ThrowIfNull(marking);
        List<string> off = [];
        var below = story.Situation == Situation.Compare ? story.First : 0;
        if (marking.Drawn != story.Whole)
        {
            off.Add(Phrase($"{Drawn(marking.Drawn)}{(below > 0 ? " in the upper row" : "")}; the story has {story.Whole}."));
        }

        if (marking.Below != below)
        {
            off.Add(Phrase($"{Drawn(marking.Below)} in the lower row; the story has {below}."));
        }

        if (off.Count == 0)
        {
            off.AddRange(
                story.Situation switch
                {
                    Situation.TakeFrom => TakenFrom(story, marking),
                    Situation.Compare => Compared(story, marking),
                    _ => Joined(story, marking),
                }
            );
        }

        return new(off);
    }

    private static IEnumerable<string> TakenFrom(Story story, Marking m)
    {
        var (stay, go) = (story.First, story.Second);
        var both = m.Circled.Intersect(m.Crossed).Count();
        if (both > 0)
        {
            yield return Phrase($"{both} {(both == 1 ? "is" : "are")} both circled and crossed out: what stays cannot go.");
            yield break;
        }

        // The usual mix-up first: the marks are on each other's part.
        if (m.Circled.Count == go && stay != go && (m.Crossed.Count == stay || m.Crossed.Count == 0))
        {
            yield return Phrase($"Circled are {go}, the part that goes. Circle the {stay} that stay, and cross out the {go} that go.");
            yield break;
        }

        var mustCircle = story.Kind == StoryKind.TakeFromChange;
        if (m.Circled.Count != stay && (mustCircle || m.Circled.Count > 0))
        {
            yield return Phrase($"{stay} stay; circled {(m.Circled.Count == 1 ? "is" : "are")} {m.Circled.Count}.");
        }

        if (m.Crossed.Count != go)
        {
            yield return m.Crossed.Count == stay && m.Circled.Count == 0 && stay != go
                ? Phrase($"Crossed out are {stay}, the part that stays; {go} go.")
                : Phrase($"{go} go; crossed out {(m.Crossed.Count == 1 ? "is" : "are")} {m.Crossed.Count}.");
        }
    }

    private static IEnumerable<string> Compared(Story story, Marking m)
    {
        if (m.Crossed.Count > 0)
        {
            yield return Phrase("Nothing goes away in this story: nothing is to be crossed out.");
        }

        var partnered = m.Circled.Count(i => i <= story.First || i > story.Whole);
        if (partnered > 0)
        {
            yield return Phrase($"{partnered} of those circled {(partnered == 1 ? "has" : "have")} a partner. Circle only those without one.");
        }
        else if (m.Circled.Count != story.Second)
        {
            yield return Phrase($"{story.Second} have no partner; circled {(m.Circled.Count == 1 ? "is" : "are")} {m.Circled.Count}.");
        }
    }

    private static IEnumerable<string> Joined(Story story, Marking m)
    {
        if (m.Crossed.Count > 0)
        {
            yield return Phrase("Nothing goes away in this story: nothing is to be crossed out.");
        }

        // The parts are drawn in two colours: what is circled has to be the part itself, not as many of the other.
        var parts = new[] { Enumerable.Range(1, story.First), Enumerable.Range(story.First + 1, story.Second) };
        if (story.Unknown is not (BondPlace.First or BondPlace.Second))
        {
            if (m.Circled.Count > 0 && m.Circled.Count == story.Whole)
            {
                yield return Phrase("All are circled: a part is some of them, and how many there are in all needs no circle.");
            }
            else if (story.Unknown == BondPlace.Whole && m.Circled.Count > 0 && !parts.Any(m.Circled.SetEquals))
            {
                yield return Phrase(
                    $"Circled {(m.Circled.Count == 1 ? "is" : "are")} {m.Circled.Count}, which is neither of the parts. Circle one of them, or none."
                );
            }

            yield break;
        }

        var (known, open) = story.Unknown == BondPlace.Second ? (story.First, story.Second) : (story.Second, story.First);
        var told = parts[story.Unknown == BondPlace.Second ? 0 : 1];
        if (m.Circled.Count == open && known != open)
        {
            yield return Phrase($"Circled are {open}, the part that is asked for. Circle the {known} that the story tells.");
        }
        else if (m.Circled.Count != known)
        {
            yield return Phrase($"The known part is {known}; circled {(m.Circled.Count == 1 ? "is" : "are")} {m.Circled.Count}.");
        }
        else if (!m.Circled.SetEquals(told))
        {
            var other = m.Circled.Count - m.Circled.Intersect(told).Count();
            yield return Phrase($"{other} of those circled {(other == 1 ? "is" : "are")} of the other colour. Circle the {known} that the story tells.");
        }
    }

    private static string Drawn(int number) => Phrase($"{number} {(number == 1 ? "is" : "are")} drawn");
}
