using NetArchTest.Rules;

namespace Fobble.Server.Tests;

/// <summary>Between projects the arrows point inwards: Server → Data, Formats → Core.</summary>
public class ArrowTests
{
    [Theory]
    [InlineData(typeof(Data.FobbleDb), new[] { "Fobble.Server", "Fobble.Formats" })]
    [InlineData(typeof(Formats.ClassLists.ClassListReader), new[] { "Fobble.Server", "Fobble.Data" })]
    public void A_project_knows_only_what_lies_further_in(Type of, string[] forbidden) =>
        (Types.InAssembly(of.Assembly).ShouldNot().HaveDependencyOnAny(forbidden).GetResult().FailingTypeNames ?? []).ShouldBeEmpty();

    [Fact]
    public void Security_knows_no_feature() =>
        (Types.InAssembly(typeof(Program).Assembly).That().ResideInNamespace("Fobble.Server.Security").ShouldNot().HaveDependencyOn("Fobble.Server.Features").GetResult().FailingTypeNames ?? []).ShouldBeEmpty();
}
