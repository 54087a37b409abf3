using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Reports;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Formats.Print;
using Fobble.Server.Features.Cupboard;
using Fobble.Server.Features.Sessions;
using Fobble.Server.Features.Week;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Planning;

/// <summary>The plan on paper: a day for whoever takes the class, a week, a term.</summary>
internal static class PlanPagesEndpoints
{
    public static void MapPlanPages(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/days/{day}/page", DayAsync).WithTrace(TraceKind.PlanPrinted);
        ofClass.MapGet("/weeks/{day}/page", WeekAsync).WithTrace(TraceKind.PlanPrinted);
        ofClass.MapGet("/plan/term/{day}/page", TermAsync).WithTrace(TraceKind.PlanPrinted);
    }

    private static async Task<FileContentHttpResult> DayAsync(
        ClassRoom room,
        DateOnly day,
        PaperSize? paper,
        WeekReader weeks,
        SetOutReader setOut,
        CardReader cards,
        CancellationToken stop
    )
    {
        var carpet = (await room.CalendarAsync(stop)).IsSchoolDay(day) ? await cards.ForCarpetAsync(day, 0, stop) : null;
        var week = await weeks.ReadAsync(Core.Calendars.SchoolCalendar.MondayOf(day), stop);
        var planned = week.Days.FirstOrDefault(d => d.Day == day);
        var away = await room.AwayAsync(day, stop);
        var names = (await room.ChildrenAsync(stop)).Where(c => away.Contains(c.Id)).Select(c => c.Name).ToList();
        var fetch = await setOut.PlanAsync(day, day, stop);
        List<PlanPageBlock> blocks = planned is null ? [] : [.. BlocksOf(planned)];
        if (blocks.Count > 0 && carpet?.Items.FirstOrDefault(i => i.Picture is not null)?.Picture is { } picture)
        {
            blocks[0] = blocks[0] with { Picture = picture };
        }

        blocks.Add(new(Phrase("To fetch"), [.. fetch.Lines.Select(l => $"{l.AtOnce} {l.Item.InSentence}")]));
        blocks.AddRange(names.Count > 0 ? [new PlanPageBlock(Phrase("Away today"), [Words.List(names)])] : []);
        blocks.Add(new("Mind", [.. fetch.Cautions.Select(c => c.Text), Core.Cupboard.Cautions.Standing]));
        return File(
            room,
            new PlanPage($"{Words.Weekday(day)}, {Words.Date(day)}", planned?.Closed ?? Phrase("For whoever takes the class today"), blocks),
            paper
        );
    }

    private static async Task<FileContentHttpResult> WeekAsync(ClassRoom room, DateOnly day, PaperSize? paper, WeekReader weeks, CancellationToken stop)
    {
        var week = await weeks.ReadAsync(Core.Calendars.SchoolCalendar.MondayOf(day), stop);
        var page = new WeekOnPaper(
            Phrase($"Week of {Words.Date(week.Monday)}"),
            $"{week.Term ?? Phrase("Outside the terms")} · {week.Jar}",
            [.. week.Days.Select(d => new DayColumn($"{Words.Weekday(d.Day)} {d.Day.Day}{(d.Closed is { } why ? $" · {why}" : "")}", [.. BlocksOf(d)]))]
        );
        return File(page.ToSheet($"{room.Name}, {room.SchoolName}", paper ?? room.UsualPaper, room.Today));
    }

    private static async Task<FileContentHttpResult> TermAsync(ClassRoom room, DateOnly day, PaperSize? paper, CancellationToken stop)
    {
        var timetable = await room.TimetableAsync(stop);
        var term = timetable.Calendar.Terms.LastOrDefault(t => t.First <= day) ?? (timetable.Calendar.Terms.Count > 0 ? timetable.Calendar.Terms[0] : null);
        var approach = room.Approach;
        var stored = await room.PlanAsync(stop);
        var taught = (await room.TaughtAsync(room.Today, stop)).Where(t => room.Map.Has(t.Skill)).ToLookup(t => t.Day);
        List<PlanPageBlock> blocks = term is null
            ? []
            :
            [
                .. PlanViews
                    .Weeks(timetable, stored?.Document.Plan.Settings ?? PlanSettings.Usual, term.First, term.Last)
                    .Select(week => new PlanPageBlock(
                        Phrase($"Week of {Words.Date(week.Monday)}"),
                        [.. week.Days.Select(d => $"{Words.Weekday(d.Day)[..3]}  {LineOf(d)}")]
                    )),
            ];
        return File(room, new PlanPage(term?.Name ?? Phrase("No term"), $"{stored?.What ?? Phrase("Not planned yet.")}", blocks), paper);

        string LineOf(PlanDayView d)
        {
            var lessons = stored
                ?.Document.Plan.On(d.Day)
                .Where(l => room.Map.Has(l.Skill))
                .Select(l => $"{room.Map[l.Skill].Short}, {StageWords.Of(l.Stage, room.Map[l.Skill], approach)}")
                .ToList()
                ?? [];
            lessons = lessons.Count > 0 ? lessons : [.. taught[d.Day].Select(t => room.Map[t.Skill].Short)];
            return lessons.Count > 0 ? string.Join(" · ", lessons) : d.Different ?? (d.Places > 0 && d.Day >= room.Today ? Phrase("kept free") : "–");
        }
    }

    // A day's parts in the order of the day.
    private static IEnumerable<PlanPageBlock> BlocksOf(WeekDay day)
    {
        if (day.Focus is { } focus)
        {
            var carpet = day.Slots.Where(s => s.Kind == SlotKind.Carpet).ToList();
            var at = carpet.Count > 0 ? Phrase($"{Words.Clock(carpet[0].Start)} carpet, {carpet[0].Minutes} minutes, {carpet[0].Adult}") : Phrase("Carpet");
            yield return new(
                at,
                [
                    .. day.Starters.Select(s => Phrase($"First: {s.Short} ({s.Activity.Name})")),
                    Phrase($"{focus.Short}, lesson {focus.Number} of {focus.Of}: {focus.How}. {focus.Activity.Name}"),
                    .. day.More.Select(
                        (m, i) =>
                            Phrase(
                                $"{(carpet.Count > i + 1 ? Words.Clock(carpet[i + 1].Start) : Phrase("Later"))}: {m.Short}, lesson {m.Number} of {m.Of}: {m.How}. {m.Activity.Name}"
                            )
                    ),
                    .. day.Transition is { } change ? [Phrase($"Change-over: {change.Name}")] : Array.Empty<string>(),
                ]
            );
        }
        else if (day.Coming.Count > 0)
        {
            yield return new(Phrase("Carpet"), [.. day.Coming]);
        }

        var groups = day.Slots.Where(s => s.Kind == SlotKind.Group && s.SessionId is not null).ToList();
        if (groups.Count > 0)
        {
            yield return new(
                Phrase("Small groups"),
                [
                    .. groups.Select(g =>
                        Phrase(
                            $"{Words.Clock(g.Start)} {g.Adult}, {g.Where.ToLowerInvariant()}: {g.Skill} with {Words.List([.. g.Children.Select(c => c.Name)])}"
                        )
                    ),
                ]
            );
        }

        if (day is { Choice: { } choice } && day.Slots.FirstOrDefault(s => s.Kind == SlotKind.Choice) is { } centres)
        {
            yield return new(Phrase("Choice time"), [$"{Words.Clock(centres.Start)} {choice.Name}"]);
        }

        if (day.Notes.Count > 0)
        {
            yield return new(Phrase("Notes"), day.Notes);
        }
    }

    private static FileContentHttpResult File(ClassRoom room, PlanPage page, PaperSize? paper) =>
        File(page.ToSheet($"{room.Name}, {room.SchoolName}", paper ?? room.UsualPaper, room.Today));

    private static FileContentHttpResult File(Sheet sheet) => TypedResults.File(SheetWriter.Pdf(sheet, Ink.Saving), "application/pdf");
}
