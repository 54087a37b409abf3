using System.Text;
using Fobble.Data.Model;
using Fobble.Server.Features.WholeSchool;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>Every address there is, knocked at by everybody a school has and has had.</summary>
public sealed class RolesTests : IDisposable
{
    private const string See = "see the class";
    private const string Record = "record in the class";
    private const string Lead = "lead the class";
    private const string LeadSchool = "lead the school";

    // What each may in the class Willow, written down anew: whoever changes who may what changes it here, too.
    private static readonly Dictionary<string, string[]> May = new()
    {
        ["leads the school and the class"] = [See, Record, Lead, LeadSchool],
        ["leads the school only"] = [LeadSchool],
        ["leads the class"] = [See, Record, Lead],
        ["leads another class"] = [],
        ["assistant"] = [See, Record],
        ["maths lead"] = [See],
        ["cover today"] = [See, Record],
        ["cover last week"] = [],
        ["taken out"] = [],
    };

    // Things that are not there: an allowed request finds nothing, or is told what is wrong with it.
    private static readonly Dictionary<string, string> Nothing = new() { ["classId"] = "1", ["day"] = "2026-11-25" };

    private readonly School _school = School.Empty();

    public void Dispose() => _school.Dispose();

    private async Task<Dictionary<string, Visitor>> EverybodyAsync()
    {
        var head = await _school.BeginAsync();
        Dictionary<string, Visitor> all = new() { ["leads the school and the class"] = head };
        async Task JoinAsync(string what, string name, ClassRole role)
        {
            var adult = Joining.Adult(name, role);
            if (role == ClassRole.Cover)
            {
                adult = adult with { From = School.Today, Until = School.Today };
            }

            await _school.JoinAsync(head, adult);
            all[what] = await _school.SignInAsync(adult);
        }

        await JoinAsync("leads the school only", "Nils Aalto", ClassRole.Assistant);
        await JoinAsync("leads the class", "Lena Moreau", ClassRole.LeadTeacher);
        await JoinAsync("leads another class", "Bertil Osei", ClassRole.Assistant);
        await JoinAsync("assistant", "Asa Lindqvist", ClassRole.Assistant);
        await JoinAsync("maths lead", "Mio Tanaka", ClassRole.MathsLead);
        await JoinAsync("cover today", "Nilufar Aziz", ClassRole.Cover);
        await JoinAsync("cover last week", "Oskar Brandt", ClassRole.Cover);
        await JoinAsync("taken out", "Greta Haas", ClassRole.LeadTeacher);
        var ids = (await head.ReadAsync<SchoolView>("/api/school")).Adults.ToDictionary(a => a.FullName, a => a.Id);
        await head.PutAsync($"/api/school/leads/{ids["Nils Aalto"]}", new LeadsSchool(true));
        await head.PostAsync("/api/school/classes", new NewClass("Juniper", ids["Bertil Osei"], null));
        foreach (var gone in new[] { "Nils Aalto", "Bertil Osei", "Greta Haas" })
        {
            (await head.SendAsync(HttpMethod.Delete, $"/api/school/classes/1/adults/{ids[gone]}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        }

        using var scope = _school.Scope();
        var db = _school.Db(scope);
        var oskar = db.Memberships.Single(m => m.AdultId == ids["Oskar Brandt"]);
        (oskar.From, oskar.Until) = (School.Today.AddDays(-9), School.Today.AddDays(-5));
        await db.SaveChangesAsync();
        return all;
    }

    private static Task<HttpResponseMessage> KnockAsync(Visitor visitor, HttpMethod method, string path, string type) =>
        visitor.SendAsync(method, path, method == HttpMethod.Get || method == HttpMethod.Delete ? null : new StringContent("{}", Encoding.UTF8, type));

    [Fact]
    public async Task Every_address_lets_in_whom_it_should_and_nobody_else()
    {
        var everybody = await EverybodyAsync();
        everybody.Keys.ShouldBe(May.Keys, ignoreOrder: true);
        var stranger = await _school.VisitAsync();
        List<string> wrong = [];
        var knocked = 0;
        foreach (var (method, path, type, policies) in Addresses.Of(_school, Nothing))
        {
            (await KnockAsync(stranger, method, path, type)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized, $"{method} {path}");
            foreach (var (who, visitor) in everybody)
            {
                var lets = policies.All(policy => policy is null || May[who].Contains(policy));
                var status = (await KnockAsync(visitor, method, path, type)).StatusCode;
                if (lets == status is HttpStatusCode.Forbidden or HttpStatusCode.Unauthorized || (int)status >= 500)
                {
                    wrong.Add($"{method} {path} as {who}: {status}, {string.Join(" and ", policies)}");
                }

                knocked++;
            }
        }

        wrong.ShouldBeEmpty();
        knocked.ShouldBeGreaterThan(1000);
    }
}
