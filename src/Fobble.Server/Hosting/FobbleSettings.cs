using System.Net;
using Fobble.Server.Mail;

namespace Fobble.Server.Hosting;

/// <summary>The section <c>Fobble</c> of the configuration (environment: <c>Fobble__Data</c> and so on).</summary>
public sealed class FobbleSettings
{
    private const string Section = "Fobble";

    /// <summary>Folder of the database and keys.</summary>
    public string Data { get; set; } = "var/data";

    /// <summary>Fill an empty database with the made-up school and offer its adults at sign-in.</summary>
    public bool Demo { get; set; }

    /// <summary>Shifts the clock so that the application starts at this moment (local time). For tests and screenshots.</summary>
    public DateTime? Now { get; set; }

    /// <summary>A language other than the school's, to try one out; "en-XA" brackets and lengthens every text.</summary>
    public string? Language { get; set; }

    /// <summary>Where the school comes to it, like <c>https://fobble.school.example</c>: what stands before a link in a mail.</summary>
    public string? Address { get; set; }

    public MailSettings Mail { get; set; } = new();

    public BackupSettings Backup { get; set; } = new();

    public HttpsSettings Https { get; set; } = new();

    /// <summary>The proxy that stands before it, as address or range (<c>10.0.0.2</c>, <c>10.0.0.0/24</c>): what it says of who asks, and how, is believed. One on this machine always is.</summary>
    public string? Proxy { get; set; }

    /// <summary>Folder into which the school's office puts its lists (OneRoster, as zip); the newest is read when it comes. Null for none.</summary>
    public string? Roster { get; set; }

    /// <summary>How the log is written: <c>json</c>, a line of JSON each, or <c>text</c>. Unless it is said, text in the demo and JSON elsewhere.</summary>
    public string? Log { get; set; }

    /// <summary>The port of this machine at which Prometheus finds figures (<c>/metrics</c>); null for none.</summary>
    public int? Prometheus { get; set; }

    /// <summary>What the first start asks for; null to have one thrown and written where the server was started.</summary>
    public string? FirstCode { get; set; }

    /// <summary>Whether browsers come to it by https, from here or from a proxy: cookies are for nothing else then.</summary>
    public bool OverHttps => Https.On || Address?.StartsWith("https://", StringComparison.OrdinalIgnoreCase) == true;

    /// <exception cref="WrongSettingException">One of them makes no sense, or there is none of its name.</exception>
    public static FobbleSettings Of(IConfiguration configuration)
    {
        FobbleSettings settings;
        try
        {
            // A name that is mistyped would otherwise be a backup that nobody takes.
            settings = configuration.GetSection(Section).Get<FobbleSettings>(options => options.ErrorOnUnknownConfiguration = true) ?? new();
        }
        catch (InvalidOperationException fault)
        {
            throw new WrongSettingException(Phrase($"A setting of {Section} makes no sense: {fault.Message}"));
        }

        settings.Check();
        return settings;
    }

    private void Check()
    {
        if (string.IsNullOrWhiteSpace(Data))
        {
            throw new WrongSettingException(Phrase("Fobble__Data is the folder of the data; it can’t be empty."));
        }

        if (Address is not null && (!Uri.TryCreate(Address, UriKind.Absolute, out var address) || address.Scheme is not ("https" or "http")))
        {
            throw new WrongSettingException(Phrase($"Fobble__Address is where browsers come to it, like https://fobble.school.example, and not “{Address}”."));
        }

        if (Proxy is not null && !IPNetwork.TryParse(Range(Proxy), out _))
        {
            throw new WrongSettingException(Phrase($"Fobble__Proxy is an address like 10.0.0.2 or a range like 10.0.0.0/24, and not “{Proxy}”."));
        }

        if (Log is not (null or "json" or "text"))
        {
            throw new WrongSettingException(Phrase($"Fobble__Log is json or text, and not “{Log}”."));
        }

        if (Prometheus is < 1 or > 65535)
        {
            throw new WrongSettingException(Phrase($"Fobble__Prometheus is a port from 1 to 65535, and not {Prometheus}."));
        }

        Backup.Check(Data);
        Https.Check(DateTimeOffset.UtcNow);
        if (!Demo)
        {
            // The demo has a post office of its own.
            Mail.Check(Address);
        }
    }

    /// <summary>An address as the range that holds it alone.</summary>
    internal static string Range(string proxy) =>
        proxy.Contains('/', StringComparison.Ordinal) ? proxy
        : proxy.Contains(':', StringComparison.Ordinal) ? $"{proxy}/128"
        : $"{proxy}/32";
}
