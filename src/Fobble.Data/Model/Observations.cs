using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Data.Model;

/// <summary>
/// What was seen. Rows are only ever added; a trigger in the database refuses changes. The id is made by the client, so that a
/// repeated send is one observation.
/// </summary>
public sealed class ObservationRow
{
    public Guid Id { get; set; }

    /// <summary>Counts up in the order in which rows came in; a number is never given twice, even where the last row was erased.</summary>
    public long Sequence { get; set; }

    public int ChildId { get; set; }

    public Child? Child { get; set; }

    public required string Skill { get; set; }

    public DateTimeOffset At { get; set; }

    public DateOnly Day { get; set; }

    public int AdultId { get; set; }

    public Adult? Adult { get; set; }

    public Setting Setting { get; set; }

    public Support Support { get; set; }

    public Representation Representation { get; set; }

    public string? Numbers { get; set; }

    public string? Slip { get; set; }

    public string? Strategy { get; set; }

    public string? Note { get; set; }

    public int? SessionId { get; set; }

    /// <summary>The baseline check in which it was asked for.</summary>
    public int? CheckId { get; set; }

    /// <summary>Who saw it, where it came with a file from elsewhere; <see cref="Adult"/> is then who brought it in.</summary>
    public string? SeenBy { get; set; }

    public PhotoRow? Photo { get; set; }

    public Withdrawal? Withdrawal { get; set; }
}

/// <summary>An observation was wrong: it stays, marked by this row, and no longer counts.</summary>
public sealed class Withdrawal
{
    public Guid ObservationId { get; set; }

    public DateTimeOffset At { get; set; }

    public int AdultId { get; set; }

    public Adult? Adult { get; set; }

    public required string Why { get; set; }
}

/// <summary>A picture of what the child made, never of the child: scaled down, without place or time.</summary>
public sealed class PhotoRow
{
    public Guid ObservationId { get; set; }

    public required byte[] Jpeg { get; set; }
}
