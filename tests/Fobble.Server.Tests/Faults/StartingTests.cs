using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Fobble.Data.Keeping;

namespace Fobble.Server.Tests.Faults;

/// <summary>What whoever starts the server is told, and how it is reached.</summary>
public sealed class StartingTests : IDisposable
{
    private readonly DirectoryInfo _root = Directory.CreateTempSubdirectory("fobble-starting-");

    private string Folder => Path.Combine(_root.FullName, "data");

    public void Dispose() => _root.Delete(recursive: true);

    private async Task<string> RefusedAsync(int exit, Dictionary<string, string>? settings = null)
    {
        using var server = ServerProcess.Begin(Folder, settings);
        (await server.ExitCodeAsync()).ShouldBe(exit, server.Said);
        server.Said.ShouldNotContain("   at ", Case.Sensitive, "where in the program it was found helps nobody");
        server.Said.Trim().ShouldNotContain("\n", Case.Sensitive, "one sentence or two, in one line");
        return server.Said;
    }

    [Theory]
    [InlineData("Fobble__Bakup__Folder", "/tmp/x", "Bakup")]
    [InlineData("Fobble__Backup__Folder", "/tmp/x", "Fobble__Backup__Passphrase is missing or too short")]
    [InlineData("Fobble__Demo", "perhaps", "perhaps")]
    [InlineData("Fobble__Address", "fobble.school.example", "like https://fobble.school.example")]
    [InlineData("Fobble__Proxy", "the cupboard", "like 10.0.0.2")]
    [InlineData("Fobble__Https__Key", "/tmp/key.pem", "https needs both")]
    [InlineData("Fobble__Mail__Host", "mail.school.example", "Fobble__Mail__From")]
    public async Task A_setting_that_makes_no_sense_is_told_in_a_sentence(string name, string value, string says)
    {
        (await RefusedAsync(2, new() { [name] = value })).ShouldContain(says);
        Directory.Exists(Folder).ShouldBeFalse("nothing was begun");
    }

    [Fact]
    public async Task A_certificate_that_is_none_is_told()
    {
        var file = Path.Combine(_root.FullName, "certificate.pem");
        await File.WriteAllTextAsync(file, "nothing of the kind");
        (await RefusedAsync(2, new() { ["Fobble__Https__Certificate"] = file, ["Fobble__Https__Key"] = file })).ShouldContain("can’t be read");
        var (over, key) = WriteCertificate("over", DateTimeOffset.UtcNow.AddDays(-1));
        (await RefusedAsync(2, new() { ["Fobble__Https__Certificate"] = over, ["Fobble__Https__Key"] = key })).ShouldContain("was good until");
        var (_, other) = WriteCertificate("other", DateTimeOffset.UtcNow.AddDays(1));
        (await RefusedAsync(2, new() { ["Fobble__Https__Certificate"] = over, ["Fobble__Https__Key"] = other })).ShouldContain("can’t be read");
    }

    [Fact]
    public async Task A_database_that_is_none_is_told_and_left_as_it_is()
    {
        Directory.CreateDirectory(Folder);
        var file = Path.Combine(Folder, DataFolder.DatabaseFile);
        var letter = string.Concat(Enumerable.Repeat("Dear office, ", 40));
        await File.WriteAllTextAsync(file, letter);
        (await RefusedAsync(3)).ShouldContain("put the newest backup into an empty folder");
        (await File.ReadAllTextAsync(file)).ShouldBe(letter);
    }

    [Fact]
    public async Task A_second_server_on_the_same_folder_is_refused_and_the_first_goes_on()
    {
        using var first = await ServerProcess.ReadyAsync(Folder);
        (await RefusedAsync(3)).ShouldContain("is running on");
        await first.UntilReadyAsync();

        // Killed, it holds nothing any more; asked to end, it does within five seconds.
        first.Kill();
        using var next = await ServerProcess.ReadyAsync(Folder);
        (await next.EndAsync()).ShouldBeLessThan(TimeSpan.FromSeconds(5));
    }

    [Fact]
    public async Task A_first_start_that_is_killed_anywhere_is_begun_again()
    {
        // From before the runtime is up until it serves; the seed is told where one fails.
        Random random = new(20261201);
        for (var kills = 0; kills < 6; kills++)
        {
            using var server = ServerProcess.Begin(Folder);
            var after = random.Next(200, 1800);
            await Task.Delay(after);
            server.Kill();
        }

        using var last = await ServerProcess.ReadyAsync(Folder);
        (await last.VisitAsync()).ShouldNotBeNull();
    }

    [Fact]
    public async Task With_a_certificate_it_answers_over_https_and_takes_a_new_one_by_itself()
    {
        var (certificate, key) = WriteCertificate("school", DateTimeOffset.UtcNow.AddDays(30));
        using var server = await ServerProcess.ReadyAsync(
            Folder,
            new Dictionary<string, string> { ["Fobble__Https__Certificate"] = certificate, ["Fobble__Https__Key"] = key }
        );
        (await NameAsync(server)).ShouldBe("CN=school");
        using HttpClientHandler trusting = new() { ServerCertificateCustomValidationCallback = (_, shown, _, _) => IsOurs(shown), AllowAutoRedirect = false };
        using HttpClient client = new(trusting);

        // Nobody is held to https at an address of their own machine: a browser asks for the school's.
        client.DefaultRequestHeaders.Host = "fobble.school.example";
        var page = await client.GetAsync(new Uri(server.Https, "/api/account/"));
        page.StatusCode.ShouldBe(HttpStatusCode.OK);
        page.Headers.GetValues("Strict-Transport-Security").Single().ShouldContain("max-age=31536000");
        page.Headers.GetValues("Set-Cookie").ShouldAllBe(c => c.Contains("secure", StringComparison.OrdinalIgnoreCase));

        // Whoever comes without it is sent there, and the watcher is answered.
        var without = await client.GetAsync(server.Url);
        without.StatusCode.ShouldBe(HttpStatusCode.TemporaryRedirect);
        without.Headers.Location!.Scheme.ShouldBe("https");

        // Half of a new one is not taken; all of it is, and nothing is begun anew.
        await File.WriteAllTextAsync(certificate, "-----BEGIN CERT");
        (await NameAsync(server)).ShouldBe("CN=school");
        var (newer, newKey) = WriteCertificate("newer", DateTimeOffset.UtcNow.AddDays(90));
        File.Copy(newKey, key, overwrite: true);
        File.Copy(newer, certificate, overwrite: true);
        (await NameAsync(server)).ShouldBe("CN=newer");
    }

    [Fact]
    public async Task Behind_a_proxy_with_https_cookies_go_nowhere_else_and_others_are_not_believed()
    {
        using var server = await ServerProcess.ReadyAsync(Folder, new Dictionary<string, string> { ["Fobble__Address"] = "https://fobble.school.example" });
        using HttpClientHandler handler = new() { AllowAutoRedirect = false };
        using HttpClient client = new(handler) { BaseAddress = server.Url };
        client.DefaultRequestHeaders.Host = "fobble.school.example";
        var without = await client.GetAsync(new Uri("/api/account/", UriKind.Relative));
        without.StatusCode.ShouldBe(HttpStatusCode.TemporaryRedirect);
        using HttpRequestMessage through = new(HttpMethod.Get, "/api/account/");
        through.Headers.Add("X-Forwarded-Proto", "https");
        through.Headers.Add("X-Forwarded-For", "192.0.2.7");
        var answer = await client.SendAsync(through);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        answer.Headers.GetValues("Set-Cookie").ShouldAllBe(c => c.Contains("secure", StringComparison.OrdinalIgnoreCase));
        answer.Headers.Contains("Strict-Transport-Security").ShouldBeTrue();
    }

    // Nobody vouches for a certificate that a test has made.
    private static bool IsOurs(X509Certificate? shown) => shown?.Subject is "CN=school" or "CN=newer";

    private static async Task<string> NameAsync(ServerProcess server)
    {
        using System.Net.Sockets.TcpClient tcp = new();
        await tcp.ConnectAsync(server.Https.Host, server.Https.Port);
        await using System.Net.Security.SslStream tls = new(tcp.GetStream(), leaveInnerStreamOpen: false, (_, shown, _, _) => IsOurs(shown));
        await tls.AuthenticateAsClientAsync(server.Https.Host);
        return tls.RemoteCertificate!.Subject;
    }

    private (string Certificate, string Key) WriteCertificate(string name, DateTimeOffset until)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        CertificateRequest request = new($"CN={name}", key, HashAlgorithmName.SHA256);
        using var made = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-30), until);
        var (certificate, pem) = (Path.Combine(_root.FullName, $"{name}.pem"), Path.Combine(_root.FullName, $"{name}.key"));
        File.WriteAllText(certificate, made.ExportCertificatePem());
        File.WriteAllText(pem, key.ExportPkcs8PrivateKeyPem());
        return (certificate, pem);
    }
}
