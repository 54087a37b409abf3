using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Data;
using Fobble.Server.Features.Cupboard;
using Fobble.Server.Features.GuessJar;
using Fobble.Server.Features.Sessions;
using Fobble.Server.Features.Week;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Today;

/// <param name="Away">Names of members marked away today.</param>
/// <param name="Joined">Members who came to it because another is away.</param>
/// <param name="Recorded">Children of the group who have been recorded in it.</param>
public sealed record TodayGroup(
    int SessionId, TimeOnly Start, int Minutes, string Adult, string Where, string Short, string Activity, IReadOnlyList<string> Children, IReadOnlyList<string> Away, IReadOnlyList<string> Joined, int Recorded);

public sealed record TodayChild(int Id, string Name, bool Away);

public sealed record TodayLookAgain(int ChildId, string Name, string SkillId, string Short, string Why);

/// <summary>What to fetch for one place.</summary>
/// <param name="Short">What is short of it and what to take instead; null where nothing is.</param>
public sealed record TodaySetOut(string Item, int Amount, string For, string? Short);

public sealed record TodayActivity(string Name, string Purpose, IReadOnlyList<string> Steps, IReadOnlyList<string> Say);

/// <summary>One page for whoever takes the class today.</summary>
/// <param name="NextSchoolDay">Where to look when this is no school day.</param>
/// <param name="Different">What is different about the day: a closure, a trip, a half day.</param>
/// <param name="More">Further whole-class lessons.</param>
/// <param name="Notes">The teacher's words on the day's lessons.</param>
public sealed record TodayView(
    DateOnly Day, bool IsSchoolDay, DateOnly? NextSchoolDay, string? Different, Card? Carpet, IReadOnlyList<WeekFocus> More, IReadOnlyList<string> Notes, IReadOnlyList<WeekStarter> Starters, IReadOnlyList<TodayGroup> Groups, IReadOnlyList<TodaySetOut> SetOut,
    IReadOnlyList<Caution> Cautions, string Standing, IReadOnlyList<TodayChild> Children, IReadOnlyList<TodayLookAgain> LookAgain, TodayActivity? Transition, TodayActivity? Choice, string Jar);

internal static class TodayEndpoints
{
    private const int MostLookAgain = 6;

    public static void MapToday(this IEndpointRouteBuilder ofClass) => ofClass.MapGet("/days/{day}", GetAsync);

    private static async Task<Ok<TodayView>> GetAsync(
        int classId, DateOnly day, ClassFacts facts, CardReader cards, WeekReader weeks, ActivityLibrary library, SetOutReader setOut, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var calendar = await facts.CalendarAsync(classId, stop);
        var children = await facts.ChildrenAsync(classId, stop);
        var away = await db.Absences.Where(a => a.Day == day && a.Child!.ClassId == classId).Select(a => a.ChildId).ToListAsync(stop);
        var carpet = calendar.IsSchoolDay(day) ? await cards.ForCarpetAsync(classId, day, 0, stop) : null;
        var week = await weeks.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop);
        var planned = week.Days.FirstOrDefault(d => d.Day == day);
        List<Card> groups = [];
        foreach (var session in await weeks.SessionsAsync(classId, day, day, stop))
        {
            groups.Add((await cards.ForGroupAsync(classId, session.Id, stop))!);
        }

        var sessionIds = groups.Select(g => g.SessionId!.Value).ToList();
        var joined = (await db.DayMoves.Where(m => m.Day == day && sessionIds.Contains(m.ToSessionId)).Select(m => new { m.ToSessionId, m.ChildId }).ToListAsync(stop)).ToLookup(m => m.ToSessionId, m => m.ChildId);
        var evidence = await facts.EvidenceAsync(classId, clock.Today(), stop);
        var fetch = await setOut.PlanAsync(classId, day, day, stop);
        return TypedResults.Ok(new TodayView(
            day,
            calendar.IsSchoolDay(day),
            calendar.OnOrAfter(day.AddDays(1)),
            calendar.Different(day)?.Name,
            carpet,
            planned?.More ?? [],
            planned?.Notes ?? [],
            planned?.Starters ?? [],
            [.. groups.OrderBy(g => g.Start).Select(g => new TodayGroup(
                g.SessionId!.Value, g.Start, g.Minutes, g.Adult, g.Where, g.Skill.Short, g.Activity.Name, [.. g.Children.Select(c => c.Name)], [.. g.Children.Where(c => c.Away).Select(c => c.Name)],
                [.. g.Children.Where(c => joined[g.SessionId!.Value].Contains(c.Id)).Select(c => c.Name)], g.Children.Count(c => c.Recorded.Count > 0)))],
            [.. fetch.Lines.SelectMany(l => l.Shares.Select(s => (s.Use, Thing: new TodaySetOut(l.Item.Name, s.Amount, s.Use.For == "Small group" ? s.Use.Where : s.Use.For, l.Printed ? "Print them: they are in the pack." : l.Supplied.InWords()))))
                .OrderBy(p => p.Use.Start).Select(p => p.Thing)],
            fetch.Cautions,
            Cautions.Standing,
            [.. children.Select(c => new TodayChild(c.Id, c.Name, away.Contains(c.Id)))],
            LookAgainOf(children, evidence),
            planned?.Transition is { } transition ? Describe(library[new(transition.Id)]) : null,
            planned?.Choice is { } choice ? Describe(library[new(choice.Id)]) : null,
            await JarSentence.ForAsync(classId, children.Count, db, stop)));
    }

    private static IReadOnlyList<TodayLookAgain> LookAgainOf(IReadOnlyList<ChildName> children, ClassEvidence evidence)
    {
        var names = children.ToDictionary(c => c.Id, c => c.Name);
        return
        [
            .. evidence.DueForAnotherLook(MostLookAgain).Select(due => new TodayLookAgain(
                due.Child.Value, names[due.Child.Value], due.Skill.Value, evidence.Map[due.Skill].Short, evidence.Judgement(due.Child, due.Skill).Sentence)),
        ];
    }

    private static TodayActivity Describe(Activity activity) => new(activity.Name, activity.Purpose, activity.Steps, activity.Say);
}
