using System.Buffers.Binary;
using System.IO.Compression;

namespace Fobble.Formats.Fonts;

/// <summary>A web font (WOFF 1.0, W3C Recommendation 2012) as the font that was packed in it: PDF embeds nothing else.</summary>
internal static class WoffFile
{
    private const int Header = 44;
    private const int Entry = 20;

    /// <exception cref="InvalidDataException">It is no such file.</exception>
    public static byte[] Unpack(byte[] woff)
    {
        ArgumentNullException.ThrowIfNull(woff);
        if (woff.Length < Header || U32(woff, 0) != 0x774F4646)
        {
            throw new InvalidDataException("This is no web font.");
        }

        var tables = BinaryPrimitives.ReadUInt16BigEndian(woff.AsSpan(12));
        using MemoryStream font = new();
        Span<byte> number = stackalloc byte[4];

        // The font's own header, then its table of contents: where each table is in what follows.
        var steps = (int)Math.Log2(tables);
        Write32(font, U32(woff, 4), number);
        foreach (var value in (int[])[tables, 16 << steps, steps, (tables * 16) - (16 << steps)])
        {
            BinaryPrimitives.WriteUInt16BigEndian(number, (ushort)value);
            font.Write(number[..2]);
        }

        var at = 12u + (16u * tables);
        for (var i = 0; i < tables; i++)
        {
            var entry = Header + (i * Entry);
            Write32(font, U32(woff, entry), number);
            Write32(font, U32(woff, entry + 16), number);
            Write32(font, at, number);
            Write32(font, U32(woff, entry + 12), number);
            at += Whole(U32(woff, entry + 12));
        }

        for (var i = 0; i < tables; i++)
        {
            var entry = Header + (i * Entry);
            var (from, packed, length) = ((int)U32(woff, entry + 4), (int)U32(woff, entry + 8), U32(woff, entry + 12));
            var end = font.Position + Whole(length);
            if (packed == length)
            {
                font.Write(woff, from, packed);
            }
            else
            {
                using ZLibStream table = new(new MemoryStream(woff, from, packed), CompressionMode.Decompress);
                table.CopyTo(font);
            }

            font.SetLength(end);
            font.Position = end;
        }

        return font.ToArray();
    }

    // Tables begin at multiples of four.
    private static uint Whole(uint length) => (length + 3) & ~3u;

    private static uint U32(byte[] bytes, int at) => BinaryPrimitives.ReadUInt32BigEndian(bytes.AsSpan(at));

    private static void Write32(MemoryStream to, uint value, Span<byte> number)
    {
        BinaryPrimitives.WriteUInt32BigEndian(number, value);
        to.Write(number);
    }
}
