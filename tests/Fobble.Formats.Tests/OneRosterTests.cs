using System.IO.Compression;
using System.Text;
using CsCheck;
using Fobble.Core.People;
using Fobble.Formats.Csv;
using Fobble.Formats.Rosters;

namespace Fobble.Formats.Tests;

/// <summary>OneRoster 1.2, CSV binding (1EdTech): file names, headings and words of the manifest from memory.</summary>
public class OneRosterTests
{
    private static readonly DateOnly Today = new(2026, 12, 1);

    // As a school's program might write it: in another order, with columns of its own, in a folder, and with much that is nobody's business here.
    private static Dictionary<string, string> Plain() =>
        new()
        {
            ["manifest"] = "propertyName,value\nmanifest.version,1.0\noneroster.version,1.2\nfile.users,bulk\nfile.results,delta\n",
            ["orgs"] = "sourcedId,status,dateLastModified,name,type,identifier,parentSourcedId\no1,,,Kettle Lane,school,,\n",
            ["academicSessions"] =
                "sourcedId,status,dateLastModified,title,type,startDate,endDate,parentSourcedId,schoolYear\n"
                + "y1,,,Year,schoolYear,2026-09-01,2027-07-20,,2027\nt1,,,Autumn,term,2026-09-01,2026-11-20,y1,2027\n"
                + "y0,,,Year before,schoolYear,2025-09-01,2026-07-20,,2026\n",
            ["classes"] =
                "\"title\",\"sourcedId\",\"schoolSourcedId\",\"termSourcedIds\",\"metadata.room\"\nWillow,k1,o1,\"t1,y1\",4\nHazel,k2,o1,t1,5\nOld Willow,k0,o1,y0,4\nWhenever,k3,o1,,\n",
            ["users"] =
                "sourcedId,enabledUser,givenName,familyName,preferredGivenName,preferredFamilyName,email\n"
                + "c1,true,Amina,Yusuf,,,\nc2,true,Bartholomew,\"Castellan, jr\",Bart,,\nc3,true,Chidi,Obiora,,Eze,\na1,true,Rosalind,Achterberg,,,r@kettle-lane.example\n",
            ["enrollments"] =
                "sourcedId,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate\n"
                + "e1,k3,o1,c1,student,false,,\ne2,k1,o1,c1,student,true,2026-09-01,\ne3,k2,o1,c2,student,,2026-09-01,2026-12-01\n"
                + "e4,k1,o1,c2,student,,2026-12-02,\ne5,k0,o1,c3,student,,,\ne6,k1,o1,a1,teacher,true,,\ne7,k1,o1,c3,Student,,,\n",
            ["demographics"] = "sourcedId,birthDate\nc1,2021-11-03\nc2,2021-09-17T00:00:00.000Z\nc3,\n",
        };

    private static byte[] Zip(Dictionary<string, string> files, string folder = "")
    {
        using MemoryStream to = new();
        using (ZipArchive zip = new(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, text) in files)
            {
                using var entry = zip.CreateEntry($"{folder}{name}.csv").Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }
        }

        return to.ToArray();
    }

    private static RosterReading Read(Action<Dictionary<string, string>> otherwise)
    {
        var files = Plain();
        otherwise(files);
        return OneRosterReader.Read(Zip(files), Today);
    }

    [Theory]
    [InlineData("")]
    [InlineData("export/")]
    public void Who_is_in_which_class_today_is_read_and_nothing_else(string folder)
    {
        var reading = OneRosterReader.Read(Zip(Plain(), folder), Today);
        reading.Faults.ShouldBeEmpty();

        // The term is over and its year is not; a year that is over has taken its class along; a class of no term is of any time.
        reading.List.Classes.ShouldBe([new("k1", "Willow"), new("k2", "Hazel"), new("k3", "Whenever")]);
        reading
            .List.Children.Select(c => (c.Key, c.GivenName, c.FamilyName, c.Born, string.Join(' ', c.Classes)))
            .ShouldBe([
                ("c1", "Amina", "Yusuf", new(2021, 11, 3), "k1 k3"),
                ("c2", "Bart", "Castellan, jr", new(2021, 9, 17), "k2"),
                ("c3", "Chidi", "Eze", null, "k1"),
            ]);
        OneRosterReader.Read(Zip(Plain()), Today.AddDays(1)).List.Children.Single(c => c.Key == "c2").Classes.ShouldBe(["k1"]);
    }

    [Fact]
    public void A_list_without_days_of_birth_is_one_and_classes_of_several_schools_say_whose_they_are()
    {
        Read(f => f.Remove("demographics")).List.Children.ShouldAllBe(c => c.Born == null);
        Read(f =>
        {
            f["orgs"] += "o2,,,Mill Road,school,,\n";
            f["classes"] += "Hazel,k4,o2,y1,\n";
        })
            .List.Classes.Select(c => c.Title)
            .ShouldBe(["Willow (Kettle Lane)", "Hazel (Kettle Lane)", "Whenever (Kettle Lane)", "Hazel (Mill Road)"]);
    }

    [Theory]
    [InlineData("users", "c3,true", "c1,true", "users.csv", 4, "sourcedId", "The key “c1” is on line 2 already.")]
    [InlineData("users", "c3,true", ",true", "users.csv", 4, "sourcedId", "This line has no key.")]
    [InlineData("users", ",Amina,", ",,", "users.csv", 2, "givenName", "The first name is missing.")]
    [InlineData("users", "givenName", "vorname", "users.csv", 1, "givenName", "There is no column “givenName”.")]
    [InlineData("classes", ",o1,\"t1", ",o7,\"t1", "classes.csv", 2, "schoolSourcedId", "“o7” is in no line of orgs.csv.")]
    [InlineData("classes", "t1,y1", "t1,y7", "classes.csv", 2, "termSourcedIds", "“y7” is in no line of academicSessions.csv.")]
    [InlineData("classes", "Willow,k1", ",k1", "classes.csv", 2, "title", "The class has no name.")]
    [InlineData("enrollments", "e5,k0", "e5,k8", "enrollments.csv", 6, "classSourcedId", "“k8” is in no line of classes.csv.")]
    [InlineData("enrollments", ",c2,student,,2026-12-02", ",c8,student,,2026-12-02", "enrollments.csv", 5, "userSourcedId", "“c8” is in no line of users.csv.")]
    [InlineData("enrollments", "2026-12-02", "2.12.2026", "enrollments.csv", 5, "beginDate", "“2.12.2026” is no day in the form 2026-11-25.")]
    [InlineData("demographics", "2021-11-03", "03/11/2021", "demographics.csv", 2, "birthDate", "“03/11/2021” is no day in the form 2026-11-25.")]
    [InlineData(
        "manifest",
        "file.users,bulk",
        "file.users,delta",
        "manifest.csv",
        4,
        "value",
        "users holds changes only. Ask for all of it each time (“bulk”): it is compared here."
    )]
    [InlineData("manifest", "version,1.2", "version,2.0", "manifest.csv", 3, "value", "This is OneRoster 2.0; 1.1 and 1.2 can be read here.")]
    public void What_is_wrong_says_where_and_why(string file, string old, string now, string inFile, int row, string column, string reason)
    {
        var reading = Read(f =>
        {
            f[file].ShouldContain(old);
            f[file] = f[file].Replace(old, now, StringComparison.Ordinal);
        });
        reading.CanBeTaken.ShouldBeFalse();
        reading.List.Children.ShouldBeEmpty();
        reading.Faults.ShouldContain(new RosterFault(inFile, row, column, reason));
    }

    [Theory]
    [InlineData("manifest")]
    [InlineData("orgs")]
    [InlineData("academicSessions")]
    [InlineData("classes")]
    [InlineData("users")]
    [InlineData("enrollments")]
    public void Each_file_is_missed(string file) => Read(f => f.Remove(file)).Faults.ShouldHaveSingleItem().Reason.ShouldStartWith($"{file}.csv is missing");

    [Fact]
    public void Lines_that_are_to_go_do_not_count() =>
        Read(f =>
            f["enrollments"] = f["enrollments"]
                .Replace("classSourcedId", "status,classSourcedId")
                .Replace(",k1,o1,c1", ",tobedeleted,k1,o1,c1")
                .Replace(",k0", ",,k0")
                .Replace(",k2", ",,k2")
                .Replace(",k3", ",,k3")
                .Replace("e4,k1", "e4,,k1")
                .Replace("e6,k1", "e6,,k1")
                .Replace("e7,k1", "e7,,k1")
        )
            .List.Children.Single(c => c.Key == "c1")
            .Classes.ShouldBe(["k3"]);

    [Fact]
    public void Sessions_that_are_each_other_s_parents_end() =>
        Read(f => f["academicSessions"] = f["academicSessions"].Replace("2027-07-20,,2027", "2027-07-20,t1,2027", StringComparison.Ordinal))
            .CanBeTaken.ShouldBeTrue();

    // Cut anywhere, or with a byte turned over: read, or refused with a reason, and never anything else.
    [Fact]
    public void A_file_that_was_damaged_is_refused_or_read()
    {
        var whole = Zip(Plain());
        for (var end = 0; end < whole.Length; end += 7)
        {
            OneRosterReader.Read(whole[..end], Today).CanBeTaken.ShouldBeFalse($"{end} bytes");
        }

        Gen.Select(Gen.Int[0, whole.Length - 1], Gen.Byte)
            .Sample(turned =>
            {
                var (at, by) = turned;
                var damaged = whole.ToArray();
                damaged[at] ^= by;
                var reading = OneRosterReader.Read(damaged, Today);
                (reading.CanBeTaken || reading.Faults.All(f => f.Reason.Length > 0)).ShouldBeTrue();
            });
    }

    [Fact]
    public void A_zip_that_unpacks_to_a_disk_full_is_refused()
    {
        using MemoryStream to = new();
        using (ZipArchive zip = new(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            using var entry = zip.CreateEntry("users.csv").Open();
            var zeros = new byte[1_000_000];
            for (var i = 0; i < 70; i++)
            {
                entry.Write(zeros);
            }
        }

        to.Length.ShouldBeLessThan(200_000);
        OneRosterReader.Read(to.ToArray(), Today).Faults.ShouldContain(f => f.File == "users.csv" && f.Reason == "Unpacked, the files are larger than 60 MB.");
    }

    private static readonly Gen<string> Name = Gen.String[Gen.Char["ab ,\"';=é–Ю@"], 1, 9].Select(s => $"A{s.Trim()}");

    private static RosterSchool SchoolOf((string Given, string Family, bool Born)[] children) =>
        new(
            "o",
            "Kettle Lane, \"the\" School",
            new(2026, 9, 1),
            new(2027, 7, 20),
            [("Autumn", new(2026, 9, 1), new(2026, 12, 18))],
            new(
                [new("k1", "Willow"), new("k2", "=Hazel")],
                [
                    .. children.Select(
                        (c, i) => new OfficeChild($"c{i}", c.Given, c.Family, c.Born ? new DateOnly(2021, 1, 1).AddDays(i) : null, [i % 2 == 0 ? "k1" : "k2"])
                    ),
                ]
            ),
            [new("a1", "Rosalind", "Achterberg", "r@kettle-lane.example", true, [("k1", true), ("k2", false)])]
        );

    [Fact]
    public void What_is_written_is_read_back() =>
        Gen.Select(Name, Name, Gen.Bool)
            .Array[1, 6]
            .Sample(children =>
            {
                var school = SchoolOf(children);
                var reading = OneRosterReader.Read(OneRosterWriter.Write(school, Today), Today);
                reading.Faults.ShouldBeEmpty();
                reading.List.Classes.ShouldBe(school.List.Classes);
                reading
                    .List.Children.Select(c => (c.Key, c.GivenName, c.FamilyName, c.Born, string.Join(' ', c.Classes)))
                    .ShouldBe(school.List.Children.Select(c => (c.Key, c.GivenName, c.FamilyName, c.Born, string.Join(' ', c.Classes))), ignoreOrder: true);
            });

    [Fact]
    public void What_is_written_has_the_files_and_references_that_the_standard_asks_for()
    {
        using ZipArchive zip = new(new MemoryStream(OneRosterWriter.Write(SchoolOf([("Ada", "Okafor", true), ("Bo", "Lund", false)]), Today)));
        var tables = zip.Entries.ToDictionary(
            e => e.Name,
            e =>
            {
                using MemoryStream bytes = new();
                using var from = e.Open();
                from.CopyTo(bytes);
                return CsvTable.Read(bytes.ToArray());
            }
        );
        var manifest = tables["manifest.csv"].Rows.Skip(1).ToDictionary(r => r.Fields[0], r => r.Fields[1]);
        manifest["manifest.version"].ShouldBe("1.0");
        manifest["oneroster.version"].ShouldBe("1.2");
        var files = manifest.Where(m => m.Key.StartsWith("file.", StringComparison.Ordinal)).ToList();
        files.Count.ShouldBe(21, "each file of the standard is spoken of");
        files.Where(f => f.Value == "bulk").Select(f => $"{f.Key[5..]}.csv").ShouldBe(tables.Keys.Where(k => k != "manifest.csv"), ignoreOrder: true);
        files.Where(f => f.Value != "bulk").ShouldAllBe(f => f.Value == "absent");

        HashSet<string> Ids(string file) => [.. tables[file].Rows.Skip(1).Select(r => r.Fields[0])];
        void Refers(string file, string column, string to)
        {
            var there = Ids(to);
            tables[file]
                .Rows.Skip(1)
                .Select(r => tables[file].Field(r, column))
                .Where(v => v.Length > 0 && !there.Contains(v))
                .ShouldBeEmpty($"{file} {column}");
        }

        foreach (var (file, table) in tables.Where(t => t.Key != "manifest.csv"))
        {
            table.Rows[0].Fields.Take(3).ShouldBe(["sourcedId", "status", "dateLastModified"]);
            Ids(file).Count.ShouldBe(table.Rows.Count - 1, "keys are used once");
        }

        Refers("classes.csv", "courseSourcedId", "courses.csv");
        Refers("classes.csv", "schoolSourcedId", "orgs.csv");
        Refers("classes.csv", "termSourcedIds", "academicSessions.csv");
        Refers("courses.csv", "orgSourcedId", "orgs.csv");
        Refers("courses.csv", "schoolYearSourcedId", "academicSessions.csv");
        Refers("academicSessions.csv", "parentSourcedId", "academicSessions.csv");
        Refers("enrollments.csv", "userSourcedId", "users.csv");
        Refers("enrollments.csv", "classSourcedId", "classes.csv");
        Refers("roles.csv", "userSourcedId", "users.csv");
        Refers("demographics.csv", "sourcedId", "users.csv");
    }
}
