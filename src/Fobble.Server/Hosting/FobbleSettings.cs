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
}
