using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Approaches;

/// <summary>How a class does things where practitioners disagree; pictures, stories, prompts and sheets follow it.</summary>
public sealed record Approach(FrameStyle Frames, Wording Words)
{
    public static Approach Usual { get; } = new(FrameStyle.Usual, Wording.Usual);
}
