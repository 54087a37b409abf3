using Fobble.Core.Skills;
using Fobble.Core.Standards;

namespace Fobble.Core.Planning;

/// <summary>What a class is offered when its year is planned: as much as its days hold, what its standards ask for first.</summary>
/// <param name="Waiting">Skills meant for this year that its days do not hold, in teaching order.</param>
public sealed record OfferedScope(PlanAsk Ask, IReadOnlyList<SkillId> Waiting, string Sentence)
{
    /// <param name="request">Of <paramref name="ask"/>.</param>
    /// <param name="asked">What its standards ask for; null where none are known.</param>
    public static OfferedScope Of(PlanAsk ask, YearRequest request, AskedFor? asked)
    {
        ArgumentNullException.ThrowIfNull(ask);
        ArgumentNullException.ThrowIfNull(request);
        var map = request.Evidence.Map;
        var waiting = Waits(request, asked);
        if (waiting.Count > 0 && request.Skills.All(waiting.Contains))
        {
            // What is left of the year holds no skill at all: the first is offered, for the teacher to see what could give way.
            waiting.Remove(waiting[0]);
        }

        ask = ask with { Dropped = [.. ask.Dropped, .. waiting.Select(s => s.Value)] };
        request = request with { Skills = request.Skills.Except(waiting).ToHashSet() };
        while (ask.Rounds > 1 && Fit.Of(YearScope.Of(request).Problem).ReviewsOver > 0)
        {
            ask = ask with { Rounds = ask.Rounds - 1 };
            request = request with { Settings = ask.SettingsFor(request.Approach) };
        }

        return new(ask, waiting, SentenceOf(request, waiting, asked));
    }

    // The latest wait until the rest fits; then whatever still goes into what they leave comes back, what is asked for first.
    private static List<SkillId> Waits(YearRequest request, AskedFor? asked)
    {
        var map = request.Evidence.Map;
        var waiting = WaysOut.Drop(request, asked?.Skills).OrderBy(map.IndexOf).ToList();
        var problem = YearScope.Of(request).Problem;
        var lessons = problem.Items.ToDictionary(i => i.Skill, i => i.Lessons);
        var spare = problem.Room - lessons.Where(l => !waiting.Contains(l.Key)).Sum(l => l.Value);
        foreach (var skill in waiting.OrderBy(s => asked?.Skills.Contains(s) == false).ToList())
        {
            if (lessons[skill] <= spare && !map.AllNeeds(skill).Any(waiting.Contains))
            {
                waiting.Remove(skill);
                spare -= lessons[skill];
            }
        }

        return waiting;
    }

    private static string SentenceOf(YearRequest request, List<SkillId> waiting, AskedFor? asked)
    {
        var scope = YearScope.Of(request).Problem;
        var fit = Fit.Of(scope);
        var what = Phrase($"{Words.Count(scope.Items.Count, "skill", "skills")} in {Words.Count(fit.Lessons, "lesson", "lessons")}");
        var order =
            asked is null ? Phrase("in the order in which they build on each other")
            : waiting.Exists(asked.Skills.Contains) ? Phrase($"what {asked.Name} first, though not all of it has room")
            : Phrase($"all that {asked.Name}");
        var rest =
            waiting.Count == 0
                ? ""
                : Phrase($" {Words.Capital(Words.Count(waiting.Count, "skill waits", "skills wait"))} for another year, unless you take them in.");
        if (!fit.Fits)
        {
            return Phrase("What is left of this year is too short for a whole skill.");
        }

        return Phrase($"{Words.Capital(what)} fit the days there are: {order}.{rest}");
    }
}
