using System.Globalization;
using System.Text;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Reports;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Formats.Csv;
using Fobble.Formats.Print;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>What groups did, who had turns, who met whom; and groups as files and on paper.</summary>
internal static class LookingBackEndpoints
{
    private const int UsualWeeks = 4;
    private const int MostAims = 6;

    public static void MapLookingBack(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/groups/after", AfterAsync);
        ofClass.MapGet("/groups/company", CompanyAsync);
        ofClass.MapGet("/groups/file", FileAsync).RequireAuthorization(Policies.Lead).WithTrace(TraceKind.GroupsFileOut);
        ofClass
            .MapGet("/weeks/{day}/groups/wall", (ClassRoom room, DateOnly day, PaperSize? paper, GroupingReader reader, CancellationToken stop) =>
                PaperAsync(room, day, paper, p => p.Wall(), reader, stop)
            )
            .WithTrace(TraceKind.GroupsPrinted);
        ofClass
            .MapGet("/weeks/{day}/groups/cards", (ClassRoom room, DateOnly day, PaperSize? paper, GroupingReader reader, CancellationToken stop) =>
                PaperAsync(room, day, paper, p => p.Cards(), reader, stop)
            )
            .WithTrace(TraceKind.GroupsPrinted);
    }

    /// <summary>Outcomes of the groups of some weeks up to today, the latest first.</summary>
    private static async Task<Ok<AfterView>> AfterAsync(ClassRoom room, int? weeks, GroupHistory history, CancellationToken stop)
    {
        var today = room.Today;
        var from = SchoolCalendar.MondayOf(today).AddDays(-7 * Math.Clamp((weeks ?? UsualWeeks) - 1, 0, 60));
        var outcomes = await OutcomesAsync(room, from, history, stop);
        var adults = await room
            .Db.LessonSlots.Where(s => s.ClassId == room.Id.Value)
            .Select(s => new { s.Id, s.Adult!.FullName })
            .ToDictionaryAsync(s => s.Id, s => s.FullName, stop);
        var timetable = await room.TimetableAsync(stop);
        var children = outcomes.SelectMany(o => o.Outcome.Children).ToList();
        var sentence =
            children.Count == 0
                ? Phrase("No group has met in this time.")
                : Phrase(
                    $"{Words.Capital(Words.Count(outcomes.Count, "group", "groups"))}: {Words.Count(children.Count(c => c.Reached), "aim is", "aims are")} reached, {Words.Count(children.Count(c => c.CarriedOver), "aim is", "aims are")} carried over. What was learned elsewhere in these weeks counts as well."
                );
        return TypedResults.Ok(
            new AfterView(
                from,
                today,
                sentence,
                [
                    .. outcomes
                        .GroupBy(o => SchoolCalendar.MondayOf(o.Outcome.Group.Day))
                        .OrderByDescending(w => w.Key)
                        .Select(week => new OutcomeWeek(
                            week.Key,
                            [
                                .. week.Select(o => new OutcomeGroup(
                                    o.Session.Id,
                                    o.Outcome.Group.Day,
                                    timetable.StandsIn(o.Session.SlotId, o.Session.Day)?.Adult ?? adults.GetValueOrDefault(o.Session.SlotId, ""),
                                    o.Session.Skill,
                                    room.Map[o.Outcome.Group.Skill].Short,
                                    o.Outcome.Sentence,
                                    [
                                        .. o
                                            .Outcome.Children.Select(c => new OutcomeChild(
                                                c.Child.Value,
                                                o.Names.Child(c.Child),
                                                (int)c.Before,
                                                (int)c.After,
                                                (int)c.Now,
                                                c.Reached,
                                                c.CarriedOver,
                                                c.Recorded,
                                                false
                                            ))
                                            .Concat(o.Away.Select(c => new OutcomeChild(c.Value, o.Names.Child(c), 0, 0, 0, false, false, false, true)))
                                            .OrderBy(c => c.Name, StringComparer.InvariantCultureIgnoreCase),
                                    ]
                                )),
                            ]
                        )),
                ]
            )
        );
    }

    /// <summary>Turns and company from the beginning of the term that holds a day, or of an earlier one, up to today.</summary>
    private static async Task<Ok<CompanyView>> CompanyAsync(ClassRoom room, DateOnly? since, GroupHistory history, CancellationToken stop)
    {
        var today = room.Today;
        var calendar = await room.CalendarAsync(stop);
        var from = since is { } day && day <= today ? day : calendar.TermBegan(today);
        var children = await room.ChildrenAsync(stop);
        var past = (await history.HeldAsync(from, stop)).Select(g => g.Met).OrderBy(g => g.Day).ToList();
        var names = NamesOf(children, room.Map);
        var report = Company.Of([.. children.Select(c => new ChildId(c.Id))], past, names);
        return TypedResults.Ok(
            new CompanyView(
                from,
                today,
                calendar.Terms.LastOrDefault(t => t.First <= today)?.Name,
                [
                    .. report.Children.Select(c => new CompanyChild(
                        c.Child.Value,
                        names.Child(c.Child),
                        c.Turns,
                        c.Others,
                        c.Last,
                        [
                            .. past.Where(g => g.Children.Contains(c.Child) && room.Map.Has(g.Skill))
                                .Reverse()
                                .Select(g => room.Map[g.Skill].Short)
                                .Distinct()
                                .Take(MostAims),
                        ]
                    )),
                ],
                [.. report.Met.Select(p => new MetView(p.Pair.First.Value, p.Pair.Second.Value, p.Times))],
                report.Warnings
            )
        );
    }

    /// <summary>Every child of every group as a line: for a spreadsheet.</summary>
    private static async Task<FileContentHttpResult> FileAsync(ClassRoom room, DateOnly? since, GroupHistory history, CancellationToken stop)
    {
        var today = room.Today;
        var from = since ?? (await room.CalendarAsync(stop)).TermBegan(today);
        var slots = await room
            .Db.LessonSlots.Where(s => s.ClassId == room.Id.Value)
            .Select(s => new
            {
                s.Id,
                s.Start,
                s.Adult!.FullName,
            })
            .ToDictionaryAsync(s => s.Id, stop);
        var outcomes = await OutcomesAsync(room, from, history, stop);
        var timetable = await room.TimetableAsync(stop);
        List<IReadOnlyList<string>> rows =
        [
            [
                "Day",
                "Time",
                "Adult",
                "Aim",
                "Child",
                Phrase("Strength before"),
                Phrase("Strength after"),
                Phrase("Strength now"),
                Phrase("Aim reached"),
                "Recorded",
                "Away",
            ],
        ];
        foreach (var (session, outcome, gone, names) in outcomes)
        {
            var slot = slots.GetValueOrDefault(session.SlotId);
            string[] head =
            [
                session.Day.ToString("O", CultureInfo.InvariantCulture),
                slot is null ? "" : slot.Start.ToString("HH:mm", CultureInfo.InvariantCulture),
                timetable.StandsIn(session.SlotId, session.Day)?.Adult ?? slot?.FullName ?? "",
                room.Map[outcome.Group.Skill].Short,
            ];
            rows.AddRange(
                outcome.Children.Select(c =>
                    (IReadOnlyList<string>)
                        [.. head, names.Child(c.Child), $"{(int)c.Before}", $"{(int)c.After}", $"{(int)c.Now}", YesNo(c.Reached), YesNo(c.Recorded), "no"]
                )
            );
            rows.AddRange(gone.Select(c => (IReadOnlyList<string>)[.. head, names.Child(c), "", "", "", "", "", "yes"]));
        }

        return TypedResults.File(Encoding.UTF8.GetBytes(CsvTable.Write(rows)), "text/csv", "groups.csv");
    }

    private static async Task<FileContentHttpResult> PaperAsync(
        ClassRoom room,
        DateOnly day,
        PaperSize? paper,
        Func<GroupsOnPaper, Sheet> page,
        GroupingReader reader,
        CancellationToken stop
    )
    {
        var view = (await reader.ReadAsync(SchoolCalendar.MondayOf(day), stop)).ViewAccepted();
        var first = await FirstNamesAsync(room, stop);
        GroupsOnPaper groups = new(
            room.Name,
            view.Monday,
            [
                .. view.Groups.Select(g => new GroupOnPaper(
                    g.Slot.Day,
                    g.Slot.Start,
                    g.Slot.Adult,
                    g.Slot.Where,
                    g.Short,
                    g.ICan,
                    g.Activity,
                    [.. g.Children.Select(c => first[c.Id])]
                )),
            ],
            paper ?? room.UsualPaper,
            room.Today
        );
        return TypedResults.File(SheetWriter.Pdf(page(groups), Ink.Saving), "application/pdf");
    }

    // First names only; where two children share one, the name by which other pages tell them apart.
    private static async Task<Dictionary<int, string>> FirstNamesAsync(ClassRoom room, CancellationToken stop)
    {
        var children = await room.ChildRowsAsync(stop);
        return children.Zip(Core.People.ShortNames.FirstOf([.. children.Select(ClassRoom.Listed)])).ToDictionary(p => p.First.Id, p => p.Second);
    }

    private static async Task<List<(Data.Model.GroupSession Session, GroupOutcome Outcome, IReadOnlyList<ChildId> Away, GroupNames Names)>> OutcomesAsync(
        ClassRoom room,
        DateOnly from,
        GroupHistory history,
        CancellationToken stop
    )
    {
        var held = await history.HeldAsync(from, stop);
        var evidence = await room.EvidenceAsync(stop);
        var names = NamesOf(await room.ChildrenAsync(stop), room.Map);
        return
        [
            .. held.Where(g => room.Map.Has(g.Group.Skill))
                .Select(g => (g.Row, GroupOutcomes.Of(g.Met, evidence, names), (IReadOnlyList<ChildId>)[.. g.Group.Children.Where(g.Away.Contains)], names)),
        ];
    }

    private static GroupNames NamesOf(IReadOnlyList<ChildName> children, SkillMap map)
    {
        var names = children.ToDictionary(c => c.Id, c => c.Name);
        return new(c => names.GetValueOrDefault(c.Value, "?"), s => map[s].InSentence, _ => "", _ => "");
    }

    private static string YesNo(bool yes) => yes ? "yes" : "no";
}
