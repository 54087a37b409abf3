using System.Globalization;
using System.Text.Json.Serialization;
using Fobble.Data;
using Fobble.Data.Keeping;
using Fobble.Data.Model;
using Fobble.Server.Demo;
using Fobble.Server.Features.Live;
using Fobble.Server.Mail;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Hosting;

/// <summary>Puts the application together: services, the way a request takes, and what happens before the first one.</summary>
public static partial class Setup
{
    /// <summary>What has not ended by then when the server is told to stop is left where it is: nothing of it was kept.</summary>
    private static readonly TimeSpan ShutdownTimeout = TimeSpan.FromSeconds(2);

    /// <summary>Contents, plans, sheets and states of checks that are kept at once; beyond it the oldest go.</summary>
    private const int MostKept = 400;

    /// <summary>Of the program.</summary>
    internal static string Version => typeof(Setup).Assembly.GetName().Version!.ToString(3);

    // At build the application is started to write its OpenAPI document, without a database.
    private static bool WritesOpenApi => System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

    /// <summary>Serves, or does what a command says and ends.</summary>
    /// <returns>What the process ends with.</returns>
    /// <exception cref="WrongSettingException">A setting makes no sense.</exception>
    /// <exception cref="DataFolderException">The data can't be worked with.</exception>
    public static async Task<int> RunAsync(string[] args)
    {
        var builder = WebApplication.CreateBuilder(args);
        builder.AddFobble();
        await using var app = builder.Build();
        switch (args)
        {
            case [LostPassword.Word, var email]:
                return await LostPassword.TellAsync(app.Services, email, Console.Out);
            case [BackupCommands.Backup]:
                return await BackupCommands.TakeAsync(app.Services, Console.Out);
            case [BackupCommands.Drill]:
                return await BackupCommands.DrillAsync(app.Services, Console.Out);
            case [BackupCommands.Restore, var backup]:
                return await BackupCommands.PutBackAsync(app.Services, backup, Console.Out);
        }

        app.UseFobble();
        await app.StartFobbleAsync();
        await app.RunAsync();
        return 0;
    }

    public static void AddFobble(this WebApplicationBuilder builder)
    {
        SchoolLanguage.LearnAll();
        OwnersOnly.FromNowOn();
        var settings = FobbleSettings.Of(builder.Configuration);
        var services = builder.Services;
        builder.Listen(settings);
        builder.AddTelemetry(settings);
        builder.AddLog(settings);
        services.AddSingleton(settings);
        services.AddSingleton<HeldFolder>();
        var clock = settings.Now is { } now ? new ShiftedClock(now) : TimeProvider.System;
        services.AddSingleton(clock);
        var database = Path.Combine(settings.Data, DataFolder.DatabaseFile);
        services.AddDbContextPool<FobbleDb>(options => FobbleDb.Configure(options, database), FobbleDb.MostKeptOpen);
        services.AddSingleton(_ => new ReadingContexts(database));
        services.AddMemoryCache(cache => cache.SizeLimit = MostKept);
        services.AddHybridCache().AddSerializerFactory<KeptInMemory>();
        services.AddSingleton<SchoolLanguage>();
        services.AddSingleton<ContentCache>();
        services.AddSingleton<PlanCache>();
        services.AddSingleton<ObservationCache>();
        services.AddSingleton<ReadingTurns>();
        services.AddSingleton<AskedTogether>();
        services.AddSingleton(provider => new UnchangedAnswers(new ChangeWatch(database), provider.GetRequiredService<TimeProvider>()));
        services.AddScoped<ClassRoom>();
        services.AddScoped<ClassRooms>();
        services.AddSingleton<WriteQueue>();
        services.AddSingleton<RecordingLane>();
        services.AddScoped<Decisions>();
        services.AddSingleton<Erasing>();
        services.AddSingleton<Solving>();
        services.AddSingleton<JobQueue>();
        services.AddSingleton<AheadQueue>();
        services.AddSingleton<MailQueue>();
        services.AddSingleton<Backups>();
        services.AddHealth();
        services.AddScoped<Letters>();
        services.AddSingleton<FirstCode>();
        foreach (var feature in IFeature.All)
        {
            feature.AddServices(services);
        }

        // The demo's mail goes to its own post office and nowhere else.
        if (settings.Demo && !WritesOpenApi)
        {
            PostOffice office = new(clock);
            settings.Mail = office.Settings;
            services.AddSingleton(office);
            services.AddHostedService(_ => office);
            services.AddSingleton<StandInOffice>();
            settings.Roster ??= Path.Combine(settings.Data, StandInOffice.Folder);
        }
        if (!WritesOpenApi)
        {
            services.AddHostedService<WarmUp>();
            services.AddHostedService<EndInTime>();
            services.AddHostedService(provider => provider.GetRequiredService<RecordingLane>());
            services.AddHostedService(provider => provider.GetRequiredService<JobQueue>());
            services.AddHostedService(provider => provider.GetRequiredService<AheadQueue>());
            services.AddHostedService(provider => provider.GetRequiredService<MailQueue>());
            services.AddHostedService(provider => provider.GetRequiredService<Backups>());
            services.Configure<HostOptions>(options => options.ShutdownTimeout = ShutdownTimeout);
        }

        services.AddDataProtection().PersistKeysToFileSystem(new DirectoryInfo(Path.Combine(settings.Data, "keys"))).SetApplicationName("fobble");
        services
            .AddIdentityCore<Adult>(options =>
            {
                options.Password = new()
                {
                    RequiredLength = 10,
                    RequireDigit = false,
                    RequireLowercase = false,
                    RequireUppercase = false,
                    RequireNonAlphanumeric = false,
                    RequiredUniqueChars = 1,
                };
                options.User.RequireUniqueEmail = true;
            })
            .AddEntityFrameworkStores<FobbleDb>()
            .AddSignInManager()
            .AddPasswordValidator<HardToGuess>()
            .AddClaimsPrincipalFactory<AdultClaims>()
            .AddDefaultTokenProviders()
            .AddTokenProvider<InvitationTokens>(InvitationTokens.Name);
        services
            .AddAuthentication(IdentityConstants.ApplicationScheme)
            .AddCookie(IdentityConstants.ApplicationScheme, cookie => Cookies.Configure(cookie, settings.OverHttps));
        services.AddSingleton<OpenConnections>();
        services.AddSingleton<IPasswordHasher<Adult>, PasswordHasher<Adult>>();
        services.AddSingleton<SignInTries>();
        services.AddSingleton<HowOften>();
        services.AddKeyedSingleton(SecondStep.PhonesTime, TimeProvider.System);
        services.AddSingleton<SecondStep>();
        services.AddSingleton<Traces>();
        services.AddSingleton<SignedIns>();
        services
            .AddOptions<CookieAuthenticationOptions>(IdentityConstants.ApplicationScheme)
            .Configure<SignedIns>((cookie, store) => cookie.SessionStore = store);
        services.AddFobbleAuthorization();
        services.AddAntiforgery(options =>
        {
            options.HeaderName = "X-XSRF-TOKEN";
            options.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
        });

        services.ConfigureHttpJsonOptions(options =>
        {
            var json = options.SerializerOptions;
            json.NumberHandling = JsonNumberHandling.Strict;
            json.RespectNullableAnnotations = true;
            json.RespectRequiredConstructorParameters = true;
            json.Converters.Add(new JsonStringEnumConverter(allowIntegerValues: false));
        });
        services.AddProblemDetails(options =>
            options.CustomizeProblemDetails = context =>
                context.ProblemDetails.Detail ??= context.ProblemDetails.Status switch
                {
                    StatusCodes.Status400BadRequest => Unreadable.Anything,
                    StatusCodes.Status404NotFound => Phrase("This is not here: it was taken out, or never was in this class."),
                    _ => null,
                }
        );
        services.AddSingleton<RecentFaults>();
        services.AddSingleton<PageTimes>();
        services.AddExceptionHandler<Problems>();
        services.AddSignalR().AddJsonProtocol(options => options.PayloadSerializerOptions.Converters.Add(new JsonStringEnumConverter()));
        services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
        services.AddOpenApi(OpenApiShape.Configure);
        services.AddResponseCompression(options => options.EnableForHttps = true);
    }

    public static void UseFobble(this WebApplication app)
    {
        app.UseTelemetry(app.Services.GetRequiredService<FobbleSettings>());
        app.UseForwardedHeaders();
        app.Use(app.Services.GetRequiredService<PageTimes>().TakeAsync);
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        app.UseSecurityHeaders(Headers.Policy);
        app.UseHttpsOnly(app.Services.GetRequiredService<FobbleSettings>());
        app.UseResponseCompression();
        app.UseFirstPage();
        app.UseStaticFiles(new StaticFileOptions { OnPrepareResponse = Headers.CacheByName });
        app.Use(Headers.KeepNoAnswerAsync);
        app.Use((context, next) => app.Services.GetRequiredService<SchoolLanguage>().SpeakAsync(context, next));
        app.UseAuthentication();
        app.UseAuthorization();
        app.UseMiddleware<AntiforgeryGate>();
        app.UseMiddleware<BodyGate>();

        app.MapHealth();
        app.MapOpenApi().AllowAnonymous();
        app.MapHub<LiveHub>(LiveHub.Address);
        var api = app.MapGroup("/api").ChooseFromWhatThereIs();
        var ofClass = api.MapGroup("/classes/{classId:int}").RequireAuthorization(Policies.See).EnterRooms();
        foreach (var feature in IFeature.All)
        {
            feature.MapAddresses(api, ofClass);
        }

        api.MapFallback(() => TypedResults.Problem(Phrase("There is nothing at this address."), statusCode: StatusCodes.Status404NotFound)).AllowAnonymous();
        app.MapFallback("{*path:nonfile}", FirstPage.WriteAsync).AllowAnonymous();
    }

    /// <summary>Brings the database up to date and, in the demo, fills it. Does nothing while the OpenAPI document is written at build.</summary>
    public static async Task StartFobbleAsync(this WebApplication app)
    {
        if (WritesOpenApi)
        {
            return;
        }

        var settings = app.Services.GetRequiredService<FobbleSettings>();
        var folder = app.Services.GetRequiredService<HeldFolder>().Take();
        var (age, filled) = Schema.Of(folder.Database);
        if (age != SchemaAge.OfNow && SchemaUpdate.Run(folder, age) is { } before)
        {
            Updated(app.Logger, Version, before);
        }

        await using var scope = app.Services.CreateAsyncScope();
        if (filled)
        {
            await app.Services.GetRequiredService<Erasing>().ReplayAsync(CancellationToken.None);
        }

        if (settings.Demo && !filled)
        {
            var language = app.Services.GetRequiredService<SchoolLanguage>();
            CultureInfo.CurrentUICulture = await language.NowAsync(CancellationToken.None);
            await ActivatorUtilities.CreateInstance<DemoSchool>(scope.ServiceProvider).FillAsync();
            language.Changed();
        }
        else if (!filled)
        {
            app.Services.GetRequiredService<FirstCode>().Tell(Console.Out);
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "The data were brought to version {Version}; as they were before they are kept in {Before}.")]
    private static partial void Updated(ILogger log, string version, string before);
}
