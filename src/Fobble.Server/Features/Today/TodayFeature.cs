using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Server.Features.Cupboard;
using Fobble.Server.Features.GuessJar;
using Fobble.Server.Features.Planning;
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
    int SessionId,
    TimeOnly Start,
    int Minutes,
    string Adult,
    string Where,
    string Short,
    string Activity,
    IReadOnlyList<WeekChild> Children,
    IReadOnlyList<string> Away,
    IReadOnlyList<string> Joined,
    int Recorded
);

public sealed record TodayChild(int Id, string Name, bool Away);

public sealed record TodayLookAgain(int ChildId, string Name, string SkillId, string Short, string Why);

/// <summary>What to fetch for one place.</summary>
/// <param name="Short">What is short of it and what to take instead; null where nothing is.</param>
public sealed record TodaySetOut(string Item, int Amount, string For, string? Short);

public sealed record TodayActivity(string Name, string Purpose, IReadOnlyList<string> Steps, IReadOnlyList<string> Say);

/// <summary>One page for whoever takes the class today.</summary>
/// <param name="NextSchoolDay">Where to look when this is no school day.</param>
/// <param name="Different">What is different about the day: a closure, a trip, a half day.</param>
/// <param name="Lost">Lessons of the plan for which the day has no room any more; null where it has.</param>
/// <param name="More">Further whole-class lessons.</param>
/// <param name="Notes">The teacher's words on the day's lessons.</param>
public sealed record TodayView(
    DateOnly Day,
    bool IsSchoolDay,
    DateOnly? NextSchoolDay,
    string? Different,
    string? Lost,
    Card? Carpet,
    IReadOnlyList<WeekFocus> More,
    IReadOnlyList<string> Notes,
    IReadOnlyList<WeekStarter> Starters,
    IReadOnlyList<TodayGroup> Groups,
    IReadOnlyList<TodaySetOut> SetOut,
    IReadOnlyList<Caution> Cautions,
    string Standing,
    IReadOnlyList<TodayChild> Children,
    IReadOnlyList<TodayLookAgain> LookAgain,
    TodayActivity? Transition,
    TodayActivity? Choice,
    string Jar
);

internal sealed class TodayFeature : IFeature
{
    private const int MostLookAgain = 6;

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/days/{day}", GetAsync).WithMetadata(new SameForAll());
        ofClass.MapFirstHour();
    }

    private static async Task<Ok<TodayView>> GetAsync(
        ClassRoom room,
        DateOnly day,
        CardReader cards,
        WeekReader weeks,
        SetOutReader setOut,
        PlanReader plans,
        CancellationToken stop
    )
    {
        var calendar = await room.CalendarAsync(stop);
        var children = await room.ChildrenAsync(stop);
        var away = await room.AwayAsync(day, stop);
        var carpet = calendar.IsSchoolDay(day) ? await cards.ForCarpetAsync(day, 0, stop) : null;
        var week = await weeks.ReadAsync(SchoolCalendar.MondayOf(day), stop);
        var planned = week.Days.FirstOrDefault(d => d.Day == day);
        var evidence = await room.EvidenceAsync(stop);
        var fetch = await setOut.PlanAsync(day, day, stop);
        return TypedResults.Ok(
            new TodayView(
                day,
                calendar.IsSchoolDay(day),
                calendar.OnOrAfter(day.AddDays(1)),
                calendar.Different(day)?.Name,
                await room.PlanAsync(stop) is { } plan ? PlanWatch.LostOn(await plans.SettingAsync(plan.Document, stop), day) : null,
                carpet,
                planned?.More ?? [],
                planned?.Notes ?? [],
                planned?.Starters ?? [],
                await GroupsAsync(room, day, evidence, stop),
                [
                    .. fetch
                        .Lines.SelectMany(l =>
                            l.Shares.Select(s =>
                                (
                                    s.Use,
                                    Thing: new TodaySetOut(
                                        l.Item.Name,
                                        s.Amount,
                                        s.Use.For == "Small group" ? s.Use.Where : s.Use.For,
                                        l.Printed ? Phrase("Print them: they are in the pack.") : l.Supplied.InWords()
                                    )
                                )
                            )
                        )
                        .OrderBy(p => p.Use.Start)
                        .Select(p => p.Thing),
                ],
                fetch.Cautions,
                Cautions.Standing,
                [.. children.Select(c => new TodayChild(c.Id, c.Name, away.Contains(c.Id)))],
                LookAgainOf(children, evidence),
                planned?.Transition is { } transition ? Describe(room.Library[new(transition.Id)]) : null,
                planned?.Choice is { } choice ? Describe(room.Library[new(choice.Id)]) : null,
                await JarSentence.ForAsync(room, children.Count, stop)
            )
        );
    }

    private static async Task<IReadOnlyList<TodayGroup>> GroupsAsync(ClassRoom room, DateOnly day, ClassEvidence evidence, CancellationToken stop)
    {
        var sessions = await room.SessionsAsync(day, day, stop);
        var ids = sessions.Select(s => s.Id).ToList();
        var joined = (
            await room.Db.DayMoves.Where(m => m.Day == day && ids.Contains(m.ToSessionId)).Select(m => new { m.ToSessionId, m.ChildId }).ToListAsync(stop)
        ).ToLookup(m => m.ToSessionId, m => m.ChildId);
        var recorded = (
            await room
                .Db.Observations.Where(o => o.SessionId != null && ids.Contains(o.SessionId.Value) && o.Withdrawal == null)
                .Select(o => new { o.SessionId, o.ChildId })
                .Distinct()
                .ToListAsync(stop)
        ).ToLookup(o => o.SessionId!.Value, o => o.ChildId);
        var children = await room.ChildrenAsync(stop);
        var timetable = await room.TimetableAsync(stop);
        var away = await room.AwayAsync(day, stop);
        return
        [
            .. sessions.Select(s =>
            {
                var members = s.Members.Select(m => m.ChildId).ToHashSet();
                IReadOnlyList<string> Names(Func<int, bool> which) => [.. children.Where(c => members.Contains(c.Id) && which(c.Id)).Select(c => c.Name)];
                return new TodayGroup(
                    s.Id,
                    s.Slot!.Start,
                    s.Slot.Minutes,
                    timetable.StandsIn(s.SlotId, day)?.Adult ?? s.Slot.Adult!.FullName,
                    s.Slot.Where,
                    room.Map[new(s.Skill)].Short,
                    room.Library[new(s.Activity)].Name,
                    WeekReader.MembersOf(s, children, evidence),
                    Names(away.Contains),
                    Names(joined[s.Id].Contains),
                    members.Count(recorded[s.Id].Contains)
                );
            }),
        ];
    }

    private static IReadOnlyList<TodayLookAgain> LookAgainOf(IReadOnlyList<ChildName> children, ClassEvidence evidence)
    {
        var names = children.ToDictionary(c => c.Id, c => c.Name);
        return
        [
            .. evidence
                .DueForAnotherLook(MostLookAgain)
                .Select(due => new TodayLookAgain(
                    due.Child.Value,
                    names[due.Child.Value],
                    due.Skill.Value,
                    evidence.Map[due.Skill].Short,
                    evidence.Judgement(due.Child, due.Skill).Sentence
                )),
        ];
    }

    private static TodayActivity Describe(Activity activity) => new(activity.Name, activity.Purpose, activity.Steps, activity.Say);
}
