using SkiaSharp;

namespace Fobble.Formats.Print;

/// <summary>A photo drawn anew: upright, at most 1280 pixels long, as JPEG, and with nothing in the file but the picture.</summary>
public static class PhotoCopy
{
    private const int Longest = 1280;
    private const int Quality = 82;

    // Cameras of tablets have 8 to 12 million. What a file says of itself is asked before a single one is drawn: 54 bytes can claim 60 million.
    private const long MostPixels = 25_000_000;
    private const int MostPixelsAByte = 1_000;
    private static readonly SKEncodedImageFormat[] Kinds = [SKEncodedImageFormat.Jpeg, SKEncodedImageFormat.Png, SKEncodedImageFormat.Webp];

    /// <returns>Null where the file is no picture that can be read, or larger than any that a tablet takes.</returns>
    public static byte[]? Of(byte[] file)
    {
        ArgumentNullException.ThrowIfNull(file);
        using var codec = SKCodec.Create(new MemoryStream(file));
        if (codec is null || !Kinds.Contains(codec.EncodedFormat) || codec.Info.Width < 1 || codec.Info.Height < 1)
        {
            return null;
        }

        if ((long)codec.Info.Width * codec.Info.Height > Math.Min(MostPixels, (long)file.Length * MostPixelsAByte))
        {
            return null;
        }

        using var bitmap = SKBitmap.Decode(codec);
        if (bitmap is null)
        {
            return null;
        }

        // Cameras lay the picture as they were held and say so in the metadata, which does not come along.
        var turned = codec.EncodedOrigin is SKEncodedOrigin.RightTop or SKEncodedOrigin.LeftBottom;
        var (width, height) = turned ? (bitmap.Height, bitmap.Width) : (bitmap.Width, bitmap.Height);
        var scale = Math.Min(1f, (float)Longest / Math.Max(width, height));
        using var surface = SKSurface.Create(
            new SKImageInfo(Math.Max(1, (int)(width * scale)), Math.Max(1, (int)(height * scale)), SKColorType.Rgba8888, SKAlphaType.Opaque)
        );
        var canvas = surface.Canvas;
        canvas.Clear(SKColors.White);
        canvas.Scale(scale);
        switch (codec.EncodedOrigin)
        {
            case SKEncodedOrigin.RightTop:
                canvas.Translate(width, 0);
                canvas.RotateDegrees(90);
                break;
            case SKEncodedOrigin.LeftBottom:
                canvas.Translate(0, height);
                canvas.RotateDegrees(-90);
                break;
            case SKEncodedOrigin.BottomRight:
                canvas.Translate(width, height);
                canvas.RotateDegrees(180);
                break;
        }

        using var image = SKImage.FromBitmap(bitmap);
        canvas.DrawImage(image, 0, 0, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        using var copy = surface.Snapshot();
        using var data = copy.Encode(SKEncodedImageFormat.Jpeg, Quality);
        return data.ToArray();
    }
}
