using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Fobble.Server.Hosting;

/// <summary>The section <c>Fobble:Https</c>: a certificate with which the server answers over https by itself. Without one it answers on this machine only, for a proxy that has one.</summary>
public sealed class HttpsSettings
{
    /// <summary>A PEM file: the certificate, and those between it and its authority.</summary>
    public string? Certificate { get; set; }

    /// <summary>A PEM file: its key, not sealed.</summary>
    public string? Key { get; set; }

    public int Port { get; set; } = 443;

    public bool On => Certificate is not null;

    /// <exception cref="WrongSettingException">A file is missing, they do not belong together, or the certificate is over.</exception>
    public void Check(DateTimeOffset now)
    {
        if (!On && Key is null)
        {
            return;
        }

        if (Certificate is null || Key is null)
        {
            throw new WrongSettingException(Phrase("https needs both: Fobble__Https__Certificate and Fobble__Https__Key, two PEM files."));
        }

        if (Port is < 1 or > 65535)
        {
            throw new WrongSettingException(Phrase("Fobble__Https__Port is a number from 1 to 65535."));
        }

        using var read = Read();
        if (read.NotAfter.ToUniversalTime() < now.UtcDateTime)
        {
            throw new WrongSettingException(Phrase($"The certificate {Certificate} was good until {read.NotAfter:yyyy-MM-dd} only: get a new one."));
        }
    }

    /// <exception cref="WrongSettingException">They can't be read.</exception>
    public X509Certificate2 Read()
    {
        try
        {
            return X509Certificate2.CreateFromPemFile(Certificate!, Key);
        }
        catch (Exception fault) when (fault is CryptographicException or ArgumentException or IOException or UnauthorizedAccessException)
        {
            throw new WrongSettingException(Phrase($"The certificate {Certificate} with the key {Key} can’t be read: {fault.Message}"));
        }
    }
}
