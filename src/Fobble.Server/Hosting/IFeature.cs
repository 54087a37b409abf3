namespace Fobble.Server.Hosting;

/// <summary>
/// A feature folder tells here what it brings: its services and its addresses. Whatever implements this is found by itself, so a new folder needs no line
/// anywhere else.
/// </summary>
internal interface IFeature
{
    void AddServices(IServiceCollection services) { }

    /// <param name="api">Below <c>/api</c>; a feature that lies here says itself who may.</param>
    /// <param name="ofClass">Below <c>/api/classes/{classId}</c>, for members of the class.</param>
    void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass);

    /// <summary>All there are, in the order of their names.</summary>
    static IReadOnlyList<IFeature> All { get; } =
    [
        .. typeof(IFeature)
            .Assembly.GetTypes()
            .Where(t => t is { IsClass: true, IsAbstract: false } && t.IsAssignableTo(typeof(IFeature)))
            .OrderBy(t => t.FullName, StringComparer.Ordinal)
            .Select(t => (IFeature)Activator.CreateInstance(t)!),
    ];
}
