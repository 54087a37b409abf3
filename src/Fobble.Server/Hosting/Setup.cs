using System.Text.Json.Serialization;
using Fobble.Data.Model;
using Fobble.Data;
using Fobble.Server.Demo;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.Activities;
using Fobble.Server.Features.Agreement;
using Fobble.Server.Features.Attendance;
using Fobble.Server.Features.Baseline;
using Fobble.Server.Features.Calendar;
using Fobble.Server.Features.ChildPage;
using Fobble.Server.Features.ClassApproach;
using Fobble.Server.Features.ClassGrid;
using Fobble.Server.Features.ClassList;
using Fobble.Server.Features.Clipboard;
using Fobble.Server.Features.Cupboard;
using Fobble.Server.Features.Groups;
using Fobble.Server.Features.GuessJar;
using Fobble.Server.Features.Live;
using Fobble.Server.Features.Mats;
using Fobble.Server.Features.Noticing;
using Fobble.Server.Features.Planning;
using Fobble.Server.Features.Records;
using Fobble.Server.Features.Reports;
using Fobble.Server.Features.Sessions;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Features.Sheets;
using Fobble.Server.Features.SkillMaps;
using Fobble.Server.Features.Today;
using Fobble.Server.Features.Trail;
using Fobble.Server.Features.Week;
using Fobble.Server.Features;
using Fobble.Server.Security;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Hosting;

/// <summary>Puts the application together: services, the way a request takes, and what happens before the first one.</summary>
public static class Setup
{
    private const string DatabaseFile = "fobble.db";

    // At build the application is started to write its OpenAPI document, without a database.
    private static bool WritesOpenApi => System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

    public static void AddFobble(this WebApplicationBuilder builder)
    {
        var settings = builder.Configuration.GetSection("Fobble").Get<FobbleSettings>() ?? new FobbleSettings();
        var services = builder.Services;
        builder.WebHost.ConfigureKestrel(kestrel => kestrel.AddServerHeader = false);
        services.AddSingleton(settings);
        services.AddSingleton(settings.Now is { } now ? new ShiftedClock(now) : TimeProvider.System);
        services.AddHttpContextAccessor();
        services.AddSingleton<ContentShelf>();
        services.AddScoped<RequestContent>();
        services.AddScoped(provider => provider.GetRequiredService<RequestContent>().Content);
        services.AddScoped(provider => provider.GetRequiredService<ClassContent>().Map);
        services.AddScoped(provider => provider.GetRequiredService<ClassContent>().Library);
        services.AddDbContextPool<FobbleDb>(options => FobbleDb.Configure(options, Path.Combine(settings.Data, DatabaseFile)));
        services.AddSingleton<ObservationLog>();
        services.AddScoped<ClassFacts>();
        services.AddScoped<WeekReader>();
        services.AddScoped<WeekMaker>();
        services.AddScoped<PlanReader>();
        services.AddScoped<PlanWriter>();
        services.AddSingleton(typeof(Desk<>));
        services.AddScoped<CardReader>();
        services.AddScoped<Recorder>();
        services.AddScoped<LiveBoard>();
        services.AddScoped<BaselineReader>();
        services.AddSingleton<BaselineDesk>();
        services.AddMemoryCache();
        services.AddScoped<SheetDesk>();
        services.AddScoped<CupboardReader>();
        services.AddScoped<SetOutReader>();
        services.AddScoped<PackMaker>();
        services.AddScoped<SchoolMapStore>();
        services.AddScoped<GroupingReader>();
        services.AddScoped<GroupWishReader>();
        services.AddScoped<GroupHistory>();
        services.AddScoped<DayReform>();
        if (!WritesOpenApi)
        {
            services.AddHostedService<WarmUp>();
        }

        services.AddDataProtection().PersistKeysToFileSystem(new DirectoryInfo(Path.Combine(settings.Data, "keys"))).SetApplicationName("fobble");
        services.AddIdentityCore<Adult>(options =>
        {
            options.Password = new() { RequiredLength = 10, RequireDigit = false, RequireLowercase = false, RequireUppercase = false, RequireNonAlphanumeric = false, RequiredUniqueChars = 5 };
            options.Lockout = new() { MaxFailedAccessAttempts = 5, DefaultLockoutTimeSpan = TimeSpan.FromMinutes(10), AllowedForNewUsers = true };
            options.User.RequireUniqueEmail = true;
        }).AddEntityFrameworkStores<FobbleDb>().AddSignInManager().AddClaimsPrincipalFactory<AdultClaims>().AddDefaultTokenProviders();
        services.AddAuthentication(IdentityConstants.ApplicationScheme).AddCookie(IdentityConstants.ApplicationScheme, Cookies.Configure);
        services.AddFobbleAuthorization();
        services.AddAntiforgery(options => options.HeaderName = "X-XSRF-TOKEN");

        services.ConfigureHttpJsonOptions(options =>
        {
            var json = options.SerializerOptions;
            json.NumberHandling = JsonNumberHandling.Strict;
            json.RespectNullableAnnotations = true;
            json.RespectRequiredConstructorParameters = true;
            json.Converters.Add(new JsonStringEnumConverter());
        });
        services.AddProblemDetails();
        services.AddSignalR().AddJsonProtocol(options => options.PayloadSerializerOptions.Converters.Add(new JsonStringEnumConverter()));
        services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = false);
        services.AddOpenApi(OpenApiShape.Configure);
        services.AddResponseCompression(options => options.EnableForHttps = true);
    }

    public static void UseFobble(this WebApplication app)
    {
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        app.UseSecurityHeaders(Headers.Policy);
        app.UseResponseCompression();
        app.UseStaticFiles(new StaticFileOptions { OnPrepareResponse = Headers.CacheByName });
        app.UseAuthentication();
        app.UseAuthorization();
        app.UseMiddleware<AntiforgeryGate>();

        app.MapGet("/health", () => TypedResults.Ok(new Health("well"))).AllowAnonymous().ExcludeFromDescription();
        app.MapOpenApi().AllowAnonymous();
        app.MapHub<LiveHub>(LiveHub.Address);
        var api = app.MapGroup("/api");
        api.MapAccount();
        var ofClass = api.MapGroup("/classes/{classId:int}").RequireAuthorization(Policies.See);
        ofClass.MapActivities();
        ofClass.MapAgreement();
        ofClass.MapAttendance();
        ofClass.MapBaseline();
        ofClass.MapCalendar();
        ofClass.MapChildPage();
        ofClass.MapClassApproach();
        ofClass.MapClassGrid();
        ofClass.MapClassList();
        ofClass.MapClipboard();
        ofClass.MapCupboard();
        ofClass.MapGroups();
        ofClass.MapGroupWishes();
        ofClass.MapLookingBack();
        ofClass.MapGuessJar();
        ofClass.MapMats();
        ofClass.MapNoticing();
        ofClass.MapPlanning();
        ofClass.MapRecords();
        ofClass.MapReports();
        ofClass.MapSessions();
        ofClass.MapSetUp();
        ofClass.MapSheets();
        ofClass.MapSkillMaps();
        ofClass.MapToday();
        ofClass.MapTrail();
        ofClass.MapWeek();
        api.MapFallback(() => TypedResults.Problem("There is nothing at this address.", statusCode: StatusCodes.Status404NotFound)).AllowAnonymous();
        app.MapFallbackToFile("index.html", new StaticFileOptions { OnPrepareResponse = Headers.CacheByName }).AllowAnonymous();
    }

    /// <summary>Brings the database up to date and, in the demo, fills it. Does nothing while the OpenAPI document is written at build.</summary>
    public static async Task StartFobbleAsync(this WebApplication app)
    {
        if (WritesOpenApi)
        {
            return;
        }

        var settings = app.Services.GetRequiredService<FobbleSettings>();
        Directory.CreateDirectory(settings.Data);
        var (upToDate, filled) = FobbleDb.LookInto(Path.Combine(settings.Data, DatabaseFile));
        if (upToDate && (filled || !settings.Demo))
        {
            return;
        }

        await using var scope = app.Services.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<FobbleDb>().Prepare();
        if (settings.Demo && !filled)
        {
            await ActivatorUtilities.CreateInstance<DemoSchool>(scope.ServiceProvider).FillAsync();
        }
    }

    internal sealed record Health(string Status);
}
