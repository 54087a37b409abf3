using Fobble.Data.Keeping;
using Fobble.Server.Hosting;

try
{
    return await Setup.RunAsync(args);
}
catch (Exception fault) when (fault is WrongSettingException or DataFolderException)
{
    // All that is said: whoever starts a server is told what is wrong and what to do, and not where in the program it was found.
    await Console.Error.WriteLineAsync(fault.Message);
    return fault is WrongSettingException ? 2 : 3;
}

/// <summary>Named so that the tests can start the application.</summary>
public partial class Program;
