using System.Buffers;
using System.Text;
using System.Text.Json;
using Microsoft.Extensions.Logging.Abstractions;
using Microsoft.Extensions.Logging.Console;
using Microsoft.Extensions.Options;

namespace Fobble.Server.Hosting;

/// <summary>
/// The log as lines of JSON, each with the number of the request that it is about. No name of a child gets into it: of what other libraries say only the form of the sentence is written,
/// and of what was thrown only its kind and where; both can hold what somebody typed. Our own sentences hold numbers alone.
/// </summary>
internal sealed class JsonLines(IOptionsMonitor<ConsoleFormatterOptions> options, TimeProvider clock) : ConsoleFormatter(Form)
{
    public const string Form = "fobble";
    private const string Ours = "Fobble.";

    public override void Write<TState>(in LogEntry<TState> logEntry, IExternalScopeProvider? scopeProvider, TextWriter textWriter)
    {
        ArrayBufferWriter<byte> line = new();
        using (Utf8JsonWriter json = new(line))
        {
            json.WriteStartObject();
            json.WriteString("at", clock.GetUtcNow());
            json.WriteString("level", logEntry.LogLevel.ToString());
            json.WriteString("of", logEntry.Category);
            json.WriteString("said", Said(logEntry));
            if (options.CurrentValue.IncludeScopes)
            {
                scopeProvider?.ForEachScope(WriteRequest, json);
            }

            if (logEntry.Exception is { } fault)
            {
                json.WriteStartArray("fault");
                for (var cause = fault; cause is not null; cause = cause.InnerException)
                {
                    json.WriteStringValue(cause.GetType().FullName);
                }

                json.WriteEndArray();
                json.WriteString("where", fault.GetBaseException().StackTrace);
            }

            json.WriteEndObject();
        }

        textWriter.WriteLine(Encoding.UTF8.GetString(line.WrittenSpan));
    }

    private static string Said<TState>(LogEntry<TState> entry) =>
        entry.Category.StartsWith(Ours, StringComparison.Ordinal)
            ? entry.Formatter(entry.State, null)
            : (entry.State as IEnumerable<KeyValuePair<string, object?>>)?.FirstOrDefault(p => p.Key == "{OriginalFormat}").Value as string
                ?? entry.EventId.ToString();

    private static void WriteRequest(object? scope, Utf8JsonWriter json)
    {
        if (scope is IEnumerable<KeyValuePair<string, object?>> named)
        {
            foreach (var (name, value) in named)
            {
                if (name is "RequestId" or "TraceId")
                {
                    json.WriteString(name is "RequestId" ? "request" : "trace", value?.ToString());
                }
            }
        }
    }
}

internal static class Logs
{
    public static void AddLog(this WebApplicationBuilder builder, FobbleSettings settings)
    {
        if (settings.Log == "text" || (settings.Log is null && settings.Demo))
        {
            return;
        }

        builder.Logging.AddConsole(console => console.FormatterName = JsonLines.Form);
        builder.Logging.AddConsoleFormatter<JsonLines, ConsoleFormatterOptions>(form => form.IncludeScopes = true);
    }
}
