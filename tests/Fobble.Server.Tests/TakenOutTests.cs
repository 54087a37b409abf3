using System.IO.Compression;
using System.Text;
using System.Text.Json;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.WholeSchool;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using NJsonSchema;
using UglyToad.PdfPig;

namespace Fobble.Server.Tests;

/// <summary>All that is kept, taken out: held against the database itself, asked without the application's model.</summary>
public sealed class TakenOutTests : IClassFixture<School>
{
    private const string Ask = "/api/school/everything";
    private readonly School _school;

    public TakenOutTests(School school) => _school = school;

    private static async Task<Dictionary<string, byte[]>> UnzipAsync(HttpResponseMessage answer)
    {
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        using ZipArchive zip = new(await answer.Content.ReadAsStreamAsync());
        Dictionary<string, byte[]> files = [];
        foreach (var entry in zip.Entries)
        {
            using MemoryStream bytes = new();
            await using var from = await entry.OpenAsync();
            await from.CopyToAsync(bytes);
            files.Add(entry.FullName, bytes.ToArray());
        }

        return files;
    }

    // As somebody would ask the file with SQLite's own shell.
    private List<T> Query<T>(string sql)
    {
        using var scope = _school.Scope();
        using SqliteConnection connection = new(_school.Db(scope).Database.GetConnectionString());
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        List<T> all = [];
        while (reader.Read())
        {
            all.Add(reader.GetFieldValue<T>(0));
        }

        return all;
    }

    private List<string> Tables() =>
        Query<string>("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE '\\_\\_%' ESCAPE '\\'");

    private static int RowsIn(Dictionary<string, byte[]> files, string table)
    {
        using var json = JsonDocument.Parse(files[$"tables/{table}.json"]);
        return json.RootElement.GetArrayLength();
    }

    private static async Task FitsItsSchemaAsync(Dictionary<string, byte[]> files)
    {
        var schemas = JsonDocument.Parse(files["tables/schema.json"]).RootElement.GetProperty("$defs").EnumerateObject().ToList();
        schemas
            .Select(s => $"tables/{s.Name}.json")
            .ShouldBe(files.Keys.Where(k => k.StartsWith("tables/", StringComparison.Ordinal) && k != "tables/schema.json"), ignoreOrder: true);
        foreach (var schema in schemas)
        {
            var faults = (await JsonSchema.FromJsonAsync(schema.Value.GetRawText())).Validate(Encoding.UTF8.GetString(files[$"tables/{schema.Name}.json"]));
            faults.Select(f => $"{schema.Name}: {f}").Take(3).ShouldBeEmpty();
        }
    }

    private async Task<Child> WithAPhotoAsync()
    {
        using var scope = _school.Scope();
        var db = _school.Db(scope);
        var child = await db.Children.OrderBy(c => c.Id).FirstAsync(c => c.ClassId == 1);
        var seen = await db.Observations.Where(o => o.ChildId == child.Id && o.Photo == null).OrderBy(o => o.Sequence).FirstAsync();
        db.Photos.Add(new() { ObservationId = seen.Id, Jpeg = [0xff, 0xd8, 0xff, 0xd9] });
        db.DayMoves.Add(
            new()
            {
                Day = School.Today,
                AwayChildId = child.Id + 1,
                ChildId = child.Id,
                ToSessionId = await db.GroupSessions.MaxAsync(g => g.Id),
            }
        );
        await db.SaveChangesAsync();
        return child;
    }

    [Fact]
    public async Task All_of_a_child_is_every_row_that_any_table_holds_of_it()
    {
        var child = await WithAPhotoAsync();
        Dictionary<string, int> held = [];
        foreach (var table in Tables())
        {
            // By a key, or by a name alone.
            var keys = Query<string>(
                $"SELECT \"from\" FROM pragma_foreign_key_list('{table}') WHERE \"table\" = 'Children' UNION SELECT name FROM pragma_table_info('{table}') WHERE name LIKE '%ChildId' AND '{table}' <> 'Erased'"
            );
            if (keys.Count > 0)
            {
                var where = string.Join(" OR ", keys.Select(k => $"\"{k}\" = {child.Id}"));
                held[table] = (int)Query<long>($"SELECT COUNT(*) FROM \"{table}\" WHERE {where}")[0];
            }
        }

        var files = await UnzipAsync(await (await _school.ComeInAsAsync("ines")).GetAsync($"/api/school/children/{child.Id}/everything"));
        await FitsItsSchemaAsync(files);
        held.ToDictionary(h => h.Key, h => RowsIn(files, h.Key)).ShouldBe(held);
        held.Count.ShouldBeGreaterThan(8);
        held["DayMoves"].ShouldBeGreaterThan(0);
        var photos = Query<string>($"SELECT p.ObservationId FROM Photos p JOIN Observations o ON o.Id = p.ObservationId WHERE o.ChildId = {child.Id}");
        files
            .Keys.Where(k => k.StartsWith("photos/", StringComparison.Ordinal))
            .ShouldBe(photos.Select(p => $"photos/{p.ToLowerInvariant()}.jpg"), ignoreOrder: true);
        photos.ShouldNotBeEmpty();
        Encoding
            .UTF8.GetString(files["observations.csv"])
            .Split('\n')
            .Count(l => l.Contains(child.FamilyName, StringComparison.Ordinal))
            .ShouldBe(RowsIn(files, "Observations"));
    }

    [Fact]
    public async Task All_of_a_child_can_be_read_and_names_no_other_child()
    {
        var child = await WithAPhotoAsync();
        var files = await UnzipAsync(await (await _school.ComeInAsAsync("ines")).GetAsync($"/api/school/children/{child.Id}/everything"));
        using var pdf = PdfDocument.Open(files["what-is-kept.pdf"]);
        var read = string.Join(" ", pdf.GetPages().Select(p => p.Text));
        var name = $"{child.GivenName} {child.FamilyName}";
        read.ShouldContain(name);
        var seen = RowsIn(files, "Observations");
        read.Split("; by ").Length.ShouldBe(seen + 1);
        // As adults say it, and not as it is kept.
        read.ShouldNotContain("how-many:");
        var others = Query<string>($"SELECT GivenName || ' ' || FamilyName FROM Children WHERE Id <> {child.Id}");
        var all = read + string.Join(" ", files.Where(f => !f.Key.EndsWith(".pdf", StringComparison.Ordinal)).Select(f => Encoding.UTF8.GetString(f.Value)));
        others.Where(o => all.Contains(o, StringComparison.Ordinal)).ShouldBeEmpty();
    }

    [Fact]
    public async Task All_of_a_school_is_every_row_but_what_opens_something()
    {
        using School school = new();
        TakenOutTests own = new(school);
        await own.WithAPhotoAsync();
        var ines = await school.ComeInAsAsync("ines");
        var files = await own.WholeAsync(ines);
        await FitsItsSchemaAsync(files);
        string[] stays =
        [
            "AspNetUsers",
            "AspNetUserClaims",
            "AspNetUserLogins",
            "AspNetUserTokens",
            "SignedIn",
            "SpareCodes",
            "CalendarAddresses",
            "ClassVersions",
            "Mails",
            "Photos",
            // Taken out by a file of their own, or what they are of is gone.
            "Traces",
            "Erased",
        ];
        var tables = own.Tables();
        tables
            .Except(stays)
            .ShouldBe(
                files
                    .Keys.Where(k => k.StartsWith("tables/", StringComparison.Ordinal) && k != "tables/schema.json")
                    .Select(k => k["tables/".Length..^".json".Length]),
                ignoreOrder: true
            );
        foreach (var table in tables.Except(stays))
        {
            RowsIn(files, table).ShouldBe((int)own.Query<long>($"SELECT COUNT(*) FROM \"{table}\"")[0], table);
        }

        files.Keys.Count(k => k.StartsWith("photos/", StringComparison.Ordinal)).ShouldBe((int)own.Query<long>("SELECT COUNT(*) FROM Photos")[0]);
        var all = string.Concat(files.Values.Select(Encoding.UTF8.GetString));
        foreach (
            var secret in own.Query<string>("SELECT PasswordHash FROM AspNetUsers")
                .Concat(own.Query<string>("SELECT SecurityStamp FROM AspNetUsers"))
                .Concat(own.Query<string>("SELECT Id FROM SignedIn"))
        )
        {
            all.ShouldNotContain(secret);
        }

        foreach (var name in own.Query<string>("SELECT FamilyName FROM Children"))
        {
            all.ShouldContain(name);
        }

        (await ines.ReadAsync<TracesView>("/api/school/traces")).Newest.ShouldContain(t => t.What == "took out all that is kept of the school");
    }

    // The demo's adults have no password that anybody knows.
    private async Task<Dictionary<string, byte[]>> WholeAsync(Visitor ines)
    {
        using (var scope = _school.Scope())
        {
            var db = _school.Db(scope);
            var adult = await db.Users.SingleAsync(u => u.FullName == "Ines Okonjo");
            adult.PasswordHash = new Microsoft.AspNetCore.Identity.PasswordHasher<Adult>().HashPassword(adult, Joining.Password);
            await db.SaveChangesAsync();
        }

        var to = await Visitor.ReadAsync<SchoolToTakeOut>(await ines.PostAsync(Ask, new TakeOutSchool(Joining.Password)));
        return await UnzipAsync(await ines.GetAsync(to.Address));
    }

    [Fact]
    public async Task A_whole_school_goes_to_the_one_who_said_the_password_and_to_nobody_else()
    {
        using var school = School.Empty();
        var head = await school.BeginAsync();
        var other = Joining.Adult("Nils Aalto", ClassRole.Assistant);
        await school.JoinAsync(head, other);
        var id = (await head.ReadAsync<SchoolView>("/api/school")).Adults.Single(a => a.FullName == other.FullName).Id;
        await head.PutAsync($"/api/school/leads/{id}", new LeadsSchool(true));
        var nils = await school.SignInAsync(other);
        (await head.PostAsync(Ask, new TakeOutSchool("nine wagons downhill"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var to = await Visitor.ReadAsync<SchoolToTakeOut>(await head.PostAsync(Ask, new TakeOutSchool(Joining.Password)));
        (await nils.GetAsync(to.Address)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await head.GetAsync($"{Ask}/none")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await (await school.VisitAsync()).GetAsync(to.Address)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await UnzipAsync(await head.GetAsync(to.Address))).Keys.ShouldContain("classes/1/observations.csv");
    }

    [Fact]
    public async Task A_child_of_nowhere_has_nothing_to_take_out() =>
        (await (await _school.ComeInAsAsync("ines")).GetAsync("/api/school/children/99999/everything")).StatusCode.ShouldBe(HttpStatusCode.NotFound);

    [Fact]
    public void The_model_has_nothing_that_taking_out_would_miss()
    {
        using var scope = _school.Scope();
        var model = _school.Db(scope).Model;
        foreach (var table in Everything.TablesOf(model, typeof(Fobble.Data.Model.School)))
        {
            table.GetProperties().Where(p => p.IsShadowProperty()).ShouldBeEmpty(table.Name);
            table.GetForeignKeys().ShouldAllBe(f => f.Properties.Count == 1, table.Name);
        }
    }
}
