using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>A page that is open and hears what others record.</summary>
internal static class Listening
{
    public static async Task<HubConnection> ConnectAsync(this School school, string cookies)
    {
        var connection = new HubConnectionBuilder()
            .WithUrl("http://localhost/live", options =>
            {
                options.HttpMessageHandlerFactory = _ => school.Server.CreateHandler();
                options.Headers["Cookie"] = cookies;
                options.Transports = Microsoft.AspNetCore.Http.Connections.HttpTransportType.LongPolling;
            })
            .AddJsonProtocol(options => options.PayloadSerializerOptions = School.Json)
            .Build();
        await connection.StartAsync();
        return connection;
    }

    /// <summary>Watches the class, too.</summary>
    public static async Task<HubConnection> ListenAsync(this School school, string cookies, int classId = 1)
    {
        var connection = await school.ConnectAsync(cookies);
        await connection.InvokeAsync("Watch", classId);
        return connection;
    }
}
