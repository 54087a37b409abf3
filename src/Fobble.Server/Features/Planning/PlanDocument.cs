using System.ComponentModel;
using System.Text.Json;
using System.Text.Json.Serialization;
using Fobble.Core.Planning;

namespace Fobble.Server.Features.Planning;

/// <summary>A version of a plan as it is stored: the plan with its settings and seed, what was asked for, and the last day it covers.</summary>
[ImmutableObject(true)]
internal sealed record PlanDocument(PlanAsk Ask, DateOnly From, DateOnly Until, YearPlan Plan)
{
    private static readonly JsonSerializerOptions Shape = new() { Converters = { new JsonStringEnumConverter() } };

    public string Write() => JsonSerializer.Serialize(this, Shape);

    public static PlanDocument Read(string text) =>
        JsonSerializer.Deserialize<PlanDocument>(text, Shape) ?? throw new InvalidDataException("A stored plan is empty.");
}
