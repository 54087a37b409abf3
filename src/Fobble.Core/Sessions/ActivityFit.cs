using Fobble.Core.Activities;
using Fobble.Core.Evidence;

namespace Fobble.Core.Sessions;

public static class ActivityFit
{
    /// <summary>The skill for which an activity is set out where nobody has chosen one: the furthest that half of the class has met; the first where none is.</summary>
    public static ActivitySkill MetBy(this Activity activity, ClassEvidence evidence)
    {
        ArgumentNullException.ThrowIfNull(activity);
        ArgumentNullException.ThrowIfNull(evidence);
        return activity
            .Skills.Where(s => evidence.Share(c => evidence[c, s.Skill].Strength >= Strength.Prompted) >= 0.5)
            .OrderBy(s => s.Range.High)
            .LastOrDefault()
            ?? activity.Skills[0];
    }
}
