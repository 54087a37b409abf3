using Fobble.Core.Pictures;

namespace Fobble.Core.Sheets;

/// <summary>Collects what stands on pages of one sheet, in millimetres from the upper left corner.</summary>
internal sealed class PageBuilder(Paper paper)
{
    /// <summary>Millimetres left free at the sides and the top: what home printers reach.</summary>
    public const double Margin = 14;

    /// <summary>Millimetres left free below, where the foot stands.</summary>
    public const double Bottom = 16;

    /// <summary>Height of a line as a share of its letters.</summary>
    private const double LineHeight = 1.5;

    private readonly List<(List<Shape> Shapes, bool IsKey)> _pages = [];
    private int _placed;

    /// <summary>Between the margins, millimetres.</summary>
    public double Width => paper.Width - (2 * Margin);

    /// <summary>The right margin from the left edge, millimetres.</summary>
    public double Right => paper.Width - Margin;

    /// <summary>The lower margin from the top edge, millimetres.</summary>
    public double Floor => paper.Height - Bottom;

    /// <summary>Where the next thing goes.</summary>
    public double Y { get; set; }

    public bool HasPages => _pages.Count > 0;

    /// <summary>Pages so far.</summary>
    public int Pages => _pages.Count;

    public void NewPage(bool isKey = false)
    {
        _pages.Add(([], isKey));
        Y = Margin;
    }

    /// <summary>Starts a new page unless there is still so much room on this one.</summary>
    public bool Need(double height)
    {
        if (HasPages && Y + height <= Floor)
        {
            return false;
        }

        NewPage(HasPages && _pages[^1].IsKey);
        return true;
    }

    /// <summary>The name line, which comes first on every page that a child works on; the name itself where it is known.</summary>
    public void NameLine(string? name)
    {
        Text(Margin, Y + 4, 5, "Name", ShapeRole.Note);
        Rule(Margin + 16, Y + 7, Margin + 90);
        if (name is not null)
        {
            Text(Margin + 18, Y + 3, 6.5, name);
        }

        Y += 14;
    }

    public void Text(double x, double y, double size, string text, ShapeRole role = ShapeRole.Words) =>
        Add(Shape.TextFrom(NextKey("text"), role, x, y, size, text));

    public void Centred(double x, double y, double size, string text, ShapeRole role = ShapeRole.Words) =>
        Add(Shape.Label(NextKey("text"), role, x, y, size, text));

    /// <summary>Text broken into lines of the page's width, from the current place down.</summary>
    public void Paragraph(double size, string text, double left = Margin, double? width = null)
    {
        foreach (var line in Lines(size, text, left, width))
        {
            Y += size * LineHeight / 2;
            Text(left, Y, size, line);
            Y += size * LineHeight / 2;
        }
    }

    /// <summary>Height that a paragraph would take.</summary>
    public double HeightOf(double size, string text, double left = Margin, double? width = null) => size * LineHeight * Lines(size, text, left, width).Count();

    public void Rule(double x1, double y, double x2) => Add(Shape.Line(NextKey("rule"), ShapeRole.Rule, x1, y, x2, y));

    public void Cut(double x1, double y1, double x2, double y2) => Add(Shape.Line(NextKey("cut"), ShapeRole.Cut, x1, y1, x2, y2));

    public void Add(Shape shape) => _pages[^1].Shapes.Add(shape);

    /// <summary>Puts a picture into a box, as large as it fits, in its middle.</summary>
    public void Fit(Picture picture, double x, double y, double width, double height, double? largest = null)
    {
        var scale = Math.Min(Math.Min(width / picture.Width, height / picture.Height), largest ?? double.PositiveInfinity);
        Place(picture, x + ((width - (picture.Width * scale)) / 2), y + ((height - (picture.Height * scale)) / 2), scale);
    }

    public void Place(Picture picture, double x, double y, double scale)
    {
        _placed++;
        _pages[^1].Shapes.AddRange(picture.Shapes.Select(s => s.Scaled(scale).Moved(x, y, $"p{_placed}-{s.Key}")));
    }

    /// <summary>Cards of one size in rows, with lines to cut between and around them.</summary>
    public void CardGrid(IReadOnlyList<Picture> cards, int columns, double height, double padding = 4)
    {
        var width = Width / columns;
        var row = 0;
        foreach (var line in cards.Chunk(columns))
        {
            if (Need(height))
            {
                row = 0;
            }

            if (row++ == 0)
            {
                Cut(Margin - 4, Y, Right + 4, Y);
            }

            foreach (var (card, column) in line.Select((c, i) => (c, i)))
            {
                Fit(card, Margin + (column * width) + padding, Y + padding, width - (2 * padding), height - (2 * padding));
            }

            for (var edge = 0; edge <= columns; edge++)
            {
                Cut(Margin + (edge * width), Y, Margin + (edge * width), Y + height);
            }

            Y += height;
            Cut(Margin - 4, Y, Right + 4, Y);
        }
    }

    /// <summary>The pages with their footer.</summary>
    public IReadOnlyList<SheetPage> Finished(string footer, string describe) =>
        [
            .. _pages.Select(
                (p, i) =>
                    new SheetPage(
                        new(
                            paper.Width,
                            paper.Height,
                            [
                                .. p.Shapes,
                                Shape.TextFrom("footer", ShapeRole.Note, Margin, paper.Height - 9, 3.2, Phrase($"{footer} · page {i + 1} of {_pages.Count}")),
                            ],
                            Phrase($"{describe}, page {i + 1} of {_pages.Count}")
                        ),
                        p.IsKey
                    )
            ),
        ];

    private string NextKey(string what) => $"{what}-{_pages[^1].Shapes.Count + 1}";

    private IEnumerable<string> Lines(double size, string text, double left, double? width)
    {
        var most = (width ?? (Right - left)) / size;
        var line = "";
        foreach (var word in text.Split(' '))
        {
            var longer = line.Length == 0 ? word : $"{line} {word}";
            if (line.Length > 0 && LetterWidths.Of(longer) > most)
            {
                yield return line;
                longer = word;
            }

            line = longer;
        }

        yield return line;
    }
}
