using System.Diagnostics.CodeAnalysis;

namespace Fobble.Server.Hosting;

/// <summary>
/// What waits for its turn, so that no class waits for all that another asks: of the classes that wait each has a turn after the other, and of one class what came first. For one thread at
/// a time.
/// </summary>
internal sealed class TurnsOfClasses<T>
{
    // Those that wait, whose turn it is first.
    private readonly Queue<ClassId> _order = [];
    private readonly Dictionary<ClassId, Queue<T>> _waiting = [];

    public IEnumerable<T> Waiting => _waiting.Values.SelectMany(w => w);

    public IEnumerable<T> WaitingOf(ClassId classId) => _waiting.GetValueOrDefault(classId) ?? [];

    public void Add(ClassId classId, T what)
    {
        if (!_waiting.TryGetValue(classId, out var others))
        {
            _waiting[classId] = others = [];
            _order.Enqueue(classId);
        }

        others.Enqueue(what);
    }

    public bool TryTake([MaybeNullWhen(false)] out T next)
    {
        if (!_order.TryDequeue(out var classId))
        {
            next = default;
            return false;
        }

        var waiting = _waiting[classId];
        next = waiting.Dequeue();
        if (waiting.Count > 0)
        {
            _order.Enqueue(classId);
        }
        else
        {
            _waiting.Remove(classId);
        }

        return true;
    }
}
