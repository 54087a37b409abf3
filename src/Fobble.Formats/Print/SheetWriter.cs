using Fobble.Core.Pictures;
using Fobble.Core.Sheets;
using Fobble.Formats.Fonts;
using SkiaSharp;

namespace Fobble.Formats.Print;

/// <summary>Writes sheets as PDF, SVG and PNG, all drawn by the same hand. The same sheet gives the same bytes.</summary>
public static class SheetWriter
{
    private const float Inch = 25.4f;
    private const float PointsPerInch = 72;

    /// <summary>All pages, true to size, with the typeface embedded.</summary>
    public static byte[] Pdf(Sheet sheet, Ink ink)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        using MemoryStream file = new();
        var made = sheet.Made.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
        using (
            var document = SKDocument.CreatePdf(
                file,
                new SKDocumentPdfMetadata
                {
                    Title = sheet.Title,
                    Producer = "Fobble",
                    Creation = made,
                    Modified = made,
                }
            )
        )
        {
            foreach (var page in sheet.Pages)
            {
                const float PointsPerMm = PointsPerInch / Inch;
                using var canvas = document.BeginPage((float)sheet.Paper.Width * PointsPerMm, (float)sheet.Paper.Height * PointsPerMm);
                canvas.Scale(PointsPerMm);
                Draw(canvas, page.Picture, ink, textAsText: true);
                DrawPhotos(canvas, page);
                document.EndPage();
            }

            document.Close();
        }

        return file.ToArray();
    }

    /// <summary>One page, in units of a millimetre. Letters are drawn as outlines, so that it looks the same where the typeface is missing.</summary>
    public static byte[] Svg(SheetPage page, Ink ink)
    {
        ArgumentNullException.ThrowIfNull(page);
        using MemoryStream file = new();
        using (var canvas = SKSvgCanvas.Create(SKRect.Create((float)page.Picture.Width, (float)page.Picture.Height), file))
        {
            Draw(canvas, page.Picture, ink, textAsText: false);
        }

        // Skia says the size in pixels only; with a viewBox it scales, and prints true to size.
        var text = System.Text.Encoding.UTF8.GetString(file.ToArray());
        var (width, height) = (Number(page.Picture.Width), Number(page.Picture.Height));
        var at = text.IndexOf("<svg", StringComparison.Ordinal);
        var end = text.IndexOf('>', at);
        return System.Text.Encoding.UTF8.GetBytes(
            $"{text[..at]}<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" width=\"{width}mm\" height=\"{height}mm\" viewBox=\"0 0 {width} {height}\"><title>{System.Security.SecurityElement.Escape(page.Picture.Description)}</title>{text[(end + 1)..]}"
        );
    }

    /// <summary>One page as a picture on white.</summary>
    /// <param name="dotsPerInch">Its resolution.</param>
    public static byte[] Png(SheetPage page, Ink ink, int dotsPerInch)
    {
        ArgumentNullException.ThrowIfNull(page);
        var scale = dotsPerInch / Inch;
        using var bitmap = new SKBitmap((int)Math.Round(page.Picture.Width * scale), (int)Math.Round(page.Picture.Height * scale));
        using var canvas = new SKCanvas(bitmap);
        canvas.Clear(SKColors.White);
        canvas.Scale(scale);
        Draw(canvas, page.Picture, ink, textAsText: true);
        return bitmap.Encode(SKEncodedImageFormat.Png, 100).ToArray();
    }

    /// <summary>How wide a text is printed, in the unit of its size.</summary>
    public static double WidthOf(string text, double size) => TextRun.Of(text).Sum(run => (double)run.WidthAt((float)size));

    private static void Draw(SKCanvas canvas, Picture picture, Ink ink, bool textAsText)
    {
        foreach (var shape in picture.Shapes)
        {
            var style = PrintStyle.Of(shape.Role, ink);
            if (shape.Kind == ShapeKind.Text)
            {
                DrawText(canvas, shape, style, textAsText);
                continue;
            }

            using var path = PathOf(shape, style.Dashed);
            if (style.Fill is { } fill && shape.Kind is not (ShapeKind.Line or ShapeKind.Trail))
            {
                using SKPaint paint = new() { Color = fill, IsAntialias = true };
                canvas.DrawPath(path, paint);
            }

            if (style.Stroke is { } stroke)
            {
                using SKPaint paint = new()
                {
                    Color = stroke,
                    IsAntialias = true,
                    Style = SKPaintStyle.Stroke,
                    StrokeWidth = style.Width,
                    StrokeCap = SKStrokeCap.Round,
                };
                canvas.DrawPath(path, paint);
                if (style.RingInside && shape.Kind == ShapeKind.Circle)
                {
                    using SKPathBuilder ring = new();
                    AddCircle(ring, (float)shape.X, (float)shape.Y, (float)shape.Width * 0.27f);
                    using var inside = ring.Detach();
                    canvas.DrawPath(inside, paint);
                }
            }
        }
    }

    private static void DrawPhotos(SKCanvas canvas, SheetPage page)
    {
        foreach (var photo in page.Photos)
        {
            using var image = SKImage.FromEncodedData(photo.Jpeg);
            var scale = (float)Math.Min(photo.Width / image.Width, photo.Height / image.Height);
            canvas.DrawImage(
                image,
                SKRect.Create((float)photo.X, (float)photo.Y, image.Width * scale, image.Height * scale),
                new SKSamplingOptions(SKFilterMode.Linear)
            );
        }
    }

    private static SKPath PathOf(Shape shape, bool dashed)
    {
        using SKPathBuilder builder = new();
        var (x, y, width, height) = ((float)shape.X, (float)shape.Y, (float)shape.Width, (float)shape.Height);
        switch (shape.Kind)
        {
            case ShapeKind.Circle:
                AddCircle(builder, x, y, width / 2);
                break;
            case ShapeKind.Box:
                builder.AddRect(SKRect.Create(x, y, width, height));
                break;
            case ShapeKind.Line when dashed:
                AddDashes(builder, x, y, width, height);
                break;
            case ShapeKind.Line:
                builder.MoveTo(x, y);
                builder.LineTo(x + width, y + height);
                break;
            default:
                builder.AddPoly([.. shape.Points.Select(p => new SKPoint((float)p.X, (float)p.Y))], shape.Kind == ShapeKind.Outline);
                break;
        }

        return builder.Detach();
    }

    // Skia's own circles and dashes become hundreds of short curves in a PDF; four curves, and plain strokes, keep a page small.
    private static void AddCircle(SKPathBuilder builder, float x, float y, float radius)
    {
        const float Pull = 0.5522848f;
        var (r, c) = (radius, radius * Pull);
        builder.MoveTo(x + r, y);
        builder.CubicTo(x + r, y + c, x + c, y + r, x, y + r);
        builder.CubicTo(x - c, y + r, x - r, y + c, x - r, y);
        builder.CubicTo(x - r, y - c, x - c, y - r, x, y - r);
        builder.CubicTo(x + c, y - r, x + r, y - c, x + r, y);
        builder.Close();
    }

    private static void AddDashes(SKPathBuilder builder, float x, float y, float width, float height)
    {
        const float Dash = 2;
        const float Step = 3.6f;
        var length = MathF.Sqrt((width * width) + (height * height));
        for (var at = 0f; at < length; at += Step)
        {
            var (from, to) = (at / length, Math.Min(at + Dash, length) / length);
            builder.MoveTo(x + (width * from), y + (height * from));
            builder.LineTo(x + (width * to), y + (height * to));
        }
    }

    private static void DrawText(SKCanvas canvas, Shape shape, PrintStyle style, bool textAsText)
    {
        using SKPaint paint = new() { Color = style.Fill ?? SKColors.Black, IsAntialias = true };

        var (size, runs) = ((float)shape.Height, TextRun.Of(shape.Text!));
        var x = (float)shape.X - (shape.FromLeft ? 0 : runs.Sum(run => run.WidthAt(size)) / 2);

        // The middle of a capital or numeral lies on Y.
        using SKFont usual = new(NameFonts.Usual, size);
        var baseline = (float)shape.Y + (usual.Metrics.CapHeight / 2);
        foreach (var run in runs)
        {
            if (textAsText)
            {
                run.Draw(canvas, x, baseline, size, paint);
            }
            else
            {
                run.DrawOutlines(canvas, x, baseline, size, paint);
            }

            x += run.WidthAt(size);
        }
    }

    private static string Number(double number) => number.ToString(System.Globalization.CultureInfo.InvariantCulture);
}
