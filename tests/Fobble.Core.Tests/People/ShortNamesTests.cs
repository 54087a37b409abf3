using Fobble.Core.People;

namespace Fobble.Core.Tests.People;

public class ShortNamesTests
{
    [Fact]
    public void First_name_and_initial_is_enough_for_most() => ShortNames.Of([("Ada", "Okafor"), ("Bo", "")]).ShouldBe(["Ada O.", "Bo"]);

    [Fact]
    public void More_letters_tell_apart_children_who_would_be_called_alike() =>
        ShortNames.Of([("Ada", "Okafor"), ("Ada", "Olsen"), ("Ada", "Brandt")]).ShouldBe(["Ada Ok.", "Ada Ol.", "Ada B."]);

    [Fact]
    public void Whole_names_that_are_alike_stay_alike() => ShortNames.Of([("Ada", "Li"), ("Ada", "Li")]).ShouldBe(["Ada Li", "Ada Li"]);

    [Fact]
    public void An_accent_is_never_cut_from_its_letter() => ShortNames.Of([("Åse", "O\u0308rn")]).ShouldBe(["Åse O\u0308."]);
}
