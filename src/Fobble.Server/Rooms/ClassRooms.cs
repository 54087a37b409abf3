namespace Fobble.Server.Rooms;

/// <summary>Opens the rooms of other classes than the one a request is about.</summary>
internal sealed class ClassRooms(IServiceProvider services)
{
    /// <summary>A room with a snapshot of its own; whoever opens it disposes of it.</summary>
    public async Task<ClassRoom> OpenAsync(ClassId id, CancellationToken stop)
    {
        var room = ActivatorUtilities.CreateInstance<ClassRoom>(services);
        await room.EnterAsync(id, stop);
        return room;
    }
}
