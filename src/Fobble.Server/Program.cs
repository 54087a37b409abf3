using Fobble.Server.Hosting;

var builder = WebApplication.CreateBuilder(args);
try
{
    builder.AddFobble();
}
catch (WrongSettingException wrong)
{
    await Console.Error.WriteLineAsync(wrong.Message);
    return 2;
}

var app = builder.Build();
if (args is [LostPassword.Word, var email])
{
    return await LostPassword.TellAsync(app.Services, email, Console.Out);
}

if (args is [BackupCommands.Backup])
{
    return await BackupCommands.TakeAsync(app.Services, Console.Out);
}

if (args is [BackupCommands.Restore, var backup])
{
    return await BackupCommands.PutBackAsync(app.Services, backup, Console.Out);
}

app.UseFobble();
await app.StartFobbleAsync();
app.Run();
return 0;

/// <summary>Named so that the tests can start the application.</summary>
public partial class Program;
