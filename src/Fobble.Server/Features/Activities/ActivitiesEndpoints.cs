using Fobble.Core.Activities;
using Fobble.Core.Cupboard;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Sessions;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Server.Features.Cupboard;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Activities;

/// <summary>The library: a teacher's question and its answers, one activity, and putting it into the plan.</summary>
internal static class ActivitiesEndpoints
{
    private const int UsualGroup = 4;

    public static void MapActivities(this IEndpointRouteBuilder ofClass)
    {
        var activities = ofClass.MapGroup("/activities");
        activities.MapGet("/", SearchAsync);
        activities.MapGet("/{activityId}", GetAsync);
        OwnActivities.Map(activities);
        ofClass.MapPut("/days/{day}/plan/activity", PutIntoPlanAsync).RequireAuthorization(Policies.Lead);
    }

    private static async Task<Ok<LibraryView>> SearchAsync(int classId, [AsParameters] LibraryQuestion asked, ClassContent content, CupboardReader cupboard, FobbleDb db, CancellationToken stop)
    {
        var stock = await cupboard.StockAsync(classId, stop);
        var own = await OwnActivities.IdsAsync(classId, db, stop);
        var children = asked.Children is > 0 and <= 40 ? asked.Children : null;
        IReadOnlyList<Supplied> Met(ActivityFound found) => Meet(found.Activity, found.Skill.Range, children ?? Math.Min(UsualGroup, found.Activity.GroupSize.High), stock);
        bool Prints(ActivityFound found) => found.Activity.Materials.Zip(Met(found)).Any(p => p.First.Print is not null && p.Second.StillShort > 0);
        ActivityQuestion question = new(
            asked.Text, asked.Minutes, children, asked.Place, string.IsNullOrEmpty(asked.Skill) ? null : new SkillId(asked.Skill), asked.Part, asked.NothingToPrint ?? false, asked.OnlyOwned ?? false,
            string.IsNullOrEmpty(asked.Without) ? null : new ItemId(asked.Without));
        var found = ActivitySearch.Answers(content.Library, content.Map, question, f => Met(f).All(m => m.StillShort == 0), Prints);
        return TypedResults.Ok(new LibraryView(
            [
                .. found.Select(f => new ActivityCard(
                    f.Activity.Id.Value, f.Activity.Name, f.Activity.Purpose, f.Activity.Places, f.Activity.GroupSize.Low, f.Activity.GroupSize.High, f.Activity.MinutesFor(children ?? f.Activity.GroupSize.High),
                    f.Skill.Skill.Value, content.Map[f.Skill.Skill].Short, $"{f.Skill.Range}", f.Activity.Skills.Count, Prints(f),
                    f.Activity.Materials.Zip(Met(f)).FirstOrDefault(p => p.Second.StillShort > 0) is { First: not null } missing ? $"{missing.Second.StillShort} {missing.First.Item.InSentence} short" : null,
                    own.Contains(f.Activity.Id.Value))),
            ],
            content.Library.Activities.Count,
            [.. content.Map.Strands.SelectMany(t => content.Map.Skills.Where(s => s.Strand == t.Id).Select(s => new LibrarySkill(s.Id.Value, t.Name, s.Short)))],
            [.. content.Library.Activities.SelectMany(a => a.Items).DistinctBy(i => i.Id).OrderBy(i => i.Name, StringComparer.Ordinal).Select(i => new LibraryItem(i.Id.Value, i.Name))]));
    }

    private static async Task<Results<Ok<ActivityView>, NotFound>> GetAsync(
        int classId, string activityId, string? skill, int? children, ClassContent content, CupboardReader cupboard, ClassFacts facts, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        if (content.Library.Find(new(activityId)) is not { } activity)
        {
            return TypedResults.NotFound();
        }

        var evidence = await facts.EvidenceAsync(classId, clock.Today(), stop);
        var approach = await facts.ApproachAsync(classId, stop);
        var setting = activity.For(new(skill ?? "")) ?? activity.MetBy(evidence);
        var count = Math.Clamp(children ?? UsualGroup, 1, 30);
        var met = Meet(activity, setting.Range, count, await cupboard.StockAsync(classId, stop));
        var monday = Core.Calendars.SchoolCalendar.MondayOf(clock.Today());
        var offer = SheetOffer.Of(activity.SheetPrint.Kind);
        return TypedResults.Ok(new ActivityView(
            activity.Id.Value, activity.Name, activity.Purpose, activity.Parts, activity.Places, activity.GroupSize.Low, activity.GroupSize.High, activity.MinutesFor(count), activity.Game is not null, activity.Quiet, activity.PrepareMinutes, count,
            setting.Skill.Value,
            [.. activity.Skills.Select(s => (s, skill: content.Map[s.Skill])).Where(p => !p.skill.Hidden).Select(p => new ActivitySkillView(p.s.Skill.Value, p.skill.Short, p.skill.ICan, $"{p.s.Range}", p.s.Items, [.. p.skill.Slips.Select(x => x.Text)]))],
            [.. activity.Materials.Zip(met).Select(p => new ActivityThing(p.First.Item.Id.Value, p.First.Item.Name, p.Second.Need.Amount, p.First.Print is not null && p.Second.StillShort > 0 ? $"Short by {p.Second.ShortBy}: print them." : p.Second.InWords(), p.First.Print is not null))],
            activity.Prepare, activity.Steps, activity.Say, activity.LookFor, activity.Easier, activity.Harder, activity.Sheet,
            new(offer.NameIn(approach.Words), $"{activity.SheetPrint.Kind}", $"{activity.SheetPrint.Variant}", Math.Clamp(setting.Range.Low, offer.Widest.Low, offer.Widest.High), Math.Clamp(setting.Range.High, offer.Widest.Low, offer.Widest.High)),
            activity.Mat,
            ItemSetMaker.Make(new ItemRequest(setting.Items, setting.Range, 6, ItemHistory.None, SeededRandom.SeedOf(activity.Id.Value)) { Approach = approach }),
            Cautions.For(activity.Items, await facts.CaresAsync(classId, stop)),
            Cautions.Standing,
            (await OwnActivities.IdsAsync(classId, db, stop)).Contains(activity.Id.Value),
            await db.PlannedDays.Where(d => d.ClassId == classId && d.Day >= clock.Today() && d.Day < monday.AddDays(14)).OrderBy(d => d.Day).Select(d => d.Day).ToListAsync(stop)));
    }

    /// <summary>Puts an activity into a planned day, in the place of what stood there; a starter joins the others.</summary>
    private static async Task<Results<NoContent, ValidationProblem, NotFound, ProblemHttpResult>> PutIntoPlanAsync(
        int classId, DateOnly day, PutIntoPlan wanted, ClassContent content, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var skill = new SkillId(wanted.SkillId);
        if (content.Library.Find(new(wanted.ActivityId)) is not { } activity || activity.For(skill) is null)
        {
            return TypedResults.NotFound();
        }

        if (!activity.Places.Contains(wanted.Place) || wanted.Place == Place.Group)
        {
            return Faults.One("place", $"{activity.Name} is not made for that. Groups choose their activity when they are formed.");
        }

        if (day < clock.Today())
        {
            return Faults.One("day", "That day is past.");
        }

        var row = await db.PlannedDays.Include(d => d.Starters).FirstOrDefaultAsync(d => d.ClassId == classId && d.Day == day, stop);
        if (row is null)
        {
            return TypedResults.Problem("That day is not planned yet: plan its week first.", statusCode: StatusCodes.Status409Conflict, title: "Not planned");
        }

        switch (wanted.Place)
        {
            case Place.Carpet:
                var known = content.Map[skill];
                (row.FocusSkill, row.FocusActivity, row.Reason, row.ActivityReason, row.FocusPinned) = (skill.Value, activity.Id.Value, "Chosen by hand.", "", true);
                (row.FocusOf, row.FocusNumber) = (known.Lessons, Math.Min(row.FocusNumber, known.Lessons));
                break;
            case Place.Choice:
                (row.Choice, row.ChoicePinned) = (activity.Id.Value, true);
                break;
            case Place.Transition:
                (row.Transition, row.TransitionPinned) = (activity.Id.Value, true);
                break;
            default:
                row.Starters.RemoveAll(s => s.Skill == skill.Value);
                row.Starters.Add(new() { Skill = skill.Value, Activity = activity.Id.Value, Reason = "Chosen by hand.", Pinned = true });
                break;
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static List<Supplied> Meet(Activity activity, NumberRange range, int children, IReadOnlyList<StockLine> stock)
    {
        Supply supply = new(stock);
        return [.. activity.Materials.Select(m => supply.Meet(new(m.Item, m.Amount.For(range.High, children), m.Alike)))];
    }
}
