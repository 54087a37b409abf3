using CsCheck;
using Fobble.Core.People;

namespace Fobble.Core.Tests.People;

public class ShortNamesTests
{
    // Names that are hard to keep apart: few, of several scripts, empty families, initials as families, a joiner nobody sees.
    private static readonly Gen<ListedName> Child =
        from given in OneOf("Ada", "ada", "مريم", "山田", "ශ්‍රී", "ශ්රී", "Ada O.", "Ana  Lu")
        from family in OneOf("", "Okafor", "Ok.", "O.", "O", "OKAFOR", "ö", "o\u0308", "太郎", "(2)", "1")
        from mark in OneOf<string?>(null, "", "B", "b", "2", "(2)")
        from born in OneOf<DateOnly?>(null, new DateOnly(2021, 5, 12), new DateOnly(2020, 5, 12), new DateOnly(2021, 6, 1))
        select new ListedName(given, family, mark, born);

    [Fact]
    public void First_name_and_initial_is_enough_for_most() => Of(("Ada", "Okafor"), ("Bo", "")).ShouldBe(["Ada O.", "Bo"]);

    [Fact]
    public void More_letters_tell_apart_children_who_would_be_called_alike() =>
        Of(("Ada", "Okafor"), ("Ada", "Olsen"), ("Ada", "Brandt")).ShouldBe(["Ada Ok.", "Ada Ol.", "Ada B."]);

    [Fact]
    public void Children_of_one_name_are_told_apart_by_the_mark_they_were_given_else_by_the_birthday_else_by_a_number()
    {
        ListedName ana = new("Ana", "Silva");
        Typed(ana with { Mark = "B" }, ana with { Mark = "R" }, new("Ana", "Souza")).ShouldBe(["Ana Si. (B)", "Ana Si. (R)", "Ana So."]);
        Typed(ana with { Born = new(2021, 5, 12) }, ana with { Born = new(2021, 9, 3) }).ShouldBe(["Ana S. (12 May)", "Ana S. (3 Sep)"]);
        Typed(ana with { Mark = "B" }, ana with { Mark = "b" }).ShouldBe(["Ana S. (1)", "Ana S. (2)"]);
        Typed(ana, new("ANA", "silva")).ShouldBe(["Ana S. (1)", "ANA s. (2)"]);
    }

    [Fact]
    public void No_two_children_are_ever_called_alike() =>
        Child
            .List[0, 9]
            .Sample(
                children =>
                {
                    ShortNames.Of(children).Select(ShortNames.Same).ShouldBeUnique();
                    ShortNames.FirstOf(children).Select(ShortNames.Same).ShouldBeUnique();
                },
                iter: 20_000
            );

    [Fact]
    public void First_names_alone_are_enough_where_each_is_there_once() =>
        ShortNames.FirstOf([new("Ada", "Li"), new("Bo", "Li"), new("ada", "Ng")]).Select(ShortNames.Typed).ShouldBe(["Ada L.", "Bo", "ada N."]);

    [Fact]
    public void A_name_that_runs_from_right_to_left_keeps_its_initial_beside_it()
    {
        ShortNames.Of([new("مريم", "الخطيب"), new("רבקה", "כהן")]).ShouldBe(["\u2068مريم\u00A0ا.\u2069", "\u2068רבקה\u00A0כ.\u2069"]);
        Of(("مريم", "الخطيب")).ShouldBe(["مريم ا."]);
    }

    [Fact]
    public void A_name_and_its_initial_never_part() => ShortNames.Of([new("Maria Ana", "Silva")]).ShouldBe(["Maria Ana\u00A0S."]);

    [Fact]
    public void An_accent_is_never_cut_from_its_letter() => Of(("Åse", "O\u0308rn")).ShouldBe(["Åse O\u0308."]);

    private static Gen<T> OneOf<T>(params T[] these) => Gen.Int[0, these.Length - 1].Select(i => these[i]);

    private static IReadOnlyList<string> Of(params (string Given, string Family)[] children) =>
        Typed([.. children.Select(c => new ListedName(c.Given, c.Family))]);

    private static IReadOnlyList<string> Typed(params ListedName[] children) => [.. ShortNames.Of(children).Select(ShortNames.Typed)];
}
