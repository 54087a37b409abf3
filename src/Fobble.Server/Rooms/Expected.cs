using Fobble.Core.Evidence;
using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Rooms;

/// <summary>Parts of a class that a decision can rest on.</summary>
[Flags]
internal enum Parts
{
    None = 0,
    Groups = 1,
    Week = 2,
    Calendar = 4,

    /// <summary>The record, other than what was added to it.</summary>
    Record = 8,
    Plan = 16,

    /// <summary>The school's map and activities.</summary>
    Content = 32,
}

/// <summary>What a decision rests on; checked inside its transaction.</summary>
internal abstract record Expected
{
    /// <summary>It rests on nothing that was read before.</summary>
    public static Expected Anything { get; } = new Nothing();

    /// <summary>Parts are as they are in a room.</summary>
    public static Expected Unchanged(ClassRoom room, Parts parts) => new AsInRoom(room, parts);

    /// <summary>The plan of the year is the version that the adult looked at; 0 for none.</summary>
    public static Expected PlanVersion(ClassRoom room, int version) => new ThisPlan(room, version);

    /// <summary>The week's set of groups is the one that the adult looked at.</summary>
    /// <param name="version">As <see cref="GroupsVersion.Of"/> gives it.</param>
    public static Expected GroupsOf(ClassRoom room, DateOnly monday, string version) => new TheseGroups(room, monday, version);

    /// <exception cref="ChangedMeanwhileException">Something else is the case by now.</exception>
    public abstract Task CheckAsync(FobbleDb db, CancellationToken stop);

    private sealed record Nothing : Expected
    {
        public override Task CheckAsync(FobbleDb db, CancellationToken stop) => Task.CompletedTask;
    }

    private sealed record AsInRoom(ClassRoom Room, Parts Parts) : Expected
    {
        public override async Task CheckAsync(FobbleDb db, CancellationToken stop)
        {
            var now = await db.ClassVersions.AsNoTracking().SingleAsync(v => v.ClassId == Room.Id.Value, stop);
            var then = Room.Versions;
            var same =
                (!Parts.HasFlag(Parts.Groups) || now.Groups == then.Groups)
                && (!Parts.HasFlag(Parts.Week) || now.Week == then.Week)
                && (!Parts.HasFlag(Parts.Calendar) || now.Calendar == then.Calendar)
                && (!Parts.HasFlag(Parts.Record) || now.Record == then.Record);
            if (!same)
            {
                throw new ChangedMeanwhileException(Phrase("Someone changed the class in the meantime."), []) { CanBeWorkedOutAgain = true };
            }

            if (
                Parts.HasFlag(Parts.Content)
                && await db.Schools.Where(s => s.Id == Room.SchoolId).Select(s => s.ContentVersion).SingleAsync(stop) != Room.ContentVersion
            )
            {
                throw new ChangedMeanwhileException(Phrase("Someone changed the school’s map or activities in the meantime."), []);
            }

            if (Parts.HasFlag(Parts.Plan))
            {
                var year = await Room.YearAsync(stop);
                var version = await db.YearPlans.Where(p => p.ClassId == Room.Id.Value && p.Year == year).MaxAsync(p => (int?)p.Version, stop) ?? 0;
                if (version != ((await Room.PlanAsync(stop))?.Version ?? 0))
                {
                    throw new ChangedMeanwhileException(Phrase("Someone changed the plan in the meantime."), []) { CanBeWorkedOutAgain = true };
                }
            }
        }
    }

    private sealed record ThisPlan(ClassRoom Room, int Version) : Expected
    {
        public override async Task CheckAsync(FobbleDb db, CancellationToken stop)
        {
            var year = await Room.YearAsync(stop);
            var plans = db.YearPlans.Where(p => p.ClassId == Room.Id.Value && p.Year == year);
            if ((await plans.MaxAsync(p => (int?)p.Version, stop) ?? 0) != Version)
            {
                var since = await plans
                    .Where(p => p.Version > Version)
                    .OrderBy(p => p.Version)
                    .Join(
                        db.Users,
                        p => p.AdultId,
                        a => a.Id,
                        (p, a) =>
                            new
                            {
                                a.FullName,
                                p.At,
                                p.What,
                            }
                    )
                    .ToListAsync(stop);
                throw new ChangedMeanwhileException(
                    Phrase("The plan has changed since you looked at it."),
                    [.. since.Select(c => $"{c.FullName}, {Words.Clock(TimeOnly.FromDateTime(Room.Zone.LocalOf(c.At).DateTime))}: {c.What}")]
                );
            }
        }
    }

    private sealed record TheseGroups(ClassRoom Room, DateOnly Monday, string Version) : Expected
    {
        public override async Task CheckAsync(FobbleDb db, CancellationToken stop)
        {
            var now = await db
                .GroupSets.AsNoTracking()
                .Where(c => c.ClassId == Room.Id.Value && c.Monday == Monday)
                .OrderByDescending(c => c.Id)
                .FirstOrDefaultAsync(stop);
            if (GroupsVersion.Of(now) == Version)
            {
                return;
            }

            var by = now is null ? "" : await db.Users.Where(a => a.Id == now.AcceptedBy).Select(a => a.FullName).FirstOrDefaultAsync(stop) ?? "Someone";
            throw new ChangedMeanwhileException(
                Phrase($"The groups of the week of {Words.Date(Monday)} have changed since you looked at them."),
                now is null
                    ? []
                    :
                    [
                        Version.StartsWith($"{now.Id}.", StringComparison.Ordinal)
                            ? Phrase("A child came to another group, because someone is away.")
                            : Phrase($"{by}, {Words.Clock(TimeOnly.FromDateTime(Room.Zone.LocalOf(now.AcceptedAt).DateTime))}: accepted other groups."),
                    ]
            );
        }
    }
}

/// <summary>Names the state of a week's set of groups.</summary>
internal static class GroupsVersion
{
    /// <returns>Set and how often its groups have changed; "0" where none was accepted.</returns>
    public static string Of(GroupSetRow? set) => set is null ? "0" : $"{set.Id}.{set.Version}";
}

/// <summary>Somebody else was faster: what a decision rests on is not so any more. Nothing was changed by it.</summary>
/// <param name="changes">What has changed, each in a sentence; empty where it can't be told.</param>
internal sealed class ChangedMeanwhileException(string sentence, IReadOnlyList<string> changes) : Exception(sentence)
{
    public IReadOnlyList<string> Changes { get; } = changes;

    /// <summary>Nobody has looked at what was worked out: it can be worked out again from what is the case now.</summary>
    public bool CanBeWorkedOutAgain { get; init; }
}
