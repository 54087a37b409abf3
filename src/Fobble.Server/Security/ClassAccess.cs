using System.Security.Claims;
using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace Fobble.Server.Security;

/// <summary>What an adult may do in a class. Every address below a class asks for one of these.</summary>
internal static class Policies
{
    internal const string FullNameClaim = "fobble:name";
    internal const string DeviceClaim = "fobble:device";

    public const string See = "see the class";
    public const string Record = "record in the class";
    public const string Lead = "lead the class";
    public const string LeadSchool = "lead the school";

    public static void AddFobbleAuthorization(this IServiceCollection services)
    {
        services.AddScoped<Members>();
        services.AddScoped<IAuthorizationHandler, ClassAccessHandler>();
        services.AddScoped<IAuthorizationHandler, SchoolAccessHandler>();
        services
            .AddAuthorizationBuilder()
            .AddPolicy(See, p => p.RequireAuthenticatedUser().AddRequirements(new ClassAccess(Enum.GetValues<ClassRole>())))
            .AddPolicy(Record, p => p.RequireAuthenticatedUser().AddRequirements(new ClassAccess(ClassRole.LeadTeacher, ClassRole.Assistant, ClassRole.Cover)))
            .AddPolicy(Lead, p => p.RequireAuthenticatedUser().AddRequirements(new ClassAccess(ClassRole.LeadTeacher)))
            .AddPolicy(LeadSchool, p => p.RequireAuthenticatedUser().AddRequirements(new SchoolAccess()))
            .SetFallbackPolicy(new AuthorizationPolicyBuilder().RequireAuthenticatedUser().Build());
    }

    public static AdultId AdultId(this ClaimsPrincipal user) =>
        new(
            int.Parse(
                user.FindFirstValue(ClaimTypes.NameIdentifier) ?? throw new InvalidOperationException("Nobody is signed in."),
                System.Globalization.CultureInfo.InvariantCulture
            )
        );

    /// <summary>Which of the adult's devices it is: <see cref="SignedInRow.Id"/>.</summary>
    public static string Device(this ClaimsPrincipal user) => user.FindFirstValue(DeviceClaim) ?? "";

    /// <summary>Who is signed in. The name stands in the cookie, so that saying who recorded something costs no query.</summary>
    public static (AdultId Id, string Name) Adult(this ClaimsPrincipal user) =>
        (user.AdultId(), user.FindFirstValue(FullNameClaim) ?? user.Identity?.Name ?? "");
}

/// <summary>Puts the adult's full name into the cookie.</summary>
internal sealed class AdultClaims(UserManager<Adult> adults, IOptions<IdentityOptions> options) : UserClaimsPrincipalFactory<Adult>(adults, options)
{
    protected override async Task<ClaimsIdentity> GenerateClaimsAsync(Adult user)
    {
        var identity = await base.GenerateClaimsAsync(user);
        identity.AddClaim(new(Policies.FullNameClaim, user.FullName));
        return identity;
    }
}

/// <summary>Be a member of the class in the address, in one of these roles.</summary>
internal sealed class ClassAccess(params IReadOnlyList<ClassRole> roles) : IAuthorizationRequirement
{
    public IReadOnlyList<ClassRole> Roles { get; } = roles;
}

internal sealed class ClassAccessHandler(Members members) : AuthorizationHandler<ClassAccess>
{
    // An address can ask for two things at once (see, and record); the membership is the same for both.
    private readonly Dictionary<(ClassId Class, AdultId Adult), Member?> _roles = [];

    protected override async Task HandleRequirementAsync(AuthorizationHandlerContext context, ClassAccess requirement)
    {
        var http = context.Resource as HttpContext;
        if (context.User.Identity?.IsAuthenticated != true || !ClassId.TryParse(http?.GetRouteValue("classId") as string, out var classId))
        {
            return;
        }

        var key = (classId, context.User.AdultId());
        if (!_roles.TryGetValue(key, out var held))
        {
            held = _roles[key] = await members.TodayAsync(classId, key.Item2, http!.RequestAborted);
        }

        // What is an archive is read and no more written, by whoever.
        var reads = HttpMethods.IsGet(http!.Request.Method) || HttpMethods.IsHead(http.Request.Method);
        if (held is not null && requirement.Roles.Contains(held.Role) && (!held.Archived || reads))
        {
            context.Succeed(requirement);
        }
    }
}

/// <summary>Lead the school: the one of the class in the address, where there is a class in it.</summary>
internal sealed class SchoolAccess : IAuthorizationRequirement;

internal sealed class SchoolAccessHandler(FobbleDb db) : AuthorizationHandler<SchoolAccess>
{
    protected override async Task HandleRequirementAsync(AuthorizationHandlerContext context, SchoolAccess requirement)
    {
        if (context.User.Identity?.IsAuthenticated != true)
        {
            return;
        }

        var adult = context.User.AdultId().Value;
        var led = db.SchoolLeads.Where(l => l.AdultId == adult);
        if ((context.Resource as HttpContext)?.GetRouteValue("classId") is { } named)
        {
            led = ClassId.TryParse(named as string, out var classId)
                ? led.Where(l => db.Classes.Any(c => c.Id == classId.Value && c.SchoolId == l.SchoolId))
                : led.Where(_ => false);
        }

        if (await led.AnyAsync())
        {
            context.Succeed(requirement);
        }
    }
}
