using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Server.Features.Planning;

namespace Fobble.Server.Demo;

/// <summary>A year's plan that a demo class made some weeks ago and has followed since: all skills up to the summer did not fit, so the last ones were left for another year.</summary>
internal sealed class DemoPlan(ActivityLibrary library, Timetable timetable, DateOnly begins)
{
    public const int WeeksAgo = 3;

    private YearPlan? _plan;
    private IReadOnlyList<SkillId> _dropped = [];

    /// <summary>The plan from the week on in which it was made; null before.</summary>
    public YearPlan? For(ClassEvidence evidence, DateOnly monday, IReadOnlyList<TaughtLesson> taught)
    {
        if (_plan is not null || monday < begins)
        {
            return _plan;
        }

        YearRequest request = new(
            evidence,
            timetable,
            monday,
            timetable.Calendar.YearEnds(monday),
            [.. taught],
            evidence.Map.Skills.Where(s => s.When <= Season.Summer).Select(s => s.Id).ToHashSet(),
            Approach.Usual,
            PlanSettings.Usual
        )
        {
            Served = library.ServedIn(Place.Carpet),
        };
        if (WaysOut.Of(request).FirstOrDefault(w => w.Kind == "drop") is { } drop)
        {
            (request, _dropped) = (WaysOut.Taken(request, drop), drop.Dropped);
        }

        return _plan = YearPlanner.Plan(request);
    }

    /// <summary>The first day on or after another for which a lesson is planned: what comes up later falls on something.</summary>
    public DateOnly LessonFrom(DateOnly day) => (_plan?.Lessons ?? []).Select(l => l.Day).Where(d => d >= day).Order().FirstOrDefault(day);

    /// <summary>The plan as it is stored; null where none was made.</summary>
    public YearPlanRow? Row(int classId, int adultId, SchoolCalendar calendar, SchoolZone zone)
    {
        if (_plan is null)
        {
            return null;
        }

        PlanAsk ask = new(
            ScopeSource.Seasons,
            Season.Summer,
            [],
            [],
            null,
            [.. _dropped.Select(d => d.Value)],
            _plan.Settings.BufferOneIn,
            _plan.Settings.StartersADay,
            _plan.Settings.Gaps.Count,
            [],
            false,
            false,
            (int)_plan.Settings.Seed
        );
        return new()
        {
            ClassId = classId,
            Year = calendar.YearBegan(begins),
            Version = 1,
            At = zone.At(begins.AddDays(-3), new(16, 20)),
            AdultId = adultId,
            What = $"Planned from {Words.Date(begins)}: {_plan.Lessons.Select(l => l.Skill).Distinct().Count()} skills in {_plan.Lessons.Count} lessons.",
            Document = new PlanDocument(ask, begins, calendar.YearEnds(begins), _plan).Write(),
        };
    }
}
