using Fobble.Server.Hosting;

var builder = WebApplication.CreateBuilder(args);
builder.AddFobble();
var app = builder.Build();
app.UseFobble();
await app.StartFobbleAsync();
app.Run();

/// <summary>Named so that the tests can start the application.</summary>
public partial class Program;
