using System.Linq.Expressions;
using System.Reflection;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Fobble.Data.Model;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;

namespace Fobble.Data;

/// <summary>
/// All that is kept of one child, or of a school, table by table and as it is kept. Which tables those are is told by the model's foreign keys, so that one that is
/// added is not forgotten. What opens something, or says only how the program is doing, stays here; photos are files of their own.
/// </summary>
public static class Everything
{
    private static readonly HashSet<Type> StaysHere = [typeof(ClassVersionRow), typeof(CalendarAddressRow), typeof(PhotoRow), typeof(ErasedRow)];

    private static readonly MethodInfo Belonging = typeof(Everything).GetMethod(nameof(RowsOf), BindingFlags.NonPublic | BindingFlags.Static)!;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        Converters = { new JsonStringEnumConverter() },
        TypeInfoResolver = new DefaultJsonTypeInfoResolver(),
    };

    /// <summary>Tables of what belongs to a <paramref name="root"/>, itself first; each after those that its rows hang on.</summary>
    public static IReadOnlyList<IEntityType> TablesOf(IModel model, Type root)
    {
        ArgumentNullException.ThrowIfNull(model);
        ArgumentNullException.ThrowIfNull(root);
        List<IEntityType> all = [];
        HashSet<IEntityType> on = [];
        Visit(model.FindEntityType(root)!);
        all.Reverse();
        all.AddRange(model.GetEntityTypes().Where(t => !on.Contains(t) && !StaysHere.Contains(t.ClrType) && OnlyNamed(t, root).Any()));
        return all;

        void Visit(IEntityType table)
        {
            if (!on.Add(table))
            {
                return;
            }

            foreach (var other in table.GetReferencingForeignKeys().Select(f => f.DeclaringEntityType).Where(e => !e.IsOwned() && e.ClrType != root))
            {
                Visit(other);
            }

            if (!StaysHere.Contains(table.ClrType) || table.ClrType == root)
            {
                all.Add(table);
            }
        }
    }

    /// <summary>A table's rows that belong to one <typeparamref name="TRoot"/>: a JSON list of objects, each as <see cref="SchemaOf"/> says.</summary>
    /// <param name="id">Of the child or the school.</param>
    public static async Task WriteAsync<TRoot>(FobbleDb db, IEntityType table, int id, Stream to, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(table);
        ArgumentNullException.ThrowIfNull(to);
        await JsonSerializer.SerializeAsync(to, InWordsAsync(), Json, stop);

        async IAsyncEnumerable<Dictionary<string, object?>> InWordsAsync()
        {
            await foreach (var row in ((IQueryable<object>)Of(table, typeof(TRoot), db, id)).AsAsyncEnumerable().WithCancellation(stop))
            {
                yield return Values(table).ToDictionary(v => v.Name, v => v.Of(row));
            }
        }
    }

    /// <summary>Ids of observations with a photo, and the photo, of one <typeparamref name="TRoot"/>.</summary>
    public static IQueryable<PhotoRow> PhotosOf<TRoot>(FobbleDb db, int id)
    {
        ArgumentNullException.ThrowIfNull(db);
        return (IQueryable<PhotoRow>)Of(db.Model.FindEntityType(typeof(PhotoRow))!, typeof(TRoot), db, id);
    }

    /// <summary>JSON Schema (2020-12) of the files, by the name of their table.</summary>
    public static string SchemaOf(IEnumerable<IEntityType> tables)
    {
        ArgumentNullException.ThrowIfNull(tables);
        JsonObject definitions = [];
        foreach (var table in tables)
        {
            JsonObject properties = [];
            foreach (var value in Values(table))
            {
                properties[value.Name] = Json.GetJsonSchemaAsNode(value.Type);
            }

            definitions[table.GetTableName()!] = new JsonObject
            {
                ["type"] = "array",
                ["items"] = new JsonObject
                {
                    ["type"] = "object",
                    ["properties"] = properties,
                    ["required"] = new JsonArray([.. properties.Select(p => (JsonNode)p.Key)]),
                    ["additionalProperties"] = false,
                },
            };
        }

        return new JsonObject { ["$schema"] = "https://json-schema.org/draft/2020-12/schema", ["$defs"] = definitions }.ToJsonString(Json);
    }

    private sealed record Value(string Name, Type Type, Func<object, object?> Of);

    private static IEnumerable<Value> Values(IEntityType table) =>
        table
            .GetProperties()
            .Select(p => new Value(Named(p.Name), p.PropertyInfo!.PropertyType, p.PropertyInfo.GetValue))
            .Concat(
                table
                    .GetNavigations()
                    .Where(n => n.TargetEntityType.IsOwned())
                    .Select(n => new Value(Named(n.Name), n.PropertyInfo!.PropertyType, n.PropertyInfo.GetValue))
            );

    private static string Named(string name) => JsonNamingPolicy.CamelCase.ConvertName(name);

    private static IQueryable Of(IEntityType table, Type root, FobbleDb db, int id) =>
        (IQueryable)Belonging.MakeGenericMethod(table.ClrType).Invoke(null, [table, root, db, id])!;

    // A row belongs to the root where any of its keys leads there: one query, whose conditions are queries for the tables it hangs on.
    private static IQueryable<T> RowsOf<T>(IEntityType table, Type root, FobbleDb db, int id)
        where T : class
    {
        var row = Expression.Parameter(typeof(T), "row");
        Expression? belongs = null;
        if (table.ClrType == root)
        {
            belongs = Expression.Equal(ValueOf(row, table.FindPrimaryKey()!.Properties[0]), Expression.Constant(id));
        }
        else
        {
            var within = TablesOf(db.Model, root);
            foreach (var key in table.GetForeignKeys().Where(f => within.Contains(f.PrincipalEntityType)))
            {
                var (own, others) = (key.Properties.Single(), key.PrincipalKey.Properties.Single());
                var of = Of(key.PrincipalEntityType, root, db, id);
                var other = Expression.Parameter(key.PrincipalEntityType.ClrType, "of");
                var ids = Expression.Call(
                    typeof(Queryable),
                    nameof(Queryable.Select),
                    [other.Type, own.ClrType],
                    of.Expression,
                    Expression.Lambda(Expression.Convert(ValueOf(other, others), own.ClrType), other)
                );
                Expression here = Expression.Call(typeof(Queryable), nameof(Queryable.Contains), [own.ClrType], ids, ValueOf(row, own));
                belongs = belongs is null ? here : Expression.OrElse(belongs, here);
            }

            foreach (var named in OnlyNamed(table, root))
            {
                Expression here = Expression.Equal(Expression.Convert(ValueOf(row, named), typeof(int?)), Expression.Constant(id, typeof(int?)));
                belongs = belongs is null ? here : Expression.OrElse(belongs, here);
            }
        }

        return db.Set<T>().AsNoTracking().Where(Expression.Lambda<Func<T, bool>>(belongs!, row));
    }

    // Some tables name a child without a key: their rows outlast it, or go another way.
    private static IEnumerable<IProperty> OnlyNamed(IEntityType table, Type root) =>
        root == typeof(Child) ? table.GetProperties().Where(p => p.Name.EndsWith("ChildId", StringComparison.Ordinal) && !p.IsForeignKey()) : [];

    private static MethodCallExpression ValueOf(ParameterExpression row, IProperty property) =>
        Expression.Call(typeof(EF), nameof(EF.Property), [property.ClrType], row, Expression.Constant(property.Name));
}
