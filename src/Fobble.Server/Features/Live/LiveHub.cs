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
internal sealed class LiveHub(FobbleDb db, OpenConnections connections) : Hub
{
    public const string Address = "/live";

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
        var adult = Context.User!.AdultId().Value;
        // In an archive there is nothing to tell others of.
        var role = await db
            .Memberships.Where(m => m.ClassId == classId && m.AdultId == adult)
            .Select(m => (ClassRole?)(m.Class!.ArchivedOn == null ? m.Role : ClassRole.MathsLead))
            .FirstOrDefaultAsync();
        Context.Items[classId] = role ?? throw new HubException(Phrase("This class is not yours."));
        await Groups.AddToGroupAsync(Context.ConnectionId, GroupOf(classId));
    }

    /// <summary>Tells the others of a tap that is not sent yet.</summary>
    public Task Tapped(int classId, JustSeen seen)
    {
        ArgumentNullException.ThrowIfNull(seen);
        var (adult, name) = Context.User!.Adult();
        return OthersIn(classId).SendAsync("seen", seen with { AdultId = adult.Value, By = name });
    }

    /// <summary>Tells them that it was taken back.</summary>
    public Task Undone(int classId, Guid id) => OthersIn(classId).SendAsync("withdrawn", id);

    public static string GroupOf(int classId) => $"class {classId}";

    private IClientProxy OthersIn(int classId) =>
        Context.Items.TryGetValue(classId, out var role) && role is ClassRole.LeadTeacher or ClassRole.Assistant
            ? Clients.OthersInGroup(GroupOf(classId))
            : throw new HubException(Phrase("This class is not yours to record in."));
}

/// <summary>Where features say what has happened.</summary>
internal sealed class LiveNews(IHubContext<LiveHub> hub)
{
    public Task SeenAsync(ClassId classId, JustSeen seen) => hub.Clients.Group(LiveHub.GroupOf(classId.Value)).SendAsync("seen", seen);

    public Task WithdrawnAsync(ClassId classId, Guid id) => hub.Clients.Group(LiveHub.GroupOf(classId.Value)).SendAsync("withdrawn", id);
}
