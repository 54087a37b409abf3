namespace Fobble.Server.Hosting;

/// <summary>The section <c>Fobble:Backup</c> of the configuration.</summary>
public sealed class BackupSettings
{
    private const int ShortestPassphrase = 12;

    /// <summary>Folder that backups are put into, best on another disk or machine; null for none.</summary>
    public string? Folder { get; set; }

    /// <summary>What they are sealed with. Whoever loses it has no backup.</summary>
    public string? Passphrase { get; set; }

    /// <summary>How often it is looked whether something has changed: so much can be lost at most, and the time a backup takes.</summary>
    public int EveryMinutes { get; set; } = 5;

    public bool On => !string.IsNullOrWhiteSpace(Folder);

    /// <exception cref="WrongSettingException">One of them makes no sense.</exception>
    public void Check(string data)
    {
        if (!On)
        {
            return;
        }

        Unless(Passphrase?.Length >= ShortestPassphrase, Phrase($"Fobble__Backup__Passphrase is missing or too short: {ShortestPassphrase} letters at least."));
        Unless(EveryMinutes is >= 1 and <= 1440, Phrase("Fobble__Backup__EveryMinutes is a number of minutes from 1 to 1440."));
        Unless(
            Path.GetFullPath(Folder!) != Path.GetFullPath(data)
                && !Path.GetFullPath(data).StartsWith(Path.GetFullPath(Folder!) + Path.DirectorySeparatorChar, StringComparison.Ordinal),
            Phrase("Fobble__Backup__Folder is another folder than that of the data.")
        );
    }

    private static void Unless(bool holds, string sentence)
    {
        if (!holds)
        {
            throw new WrongSettingException(sentence);
        }
    }
}
