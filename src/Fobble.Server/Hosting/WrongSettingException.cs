namespace Fobble.Server.Hosting;

/// <summary>A setting makes no sense. The sentence is for whoever starts the server, and all that is said.</summary>
public sealed class WrongSettingException(string sentence) : Exception(sentence);
