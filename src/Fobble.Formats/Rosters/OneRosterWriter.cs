using System.Globalization;
using System.IO.Compression;
using System.Text;
using Fobble.Core.People;
using Fobble.Formats.Csv;

namespace Fobble.Formats.Rosters;

/// <param name="Classes">Keys of the classes the adult belongs to, and whether they lead each.</param>
public sealed record RosterAdult(
    string Key,
    string GivenName,
    string FamilyName,
    string Email,
    bool Teaches,
    IReadOnlyList<(string Class, bool Leads)> Classes
);

/// <param name="Key">How the school is called in the file.</param>
/// <param name="YearBegan">First and last day of the school year.</param>
public sealed record RosterSchool(
    string Key,
    string Name,
    DateOnly YearBegan,
    DateOnly YearEnds,
    IReadOnlyList<(string Name, DateOnly First, DateOnly Last)> Terms,
    OfficeList List,
    IReadOnlyList<RosterAdult> Adults
);

/// <summary>Writes who is in which class as a zip in the form of OneRoster 1.2 (1EdTech, CSV binding). <see cref="OneRosterReader"/> reads it back.</summary>
public static class OneRosterWriter
{
    private const string True = "true";

    /// <param name="today">From this day on the children are in their classes.</param>
    public static byte[] Write(RosterSchool school, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(school);
        using MemoryStream to = new();
        using (ZipArchive zip = new(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            Add(zip, OneRosterFile.Manifest, Manifest());
            Add(zip, OneRosterFile.Orgs, [OneRosterFile.Orgs.Line(("sourcedId", school.Key), ("name", school.Name), ("type", "school"))]);
            Add(zip, OneRosterFile.Sessions, Sessions(school));
            Add(
                zip,
                OneRosterFile.Courses,
                [
                    OneRosterFile.Courses.Line(
                        ("sourcedId", Course(school)),
                        ("schoolYearSourcedId", Year(school)),
                        ("title", school.Name),
                        ("orgSourcedId", school.Key)
                    ),
                ]
            );
            Add(
                zip,
                OneRosterFile.Classes,
                school.List.Classes.Select(c =>
                    OneRosterFile.Classes.Line(
                        ("sourcedId", c.Key),
                        ("title", c.Title),
                        ("courseSourcedId", Course(school)),
                        ("classType", "homeroom"),
                        ("schoolSourcedId", school.Key),
                        ("termSourcedIds", Year(school))
                    )
                )
            );
            Add(zip, OneRosterFile.Users, Users(school));
            Add(
                zip,
                OneRosterFile.Roles,
                [
                    .. school.Adults.Select(a => Role(school, a.Key, a.Teaches ? "teacher" : "aide")),
                    .. school.List.Children.Select(c => Role(school, c.Key, "student")),
                ]
            );
            Add(
                zip,
                OneRosterFile.Enrollments,
                [
                    .. school.Adults.SelectMany(a => a.Classes.Select(c => Enrollment(school, a.Key, c.Class, "teacher", c.Leads))),
                    .. school.List.Children.SelectMany(c => c.Classes.Select((k, i) => Enrollment(school, c.Key, k, "student", i == 0, today))),
                ]
            );
            Add(
                zip,
                OneRosterFile.Demographics,
                school
                    .List.Children.Where(c => c.Born is not null)
                    .Select(c => OneRosterFile.Demographics.Line(("sourcedId", c.Key), ("birthDate", On(c.Born!.Value))))
            );
        }

        return to.ToArray();
    }

    private static string On(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Year(RosterSchool school) => $"{school.Key}-{school.YearBegan.Year}";

    private static string Course(RosterSchool school) => $"{Year(school)}-course";

    private static IEnumerable<IReadOnlyList<string>> Manifest() =>
        [
            ["manifest.version", "1.0"],
            ["oneroster.version", "1.2"],
            .. OneRosterFile
                .Written.Select(f => (Name: f.Name, Is: "bulk"))
                .Concat(OneRosterFile.Absent.Select(f => (Name: f, Is: "absent")))
                .OrderBy(f => f.Name, StringComparer.Ordinal)
                .Select(f => (IReadOnlyList<string>)[$"file.{f.Name}", f.Is]),
            ["source.systemName", "Fobble"],
            ["source.systemCode", "fobble"],
        ];

    private static IEnumerable<IReadOnlyList<string>> Sessions(RosterSchool school)
    {
        IReadOnlyList<string> Of(string id, string title, string type, DateOnly first, DateOnly last, string parent) =>
            OneRosterFile.Sessions.Line(
                ("sourcedId", id),
                ("title", title),
                ("type", type),
                ("startDate", On(first)),
                ("endDate", On(last)),
                ("parentSourcedId", parent),
                ("schoolYear", school.YearEnds.Year.ToString(CultureInfo.InvariantCulture))
            );
        return
        [
            Of(Year(school), $"{school.YearBegan.Year}–{school.YearEnds.Year}", "schoolYear", school.YearBegan, school.YearEnds, ""),
            .. school.Terms.Select((t, i) => Of($"{Year(school)}-{i + 1}", t.Name, "term", t.First, t.Last, Year(school))),
        ];
    }

    private static IEnumerable<IReadOnlyList<string>> Users(RosterSchool school) =>
        [
            .. school.Adults.Select(a => User(school, a.Key, a.GivenName, a.FamilyName, a.Email)),
            .. school.List.Children.Select(c => User(school, c.Key, c.GivenName, c.FamilyName, "")),
        ];

    private static IReadOnlyList<string> User(RosterSchool school, string key, string given, string family, string email) =>
        OneRosterFile.Users.Line(
            ("sourcedId", key),
            ("enabledUser", True),
            ("username", email.Length > 0 ? email : key),
            ("givenName", given),
            ("familyName", family),
            ("email", email),
            ("primaryOrgSourcedId", school.Key)
        );

    private static IReadOnlyList<string> Role(RosterSchool school, string user, string role) =>
        OneRosterFile.Roles.Line(
            ("sourcedId", $"{user}-role"),
            ("userSourcedId", user),
            ("roleType", "primary"),
            ("role", role),
            ("beginDate", On(school.YearBegan)),
            ("endDate", On(school.YearEnds)),
            ("orgSourcedId", school.Key)
        );

    private static IReadOnlyList<string> Enrollment(RosterSchool school, string user, string room, string role, bool primary, DateOnly? from = null) =>
        OneRosterFile.Enrollments.Line(
            ("sourcedId", $"{user}-in-{room}"),
            ("classSourcedId", room),
            ("schoolSourcedId", school.Key),
            ("userSourcedId", user),
            ("role", role),
            ("primary", primary ? True : "false"),
            ("beginDate", from is { } day ? On(day) : ""),
            ("endDate", "")
        );

    private static void Add(ZipArchive zip, OneRosterFile file, IEnumerable<IReadOnlyList<string>> lines)
    {
        using var to = zip.CreateEntry(file.FileName, CompressionLevel.Optimal).Open();
        to.Write(Encoding.UTF8.GetBytes(CsvTable.Write([file.Columns, .. lines])));
    }
}
