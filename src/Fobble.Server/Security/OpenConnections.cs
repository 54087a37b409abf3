using System.Collections.Concurrent;

namespace Fobble.Server.Security;

/// <summary>Connections that stay open, by the device they came from: they close when the device is signed out.</summary>
internal sealed class OpenConnections
{
    private readonly ConcurrentDictionary<string, ConcurrentDictionary<string, Action>> _of = new();

    public void Opened(string device, string connection, Action close) => _of.GetOrAdd(device, _ => new())[connection] = close;

    public void Closed(string device, string connection)
    {
        if (_of.TryGetValue(device, out var connections))
        {
            connections.TryRemove(connection, out _);
        }
    }

    public void Close(string device)
    {
        if (_of.TryRemove(device, out var connections))
        {
            foreach (var close in connections.Values)
            {
                close();
            }
        }
    }
}
