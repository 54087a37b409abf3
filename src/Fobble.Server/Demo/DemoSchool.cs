using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Core.Sessions;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Features.Week;
using Microsoft.AspNetCore.Identity;

namespace Fobble.Server.Demo;

/// <summary>
/// Fills an empty database with Lantern Hill School: two classes, fifty children, three adults and eight weeks of history played
/// by the made-up class, up to yesterday, whenever the demo is started.
/// </summary>
internal sealed class DemoSchool(FobbleDb db, UserManager<Adult> adults, TimeProvider clock)
{
    private readonly SkillMap map = ClassContent.Shipped.Map;
    private readonly ActivityLibrary library = ClassContent.Shipped.Library;
    private readonly SchoolZone zone = new(clock.LocalTimeZone);

    private const int WeeksOfHistory = 8;

    private DateOnly Today => zone.DayOf(clock.GetUtcNow());

    public async Task FillAsync()
    {
        // All of it or nothing, should the start be broken off.
        await using var transaction = await db.Database.BeginTransactionAsync();
        var school = new School { Name = "Lantern Hill School", TimeZone = zone.Id };
        db.Schools.Add(school);
        await db.SaveChangesAsync();

        db.Terms.AddRange(
            DemoYear
                .Terms(Today)
                .Select(t => new TermRow
                {
                    SchoolId = school.Id,
                    Name = t.Name,
                    Season = t.Season,
                    First = t.First,
                    Last = t.Last,
                })
        );
        db.Closures.AddRange(
            DemoYear
                .Closures(Today)
                .Select(c => new ClosureRow
                {
                    SchoolId = school.Id,
                    Name = c.Name,
                    First = c.First,
                    Last = c.Last,
                })
        );

        var people = new List<Adult>();
        foreach (var demo in DemoAdults.All)
        {
            var adult = new Adult
            {
                FullName = demo.FullName,
                UserName = DemoAdults.EmailOf(demo.Key),
                Email = DemoAdults.EmailOf(demo.Key),
            };
            // Nobody needs it: they come in by their names, and choose another by mail if they like.
            var password = System.Security.Cryptography.RandomNumberGenerator.GetHexString(40);
            if (await adults.CreateAsync(adult, password) is { Succeeded: false } refused)
            {
                throw new InvalidOperationException($"The demo's {demo.FullName} could not be made: {refused}");
            }

            people.Add(adult);
        }

        db.SchoolLeads.Add(new SchoolLead { SchoolId = school.Id, AdultId = people[0].Id });

        var (ines, tomasz, maeve) = (people[0].Id, people[1].Id, people[2].Id);
        await FillClassAsync(
            school,
            "Rowan",
            DemoNames.Rowan,
            [ines, tomasz],
            [(ines, ClassRole.LeadTeacher), (tomasz, ClassRole.Assistant), (maeve, ClassRole.MathsLead)],
            seed: 20
        );
        await FillClassAsync(school, "Alder", DemoNames.Alder, [maeve], [(maeve, ClassRole.LeadTeacher)], seed: 21);
        await transaction.CommitAsync();
    }

    private async Task FillClassAsync(
        School school,
        string name,
        IReadOnlyList<(string Given, string Family)> names,
        IReadOnlyList<int> teachers,
        IReadOnlyList<(int Adult, ClassRole Role)> members,
        ulong seed
    )
    {
        var today = Today;
        var random = new SeededRandom(seed);
        var newClass = new SchoolClass
        {
            Name = name,
            SchoolId = school.Id,
            FirstHourOver = true,
            Mouths = name == "Rowan",
            Allergies = name == "Rowan" ? [Allergen.Gluten, Allergen.Nuts] : [],
        };
        newClass.Members.AddRange(members.Select(m => new Membership { AdultId = m.Adult, Role = m.Role }));
        newClass.Children.AddRange(
            names.Select(n => new Child
            {
                GivenName = n.Given,
                FamilyName = n.Family,
                Born = today.AddDays(-(5 * 365) - random.Next(365)),
            })
        );
        db.Classes.Add(newClass);
        await db.SaveChangesAsync();
        var slots = Beginnings.UsualSlots(newClass.Id, teachers).ToList();
        db.LessonSlots.AddRange(slots);
        await db.SaveChangesAsync();

        var calendar = new SchoolCalendar(
            [.. db.Terms.Where(t => t.SchoolId == school.Id).AsEnumerable().Select(t => new Term(t.Name, t.Season, t.First, t.Last))],
            [.. db.Closures.Where(c => c.SchoolId == school.Id).AsEnumerable().Select(c => new Closure(c.Name, c.First, c.Last))]
        );
        var from = SchoolCalendar.MondayOf(today).AddDays(-7 * WeeksOfHistory);
        List<ChildId> ids = [.. newClass.Children.Select(c => new ChildId(c.Id))];
        DemoPlan plan = new(
            library,
            new(calendar, [.. slots.Select(s => new LessonSlot(s.Id, s.Kind, s.Weekday, s.Start, s.Minutes, "", s.Where))]),
            SchoolCalendar.MondayOf(today).AddDays(-7 * DemoPlan.WeeksAgo)
        );
        var history = MadeUpHistory.Play(
            new(map, library, calendar, ids, from, zone.LocalOf(clock.GetUtcNow()), GroupsADay: 2, seed) { Plan = teachers.Count > 1 ? plan.For : null }
        );
        if (plan.Row(newClass.Id, teachers[0], calendar, zone) is { } made)
        {
            db.YearPlans.Add(made);
            var trip = plan.LessonFrom(SchoolCalendar.MondayOf(today).AddDays(10));
            db.Closures.Add(
                new ClosureRow
                {
                    SchoolId = school.Id,
                    ClassId = newClass.Id,
                    Kind = ClosureKind.NoLessons,
                    Name = "Hill railway trip",
                    First = trip,
                    Last = trip,
                }
            );
        }

        if (teachers.Count > 1)
        {
            AddGroupWishes(newClass, teachers, today);
        }

        db.Stock.AddRange(DemoCupboard.For(newClass.Id));
        db.JarRounds.AddRange(DemoJars.For(newClass.Id, [.. newClass.Children.Select(c => c.Id)], today, calendar, new SeededRandom(seed + 100)));
        db.Absences.AddRange(
            history.Away.Select(a => new Absence
            {
                ChildId = a.Child.Value,
                Day = a.Day,
                MarkedBy = teachers[0],
            })
        );
        var sessions = new List<(GroupSession Session, PastGroup Group)>();
        RecordMemory memory = new();
        foreach (var week in history.Weeks.Where(w => w.Groups.Count > 0))
        {
            db.PlannedDays.AddRange(week.Plan.Days.Select(d => WeekMaker.ToRow(new(newClass.Id), d)));
            var set = new GroupSetRow
            {
                ClassId = newClass.Id,
                Monday = week.Plan.Monday,
                AcceptedAt = zone.At(week.Plan.Monday.AddDays(-3), new(16, 0)),
                AcceptedBy = teachers[0],
            };
            var evidence = new ClassEvidence(
                map,
                calendar,
                EvidenceSettings.Default,
                ids,
                history.Observations.Where(o => o.At < set.AcceptedAt),
                week.Plan.Monday,
                memory: memory
            );
            var brief = new GroupingBrief(
                evidence,
                week.Plan.Monday,
                [.. week.Plan.Days.Select(d => d.Focus.Skill)],
                [.. sessions.Select(s => s.Group)],
                new Dictionary<ChildId, IReadOnlySet<int>>(),
                new HashSet<ChildId>()
            );
            foreach (var day in week.Groups.GroupBy(g => g.Day))
            {
                var places = slots.Where(s => s.Kind == SlotKind.Group && s.Weekday == day.Key.DayOfWeek);
                sessions.AddRange(day.Zip(places, (group, slot) => (ToSession(newClass.Id, slot, group, brief), group)).ToList());
            }

            set.Sessions.AddRange(sessions.Where(s => s.Group.Week == week.Groups[0].Week).Select(s => s.Session));
            db.GroupSets.Add(set);
        }

        await db.SaveChangesAsync();
        List<ObservationRow> seen =
        [
            .. history
                .Observations.Select(o =>
                    (
                        o,
                        session: o.Setting == Setting.Group
                            ? sessions.FirstOrDefault(s => s.Group.Day == o.Day && s.Group.Skill == o.Skill && s.Group.Children.Contains(o.Child)).Session
                            : null
                    )
                )
                .Select(p => RowOf(p.o, p.session)),
        ];
        db.Observations.AddRange(seen);
        if (teachers.Count > 1)
        {
            await AddLooksAsync(
                newClass.Id,
                seen,
                new ClassEvidence(map, calendar, EvidenceSettings.Default, ids, history.Observations, today),
                teachers,
                random
            );
        }

        await db.SaveChangesAsync();

        // A session is recorded by the adult who runs it.
        ObservationRow RowOf(Observation o, GroupSession? session) =>
            new()
            {
                Id = DemoEvidence.IdFrom(random),
                ChildId = o.Child.Value,
                Skill = o.Skill.Value,
                At = o.At,
                Day = o.Day,
                AdultId = session is null ? teachers[random.Next(teachers.Count)] : slots.First(s => s.Id == session.SlotId).AdultId,
                Setting = o.Setting,
                Support = o.Support,
                Representation = o.Representation,
                Numbers = o.Numbers,
                Slip = o.SlipId,
                Strategy = o.StrategyId,
                Note = DemoEvidence.NoteFor(random),
                SessionId = session?.Id,
            };
    }

    // In the class with two adults: baseline checks, the last whole session coded by both, and something that was the wrong child.
    private async Task AddLooksAsync(int classId, List<ObservationRow> seen, ClassEvidence evidence, IReadOnlyList<int> teachers, SeededRandom random)
    {
        var before = evidence.Calendar.Before(evidence.Today);
        if (before is not { } day)
        {
            return;
        }

        DateTimeOffset At(double hour) => zone.At(day, TimeOnly.FromTimeSpan(TimeSpan.FromHours(hour)));
        foreach (var (check, answers) in DemoEvidence.Checks(evidence, classId, teachers[0], At(11.2), random).ToList())
        {
            db.BaselineChecks.Add(check);
            await db.SaveChangesAsync();
            foreach (var answer in answers)
            {
                answer.CheckId = check.Id;
                db.Observations.Add(answer);
            }
        }

        var sessions = seen.Where(o => o.SessionId is not null).GroupBy(o => o.SessionId).OrderByDescending(g => g.Key).Take(2).ToList();
        db.Observations.AddRange(sessions.SelectMany(s => DemoEvidence.SecondLook(s, first => teachers.First(t => t != first), random)));
        seen[^3].Withdrawal = new()
        {
            AdultId = teachers[0],
            At = At(13),
            Why = "It was the child beside",
        };
    }

    // A few things that a class asks of its groups.
    private void AddGroupWishes(SchoolClass rowan, IReadOnlyList<int> teachers, DateOnly today)
    {
        var children = rowan.Children;
        db.GroupSettings.Add(new() { ClassId = rowan.Id, MostNearAdult = 2 });
        db.PairWishes.Add(
            new()
            {
                FirstId = children[3].Id,
                SecondId = children[11].Id,
                Until = today.AddDays(40),
            }
        );
        db.AdultWishes.Add(
            new()
            {
                ChildId = children[15].Id,
                AdultId = teachers[0],
                With = true,
            }
        );
        db.TimesOut.Add(
            new()
            {
                ChildId = children[7].Id,
                Weekday = DayOfWeek.Tuesday,
                From = new(9, 30),
                Until = new(10, 0),
            }
        );
        foreach (var i in new[] { 1, 8, 16, 20 })
        {
            children[i].NeedsAdultNear = true;
        }
    }

    private GroupSession ToSession(int classId, LessonSlotRow slot, PastGroup group, GroupingBrief brief)
    {
        var session = new GroupSession
        {
            ClassId = classId,
            Day = group.Day,
            SlotId = slot.Id,
            Skill = group.Skill.Value,
            Activity = library.For(group.Skill, Place.Group)[0].Id.Value,
            Seed = (long)SessionCards.SeedFor(new(classId), group.Day, slot.Id, group.Skill),
            Reason = Reasons.ForGroup(new FormedGroup(group.Skill, 0, group.Children), brief),
        };
        session.Members.AddRange(group.Children.Select(c => new GroupMember { ChildId = c.Value, Reason = Reasons.ForChild(c, group.Skill, brief) }));
        return session;
    }
}
