using System.Globalization;

namespace Fobble.Core.Sheets;

/// <summary>Answers on pages of their own, for the adult.</summary>
internal static class AnswerKey
{
    private const int LongestInLine = 30;

    /// <summary>The answers of one child, in the order of their page.</summary>
    public sealed record Of(string? Name, IReadOnlyList<string> Answers);

    public static void Fill(PageBuilder pages, IReadOnlyList<Of> answers)
    {
        if (answers.Count == 0)
        {
            return;
        }

        pages.NewPage(isKey: true);
        pages.Text(PageBuilder.Margin, pages.Y + 4, 7, "Answers");
        pages.Y += 12;
        foreach (var child in answers)
        {
            pages.Need(12 + (child.Answers.Count * 4));
            if (child.Name is { } name)
            {
                pages.Text(PageBuilder.Margin, pages.Y + 3, 5, name);
                pages.Y += 6;
            }

            var numbered = child.Answers.Select((a, i) => string.Create(CultureInfo.InvariantCulture, $"{i + 1}) {a}")).ToList();
            if (numbered.Max(a => a.Length) > LongestInLine)
            {
                numbered.ForEach(a => pages.Paragraph(4.2, a));
            }
            else
            {
                // Short ones stand side by side, none broken over two lines.
                pages.Paragraph(4.2, string.Join("   ", numbered.Select(a => a.Replace(' ', '\u00A0'))));
            }

            pages.Y += 3;
        }
    }
}
