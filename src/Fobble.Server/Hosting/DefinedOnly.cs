using System.Reflection;
using System.Text.Json;

namespace Fobble.Server.Hosting;

/// <summary>
/// The framework takes any number in an address for a choice, also one that no choice has: it is refused before anything is done, as a word would be that no choice has.
/// </summary>
internal static class DefinedOnly
{
    public static TBuilder ChooseFromWhatThereIs<TBuilder>(this TBuilder builder)
        where TBuilder : IEndpointConventionBuilder =>
        builder.AddEndpointFilterFactory(
            (factory, next) =>
            {
                List<(int Place, string Name, Func<object?, object?> Read)> choices = [.. factory.MethodInfo.GetParameters().SelectMany(ChoicesIn)];
                return choices.Count == 0
                    ? next
                    : context =>
                    {
                        foreach (var (place, name, read) in choices)
                        {
                            var chosen = read(context.Arguments[place]);
                            RefusedException.Unless(
                                chosen is null || Enum.IsDefined(chosen.GetType(), chosen),
                                name,
                                Phrase($"“{chosen}” is not something that “{name}” can be.")
                            );
                        }

                        return next(context);
                    };
            }
        );

    private static IEnumerable<(int Place, string Name, Func<object?, object?> Read)> ChoicesIn(ParameterInfo parameter)
    {
        if (IsChoice(parameter.ParameterType))
        {
            return [(parameter.Position, NameOf(parameter.Name!), argument => argument)];
        }

        return parameter.GetCustomAttribute<AsParametersAttribute>() is null
            ? []
            : parameter
                .ParameterType.GetProperties()
                .Where(p => IsChoice(p.PropertyType))
                .Select(p => (parameter.Position, NameOf(p.Name), (Func<object?, object?>)(argument => argument is null ? null : p.GetValue(argument))));
    }

    private static bool IsChoice(Type type) => (Nullable.GetUnderlyingType(type) ?? type).IsEnum;

    private static string NameOf(string name) => JsonNamingPolicy.CamelCase.ConvertName(name);
}
