using Fobble.Core.Activities;
using Fobble.Core.Cupboard;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Sessions;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Activities;

/// <summary>The library: a teacher's question and its answers, one activity, and putting it into the plan.</summary>
internal sealed class ActivitiesFeature : IFeature
{
    private const int UsualGroup = 4;

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        var activities = ofClass.MapGroup("/activities");
        activities.MapGet("/", SearchAsync);
        activities.MapGet("/{activityId}", GetAsync);
        OwnActivities.Map(activities);
        ofClass.MapPut("/days/{day}/plan/activity", PutIntoPlanAsync).RequireAuthorization(Policies.Lead);
    }

    private static async Task<Ok<LibraryView>> SearchAsync(ClassRoom room, [AsParameters] LibraryQuestion asked, CancellationToken stop)
    {
        var stock = await room.StockAsync(stop);
        var own = room.Content.OwnActivities;
        var children = asked.Children is > 0 and <= 40 ? asked.Children : null;
        IReadOnlyList<Supplied> Met(ActivityFound found) =>
            Meet(found.Activity, found.Skill.Range, children ?? Math.Min(UsualGroup, found.Activity.GroupSize.High), stock);
        bool Prints(ActivityFound found) => found.Activity.Materials.Zip(Met(found)).Any(p => p.First.Print is not null && p.Second.StillShort > 0);
        ActivityQuestion question = new(
            asked.Text,
            asked.Minutes,
            children,
            asked.Place,
            string.IsNullOrEmpty(asked.Skill) ? null : new SkillId(asked.Skill),
            asked.Part,
            asked.NothingToPrint ?? false,
            asked.OnlyOwned ?? false,
            string.IsNullOrEmpty(asked.Without) ? null : new ItemId(asked.Without)
        );
        var found = ActivitySearch.Answers(room.Content.Library, room.Content.Map, question, f => Met(f).All(m => m.StillShort == 0), Prints);
        return TypedResults.Ok(
            new LibraryView(
                [
                    .. found.Select(f => new ActivityCard(
                        f.Activity.Id.Value,
                        f.Activity.Name,
                        f.Activity.Purpose,
                        f.Activity.Places,
                        f.Activity.GroupSize.Low,
                        f.Activity.GroupSize.High,
                        f.Activity.MinutesFor(children ?? f.Activity.GroupSize.High),
                        f.Skill.Skill.Value,
                        room.Content.Map[f.Skill.Skill].Short,
                        $"{f.Skill.Range}",
                        f.Activity.Skills.Count,
                        Prints(f),
                        f.Activity.Materials.Zip(Met(f)).FirstOrDefault(p => p.Second.StillShort > 0) is { First: not null } missing
                            ? Phrase($"{missing.Second.StillShort} {missing.First.Item.InSentence} short")
                            : null,
                        own.Contains(f.Activity.Id)
                    )),
                ],
                room.Content.Library.Activities.Count,
                [
                    .. room.Content.Map.Strands.SelectMany(t =>
                        room.Content.Map.Skills.Where(s => s.Strand == t.Id).Select(s => new LibrarySkill(s.Id.Value, t.Name, s.Short))
                    ),
                ],
                [
                    .. room
                        .Content.Library.Activities.SelectMany(a => a.Items)
                        .DistinctBy(i => i.Id)
                        .OrderBy(i => i.Name, StringComparer.Ordinal)
                        .Select(i => new LibraryItem(i.Id.Value, i.Name)),
                ]
            )
        );
    }

    private static async Task<Results<Ok<ActivityView>, NotFound>> GetAsync(
        ClassRoom room,
        string activityId,
        string? skill,
        int? children,
        CancellationToken stop
    )
    {
        if (room.Content.Library.Find(new(activityId)) is not { } activity)
        {
            return TypedResults.NotFound();
        }

        var evidence = await room.EvidenceAsync(stop);
        var approach = room.Approach;
        var setting = activity.For(new(skill ?? "")) ?? activity.MetBy(evidence);
        var count = Math.Clamp(children ?? UsualGroup, 1, 30);
        var met = Meet(activity, setting.Range, count, await room.StockAsync(stop));
        var monday = Core.Calendars.SchoolCalendar.MondayOf(room.Today);
        var offer = SheetOffer.Of(activity.SheetPrint.Kind);
        var numbers = activity.RangeOn(offer.Kind, setting.Range);
        return TypedResults.Ok(
            new ActivityView(
                activity.Id.Value,
                activity.Name,
                activity.Purpose,
                activity.Parts,
                activity.Places,
                activity.GroupSize.Low,
                activity.GroupSize.High,
                activity.MinutesFor(count),
                activity.Game is not null,
                activity.Quiet,
                activity.PrepareMinutes,
                count,
                setting.Skill.Value,
                [
                    .. activity
                        .Skills.Select(s => (s, skill: room.Content.Map[s.Skill]))
                        .Where(p => !p.skill.Hidden)
                        .Select(p => new ActivitySkillView(
                            p.s.Skill.Value,
                            p.skill.Short,
                            p.skill.ICan,
                            $"{p.s.Range}",
                            p.s.Items,
                            [.. p.skill.Slips.Select(x => x.Text)]
                        )),
                ],
                [
                    .. activity
                        .Materials.Zip(met)
                        .Select(p => new ActivityThing(
                            p.First.Item.Id.Value,
                            p.First.Item.Name,
                            p.Second.Need.Amount,
                            p.First.Print is not null && p.Second.StillShort > 0 ? Phrase($"Short by {p.Second.ShortBy}: print them.") : p.Second.InWords(),
                            p.First.Print is not null
                        )),
                ],
                activity.Prepare,
                activity.Steps,
                activity.Say,
                activity.LookFor,
                activity.Easier,
                activity.Harder,
                activity.Sheet,
                new(
                    offer.NameIn(approach.Words),
                    $"{activity.SheetPrint.Kind}",
                    $"{activity.SheetPrint.Variant}",
                    numbers.Low,
                    numbers.High,
                    offer.HasStories ? string.Join(',', LessonStories.For(setting.Items)) : null
                ),
                activity.Mat,
                ItemSetMaker.Make(
                    new ItemRequest(setting.Items, setting.Range, 6, ItemHistory.None, SeededRandom.SeedOf(activity.Id.Value))
                    {
                        Approach = approach,
                        Zero = room.Map.KnowsZero(setting.Skill),
                    }
                ),
                Cautions.For(activity.Items, room.Cares),
                Cautions.Standing,
                room.Content.OwnActivities.Contains(activity.Id),
                await room
                    .Db.PlannedDays.Where(d => d.ClassId == room.Id.Value && d.Day >= room.Today && d.Day < monday.AddDays(14))
                    .OrderBy(d => d.Day)
                    .Select(d => d.Day)
                    .ToListAsync(stop)
            )
        );
    }

    /// <summary>Puts an activity into a planned day, in the place of what stood there; a starter joins the others.</summary>
    private static async Task<Results<NoContent, NotFound, ProblemHttpResult>> PutIntoPlanAsync(
        ClassRoom room,
        DateOnly day,
        PutIntoPlan wanted,
        Decisions decisions,
        CancellationToken stop
    )
    {
        var skill = new SkillId(wanted.SkillId);
        if (room.Library.Find(new(wanted.ActivityId)) is not { } activity || activity.For(skill) is null)
        {
            return TypedResults.NotFound();
        }

        RefusedException.Unless(
            activity.Places.Contains(wanted.Place) && wanted.Place != Place.Group,
            "place",
            Phrase($"{activity.Name} is not made for that. Groups choose their activity when they are formed.")
        );
        RefusedException.Unless(day >= room.Today, "day", Phrase("That day is past."));
        var found = await decisions.DecideAsync(
            async db =>
            {
                if (await db.PlannedDays.Include(d => d.Starters).FirstOrDefaultAsync(d => d.ClassId == room.Id.Value && d.Day == day, stop) is not { } row)
                {
                    return false;
                }

                Put(row, wanted.Place, activity, room.Map[skill]);
                return true;
            },
            stop
        );
        return found
            ? TypedResults.NoContent()
            : TypedResults.Problem(
                Phrase("That day is not planned yet: plan its week first."),
                statusCode: StatusCodes.Status409Conflict,
                title: Phrase("Not planned")
            );
    }

    private static void Put(PlannedDayRow row, Place place, Activity activity, Skill skill)
    {
        var byHand = Phrase("Chosen by hand.");
        switch (place)
        {
            case Place.Carpet:
                (row.FocusSkill, row.FocusActivity, row.Reason, row.ActivityReason, row.FocusPinned) = (skill.Id.Value, activity.Id.Value, byHand, "", true);
                (row.FocusOf, row.FocusNumber) = (skill.Lessons, Math.Min(row.FocusNumber, skill.Lessons));
                break;
            case Place.Choice:
                (row.Choice, row.ChoicePinned) = (activity.Id.Value, true);
                break;
            case Place.Transition:
                (row.Transition, row.TransitionPinned) = (activity.Id.Value, true);
                break;
            default:
                row.Starters.RemoveAll(s => s.Skill == skill.Id.Value);
                row.Starters.Add(
                    new()
                    {
                        Skill = skill.Id.Value,
                        Activity = activity.Id.Value,
                        Reason = byHand,
                        Pinned = true,
                    }
                );
                break;
        }
    }

    private static List<Supplied> Meet(Activity activity, NumberRange range, int children, IReadOnlyList<StockLine> stock)
    {
        Supply supply = new(stock);
        return [.. activity.Materials.Select(m => supply.Meet(new(m.Item, m.Amount.For(range.High, children), m.Alike)))];
    }
}
