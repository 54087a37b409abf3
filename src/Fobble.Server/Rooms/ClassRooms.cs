namespace Fobble.Server.Rooms;

/// <summary>Opens the rooms of other classes than the one a request is about, and leaves at its end whichever is still open.</summary>
internal sealed class ClassRooms(IServiceProvider services) : IAsyncDisposable
{
    private readonly List<ClassRoom> _opened = [];

    /// <summary>A room with a snapshot of its own; whoever opens it disposes of it as soon as it is done.</summary>
    public async Task<ClassRoom> OpenAsync(ClassId id, CancellationToken stop)
    {
        var room = ActivatorUtilities.CreateInstance<ClassRoom>(services);
        _opened.Add(room);
        await room.EnterAsync(id, stop);
        return room;
    }

    /// <summary>
    /// A snapshot that nobody leaves is collected with its transaction still open, and the connection is handed to the next who asks: "cannot start a
    /// transaction within a transaction". So none outlives its request.
    /// </summary>
    public async ValueTask DisposeAsync()
    {
        foreach (var room in _opened)
        {
            await room.DisposeAsync();
        }
    }
}
