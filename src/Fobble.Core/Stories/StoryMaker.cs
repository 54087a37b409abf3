using Fobble.Core.Numbers;

namespace Fobble.Core.Stories;

/// <summary>Makes sets of stories: no numbers twice, none trivial, easy ones first; the same request gives the same set.</summary>
public static class StoryMaker
{
    private const int SmallestPart = 2;

    /// <exception cref="RefusedException">No kind is asked for, the theme is unknown, or the range does not hold so many different stories.</exception>
    public static IReadOnlyList<Story> Make(StoryRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        var settings = StorySetting.Shipped.Where(s => request.Theme is null || s.Theme == request.Theme).ToList();
        if (request.Kinds.Count == 0 || settings.Count == 0)
        {
            throw new RefusedException(
                request.Kinds.Count == 0 ? "kinds" : "theme",
                request.Kinds.Count == 0 ? Phrase("Choose at least one kind of story.") : Phrase($"There is no theme '{request.Theme}'.")
            );
        }

        var random = new SeededRandom(request.Seed);
        var kinds = random.Shuffled(request.Kinds);
        var places = random.Shuffled(settings);
        List<(StoryKind Kind, Split Parts)> chosen = [];
        for (var i = 0; i < request.Count; i++)
        {
            var kind = kinds[i % kinds.Count];
            var free = random.Shuffled(Numbers(kind, request)).Where(n => chosen.All(c => c.Parts != n)).ToList();
            if (free.Count == 0)
            {
                throw new RefusedException("range", Phrase($"The numbers {request.Wholes} hold only {i} such stories without telling the same numbers twice."));
            }

            // A few candidates, the one least like those before it: wholes should differ as well.
            chosen.Add((kind, free.MinBy(n => chosen.Count(c => c.Parts.Total == n.Total))));
        }

        return
        [
            .. chosen
                .OrderBy(c => c.Parts.Total)
                .ThenBy(c => c.Kind)
                .Select((c, i) => StoryTeller.Tell(c.Kind, places[i % places.Count], c.Parts, PeopleFrom(random), request.Words)),
        ];
    }

    /// <summary>The story of given numbers in a given setting, as an item of a card tells it.</summary>
    /// <param name="setting">Its id.</param>
    /// <exception cref="RefusedException">There is no such setting, or a part is nothing.</exception>
    public static Story Told(StoryKind kind, string setting, Split parts, Wording words, ulong seed)
    {
        RefusedException.Unless(StorySetting.Shipped.Any(s => s.Id == setting), "of", Phrase($"There are no stories of '{setting}'."));
        RefusedException.Unless(parts is { First: > 0, Second: > 0 }, "first", Phrase($"A story of {parts.Total} has no part of {parts.First}."));
        return StoryTeller.Tell(kind, StorySetting.Named(setting), parts, PeopleFrom(new(seed)), words);
    }

    /// <summary>The numbers that a kind of story may use within a range.</summary>
    public static IEnumerable<Split> Numbers(StoryKind kind, StoryRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        return request
            .Wholes.Numbers.SelectMany(Bonds.Ordered)
            .Where(s => s.First >= SmallestPart && s.Second >= SmallestPart && (request.AnswerMayBeGiven || !TellsTheAnswer(kind, s)));
    }

    private static bool TellsTheAnswer(StoryKind kind, Split s) => StoryKinds.UnknownOf(kind) is BondPlace.First or BondPlace.Second && s.First == s.Second;

    private static (Person, Person) PeopleFrom(SeededRandom random)
    {
        var people = random.Shuffled(Person.All);
        return (people[0], people[1]);
    }
}
