namespace Fobble.Data.Model;

public enum MailKind
{
    /// <summary>An adult is to choose a first password.</summary>
    Invitation,

    /// <summary>Somebody has asked for another password for this address, which may be nobody's.</summary>
    LostPassword,

    /// <summary>An adult is told that the password is another one now.</summary>
    PasswordChanged,

    /// <summary>An adult is told that signing in asks for another second step now, or for none.</summary>
    SecondStepChanged,

    /// <summary>Whoever leads the school is told that backups are not taken any more.</summary>
    BackupFailed,
}

/// <summary>A mail that is still to go. What it says, and the link in it, is written when it goes: nothing here opens anything.</summary>
public sealed class MailRow
{
    public int Id { get; set; }

    public MailKind Kind { get; set; }

    /// <summary>E-mail address.</summary>
    public required string To { get; set; }

    /// <summary>The adult who asked for it; null for somebody who is not signed in.</summary>
    public int? By { get; set; }

    /// <summary>When it is tried next; null once it is given up.</summary>
    public DateTimeOffset? Due { get; set; }

    public int Tries { get; set; }

    /// <summary>Why it did not go the last time.</summary>
    public string? Fault { get; set; }
}
