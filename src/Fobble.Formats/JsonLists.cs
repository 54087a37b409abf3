using System.Text.Json;

namespace Fobble.Formats;

/// <summary>Lists in JSON that hold nothing where they should hold something. No list of ours may, and readers of JSON do not look.</summary>
public static class JsonLists
{
    /// <param name="json">UTF-8. What is no JSON is for whoever reads it to refuse.</param>
    /// <returns>Whether a list in it has a null among its members.</returns>
    public static bool HoldNothing(ReadOnlySpan<byte> json)
    {
        Utf8JsonReader reader = new(json, new JsonReaderOptions { AllowMultipleValues = true });
        Stack<bool> inList = new();
        try
        {
            while (reader.Read())
            {
                switch (reader.TokenType)
                {
                    case JsonTokenType.StartArray or JsonTokenType.StartObject:
                        inList.Push(reader.TokenType == JsonTokenType.StartArray);
                        break;
                    case JsonTokenType.EndArray or JsonTokenType.EndObject:
                        inList.Pop();
                        break;
                    case JsonTokenType.Null when inList.TryPeek(out var list) && list:
                        return true;
                }
            }
        }
        catch (JsonException)
        {
            return false;
        }

        return false;
    }
}
