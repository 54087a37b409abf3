using System.Security.Cryptography;
using System.Text;

namespace Fobble.Formats.SkillMaps;

/// <summary>Identifiers that follow from a name: version 5 of RFC 9562, section 5.5.</summary>
public static class NameUuid
{
    /// <summary>The name space for names that are addresses (RFC 9562, section 6.6).</summary>
    public static Guid Url { get; } = new("6ba7b811-9dad-11d1-80b4-00c04fd430c8");

    public static Guid Of(Guid space, string name)
    {
#pragma warning disable CA5350 // The standard asks for SHA-1; nothing is kept secret by it.
        var hash = SHA1.HashData([.. space.ToByteArray(bigEndian: true), .. Encoding.UTF8.GetBytes(name)]);
#pragma warning restore CA5350
        hash[6] = (byte)((hash[6] & 0x0F) | 0x50);
        hash[8] = (byte)((hash[8] & 0x3F) | 0x80);
        return new Guid(hash.AsSpan(0, 16), bigEndian: true);
    }
}
