using Fobble.Core.Evidence;
using Fobble.Data;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Live;

/// <summary>Something just recorded, for the others who have the same class open.</summary>
public sealed record JustSeen(Guid Id, int ChildId, string Skill, Support Support, string? Numbers, int? SessionId, int AdultId, string By);

/// <summary>Says to everyone who watches a class what is recorded and withdrawn there. Nothing is recorded through it.</summary>
[Authorize]
internal sealed class LiveHub(FobbleDb db) : Hub
{
    public const string Address = "/live";

    /// <exception cref="HubException">The adult does not belong to the class.</exception>
    public async Task Watch(int classId)
    {
        var adult = Context.User!.AdultId();
        if (!await db.Memberships.AnyAsync(m => m.ClassId == classId && m.AdultId == adult))
        {
            throw new HubException("This class is not yours.");
        }

        await Groups.AddToGroupAsync(Context.ConnectionId, GroupOf(classId));
    }

    public static string GroupOf(int classId) => $"class {classId}";
}

/// <summary>Where features say what has happened.</summary>
internal sealed class LiveBoard(IHubContext<LiveHub> hub)
{
    public Task SeenAsync(int classId, JustSeen seen) => hub.Clients.Group(LiveHub.GroupOf(classId)).SendAsync("seen", seen);

    public Task WithdrawnAsync(int classId, Guid id) => hub.Clients.Group(LiveHub.GroupOf(classId)).SendAsync("withdrawn", id);
}
