using Fobble.Data.Keeping;

namespace Fobble.Server.Hosting;

/// <summary>Holds the data folder for this server, from its start to its end.</summary>
internal sealed class HeldFolder(FobbleSettings settings) : IDisposable
{
    private DataFolder? _folder;

    /// <exception cref="DataFolderException">Another server has it, or it can't be written to.</exception>
    public DataFolder Take() => _folder ??= DataFolder.Take(settings.Data);

    public void Dispose() => _folder?.Dispose();
}
