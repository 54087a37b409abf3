using System.Security.Cryptography.X509Certificates;

namespace Fobble.Server.Hosting;

/// <summary>The certificate by which the server answers. It is read again once its file has changed, as it does every few months, so that nobody need think of it.</summary>
internal sealed partial class Certificate(HttpsSettings settings, ILogger<Certificate> log) : IDisposable
{
    private readonly Lock _lock = new();
    private X509Certificate2? _read;
    private DateTime _written;

    public X509Certificate2 OfNow()
    {
        lock (_lock)
        {
            var written = File.GetLastWriteTimeUtc(settings.Certificate!);
            if (_read is null || written != _written)
            {
                try
                {
                    // The one of before may still be in somebody's hands: it goes when they let go of it.
                    _read = settings.Read();
                }
                catch (WrongSettingException fault) when (_read is not null)
                {
                    // Half of it is there: the one of before is good until all of it is.
                    NotRead(log, fault.Message);
                    return _read;
                }

                _written = written;
            }

            return _read;
        }
    }

    public void Dispose() => _read?.Dispose();

    [LoggerMessage(Level = LogLevel.Warning, Message = "The new certificate is not taken yet: {Why}")]
    private static partial void NotRead(ILogger log, string why);
}
