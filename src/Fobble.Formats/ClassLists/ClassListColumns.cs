namespace Fobble.Formats.ClassLists;

/// <summary>Finds the columns by their headings, whatever their order and however they are usually called.</summary>
internal sealed record ClassListColumns(int? Given, int? Family, int? Full, int? Born, int? Mark, IReadOnlyList<string> Headings)
{
    private static readonly string[] GivenNames =
    [
        "given name",
        "given",
        "first name",
        "firstname",
        "first",
        "forename",
        "forenames",
        "preferred name",
        "known as",
        "vorname",
        "prénom",
        "nombre",
        "fornavn",
    ];
    private static readonly string[] FamilyNames =
    [
        "family name",
        "family",
        "last name",
        "lastname",
        "last",
        "surname",
        "nachname",
        "nom",
        "apellidos",
        "apellido",
        "etternavn",
    ];
    private static readonly string[] FullNames = ["name", "full name", "child", "pupil", "student", "child name", "pupil name", "student name"];
    private static readonly string[] BirthDates =
    [
        "date of birth",
        "dob",
        "birth date",
        "birthdate",
        "birthday",
        "born",
        "geburtsdatum",
        "date de naissance",
        "fecha de nacimiento",
    ];

    private static readonly string[] Marks = ["mark", "short mark", "tell apart by"];

    public static string Usual => Phrase("“First name” and “Last name”, or “Name”");

    public bool HasNames => Given is not null || Full is not null;

    public static ClassListColumns Find(IReadOnlyList<string> headings)
    {
        int? At(string[] synonyms)
        {
            var index = headings.ToList().FindIndex(h => synonyms.Contains(Plain(h)));
            return index < 0 ? null : index;
        }

        return new ClassListColumns(At(GivenNames), At(FamilyNames), At(FullNames), At(BirthDates), At(Marks), headings);
    }

    public string? Heading(int? column) => column is { } index ? Headings[index] : null;

    private static string Plain(string heading) =>
        string.Join(' ', heading.ToLowerInvariant().Replace('_', ' ').Replace('-', ' ').Replace('’', ' ').Split(' ', StringSplitOptions.RemoveEmptyEntries));
}
