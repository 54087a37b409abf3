namespace Fobble.Server.Tests.Faults;

internal static class Visiting
{
    /// <summary>A browser that has opened the first page.</summary>
    public static async Task<Visitor> VisitAsync(this ServerProcess server)
    {
        SocketsHttpHandler handler = new() { AllowAutoRedirect = false };
        Visitor visitor = new(new HttpClient(handler) { BaseAddress = server.Url, Timeout = ServerProcess.Patience });
        await visitor.StateAsync();
        return visitor;
    }

    public static async Task<Visitor> ComeInAsAsync(this ServerProcess server, string demoAdult)
    {
        var visitor = await server.VisitAsync();
        (await visitor.PostAsync($"/api/account/demo/{demoAdult}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await visitor.StateAsync();
        return visitor;
    }
}
