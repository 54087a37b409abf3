using Fobble.Core.Activities;
using Fobble.Core.Baseline;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Sessions;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Baseline;

/// <summary>Reads a check with its answers, and shows where it stands.</summary>
internal sealed class BaselineReader(ClassRoom room, CheckStates states)
{
    public Task<BaselineCheckRow?> FindAsync(CheckId checkId, CancellationToken stop) => FindAsync(room.Db, checkId, stop);

    public Task<BaselineCheckRow?> FindAsync(FobbleDb db, CheckId checkId, CancellationToken stop) =>
        db.BaselineChecks.Include(c => c.Child).Include(c => c.Overrides).FirstOrDefaultAsync(c => c.Id == checkId.Value && c.ClassId == room.Id.Value, stop);

    /// <summary>What the reckoning needs: the answers so far, and what was seen in the weeks before.</summary>
    /// <param name="without">An answer that is about to be withdrawn.</param>
    public async Task<(CheckSoFar Check, List<AnswerRow> Answers)> SoFarAsync(BaselineCheckRow row, Guid? without, CancellationToken stop)
    {
        var answers = await room
            .Db.Observations.Where(o => o.CheckId == row.Id && o.Withdrawal == null && o.Id != without)
            .OrderBy(o => o.At)
            .Select(o => new AnswerRow(o.Id, o.Skill, o.Support, o.At, o.Adult!.FullName))
            .ToListAsync(stop);
        var day = room.Zone.DayOf(row.StartedAt);
        var known = RecordedSkill.Of(await room.EvidenceAsync(day, row.StartedAt, stop), new(row.ChildId));
        return (
            new(row.Strand, BaselineSettings.ShiftFor(row.Child!.Born, day), [.. answers.Select(a => new BaselineAnswer(new(a.Skill), a.Support))], known),
            answers
        );
    }

    public async Task<CheckView> ViewAsync(BaselineCheckRow row, CancellationToken stop)
    {
        var (check, answers) = await SoFarAsync(row, null, stop);
        var state = await states.OfAsync(room, check, stop);
        var child = new ChildId(row.ChildId);
        var name = (await room.ChildrenAsync(stop)).First(c => c.Id == row.ChildId).Name;
        var evidence = await room.EvidenceAsync(stop);
        QuestionView? question = null;
        if (row.EndedAt is null && state.Next is { } next)
        {
            states.LookAhead(room, check, next);
            question = QuestionOf(
                BaselineQuestion.For(next, child, evidence, room.Library, room.Approach, room.Cares, SeededRandom.SeedOf($"check {row.Id} {next}"))
            );
        }

        var overrides = row.Overrides.ToDictionary(o => new SkillId(o.Skill), o => o.Has);
        var inferred = state.With(overrides);
        var asked = answers.GroupBy(a => a.Skill).ToDictionary(g => g.Key, g => g.Last().Support);
        var names = room.Map.Strands.ToDictionary(s => s.Id, s => s.Name);
        return new CheckView(
            row.Id,
            row.ChildId,
            name,
            row.Strand,
            answers.Count,
            BaselineSettings.Default.MostQuestions,
            state.Sure,
            state.SurePercent,
            BaselineState.MostShownSure,
            state.SureInWords,
            RecordedSkill.InWords(check.Known),
            state.Done,
            row.StartedAt,
            row.EndedAt,
            question,
            [.. answers.Select(a => new AnswerView(a.Id, a.Skill, room.Map.Has(new(a.Skill)) ? room.Map[new(a.Skill)].Short : a.Skill, a.Support, a.At, a.By))],
            [
                .. state
                    .Reach.Where(r => row.Strand is null || r.Strand == row.Strand)
                    .Select(r => new ReachView(r.Strand, names[r.Strand], r.Held, r.Of, r.Sure, r.Sentence)),
            ],
            [
                .. inferred
                    .Where(i => row.Strand is null || room.Map[i.Skill].Strand == row.Strand)
                    .Select(i => new PathSkill(
                        i.Skill.Value,
                        room.Map[i.Skill].Short,
                        room.Map[i.Skill].Strand,
                        i.Held,
                        i.SurePercent,
                        asked.TryGetValue(i.Skill.Value, out var support) ? support : null,
                        overrides.TryGetValue(i.Skill, out var better) ? better : null,
                        (int)evidence[child, i.Skill].Strength
                    )),
            ],
            [
                .. BaselineState
                    .LikelyNext(room.Map, inferred)
                    .Select(s => room.Map[s])
                    .Where(s => row.Strand is null || s.Strand == row.Strand)
                    .Take(6)
                    .Select(s => s.Short),
            ]
        );
    }

    /// <summary>What is kept with a check that has ended: the chances of what was not asked for.</summary>
    public async Task<Dictionary<string, double>> InferredAsync(BaselineCheckRow row, Guid? without, CancellationToken stop)
    {
        var (check, answers) = await SoFarAsync(row, without, stop);
        var state = await states.OfAsync(room, check, stop);
        var asked = answers.Select(a => a.Skill).ToHashSet();
        return state
            .With(row.Overrides.ToDictionary(o => new SkillId(o.Skill), o => o.Has))
            .Where(i => !asked.Contains(i.Skill.Value) && (row.Strand is null || room.Map[i.Skill].Strand == row.Strand))
            .ToDictionary(i => i.Skill.Value, i => i.Kept);
    }

    /// <summary>What a check infers once an answer is withdrawn; null where it has not ended, and so infers nothing yet.</summary>
    public async Task<Dictionary<string, double>?> InferredWithoutAsync(CheckId checkId, Guid answer, CancellationToken stop) =>
        await FindAsync(checkId, stop) is { EndedAt: not null } row ? await InferredAsync(row, answer, stop) : null;

    private static QuestionView QuestionOf(BaselineQuestion question) =>
        new(
            question.Skill.Id.Value,
            question.Skill.Short,
            question.Skill.Strand,
            question.Skill.ICan,
            [.. question.LayOut.Select(s => new CardSetOut(s.Item.Name, s.Amount))],
            question.Items,
            question.Right,
            [.. question.Skill.Slips.Select(s => new CardChoice(s.Id, s.Text))],
            question.Skill.ShownIn,
            question.Cautions
        );

    public sealed record AnswerRow(Guid Id, string Skill, Support Support, DateTimeOffset At, string By);
}
