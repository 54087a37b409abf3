using Fobble.Server.Hosting;

namespace Fobble.Server.Features.Live;

internal sealed class LiveFeature : IFeature
{
    public void AddServices(IServiceCollection services) => services.AddScoped<LiveNews>();

    /// <summary>The hub lies beside the addresses of the API; see <see cref="LiveHub.Address"/>.</summary>
    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass) { }
}
