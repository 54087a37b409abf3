using Fobble.Server.Mail;

namespace Fobble.Server.Hosting;

/// <summary>The section <c>Fobble</c> of the configuration (environment: <c>Fobble__Data</c> and so on).</summary>
public sealed class FobbleSettings
{
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

    /// <summary>Folder into which the school's office puts its lists (OneRoster, as zip); the newest is read when it comes. Null for none.</summary>
    public string? Roster { get; set; }

    /// <summary>What the first start asks for; null to have one thrown and written where the server was started.</summary>
    public string? FirstCode { get; set; }
}
