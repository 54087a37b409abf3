using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Core.Skills;

namespace Fobble.Core.Tests.Planning;

/// <summary>Random years to plan: school days with holes, skills that need each other, and now and then a second lesson a day.</summary>
internal static class Years
{
    public static PlanProblem Random(ulong seed, int days, int skills, int places = 1, double full = 0.8)
    {
        var random = new SeededRandom(seed);
        var date = new DateOnly(2026, 9, 7);
        List<PlanDay> calendar = [];
        for (var i = 0; i < days; i++, date = date.AddDays(date.DayOfWeek == DayOfWeek.Friday ? 3 : 1))
        {
            calendar.Add(new(date, random.Chance(0.04) ? 0 : 1 + random.Next(places), i / PlanSettings.Usual.BlockDays));
        }

        var settings = PlanSettings.Usual with { Order = random.Chance(0.5) ? YearOrder.Spiral : YearOrder.UnitByUnit, Tries = 60, Steps = 4_000, Seed = seed };
        var room = calendar.GroupBy(d => d.Block).Sum(b => settings.MostIn(b.Sum(d => d.Places)));
        List<PlanItem> items = [];
        for (var i = 0; i < skills; i++)
        {
            var lessons = 1 + random.Next(4);
            if (items.Sum(x => x.Lessons) + lessons > room * full)
            {
                break;
            }

            List<SkillId> needs = [.. items.Where(_ => random.Chance(2.0 / (i + 2))).TakeLast(3).Select(x => x.Skill)];
            var target = Math.Min(days - 1, (int)((long)items.Sum(x => x.Lessons) * days / Math.Max(1, (int)(room * full))) + random.Next(5));
            var first = target / 5 * 5;
            items.Add(new(new($"s.{i}"), $"strand-{random.Next(4)}", 0, lessons, first, Math.Min(days - 1, first + 4), needs, false, ""));
        }

        return new(calendar, items, settings);
    }

    /// <summary>Every rule that a layout must keep, said once more and in the plainest way; empty where all hold.</summary>
    public static IReadOnlyList<string> Faults(PlanProblem problem, IReadOnlyList<IReadOnlyList<int>> days, int span = PlanSettings.Span, bool buffer = true)
    {
        List<string> faults = [];
        var index = problem.Items.Select((item, i) => (item.Skill, i)).ToDictionary(p => p.Skill, p => p.i);
        for (var i = 0; i < days.Count; i++)
        {
            var (item, own) = (problem.Items[i], days[i]);
            if (own.Count != item.Lessons)
            {
                faults.Add($"{item.Skill} has {own.Count} of {item.Lessons} lessons");
            }

            if (own.Count == 0)
            {
                continue;
            }

            if (own.Zip(own.Skip(1)).Any(p => p.First >= p.Second))
            {
                faults.Add($"{item.Skill} has two lessons on a day");
            }

            if (own[^1] - own[0] >= span)
            {
                faults.Add($"{item.Skill} is stretched over {own[^1] - own[0] + 1} days");
            }

            faults.AddRange(
                item.Needs.Where(n => days[index[n]].Count > 0 && days[index[n]][^1] >= own[0]).Select(n => $"{item.Skill} begins before {n} is finished")
            );
        }

        var filled = days.SelectMany(d => d).GroupBy(d => d).ToDictionary(g => g.Key, g => g.Count());
        faults.AddRange(
            filled
                .Where(f => f.Value > problem.Days[f.Key].Places)
                .Select(f => $"day {f.Key} holds {f.Value} lessons and has room for {problem.Days[f.Key].Places}")
        );
        foreach (var block in problem.Days.Select((d, i) => (d, i)).GroupBy(p => p.d.Block).Where(_ => buffer))
        {
            var lessons = block.Sum(p => filled.GetValueOrDefault(p.i));
            if (lessons > problem.Settings.MostIn(block.Sum(p => p.d.Places)))
            {
                faults.Add($"block {block.Key} has {lessons} lessons and no buffer");
            }
        }

        return faults;
    }
}
