using System.Reflection;
using Fobble.Core.Approaches;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using static Fobble.Core.Tests.Evidence.Record;
using static Fobble.Core.Tests.Planning.PlanWorld;

namespace Fobble.Core.Tests.Evidence;

/// <summary>How Fobble thinks: every number of a judgement is told, and what is told is the number that is used.</summary>
public class ThinkingTests
{
    public static TheoryData<string> Numbers =>
        [
            .. Of(typeof(EvidenceSettings)),
            .. Of(typeof(TogetherSettings)).Select(n => $"Together.{n}"),
            .. Of(typeof(SecondLookSettings)).Select(n => $"SecondLook.{n}"),
        ];

    // By turning each number that can be set: if the page stays as it was, the number is not on it.
    [Theory]
    [MemberData(nameof(Numbers))]
    public void Every_number_of_a_judgement_is_told(string number)
    {
        var told = Told(EvidenceSettings.Default);
        Told(Turned(number)).ShouldNotBe(told, $"{number} is on no page");
    }

    [Fact]
    public void Each_strictness_says_what_it_asks() =>
        Enum.GetValues<Strictness>()
            .Select(s => Told(EvidenceSettings.Default with { Strictness = s }))
            .Distinct()
            .Count()
            .ShouldBe(Enum.GetValues<Strictness>().Length);

    [Fact]
    public void An_empty_class_has_no_examples_and_one_with_a_record_has_those_that_are_true()
    {
        Thinking.Of(Class(Year())).Where(t => t.Title != "Ready").ShouldAllBe(t => t.Example == null);
        var evidence = Class(Year(), AllShow(new("count.how-many-5")), SchoolDay(30));
        var thoughts = Thinking.Of(evidence).ToDictionary(t => t.Title);
        var secure = thoughts["Secure and kept"].Example!;
        evidence[secure.Child, secure.Skill].Strength.ShouldBe(Strength.Secure);
        secure.Sentence.ShouldStartWith("Secure since");
        var ready = thoughts["Ready"].Example!;
        evidence.IsReady(ready.Child, ready.Skill).ShouldBeTrue();
        ready.Sentence.ShouldStartWith("Ready");
        var guess = thoughts["Taken to be there"].Example!;
        evidence.IsInferred(guess.Child, guess.Skill).ShouldBeTrue();
    }

    [Fact]
    public void What_a_plan_is_made_with_follows_its_settings()
    {
        string Line(PlanSettings settings) => string.Join('\n', settings.InNumbers);
        Line(PlanSettings.Usual with { BufferOneIn = 7 }).ShouldNotBe(Line(PlanSettings.Usual));
        Line(PlanSettings.Usual with { Gaps = [] }).ShouldNotBe(Line(PlanSettings.Usual));
    }

    private static string Told(EvidenceSettings settings) =>
        string.Join(
            '\n',
            Thinking.Of(new ClassEvidence(Map, Year(), settings, Ten, [], Begins)).SelectMany(t => t.Says.Concat(t.Numbers.Select(n => $"{n.Value} {n.For}")))
        );

    private static IEnumerable<string> Of(Type settings) =>
        settings
            .GetProperties(BindingFlags.Public | BindingFlags.Instance)
            .Where(p => p.SetMethod is not null && (p.PropertyType == typeof(double) || p.PropertyType == typeof(int) || p.PropertyType == typeof(Likelihood)))
            .Select(p => p.Name);

    private static EvidenceSettings Turned(string number)
    {
        var parts = number.Split('.');
        EvidenceSettings turned = EvidenceSettings.Default with { };
        if (parts.Length == 1)
        {
            Turn(turned, number);
        }
        else if (parts[0] == "Together")
        {
            var together = turned.Together with { };
            Turn(together, parts[1]);
            turned = turned with { Together = together };
        }
        else
        {
            var look = turned.SecondLook with { };
            Turn(look, parts[1]);
            turned = turned with { SecondLook = look };
        }

        return turned;

        static void Turn(object settings, string name)
        {
            var property = settings.GetType().GetProperty(name)!;
            object other = property.GetValue(settings) switch
            {
                int whole => whole + 1,
                double share => share < 1 ? share / 2 : share + 3,
                Likelihood chance => new Likelihood(chance.IfHas / 2, chance.IfNot / 2),
                var kind => throw new InvalidOperationException($"{kind}"),
            };
            property.SetValue(settings, other);
        }
    }
}
