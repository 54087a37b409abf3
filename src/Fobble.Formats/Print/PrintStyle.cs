using Fobble.Core.Pictures;
using SkiaSharp;

namespace Fobble.Formats.Print;

/// <summary>How much ink a sheet may take.</summary>
public enum Ink
{
    Full,

    /// <summary>Outlines only: the second part is told from the first by a ring inside.</summary>
    Saving,
}

/// <summary>How a role looks on paper: strokes in millimetres; fills that stay apart in greyscale.</summary>
internal sealed record PrintStyle(SKColor? Fill, SKColor? Stroke, float Width, bool Dashed = false, bool RingInside = false)
{
    private static readonly SKColor Black = new(0x1B, 0x24, 0x22);
    private static readonly SKColor Grey = new(0x8A, 0x90, 0x8E);
    private static readonly SKColor Pale = new(0xB9, 0xBF, 0xBD);
    private static readonly SKColor Marigold = new(0xE8, 0xA1, 0x3A);
    private static readonly SKColor InkBlue = new(0x2F, 0x5D, 0x8C);
    private static readonly SKColor Tint = new(0xEC, 0xEE, 0xED);

    public static PrintStyle Of(ShapeRole role, Ink ink)
    {
        var full = ink == Ink.Full;
        return role switch
        {
            ShapeRole.CounterA => new(full ? Marigold : SKColors.White, Black, 0.45f),
            ShapeRole.CounterB => new(full ? InkBlue : SKColors.White, Black, 0.45f, RingInside: !full),
            ShapeRole.Pip => new(Black, null, 0),
            ShapeRole.Cell => new(null, Black, 0.4f),
            ShapeRole.Card => new(null, Black, 0.3f),
            ShapeRole.Part or ShapeRole.Whole => new(SKColors.White, Black, 0.5f),
            ShapeRole.Tray => new(full ? Tint : null, Black, 0.4f),
            ShapeRole.Cover => new(full ? Grey : null, Black, 0.4f),
            ShapeRole.Hand or ShapeRole.Block => new(null, Black, 0.3f),
            ShapeRole.Ring or ShapeRole.Loop or ShapeRole.Cross => new(null, Black, 0.8f),
            ShapeRole.Link or ShapeRole.Hop => new(null, Grey, 0.4f),
            ShapeRole.Rule => new(null, Grey, 0.3f),
            ShapeRole.Cut => new(null, Grey, 0.25f, Dashed: true),
            ShapeRole.Note => new(Grey, null, 0),
            ShapeRole.Trace => new(Pale, null, 0),
            _ => new(Black, null, 0),
        };
    }
}
