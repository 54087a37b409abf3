using Fobble.Server.Features.Groups;

namespace Fobble.Server.Tests;

/// <summary>Asking for groups as the board does.</summary>
internal static class Board
{
    public static async Task<GroupsView> ProposeAsync(Visitor visitor, string week, GroupsAsk? ask = null) =>
        await Visitor.ReadAsync<GroupsView>(await visitor.PostAsync(week + "/groups/proposal", ask ?? GroupsAsk.Nothing));

    public static IReadOnlyList<ChosenGroup> Groups(GroupsView view) => [.. view.Groups.Where(g => !g.Run).Select(Of)];

    public static ChosenGroup Of(GroupView group) => new(group.Slot.SlotId, group.Slot.Day, group.Skill, [.. group.Children.Select(c => c.Id)]);

    public static AcceptRequest Chosen(GroupsView view) => new(view.Version, Groups(view));

    public static async Task<GroupsView> AcceptAsync(Visitor visitor, string week, GroupsView view) =>
        await Visitor.ReadAsync<GroupsView>(await visitor.PostAsync(week + "/groups/accept", Chosen(view)));

    /// <summary>What a tap for "alone" sends.</summary>
    public static object Tap(Guid id, int child, string skill, DateTimeOffset at, int? session = null) =>
        new
        {
            id,
            childId = child,
            skill,
            at,
            setting = "Group",
            support = "Alone",
            representation = "Objects",
            numbers = (string?)null,
            slip = (string?)null,
            strategy = (string?)null,
            note = (string?)null,
            sessionId = session,
        };

    /// <summary>A child is seen to do something alone, in a group or elsewhere.</summary>
    public static async Task SeenAsync(Visitor visitor, int child, string skill, DateTimeOffset at, int? session = null) =>
        (await visitor.PostAsync("/api/classes/1/observations", Tap(Guid.NewGuid(), child, skill, at, session))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
}
