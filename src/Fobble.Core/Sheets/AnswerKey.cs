using System.Globalization;

namespace Fobble.Core.Sheets;

/// <summary>Answers on pages of their own, for the adult.</summary>
internal static class AnswerKey
{
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
            pages.Need(16);
            if (child.Name is { } name)
            {
                pages.Text(PageBuilder.Margin, pages.Y + 3, 5, name);
                pages.Y += 6;
            }

            pages.Paragraph(4.2, string.Join("   ", child.Answers.Select((a, i) => string.Create(CultureInfo.InvariantCulture, $"{i + 1})\u00A0{a.Replace(' ', '\u00A0')}"))));
            pages.Y += 3;
        }
    }
}
