using System.Text;
using Fobble.Core.People;
using Fobble.Formats.Fonts;
using SkiaSharp;
using SkiaSharp.HarfBuzz;

namespace Fobble.Formats.Print;

/// <summary>A part of a line in one typeface, from left to right as it stands on paper.</summary>
/// <param name="Shaped">Its letters join, stack or run from right to left: where each goes is worked out.</param>
internal sealed record TextRun(string Text, SKTypeface Face, bool Shaped)
{
    // For what no font has; the class list asks before it comes to that.
    private const string Unknown = "·";

    /// <summary>A line in its runs. What the usual typeface has is one run, as it was written.</summary>
    public static IReadOnlyList<TextRun> Of(string line)
    {
        if (NameFonts.HasAll(NameFonts.Usual, line))
        {
            return [new(line, NameFonts.Usual, false)];
        }

        List<TextRun> runs = [];
        foreach (var (part, isolated) in Parts(line.Normalize()))
        {
            var letters = NameFonts.Letters(part).ToList();
            if (isolated && letters.Any(IsRightToLeft))
            {
                runs.AddRange(Backwards(letters));
                continue;
            }

            // Outside of names: from the first letter that runs the other way to the last before one that does not.
            var at = 0;
            while (at < letters.Count)
            {
                var back = IsRightToLeft(letters[at]);
                var end = at + 1;
                for (var next = end; next < letters.Count && (back ? !IsLeftToRight(letters[next]) : !IsRightToLeft(letters[next])); next++)
                {
                    end = !back || IsRightToLeft(letters[next]) ? next + 1 : end;
                }

                runs.AddRange(back ? Backwards(letters[at..end]) : Runs(letters[at..end]));
                at = end;
            }
        }

        return runs;
    }

    /// <summary>How wide it is printed, in the unit of the size.</summary>
    public float WidthAt(float size)
    {
        using var font = FontAt(size);
        return Shaped ? Shape(font).Width : font.MeasureText(Text);
    }

    /// <summary>Draws it as letters that can be searched and copied.</summary>
    /// <param name="x">Of its left edge.</param>
    /// <param name="y">Of its base line.</param>
    public void Draw(SKCanvas canvas, float x, float y, float size, SKPaint paint)
    {
        using var font = FontAt(size);
        if (!Shaped)
        {
            canvas.DrawText(Text, x, y, SKTextAlign.Left, font, paint);
            return;
        }

        var shape = Shape(font);
        var text = Encoding.UTF8.GetBytes(Text);
        using SKTextBlobBuilder builder = new();
        var run = builder.AllocatePositionedTextRun(font, shape.Codepoints.Length, text.Length);
        run.SetGlyphs([.. shape.Codepoints.Select(g => (ushort)g)]);
        run.SetPositions(shape.Points);
        run.SetText(text);
        run.SetClusters(shape.Clusters);
        using var blob = builder.Build();
        if (blob is not null)
        {
            canvas.DrawText(blob, x, y, paint);
        }
    }

    /// <summary>Draws it as outlines, which need no typeface where they are shown.</summary>
    public void DrawOutlines(SKCanvas canvas, float x, float y, float size, SKPaint paint)
    {
        using var font = FontAt(size);
        if (!Shaped)
        {
            using var outlines = font.GetTextPath(Text, new SKPoint(x, y));
            canvas.DrawPath(outlines, paint);
            return;
        }

        var shape = Shape(font);
        for (var i = 0; i < shape.Codepoints.Length; i++)
        {
            using var outline = font.GetGlyphPath((ushort)shape.Codepoints[i]);
            if (outline is not null)
            {
                using var moved = new SKPath(outline);
                moved.Transform(SKMatrix.CreateTranslation(x + shape.Points[i].X, y + shape.Points[i].Y));
                canvas.DrawPath(moved, paint);
            }
        }
    }

    private SKShaper.Result Shape(SKFont font)
    {
        using SKShaper shaper = new(Face);
        return shaper.Shape(Text, font);
    }

    private SKFont FontAt(float size) => new(Face, size) { Subpixel = true, LinearMetrics = true };

    private static IEnumerable<(string Part, bool Isolated)> Parts(string line)
    {
        foreach (var (piece, at) in line.Split(Direction.Isolate).Select((p, i) => (p, i)))
        {
            var end = piece.IndexOf(Direction.EndOfIsolate, StringComparison.Ordinal);
            var (inside, after) = end < 0 ? (piece, "") : (piece[..end], piece[(end + 1)..].Replace($"{Direction.EndOfIsolate}", "", StringComparison.Ordinal));
            if (inside.Length > 0)
            {
                yield return (inside, at > 0 || end >= 0);
            }

            if (after.Length > 0)
            {
                yield return (after, false);
            }
        }
    }

    private static IEnumerable<TextRun> Backwards(List<string> letters) => Runs(letters).AsEnumerable().Reverse();

    private static List<TextRun> Runs(List<string> letters)
    {
        List<TextRun> runs = [];
        foreach (var letter in letters)
        {
            var face = NameFonts.FaceFor(letter);
            var text = face is null ? Unknown : letter;
            face ??= NameFonts.Usual;
            if (runs.Count > 0 && ReferenceEquals(runs[^1].Face, face))
            {
                runs[^1] = runs[^1] with { Text = runs[^1].Text + text };
            }
            else
            {
                runs.Add(new(text, face, !ReferenceEquals(face, NameFonts.Usual)));
            }
        }

        return runs;
    }

    private static bool IsRightToLeft(string letter) => Direction.IsRightToLeft(letter.EnumerateRunes().First());

    private static bool IsLeftToRight(string letter) => !IsRightToLeft(letter) && Rune.IsLetterOrDigit(letter.EnumerateRunes().First());
}
