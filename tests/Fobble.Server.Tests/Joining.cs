using Fobble.Data.Model;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.WholeSchool;

namespace Fobble.Server.Tests;

/// <summary>Adults of a school that has no mail: the link that invites them is handed over.</summary>
internal static class Joining
{
    public const string Password = "nine wagons uphill";

    public static NewAdult Adult(string name, ClassRole role) => new(name, $"{name.Split(' ')[0].ToLowerInvariant()}@kettle-lane.example", role);

    /// <summary>A school of one class, Willow, led by Rosalind Achterberg.</summary>
    public static async Task<Visitor> BeginAsync(this School school)
    {
        var head = await school.VisitAsync();
        FirstStart start = new(School.FirstCode, "Rosalind Achterberg", "rosalind@kettle-lane.example", Password, "Kettle Lane School", "Willow", null);
        (await head.PostAsync("/api/account/first-start", start)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await head.StateAsync();
        return head;
    }

    /// <summary>Adds an adult to a class, who chooses a password by the link.</summary>
    public static async Task JoinAsync(this School school, Visitor head, NewAdult adult, int classId = 1, string password = Password)
    {
        var invitation = await Visitor.ReadAsync<Invitation>(await head.PostAsync($"/api/school/classes/{classId}/adults", adult));
        (await (await school.VisitAsync()).PostAsync("/api/account/new-password", Chosen(invitation.Address!, password))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
    }

    public static async Task<Visitor> SignInAsync(this School school, NewAdult adult, string password = Password)
    {
        var visitor = await school.VisitAsync();
        (await visitor.PostAsync("/api/account/sign-in", new SignIn(adult.Email, password))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await visitor.StateAsync();
        return visitor;
    }

    /// <summary>What the page at the end of a link sends.</summary>
    public static NewPassword Chosen(string link, string password)
    {
        var parts = link.Split('#')[1].Trim().Split('.', 2);
        return new(int.Parse(parts[0], System.Globalization.CultureInfo.InvariantCulture), Uri.UnescapeDataString(parts[1]), password);
    }
}
