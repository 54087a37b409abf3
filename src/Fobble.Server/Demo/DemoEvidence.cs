using Fobble.Core.Baseline;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using Fobble.Data.Model;

namespace Fobble.Server.Demo;

/// <summary>What a class's record has besides daily observations: baseline checks, a session coded by two adults, notes, something withdrawn.</summary>
internal static class DemoEvidence
{
    private const int Questions = 8;
    private static readonly string[] Notes =
    [
        "Said why without being asked.",
        "Looked away and answered from memory.",
        "Began with the larger one by herself.",
        "Wanted to go on to bigger numbers.",
        "Needed the things in a row.",
    ];

    /// <summary>Two checks that have ended and one under way, answered as the record suggests, with the answers as observations.</summary>
    public static IEnumerable<(BaselineCheckRow Check, IReadOnlyList<ObservationRow> Answers)> Checks(
        ClassEvidence evidence,
        int classId,
        int adult,
        DateTimeOffset at,
        SeededRandom random
    )
    {
        // Far fewer particles than at the table: it is only made up.
        BaselineCheck check = new(evidence.Map, BaselineSettings.Default with { Particles = 300 });
        foreach (var (child, ends) in ((int At, bool Ends)[])[(3, true), (9, true), (12, false)])
        {
            var id = evidence.Children[child];
            List<BaselineAnswer> answers = [];
            List<ObservationRow> rows = [];
            var state = check.After(answers);
            while (answers.Count < (ends ? Questions : Questions / 2) && state.Next is { } next)
            {
                var strength = evidence[id, next].Strength;
                var has = strength >= Strength.Nearly || (strength == Strength.NotSeen && evidence.Map[next].When == Season.Autumn) || random.Chance(0.15);
                answers.Add(new(next, has ? Support.Alone : Support.NotYet));
                rows.Add(
                    new()
                    {
                        Id = IdFrom(random),
                        ChildId = id.Value,
                        Skill = next.Value,
                        At = at.AddMinutes(answers.Count),
                        Day = DateOnly.FromDateTime(at.DateTime),
                        AdultId = adult,
                        Setting = Setting.Baseline,
                        Support = answers[^1].Support,
                        Representation = evidence.Map[next].ShownIn[0],
                    }
                );
                state = check.After(answers);
            }

            BaselineCheckRow row = new()
            {
                ClassId = classId,
                ChildId = id.Value,
                StartedAt = at,
                StartedBy = adult,
            };
            if (ends)
            {
                var asked = answers.Select(a => a.Skill).ToHashSet();
                (row.EndedAt, row.Inferred) = (
                    at.AddMinutes(12),
                    state.Skills.Where(s => !asked.Contains(s.Skill)).ToDictionary(s => s.Skill.Value, s => s.Kept)
                );
            }

            yield return (row, rows);
        }
    }

    /// <summary>The other adult's codes of what each noted in a session: mostly the same, now and then a step more or less help.</summary>
    public static IEnumerable<ObservationRow> SecondLook(IEnumerable<ObservationRow> first, Func<int, int> otherThan, SeededRandom random) =>
        first.Select(o => new ObservationRow
        {
            Id = IdFrom(random),
            ChildId = o.ChildId,
            Skill = o.Skill,
            At = o.At.AddSeconds(20),
            Day = o.Day,
            AdultId = otherThan(o.AdultId),
            Setting = o.Setting,
            Representation = o.Representation,
            Numbers = o.Numbers,
            SessionId = o.SessionId,
            Support = random.Chance(0.72) ? o.Support : (Support)Math.Clamp((int)o.Support + (random.Chance(0.5) ? 1 : -1), 0, 3),
        });

    public static string? NoteFor(SeededRandom random) => random.Chance(0.02) ? random.Pick(Notes) : null;

    internal static Guid IdFrom(SeededRandom random)
    {
        Span<byte> bytes = stackalloc byte[16];
        BitConverter.TryWriteBytes(bytes, random.NextBits());
        BitConverter.TryWriteBytes(bytes[8..], random.NextBits());
        return new Guid(bytes);
    }
}
