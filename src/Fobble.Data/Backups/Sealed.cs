using System.Buffers.Binary;
using System.Security.Cryptography;
using System.Text;

namespace Fobble.Data.Backups;

/// <summary>
/// A file that only whoever has the passphrase can read, and nobody can change unseen: pieces of 64 kB under AES-256-GCM, each with its number and whether it is the last
/// one in its nonce (STREAM; Hoang, Reyhanitabar, Rogaway &amp; Vizár 2015), the key from the passphrase by PBKDF2 with SHA-256.
/// </summary>
public static class Sealed
{
    internal const int Piece = 65_536;
    internal const int TagBytes = 16;
    private const int SaltBytes = 16;
    private const int PrefixBytes = 7;
    private const int NonceBytes = PrefixBytes + 4 + 1;

    // As OWASP's cheat sheet on storing passwords asks for PBKDF2 with SHA-256 (2023).
    private const int Rounds = 600_000;
    private const int MostRounds = 10_000_000;
    private static readonly byte[] Magic = Encoding.ASCII.GetBytes("FOBBLE-SEALED-1\n");

    internal static int HeaderBytes => Magic.Length + SaltBytes + 4 + PrefixBytes;

    /// <summary>What is written there is sealed in <paramref name="to"/>; whole only once it is disposed of.</summary>
    public static Stream Write(Stream to, string passphrase)
    {
        ArgumentNullException.ThrowIfNull(to);
        var header = new byte[HeaderBytes];
        Magic.CopyTo(header, 0);
        RandomNumberGenerator.Fill(header.AsSpan(Magic.Length, SaltBytes));
        BinaryPrimitives.WriteInt32LittleEndian(header.AsSpan(Magic.Length + SaltBytes), Rounds);
        RandomNumberGenerator.Fill(header.AsSpan(Magic.Length + SaltBytes + 4));
        to.Write(header);
        return new SealingStream(to, new(KeyOf(header, passphrase), TagBytes), header);
    }

    /// <summary>What stands sealed in a file. It is read to its end, or it is not known to be whole.</summary>
    /// <exception cref="NotWholeException">The passphrase is another one, or the file was changed or cut; also while it is read.</exception>
    public static Stream Read(Stream from, string passphrase)
    {
        ArgumentNullException.ThrowIfNull(from);
        var header = new byte[HeaderBytes];
        if (from.ReadAtLeast(header, header.Length, throwOnEndOfStream: false) < header.Length || !header.AsSpan(0, Magic.Length).SequenceEqual(Magic))
        {
            throw new NotWholeException(Phrase("This is no backup of Fobble."));
        }

        return new OpeningStream(from, new(KeyOf(header, passphrase), TagBytes), header);
    }

    private static byte[] KeyOf(byte[] header, string passphrase)
    {
        var rounds = BinaryPrimitives.ReadInt32LittleEndian(header.AsSpan(Magic.Length + SaltBytes));
        return rounds is > 0 and <= MostRounds
            ? Rfc2898DeriveBytes.Pbkdf2(passphrase, header.AsSpan(Magic.Length, SaltBytes), rounds, HashAlgorithmName.SHA256, 32)
            : throw new NotWholeException(Phrase("This is no backup of Fobble."));
    }

    internal static byte[] Nonce(byte[] header, uint piece, bool last)
    {
        var nonce = new byte[NonceBytes];
        header.AsSpan(HeaderBytes - PrefixBytes).CopyTo(nonce);
        BinaryPrimitives.WriteUInt32BigEndian(nonce.AsSpan(PrefixBytes), piece);
        nonce[^1] = last ? (byte)1 : (byte)0;
        return nonce;
    }
}

/// <summary>Gathers pieces and seals each; the last one when it is disposed of.</summary>
internal sealed class SealingStream(Stream to, AesGcm key, byte[] header) : OneWayStream
{
    private readonly byte[] _piece = new byte[Sealed.Piece];
    private readonly byte[] _sealed = new byte[Sealed.Piece + Sealed.TagBytes];
    private int _filled;
    private uint _number;
    private bool _over;

    public override bool CanWrite => true;

    public override void Write(byte[] buffer, int offset, int count) => Write(buffer.AsSpan(offset, count));

    public override void Write(ReadOnlySpan<byte> buffer)
    {
        while (buffer.Length > 0)
        {
            // A full one is sealed once more follows: it could have been the last.
            if (_filled == _piece.Length)
            {
                Seal(last: false);
            }

            var part = Math.Min(buffer.Length, _piece.Length - _filled);
            buffer[..part].CopyTo(_piece.AsSpan(_filled));
            _filled += part;
            buffer = buffer[part..];
        }
    }

    protected override void Dispose(bool disposing)
    {
        if (disposing && !_over)
        {
            _over = true;
            Seal(last: true);
            key.Dispose();
            CryptographicOperations.ZeroMemory(_piece);
        }

        base.Dispose(disposing);
    }

    private void Seal(bool last)
    {
        key.Encrypt(
            Sealed.Nonce(header, checked(_number++), last),
            _piece.AsSpan(0, _filled),
            _sealed.AsSpan(0, _filled),
            _sealed.AsSpan(_filled, Sealed.TagBytes),
            header
        );
        to.Write(_sealed, 0, _filled + Sealed.TagBytes);
        _filled = 0;
    }
}

/// <summary>Opens piece after piece.</summary>
internal sealed class OpeningStream(Stream from, AesGcm key, byte[] header) : OneWayStream
{
    private readonly byte[] _piece = new byte[Sealed.Piece];

    // A piece, and one byte of the next: without it there is none, and this is the last.
    private readonly byte[] _sealed = new byte[Sealed.Piece + Sealed.TagBytes + 1];
    private int _held;
    private int _at;
    private int _filled;
    private uint _number;
    private bool _last;

    public override bool CanRead => true;

    public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

    public override int Read(Span<byte> buffer)
    {
        while (_at == _filled)
        {
            if (_last)
            {
                return 0;
            }

            Open();
        }

        var part = Math.Min(buffer.Length, _filled - _at);
        _piece.AsSpan(_at, part).CopyTo(buffer);
        _at += part;
        return part;
    }

    protected override void Dispose(bool disposing)
    {
        if (disposing)
        {
            key.Dispose();
            CryptographicOperations.ZeroMemory(_piece);
        }

        base.Dispose(disposing);
    }

    private void Open()
    {
        _held += from.ReadAtLeast(_sealed.AsSpan(_held), _sealed.Length - _held, throwOnEndOfStream: false);
        _last = _held < _sealed.Length;
        var all = _last ? _held : _held - 1;
        try
        {
            if (all < Sealed.TagBytes)
            {
                throw new CryptographicException();
            }

            _filled = all - Sealed.TagBytes;
            key.Decrypt(
                Sealed.Nonce(header, checked(_number++), _last),
                _sealed.AsSpan(0, _filled),
                _sealed.AsSpan(_filled, Sealed.TagBytes),
                _piece.AsSpan(0, _filled),
                header
            );
        }
        catch (CryptographicException fault)
        {
            throw new NotWholeException(
                _number == 1 ? Phrase("The passphrase is another one, or the backup was changed.") : Phrase("The backup was changed, or is cut off."),
                fault
            );
        }

        _at = 0;
        _sealed[0] = _sealed[^1];
        _held = _last ? 0 : 1;
    }
}

/// <summary>Read or written from its beginning to its end.</summary>
internal abstract class OneWayStream : Stream
{
    public override bool CanRead => false;

    public override bool CanSeek => false;

    public override bool CanWrite => false;

    public override long Length => throw new NotSupportedException();

    public override long Position
    {
        get => throw new NotSupportedException();
        set => throw new NotSupportedException();
    }

    public override void Flush() { }

    public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
}
