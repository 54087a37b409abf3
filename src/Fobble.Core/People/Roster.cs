using System.Security.Cryptography;
using System.Text;

namespace Fobble.Core.People;

/// <param name="Key">How the office's program calls it; it stays when the title changes.</param>
public sealed record OfficeClass(string Key, string Title);

/// <param name="Key">How the office's program calls the child; it stays when the name changes.</param>
/// <param name="Classes">Keys of the classes it is in on the day of the list, the main one first.</param>
public sealed record OfficeChild(string Key, string GivenName, string FamilyName, DateOnly? Born, IReadOnlyList<string> Classes)
{
    internal Naming Naming => new(GivenName, FamilyName, Born, null);
}

/// <summary>Who is in which class, as the school's office has it.</summary>
public sealed record OfficeList(IReadOnlyList<OfficeClass> Classes, IReadOnlyList<OfficeChild> Children);

/// <param name="Key">Which of the office's it is; null while nobody has said so.</param>
/// <param name="Taught">It is in no archive: nobody goes into another one.</param>
public sealed record ClassHere(int Id, string Name, string? Key, bool Taught = true);

/// <param name="ClassId">Where it is, or was at last.</param>
/// <param name="Key">Which of the office's it is; null while nobody has said so.</param>
public sealed record ChildHere(int Id, Naming Naming, int ClassId, bool Left, string? Key);

/// <summary>What an office's list says that is otherwise here. The order is that in which they are shown and done.</summary>
public enum ProposalKind
{
    /// <summary>A child of the list is one that is here under the same name.</summary>
    Same,
    Joined,
    CameBack,
    Moved,

    /// <summary>Called otherwise, or born on another day.</summary>
    Renamed,
    Left,
}

/// <summary>Something to be decided. Nothing of it is done by a list.</summary>
/// <param name="Id">The same as long as the same is proposed, and without a name: it can be kept.</param>
/// <param name="ChildId">The child here; null where it is new.</param>
/// <param name="Key">The office's key of it; null where the list does not have it.</param>
/// <param name="ClassId">Where it goes; null where it stays or leaves.</param>
/// <param name="Naming">What it is called and when it was born from then on; null where nothing changes.</param>
/// <param name="CantBe">Why it can't be done as it is; null where it can.</param>
public sealed record Proposal(
    ProposalKind Kind,
    string Id,
    string Sentence,
    int? ChildId = null,
    string? Key = null,
    int? ClassId = null,
    Naming? Naming = null,
    string? CantBe = null
);

/// <param name="Classes">Which class here is which of the list, by the list's key.</param>
/// <param name="Open">Children here whom the list does not have: one that is new on it may be one of them under another name.</param>
/// <param name="Caution">What speaks against the list as a whole; null for nothing.</param>
public sealed record RosterComparison(
    IReadOnlyDictionary<string, int> Classes,
    IReadOnlyList<Proposal> Proposals,
    IReadOnlyList<ChildHere> Open,
    string? Caution
)
{
    /// <summary>Answers beside what they are about, in the order in which they are done.</summary>
    /// <exception cref="RefusedException">Not all of it is still proposed, since somebody has decided meanwhile or another list has come; or something can't be done so. Nothing is done then.</exception>
    public IReadOnlyList<(Proposal Proposal, RosterAnswer Answer)> Checked(IReadOnlyList<RosterAnswer> answers)
    {
        ArgumentNullException.ThrowIfNull(answers);
        const string field = "answers";
        var proposed = Proposals.ToDictionary(p => p.Id);
        Refusals refusals = new();
        foreach (var answer in answers)
        {
            var proposal = proposed.GetValueOrDefault(answer.Id);
            refusals.Check(field, proposal is not null, Phrase("The list, or who is here, has changed meanwhile: look again. Nothing was done."));
            refusals.Check(field, answer is not { Do: true, SameAs: null } || proposal?.CantBe is null, $"{proposal?.Sentence} {proposal?.CantBe}");
            refusals.Check(
                field,
                answer.SameAs is null || (proposal?.Kind == ProposalKind.Joined && Open.Any(c => c.Id == answer.SameAs)),
                Phrase("One who is new on the list can be one of those here only whom the list does not have.")
            );
        }

        refusals.Check(field, answers.CountBy(a => a.Id).All(a => a.Value == 1), Phrase("One of them is answered twice."));
        refusals.Check(
            field,
            answers.Select(a => a.SameAs).OfType<int>().CountBy(id => id).All(a => a.Value == 1),
            Phrase("Two who are new on the list can’t both be the same child.")
        );
        refusals.ThrowIfAny();
        return [.. answers.Select(a => (proposed[a.Id], a)).OrderBy(a => a.Item1.Kind)];
    }
}

/// <param name="Do">Whether it is done, or left as it is until the list says something else.</param>
/// <param name="SameAs">Of one that is new on the list: the child here that it is; null where it is new here, too.</param>
public sealed record RosterAnswer(string Id, bool Do, int? SameAs);

/// <summary>
/// Holds an office's list against what is here. Children are known by the office's key, and before it is known by their whole names where these are the only ones. A class that
/// the list does not have is not compared: its children have not left because a list is about others.
/// </summary>
public static class Roster
{
    /// <summary>More than this share of the compared children gone, and more than a few, is rather a list cut short than a school that empties.</summary>
    private const double MuchGone = 0.2;
    private const int SomeGone = 3;

    /// <param name="children">All of these classes, and all that have left.</param>
    /// <param name="today">Days of birth lie before it.</param>
    public static RosterComparison Compare(OfficeList list, IReadOnlyList<ClassHere> classes, IReadOnlyList<ChildHere> children, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(list);
        ArgumentNullException.ThrowIfNull(classes);
        ArgumentNullException.ThrowIfNull(children);
        var rooms = ClassesOf(list, [.. classes.Where(c => c.Taught)]);
        var names = classes.ToDictionary(c => c.Id, c => c.Name);
        var titles = list.Classes.ToDictionary(c => c.Key, c => c.Title);
        List<int> Targets(OfficeChild child) => [.. child.Classes.Where(rooms.ContainsKey).Select(c => rooms[c])];

        var (here, byName) = Match(list, children, child => Targets(child).Count > 0);
        var compared = rooms.Values.ToHashSet();
        List<Proposal> all = [];
        foreach (var child in list.Children)
        {
            var targets = Targets(child);
            if (here.TryGetValue(child.Key, out var known))
            {
                all.AddRange(Of(child, known, targets));
            }
            else if (targets.Count > 0)
            {
                all.Add(
                    new(
                        ProposalKind.Joined,
                        $"joined:{child.Key}:{targets[0]}",
                        Phrase($"{child.Naming.Whole} is new on the list, in {names[targets[0]]}."),
                        Key: child.Key,
                        ClassId: targets[0],
                        Naming: child.Naming,
                        CantBe: Fault(child.Naming, today)
                    )
                );
            }
        }

        var found = here.Values.Select(h => h.Id).ToHashSet();
        List<ChildHere> open = [.. children.Where(c => !c.Left && !found.Contains(c.Id) && compared.Contains(c.ClassId))];
        all.AddRange(
            open.Select(c =>
                Gone(
                    c,
                    c.Key is null
                        ? Phrase($"{c.Naming.Whole} of {names[c.ClassId]} is not on the list.")
                        : Phrase($"{c.Naming.Whole} of {names[c.ClassId]} is on the list no more.")
                )
            )
        );

        var gone = all.Count(p => p.Kind == ProposalKind.Left);
        var ofThose = children.Count(c => !c.Left && compared.Contains(c.ClassId));
        return new(
            rooms,
            [.. all.OrderBy(p => p.Kind)],
            open,
            gone > SomeGone && gone > MuchGone * ofThose ? Phrase($"This list lacks {gone} of {ofThose} children: is it cut short, or of another year?") : null
        );

        IEnumerable<Proposal> Of(OfficeChild child, ChildHere known, List<int> targets)
        {
            if (byName.Contains(child.Key) && !known.Left)
            {
                yield return new(
                    ProposalKind.Same,
                    $"same:{child.Key}:{known.Id}",
                    Phrase($"{known.Naming.Whole} of {names[known.ClassId]} is on the list under this name."),
                    known.Id,
                    child.Key
                );
            }

            if (known.Left)
            {
                if (targets.Count == 0)
                {
                    yield break;
                }

                var to = targets.Contains(known.ClassId) ? known.ClassId : targets[0];
                yield return new(
                    ProposalKind.CameBack,
                    $"back:{known.Id}:{to}",
                    Phrase($"{known.Naming.Whole} had left, and is on the list again, in {names[to]}."),
                    known.Id,
                    child.Key,
                    to
                );
            }
            else if (targets.Count == 0)
            {
                if (compared.Contains(known.ClassId))
                {
                    yield return Gone(
                        known,
                        child.Classes.Count == 0
                            ? Phrase($"{known.Naming.Whole} of {names[known.ClassId]} is in no class on the list.")
                            : Phrase(
                                $"{known.Naming.Whole} of {names[known.ClassId]} is in {Words.List([.. child.Classes.Select(c => titles[c])])} on the list, which is no class here."
                            )
                    );
                }
            }
            else if (!targets.Contains(known.ClassId))
            {
                yield return new(
                    ProposalKind.Moved,
                    $"moved:{known.Id}:{targets[0]}",
                    Phrase($"{known.Naming.Whole} is in {names[targets[0]]} on the list, and in {names[known.ClassId]} here."),
                    known.Id,
                    child.Key,
                    targets[0]
                );
            }

            if (Renamed(child.Naming, known.Naming) is { } naming)
            {
                yield return new(
                    ProposalKind.Renamed,
                    $"renamed:{known.Id}:{Mark(naming)}",
                    ShortNames.Same(naming.Whole) != ShortNames.Same(known.Naming.Whole)
                        ? Phrase($"{known.Naming.Whole} is called {naming.Whole} on the list.")
                        : Phrase($"{naming.Whole} was born on {Words.Date(naming.Born!.Value)} {naming.Born.Value.Year}, as the list says."),
                    known.Id,
                    child.Key,
                    Naming: naming,
                    CantBe: Fault(naming, today)
                );
            }
        }
    }

    private static Proposal Gone(ChildHere child, string sentence) => new(ProposalKind.Left, $"left:{child.Id}", sentence, child.Id);

    // By the key, and where the list does not have that key, by the name, if no other class has it on either side.
    private static Dictionary<string, int> ClassesOf(OfficeList list, IReadOnlyList<ClassHere> classes)
    {
        var there = list.Classes.Select(c => c.Key).ToHashSet();
        var rooms = classes.Where(c => c.Key is not null && there.Contains(c.Key)).DistinctBy(c => c.Key).ToDictionary(c => c.Key!, c => c.Id);
        var free = list.Classes.Where(c => !rooms.ContainsKey(c.Key)).ToLookup(c => ShortNames.Same(c.Title));
        foreach (
            var room in classes.Where(c => !rooms.ContainsValue(c.Id)).GroupBy(c => ShortNames.Same(c.Name)).Where(g => g.Count() == 1).Select(g => g.First())
        )
        {
            if (free[ShortNames.Same(room.Name)].ToList() is [var one])
            {
                rooms.Add(one.Key, room.Id);
            }
        }

        return rooms;
    }

    private static (Dictionary<string, ChildHere> Here, HashSet<string> ByName) Match(
        OfficeList list,
        IReadOnlyList<ChildHere> children,
        Func<OfficeChild, bool> isOurs
    )
    {
        var there = list.Children.Select(c => c.Key).ToHashSet();
        var here = children.Where(c => c.Key is not null && there.Contains(c.Key)).OrderBy(c => c.Left).DistinctBy(c => c.Key).ToDictionary(c => c.Key!);
        HashSet<string> byName = [];

        // Those that are here go before those that have left: of two of one name it is rather the one who is here.
        foreach (var left in new[] { false, true })
        {
            var taken = here.Values.Select(h => h.Id).ToHashSet();
            var free = children.Where(c => c.Left == left && !taken.Contains(c.Id)).ToLookup(c => ShortNames.Same(c.Naming.Whole));
            var pairs = list
                .Children.Where(c => !here.ContainsKey(c.Key) && isOurs(c))
                .SelectMany(c => free[ShortNames.Same(c.Naming.Whole)].Where(f => MayBeOne(c.Born, f.Naming.Born)).Select(f => (Child: c, Here: f)))
                .ToList();
            foreach (
                var (child, known) in pairs.Where(p =>
                    pairs.Count(other => other.Child.Key == p.Child.Key) == 1 && pairs.Count(other => other.Here.Id == p.Here.Id) == 1
                )
            )
            {
                here.Add(child.Key, known);
                byName.Add(child.Key);
            }
        }

        return (here, byName);
    }

    private static bool MayBeOne(DateOnly? one, DateOnly? other) => one is null || other is null || one == other;

    // A list without days of birth says nothing against the one that is here. The mark is the class's.
    private static Naming? Renamed(Naming there, Naming here)
    {
        var called =
            ShortNames.Same(there.GivenName) != ShortNames.Same(here.GivenName) || ShortNames.Same(there.FamilyName) != ShortNames.Same(here.FamilyName);
        var born = there.Born is not null && there.Born != here.Born;
        return called || born
            ? new(called ? there.GivenName : here.GivenName, called ? there.FamilyName : here.FamilyName, there.Born ?? here.Born, here.Mark)
            : null;
    }

    private static string? Fault(Naming naming, DateOnly today)
    {
        try
        {
            naming.Checked(today);
            return null;
        }
        catch (RefusedException refused)
        {
            return refused.Message;
        }
    }

    private static string Mark(Naming naming) =>
        Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes($"{naming.GivenName}|{naming.FamilyName}|{naming.Born:O}")))[..12];
}
