using System.Text;
using Fobble.Core.People;
using Fobble.Formats.ClassLists;

namespace Fobble.Formats.Tests;

/// <summary>CSV as in RFC 4180 and as spreadsheets write it; the files of samples/ are part of the test.</summary>
public class ClassListReaderTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);

    [Fact]
    public void A_plain_list_is_read_as_it_stands()
    {
        var reading = Sample("class-list.csv");
        reading.Faults.ShouldBeEmpty();
        reading.CanBeTaken.ShouldBeTrue();
        reading.Children.Count.ShouldBe(14);
        reading.Children[0].ShouldBe(new(2, "Amina", "Yusuf", new DateOnly(2021, 11, 3), null));
        reading.Children[8].FamilyName.ShouldBe("Bellamy-Okoye");
    }

    [Fact]
    public void Semicolons_marks_quotes_empty_lines_and_scripts_are_no_trouble()
    {
        var reading = Sample("class-list-semicolon.csv");
        reading.Faults.ShouldBeEmpty();
        reading.Children.Select(c => c.GivenName).ShouldBe(["Åse", "Mei", "Róisín", "Оля", "小雨", "نور"]);
        reading.Children[0].FamilyName.ShouldBe("Ørsted");
        reading.Children[1].FamilyName.ShouldBe("");
        reading.Children[2].FamilyName.ShouldBe("O\"Neil; Kay");
        reading.Children[2].Row.ShouldBe(5);
        reading.Children[3].Born.ShouldBe(new DateOnly(2021, 12, 30));
    }

    [Fact]
    public void One_column_holds_whole_names_in_either_order() =>
        Sample("class-list-one-column.csv")
            .Children.Select(c => $"{c.GivenName}|{c.FamilyName}")
            .ShouldBe(["Amina|Yusuf", "Bruno|Castellan", "Chidi|Obiora", "Elena|De la Cruz", "Zuri|"]);

    [Fact]
    public void Every_fault_is_named_with_line_and_column_and_nothing_can_be_taken()
    {
        var reading = Sample("class-list-bad.csv");
        reading.CanBeTaken.ShouldBeFalse();
        reading
            .Faults.Select(f => (f.Row, f.Column))
            .ShouldBe([(3, "First name"), (4, "Date of birth"), (5, "Date of birth"), (6, "First name"), (7, null), (8, "Date of birth")]);
        reading.Faults[0].Reason.ShouldBe("The first name is missing.");
        reading.Faults[1].Reason.ShouldContain("22 of January");
        reading.Faults[2].Reason.ShouldContain("future");
        reading.Faults[3].Reason.ShouldBe("Amina yusuf is on line 2 already. If they are two children, give each a mark.");
        reading.Faults[4].Reason.ShouldContain("5 fields, the heading 3");
    }

    [Fact]
    public void A_file_without_names_says_what_it_found()
    {
        var fault = Sample("class-list-no-names.csv").Faults.ShouldHaveSingleItem();
        fault.Reason.ShouldContain("“Colour”, “Shape”");
        fault.Reason.ShouldContain("“First name”");
    }

    [Theory]
    [InlineData("", "The file is empty.")]
    [InlineData("\n\n  \n", "The file is empty.")]
    [InlineData("First name,Last name\n", "no children")]
    [InlineData("Name\n\"Ada\nBo", "quotes")]
    public void Files_with_nothing_in_them_say_so(string text, string reason) => Read(text).Faults.ShouldContain(f => f.Reason.Contains(reason));

    [Theory]
    [InlineData("first_name\tLAST-NAME\nAda\tOk")]
    [InlineData("Surname, Forename\r\nOk, Ada")]
    [InlineData("\"Last name\";\"Given name\"\n\"Ok\";\"Ada\"")]
    [InlineData("Nachname;Vorname;Gruppe\nOk;Ada;x")]
    public void Headings_separators_and_spaces_may_vary(string text)
    {
        var child = Read(text).Children.ShouldHaveSingleItem();
        (child.GivenName, child.FamilyName).ShouldBe(("Ada", "Ok"));
    }

    [Theory]
    [InlineData("30/11/2021", "2021-11-30", null)]
    [InlineData("11/30/2021", "2021-11-30", "month first")]
    [InlineData("03/04/2021", "2021-04-03", "both ways")]
    [InlineData("3.4.2021", "2021-04-03", "both ways")]
    [InlineData("2021-4-3", "2021-04-03", null)]
    [InlineData("3 April 2021", "2021-04-03", null)]
    public void Dates_are_read_as_the_column_suggests(string text, string expected, string? note)
    {
        var reading = Read($"Name,Born\nAda,{text}");
        reading.Children.ShouldHaveSingleItem().Born.ShouldBe(DateOnly.ParseExact(expected, "yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture));
        reading.Notes.Any(n => note is not null && n.Contains(note)).ShouldBe(note is not null);
    }

    [Fact]
    public void A_file_in_an_older_encoding_is_read_with_a_note()
    {
        var reading = ClassListReader.Read(Encoding.Latin1.GetBytes("Name\nZoë"), Today);
        reading.Children.ShouldHaveSingleItem().GivenName.ShouldBe("Zoë");
        reading.Notes.ShouldHaveSingleItem().ShouldContain("accents");
    }

    [Fact]
    public void The_same_name_is_one_child_however_its_accents_are_encoded()
    {
        ShortNames.Same("zoe\u0308  Ok").ShouldBe(ShortNames.Same("Zoë Ok"));
        Read("Name\nZoë Ok\nZoe\u0308 Ok").Faults.ShouldHaveSingleItem().Row.ShouldBe(3);
    }

    [Fact]
    public void Two_children_may_share_a_name_if_their_birthdays_differ() => Read("Name,Born\nAda Ok,2021-01-30\nAda Ok,2021-05-02").CanBeTaken.ShouldBeTrue();

    [Fact]
    public void Two_children_of_one_name_are_two_once_each_has_a_mark_in_the_file_or_given_after()
    {
        Read("Name,Mark\nAna Silva,B\nAna Silva,R").Children.Select(c => c.Mark).ShouldBe(["B", "R"]);
        var twice = Encoding.UTF8.GetBytes("Name\nAna Silva\nAna Silva\n");
        ClassListReader.Read(twice, Today).Faults.ShouldHaveSingleItem().Reason.ShouldContain("give each a mark");
        ClassListReader.Read(twice, Today, Marks(new() { [2] = "B", [3] = "b" })).CanBeTaken.ShouldBeFalse();
        ClassListReader.Read(twice, Today, Marks(new() { [3] = "R" })).CanBeTaken.ShouldBeTrue();
        ClassListReader.Read(twice, Today, Marks(new() { [3] = "the one who is tall" })).Faults.ShouldHaveSingleItem().Row.ShouldBe(3);
    }

    [Fact]
    public void A_letter_that_cannot_be_printed_is_asked_about_and_names_of_all_scripts_are_taken()
    {
        var unicorn = Encoding.UTF8.GetBytes("Name\nAna 🦄\nBo Ek");
        var asked = ClassListReader.Read(unicorn, Today);
        asked.Faults.ShouldHaveSingleItem().Reason.ShouldBe("No font at hand has a letter of this name (U+1F984): write it as it may be printed.");
        asked.Unprinted.ShouldHaveSingleItem().ShouldBe(new(2, "Ana …", ""));

        ClassListReading Printed(string name, int line = 2) =>
            ClassListReader.Read(unicorn, Today, ClassListAnswers.None with { Names = new Dictionary<int, string> { [line] = name } });
        var printed = Printed(" Ana Einhorn ");
        printed.Faults.ShouldBeEmpty();
        printed.Children.Select(c => (c.GivenName, c.FamilyName)).ShouldBe([("Ana", "Einhorn"), ("Bo", "Ek")]);
        printed.Unprinted.ShouldHaveSingleItem().Printed.ShouldBe("Ana Einhorn");
        Printed("Ana 🦄🐉").Faults.ShouldHaveSingleItem().Reason.ShouldContain("2 letters of this name (U+1F984 and U+1F409)");
        Printed("Eve Other", 3).Children.ShouldHaveSingleItem().GivenName.ShouldBe("Bo", "a name that can be printed is the file's own");
        Read("First name,Last name\nمريم,الخطيب\n山田,太郎\nශ්‍රී,පෙරේරා\nกานต์,ศรีสุข").Children.Count.ShouldBe(4);
    }

    private static ClassListAnswers Marks(Dictionary<int, string> marks) => ClassListAnswers.None with { Marks = marks };

    private static ClassListReading Read(string text) => ClassListReader.Read(Encoding.UTF8.GetBytes(text), Today);

    private static ClassListReading Sample(string name) => ClassListReader.Read(File.ReadAllBytes(Path.Combine(Root(), "samples", name)), Today);

    private static string Root()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "Fobble.slnx")))
        {
            folder = Path.GetDirectoryName(folder)!;
        }

        return folder;
    }
}
