namespace Fobble.Data.Keeping;

/// <summary>The data folder, or what lies in it, is not as it must be to work with it. The sentence says what, and what to do, for whoever runs the server.</summary>
public sealed class DataFolderException(string sentence, Exception? inner = null) : Exception(sentence, inner);
