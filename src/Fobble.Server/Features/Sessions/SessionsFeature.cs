using Fobble.Core.Activities;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Core.Sessions;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Sessions;

/// <param name="Recorded">Observations of this child in this session, the newest last.</param>
public sealed record CardChild(int Id, string Name, string Reason, bool Away, bool PhotosAllowed, int Strength, IReadOnlyList<RecordedNow> Recorded);

/// <param name="AdultId">Who recorded it: two adults may watch one group.</param>
public sealed record RecordedNow(Guid Id, Support Support, string? Numbers, int AdultId);

public sealed record CardSkill(
    string Id,
    string Short,
    string ICan,
    IReadOnlyList<Representation> ShownIn,
    IReadOnlyList<CardChoice> Slips,
    IReadOnlyList<CardChoice> Strategies,
    IReadOnlyList<string> Words
);

public sealed record CardChoice(string Id, string Text);

public sealed record CardActivity(
    string Id,
    string Name,
    string Purpose,
    int Minutes,
    bool Quiet,
    IReadOnlyList<string> Prepare,
    IReadOnlyList<string> Steps,
    IReadOnlyList<string> Say,
    string Easier,
    string Harder,
    string Sheet
);

public sealed record CardSetOut(string Item, int Amount);

/// <summary>What the lesson's sheet is for, and where it lies ready.</summary>
public sealed record CardSheet(string Text, string Kind, string Variant, int Low, int High, string? Stories);

/// <summary>A session card: everything on one page. For the whole class on the carpet there is no group, and children are all.</summary>
/// <param name="Mats">In the order of the items: where the mat opens ready laid, below the class's mats; null where nothing is laid out.</param>
public sealed record Card(
    int? SessionId,
    DateOnly Day,
    TimeOnly Start,
    int Minutes,
    string Adult,
    string Where,
    Setting Setting,
    string Reason,
    CardSkill Skill,
    CardActivity Activity,
    IReadOnlyList<Item> Items,
    IReadOnlyList<string?> Mats,
    IReadOnlyList<CardSetOut> SetOut,
    IReadOnlyList<string> LookFor,
    IReadOnlyList<Caution> Cautions,
    IReadOnlyList<CardChild> Children,
    string? Signs,
    CardSheet? Sheet
);

internal sealed class SessionsFeature : IFeature
{
    public void AddServices(IServiceCollection services) => services.AddScoped<CardReader>();

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/sessions/{sessionId:int}", GroupCardAsync);
        ofClass.MapGet("/days/{day}/carpet", CarpetCardAsync);
    }

    private static async Task<Results<Ok<Card>, NotFound>> GroupCardAsync(SessionId sessionId, CardReader reader, CancellationToken stop) =>
        await reader.ForGroupAsync(sessionId, stop) is { } card ? TypedResults.Ok(card) : TypedResults.NotFound();

    /// <param name="lesson">Which of the day's whole-class lessons, from 0.</param>
    private static async Task<Results<Ok<Card>, NotFound>> CarpetCardAsync(DateOnly day, int? lesson, CardReader reader, CancellationToken stop) =>
        await reader.ForCarpetAsync(day, lesson ?? 0, stop) is { } card ? TypedResults.Ok(card) : TypedResults.NotFound();
}

/// <summary>Puts a card together from the plan, the children's evidence and the session's seed.</summary>
internal sealed class CardReader(ClassRoom room)
{
    /// <returns>Null where the session is none of the class's, or its set was replaced.</returns>
    public async Task<Card?> ForGroupAsync(SessionId id, CancellationToken stop)
    {
        if (await room.SessionsInForce().FirstOrDefaultAsync(s => s.Id == id.Value, stop) is not { } session)
        {
            return null;
        }

        var slot = session.Slot!;
        var reasons = session.Members.ToDictionary(m => m.ChildId, m => m.Reason);
        return await MakeAsync(
            new Head(
                id,
                session.Day,
                slot.Start,
                slot.Minutes,
                (await room.TimetableAsync(stop)).StandsIn(slot.Id, session.Day)?.Adult ?? slot.Adult!.FullName,
                slot.Where,
                Setting.Group,
                session.Reason
            ),
            new SkillId(session.Skill),
            session.Activity,
            (ulong)session.Seed,
            reasons,
            session.Set!.AcceptedAt,
            stop
        );
    }

    /// <param name="lesson">Which of the day's whole-class lessons, from 0.</param>
    public async Task<Card?> ForCarpetAsync(DateOnly day, int lesson, CancellationToken stop)
    {
        var plan = await room.Db.PlannedDays.Include(d => d.More).FirstOrDefaultAsync(d => d.ClassId == room.Id.Value && d.Day == day, stop);
        if (plan is null || lesson < 0 || lesson > plan.More.Count)
        {
            return null;
        }

        var (skill, activity, reason) =
            lesson == 0
                ? (plan.FocusSkill, plan.FocusActivity, plan.Reason)
                : (plan.More[lesson - 1].Skill, plan.More[lesson - 1].Activity, plan.More[lesson - 1].Reason);
        var carpets = (await room.TimetableAsync(stop)).On(day).Where(s => s.Kind == SlotKind.Carpet).ToList();
        var slot = carpets.Count > 0 ? carpets[Math.Min(lesson, carpets.Count - 1)] : null;
        var head = new Head(
            null,
            day,
            slot?.Start ?? UsualWeek.CarpetStart,
            slot?.Minutes ?? UsualWeek.CarpetMinutes,
            slot?.Adult ?? "",
            slot?.Where ?? UsualWeek.CarpetWhere,
            Setting.Carpet,
            reason
        );
        return await MakeAsync(head, new SkillId(skill), activity, SessionCards.SeedFor(room.Id, day, lesson, new SkillId(skill)), null, null, stop);
    }

    private async Task<Card> MakeAsync(
        Head head,
        SkillId skillId,
        string activityId,
        ulong seed,
        Dictionary<int, string>? reasons,
        DateTimeOffset? until,
        CancellationToken stop
    )
    {
        var all = await room.ChildrenAsync(stop);
        var children = reasons is null ? all : [.. all.Where(c => reasons.ContainsKey(c.Id))];
        var evidence = await room.EvidenceAsync(stop);

        // The numbers come from what was known when the groups were accepted, so that they stay put while the session is recorded.
        var then = until is null ? evidence : await room.EvidenceAsync(room.Today, until, stop);
        var card = SessionCards.Make(
            skillId,
            room.Library[new ActivityId(activityId)],
            reasons is null ? [] : [.. children.Select(c => new ChildId(c.Id))],
            then,
            room.Approach,
            room.Cares,
            seed
        );
        var away = await room.AwayAsync(head.Day, stop);
        var photos = (await room.ChildRowsAsync(stop)).Where(c => c.PhotosAllowed).Select(c => c.Id).ToHashSet();
        var session = head.SessionId?.Value;
        var recorded = session is null
            ? []
            : await room
                .Db.Observations.Where(o => o.SessionId == session && o.Withdrawal == null)
                .OrderBy(o => o.At)
                .Select(o => new { o.ChildId, Row = new RecordedNow(o.Id, o.Support, o.Numbers, o.AdultId) })
                .ToListAsync(stop);
        var (skill, activity) = (card.Skill, card.Activity);
        return new Card(
            session,
            head.Day,
            head.Start,
            head.Minutes,
            head.Adult,
            head.Where,
            head.Setting,
            head.Reason,
            Describe(skill),
            new CardActivity(
                activity.Id.Value,
                activity.Name,
                activity.Purpose,
                activity.Minutes,
                activity.Quiet,
                activity.Prepare,
                activity.Steps,
                activity.Say,
                activity.Easier,
                activity.Harder,
                activity.Sheet
            ),
            card.Items,
            [.. card.Items.Select(i => MatOpenings.For(activity.For(skillId)!.Items, i))],
            [.. card.SetOut.Select(s => new CardSetOut(s.Item.Name, s.Amount))],
            [.. card.LookFor.Where(l => l.SlipId is null).Select(l => l.Text)],
            card.Cautions,
            [
                .. children.Select(c => new CardChild(
                    c.Id,
                    c.Name,
                    reasons?.GetValueOrDefault(c.Id) ?? "",
                    away.Contains(c.Id),
                    photos.Contains(c.Id),
                    (int)evidence[new ChildId(c.Id), skillId].Strength,
                    [.. recorded.Where(r => r.ChildId == c.Id).Select(r => r.Row)]
                )),
            ],
            card.Signs,
            card.Sheet is { } text ? SheetOf(text, activity, activity.For(skillId)!) : null
        );
    }

    internal static CardSkill Describe(Skill skill) =>
        new(
            skill.Id.Value,
            skill.Short,
            skill.ICan,
            skill.ShownIn,
            [.. skill.Slips.Select(s => new CardChoice(s.Id, s.Text))],
            [.. skill.Strategies.Select(s => new CardChoice(s.Id, s.Text))],
            skill.Words
        );

    private static CardSheet SheetOf(string text, Activity activity, ActivitySkill setting)
    {
        var print = activity.SheetPrint;
        var numbers = activity.RangeOn(print.Kind, setting.Range);
        var stories = SheetOffer.Of(print.Kind).HasStories ? string.Join(',', LessonStories.For(setting.Items)) : null;
        return new(text, $"{print.Kind}", $"{print.Variant}", numbers.Low, numbers.High, stories);
    }

    private sealed record Head(SessionId? SessionId, DateOnly Day, TimeOnly Start, int Minutes, string Adult, string Where, Setting Setting, string Reason);
}
