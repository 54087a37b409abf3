using System.Buffers.Binary;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Fobble.Data.Model;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.WholeSchool;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.Extensions.DependencyInjection;
using ZXing;
using ZXing.Common;
using ZXing.QrCode;

namespace Fobble.Server.Tests;

/// <summary>A code of the phone beside the password: asked for, counted, and taken once; and what is done when the phone is gone.</summary>
public sealed class SecondStepTests : IDisposable
{
    private static readonly NewAdult Lena = Joining.Adult("Lena Moreau", ClassRole.LeadTeacher);

    private readonly StandingClock _phone = new("2026-11-25T08:00:00");
    private readonly School _school;

    public SecondStepTests() => _school = School.Empty(otherwise: services => services.AddKeyedSingleton<TimeProvider>(SecondStep.PhonesTime, _phone));

    public void Dispose() => _school.Dispose();

    // RFC 6238 anew, so that what the application takes is what phones show and not what its own package makes.
    private static string Code(byte[] secret, long seconds)
    {
        Span<byte> span = stackalloc byte[8];
        BinaryPrimitives.WriteInt64BigEndian(span, seconds / 30);
#pragma warning disable CA5350 // RFC 6238 as phones reckon it.
        var hash = HMACSHA1.HashData(secret, span);
#pragma warning restore CA5350
        var number = BinaryPrimitives.ReadInt32BigEndian(hash.AsSpan(hash[^1] & 0xf)) & 0x7fffffff;
        return (number % 1_000_000).ToString("D6", CultureInfo.InvariantCulture);
    }

    private string Code(string secret, int spansOn = 0) => Code(Base32(secret), _phone.GetUtcNow().ToUnixTimeSeconds() + 30 * spansOn);

    private static byte[] Base32(string text)
    {
        var bits = string.Concat(
            text.Select(c => Convert.ToString("ABCDEFGHIJKLMNOPQRSTUVWXYZ234567".IndexOf(c, StringComparison.Ordinal), 2).PadLeft(5, '0'))
        );
        return [.. bits.Chunk(8).Where(b => b.Length == 8).Select(b => Convert.ToByte(new string(b), 2))];
    }

    [Theory]
    [InlineData(59, "287082")]
    [InlineData(1111111109, "081804")]
    [InlineData(1234567890, "005924")]
    [InlineData(20000000000, "353130")]
    public void The_codes_of_these_tests_are_those_of_RFC_6238_appendix_B(long seconds, string code) =>
        Code(Encoding.ASCII.GetBytes("12345678901234567890"), seconds).ShouldBe(code);

    private async Task<Visitor> LenaAsync()
    {
        var head = await _school.BeginAsync();
        await _school.JoinAsync(head, Lena);
        return await _school.SignInAsync(Lena);
    }

    private static async Task<SecondStepBegun> BeginAsync(Visitor visitor) =>
        await Visitor.ReadAsync<SecondStepBegun>(await visitor.PostAsync("/api/account/second-step", new BySecondStep(Joining.Password)));

    private async Task<(string Secret, IReadOnlyList<string> Spare)> PutInAsync(Visitor visitor)
    {
        var begun = await BeginAsync(visitor);
        var on = await visitor.PutAsync("/api/account/second-step", new FirstSecondStep(begun.Ticket, Code(begun.Secret)));
        return (begun.Secret, (await Visitor.ReadAsync<SecondStepOn>(on)).Spare);
    }

    private async Task<HttpStatusCode> TryAsync(string? code, Visitor? visitor = null) =>
        (await (visitor ?? await _school.VisitAsync()).PostAsync("/api/account/sign-in", new SignIn(Lena.Email, Joining.Password, code))).StatusCode;

    [Fact]
    public async Task The_password_alone_asks_for_a_code_and_opens_nothing()
    {
        var lena = await LenaAsync();
        var tablet = await _school.SignInAsync(Lena);
        var (secret, _) = await PutInAsync(lena);
        (await tablet.GetAsync("/api/classes/1/children")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await lena.GetAsync("/api/classes/1/children")).StatusCode.ShouldBe(HttpStatusCode.OK);

        var visitor = await _school.VisitAsync();
        (await TryAsync(null, visitor)).ShouldBe(HttpStatusCode.OK);
        (await visitor.StateAsync()).SignedIn.ShouldBeNull();
        (await TryAsync("000000", visitor)).ShouldBe(HttpStatusCode.BadRequest);
        (await TryAsync("", visitor)).ShouldBe(HttpStatusCode.BadRequest);
        (await visitor.StateAsync()).SignedIn.ShouldBeNull();

        // A wrong password is told as ever, whatever code comes with it.
        (await visitor.PostAsync("/api/account/sign-in", new SignIn(Lena.Email, "nine wagons downhill", Code(secret, 1)))).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        _phone.Goes("2026-11-25T08:05:00");
        (await TryAsync(Code(secret), visitor)).ShouldBe(HttpStatusCode.NoContent);
        (await visitor.StateAsync()).SignedIn.ShouldNotBeNull();
    }

    [Fact]
    public async Task A_code_comes_in_once_and_none_of_before_it_after()
    {
        var (secret, _) = await PutInAsync(await LenaAsync());
        // With what it was put in.
        (await TryAsync(Code(secret))).ShouldBe(HttpStatusCode.BadRequest);
        _phone.Goes("2026-11-25T08:05:00");
        (await TryAsync(Code(secret, 2))).ShouldBe(HttpStatusCode.BadRequest);
        (await TryAsync(Code(secret, -2))).ShouldBe(HttpStatusCode.BadRequest);
        (await TryAsync(Code(secret))).ShouldBe(HttpStatusCode.NoContent);
        (await TryAsync(Code(secret))).ShouldBe(HttpStatusCode.BadRequest);
        (await TryAsync(Code(secret, -1))).ShouldBe(HttpStatusCode.BadRequest);
        // A phone that is a little fast.
        (await TryAsync(Code(secret, 1))).ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task Of_many_that_send_the_same_code_at_once_one_comes_in()
    {
        var (secret, spare) = await PutInAsync(await LenaAsync());
        _phone.Goes("2026-11-25T08:05:00");
        foreach (var code in new[] { Code(secret), spare[0] })
        {
            var visitors = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => _school.VisitAsync()));
            var answers = await Task.WhenAll(visitors.Select(v => TryAsync(code, v)));
            answers.Count(a => a == HttpStatusCode.NoContent).ShouldBe(1);
        }
    }

    [Fact]
    public async Task After_ten_tries_for_one_adult_the_right_code_waits_from_wherever_it_comes()
    {
        var (secret, spare) = await PutInAsync(await LenaAsync());
        _phone.Goes("2026-11-25T08:05:00");
        // Putting in was the first try.
        foreach (var i in Enumerable.Range(0, 9))
        {
            (await TryAsync($"{i:D6}")).ShouldBe(HttpStatusCode.BadRequest);
        }

        (await TryAsync(Code(secret))).ShouldBe(HttpStatusCode.BadRequest);
        (await TryAsync(spare[0])).ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task A_spare_code_comes_in_once_however_it_is_typed()
    {
        var lena = await LenaAsync();
        var (_, spare) = await PutInAsync(lena);
        spare.Distinct().Count().ShouldBe(8);
        (await TryAsync($" {spare[0].ToUpperInvariant().Replace('-', ' ')}")).ShouldBe(HttpStatusCode.NoContent);
        (await TryAsync(spare[0])).ShouldBe(HttpStatusCode.BadRequest);
        (await TryAsync(spare[1])).ShouldBe(HttpStatusCode.NoContent);
        (await lena.ReadAsync<SecondStepView>("/api/account/second-step")).ShouldBe(new SecondStepView(true, 6));
    }

    [Fact]
    public async Task It_is_put_in_with_the_password_and_a_code_by_the_one_who_began()
    {
        var lena = await LenaAsync();
        (await lena.PostAsync("/api/account/second-step", new BySecondStep("nine wagons downhill"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var begun = await BeginAsync(lena);
        var other = Joining.Adult("Asa Lindqvist", ClassRole.Assistant);
        await _school.JoinAsync(await _school.SignInAsync(new NewAdult("", "rosalind@kettle-lane.example", ClassRole.LeadTeacher)), other);
        var asa = await _school.SignInAsync(other);
        foreach (
            var (who, what) in new[]
            {
                (lena, new FirstSecondStep(begun.Ticket, Code(begun.Secret, 5))),
                (lena, new FirstSecondStep("x", Code(begun.Secret))),
                (asa, new FirstSecondStep(begun.Ticket, Code(begun.Secret))),
            }
        )
        {
            (await who.PutAsync("/api/account/second-step", what)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
            (await who.ReadAsync<SecondStepView>("/api/account/second-step")).ShouldBe(new SecondStepView(false, 0));
        }

        await PutInAsync(lena);
        (await lena.PostAsync("/api/account/second-step/out", new BySecondStep("nine wagons downhill"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await TryAsync(null)).ShouldBe(HttpStatusCode.OK);
        (await lena.PostAsync("/api/account/second-step/out", new BySecondStep(Joining.Password))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await TryAsync(null)).ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task Where_the_phone_is_gone_the_lead_of_the_school_takes_it_out_and_so_does_the_server()
    {
        var lena = await LenaAsync();
        var head = await _school.SignInAsync(new NewAdult("", "rosalind@kettle-lane.example", ClassRole.LeadTeacher));
        await PutInAsync(lena);
        var id = (await head.ReadAsync<SchoolView>("/api/school")).Adults.Single(a => a.SecondStep).Id;
        (await lena.SendAsync(HttpMethod.Delete, $"/api/school/adults/{id}/second-step")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await TryAsync(null)).ShouldBe(HttpStatusCode.OK);
        (await head.SendAsync(HttpMethod.Delete, $"/api/school/adults/{id}/second-step")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await head.SendAsync(HttpMethod.Delete, $"/api/school/adults/{id}/second-step")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await TryAsync(null)).ShouldBe(HttpStatusCode.NoContent);
        (await head.ReadAsync<TracesView>("/api/school/traces")).Newest.ShouldContain(t =>
            t.What.Contains("Lena Moreau’s second step", StringComparison.Ordinal)
        );

        _phone.Goes("2026-11-25T08:05:00");
        await PutInAsync(lena);
        StringWriter said = new();
        (await LostPassword.TellAsync(_school.Services, Lena.Email, said)).ShouldBe(0);
        said.ToString().ShouldContain("second step");
        (await TryAsync(null)).ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task What_is_kept_opens_nothing()
    {
        var (secret, spare) = await PutInAsync(await LenaAsync());
        using var scope = _school.Scope();
        var db = _school.Db(scope);
        var kept = string.Join(" ", db.SpareCodes.Select(s => s.Hash)) + db.Users.Single(u => u.SecondSecret != null).SecondSecret;
        foreach (var word in spare.Append(secret))
        {
            kept.ShouldNotContain(word, Case.Insensitive);
            kept.ShouldNotContain(word.Replace("-", "", StringComparison.Ordinal), Case.Insensitive);
        }
    }

    [Fact]
    public async Task Where_the_keys_are_lost_no_code_comes_in_and_taking_it_out_helps()
    {
        var (secret, spare) = await PutInAsync(await LenaAsync());
        using (var scope = _school.Scope())
        {
            var db = _school.Db(scope);
            db.Users.Single(u => u.SecondSecret != null).SecondSecret = "as of other keys";
            await db.SaveChangesAsync();
        }

        _phone.Goes("2026-11-25T08:05:00");
        (await TryAsync(Code(secret))).ShouldBe(HttpStatusCode.BadRequest);
        (await TryAsync(spare[0])).ShouldBe(HttpStatusCode.BadRequest);
        (await LostPassword.TellAsync(_school.Services, Lena.Email, TextWriter.Null)).ShouldBe(0);
        (await TryAsync(null)).ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task The_square_says_what_programs_on_phones_ask_for()
    {
        var begun = await BeginAsync(await LenaAsync());
        const int Dot = 4;
        var side = begun.Square.Count * Dot;
        var light = new byte[side * side];
        foreach (var i in Enumerable.Range(0, light.Length))
        {
            light[i] = begun.Square[i / side / Dot][i % side / Dot] == '1' ? (byte)0 : (byte)255;
        }

        RGBLuminanceSource seen = new(light, side, side, RGBLuminanceSource.BitmapFormat.Gray8);
        var read = new QRCodeReader().decode(new BinaryBitmap(new HybridBinarizer(seen))).Text;
        read.ShouldStartWith("otpauth://totp/");
        Uri.UnescapeDataString(read).ShouldContain(Lena.Email);
        read.ShouldContain($"secret={begun.Secret}");
        read.ShouldContain("issuer=Fobble");
    }
}
