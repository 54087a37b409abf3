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
