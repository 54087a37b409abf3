using Fobble.Server.Demo;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Post;

/// <summary>What the demo's adults find in their mail. Outside the demo there is nothing at this address: mail goes to the school's own server.</summary>
internal sealed class PostFeature : IFeature
{
    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass) => api.MapGet("/post", Get).AllowAnonymous();

    private static Results<Ok<IReadOnlyList<Letter>>, NotFound> Get(IServiceProvider services) =>
        services.GetService<PostOffice>() is { } office ? TypedResults.Ok(office.Letters) : TypedResults.NotFound();
}
