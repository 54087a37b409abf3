using Fobble.Core.Evidence;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Live;

/// <summary>Something just recorded, for the others who have the same class open.</summary>
public sealed record JustSeen(Guid Id, int ChildId, string Skill, Support Support, string? Numbers, int? SessionId, int AdultId, string By);

/// <summary>
/// Says to everyone who watches a class what is recorded and withdrawn there. A tap waits ten seconds before it is sent, so that it can be undone;
/// the other adults hear of it at once. Nothing is recorded through the hub.
/// </summary>
[Authorize]
internal sealed class LiveHub(FobbleDb db, Members members, OpenConnections connections, TimeProvider clock) : Hub
{
    private static readonly TimeSpan AsksAgain = TimeSpan.FromDays(1);

    public const string Address = "/live";

    /// <summary>Letters of what names a skill or the numbers of a card.</summary>
    private const int LongestText = 80;

    public override async Task OnConnectedAsync()
    {
        var device = Context.User!.Device();
        connections.Opened(device, Context.ConnectionId, Context.Abort);
        // It may have been signed out while it came in.
        if (!await db.SignedIn.AnyAsync(s => s.Id == device))
        {
            Context.Abort();
        }
    }

    public override Task OnDisconnectedAsync(Exception? exception)
    {
        connections.Closed(Context.User!.Device(), Context.ConnectionId);
        return Task.CompletedTask;
    }

    /// <exception cref="HubException">The adult does not belong to the class.</exception>
    public async Task Watch(int classId)
    {
        var member = await members.TodayAsync(new(classId), Context.User!.AdultId(), Context.ConnectionAborted)
            ?? throw new HubException(Phrase("This class is not yours."));
        // In an archive there is nothing to tell others of.
        Context.Items[classId] = member.Archived ? ClassRole.MathsLead : member.Role;
        if (member.Until is { } end)
        {
            CloseAt(end, Context);
        }

        await Groups.AddToGroupAsync(Context.ConnectionId, GroupOf(classId));
    }

    /// <summary>Tells the others of a tap that is not sent yet.</summary>
    /// <exception cref="HubException">It is not one that could be sent.</exception>
    public async Task Tapped(int classId, JustSeen seen)
    {
        ArgumentNullException.ThrowIfNull(seen);
        var others = OthersIn(classId);
        var (adult, name) = Context.User!.Adult();
        var said = seen.Skill is { Length: <= LongestText } && (seen.Numbers?.Length ?? 0) <= LongestText && Enum.IsDefined(seen.Support);
        if (!said || !await db.Children.AnyAsync(c => c.Id == seen.ChildId && c.ClassId == classId && c.LeftOn == null) || await IsRecordedAsync(seen.Id))
        {
            throw new HubException(Phrase("This can’t be recorded here."));
        }

        await others.SendAsync("seen", seen with { AdultId = adult.Value, By = name });
    }

    /// <summary>Tells them that it was taken back. What is recorded is not taken back like this, whoever says so.</summary>
    public async Task Undone(int classId, Guid id)
    {
        var others = OthersIn(classId);
        if (!await IsRecordedAsync(id))
        {
            await others.SendAsync("withdrawn", id);
        }
    }

    // A page that is left open does not outlast the days of who covers: it closes, and asks anew.
    private void CloseAt(DateTimeOffset end, HubCallerContext context)
    {
        var left = TimeSpan.FromTicks(Math.Clamp((end - clock.GetUtcNow()).Ticks, 0, AsksAgain.Ticks));
        _ = Task.Delay(left, clock, context.ConnectionAborted).ContinueWith(_ => context.Abort(), TaskScheduler.Default);
    }

    private Task<bool> IsRecordedAsync(Guid id) => db.Observations.AnyAsync(o => o.Id == id);

    public static string GroupOf(int classId) => $"class {classId}";

    private IClientProxy OthersIn(int classId) =>
        Context.Items.TryGetValue(classId, out var role) && role is ClassRole.LeadTeacher or ClassRole.Assistant or ClassRole.Cover
            ? Clients.OthersInGroup(GroupOf(classId))
            : throw new HubException(Phrase("This class is not yours to record in."));
}

/// <summary>Where features say what has happened.</summary>
internal sealed class LiveNews(IHubContext<LiveHub> hub)
{
    public Task SeenAsync(ClassId classId, JustSeen seen) => hub.Clients.Group(LiveHub.GroupOf(classId.Value)).SendAsync("seen", seen);

    public Task WithdrawnAsync(ClassId classId, Guid id) => hub.Clients.Group(LiveHub.GroupOf(classId.Value)).SendAsync("withdrawn", id);
}
