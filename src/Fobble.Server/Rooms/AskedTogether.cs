using System.Collections.Concurrent;

namespace Fobble.Server.Rooms;

/// <summary>A page of a class that says the same to everybody who may see it: who asks for it while others wait for it gets theirs.</summary>
internal sealed class SameForAll;

/// <summary>
/// After each tap every open tablet asks for the same page. It is worked out once for all who wait for it; whoever asks once that has begun gets a later one, so that nobody is shown
/// less than what was kept when they asked.
/// </summary>
internal sealed class AskedTogether
{
    private readonly ConcurrentDictionary<string, Round> _waiting = new();

    /// <param name="question">The same question has the same answer, whoever asks.</param>
    /// <param name="answer">Works it out; calls what it is given right before it reads.</param>
    /// <param name="stop">Of the one who asks: the others are answered all the same.</param>
    public async ValueTask<T> AskAsync<T>(string question, Func<Action, ValueTask<T>> answer, CancellationToken stop)
        where T : class
    {
        while (true)
        {
            Round own = new();
            var round = _waiting.GetOrAdd(question, own);
            if (round == own)
            {
                return await WorkOutAsync(question, own, answer);
            }

            if (await round.Answer.Task.WaitAsync(stop) is { } found)
            {
                return (T)found;
            }

            // The one who was to work it out has gone away, or met a fault that may be theirs only.
        }
    }

    private async ValueTask<T> WorkOutAsync<T>(string question, Round own, Func<Action, ValueTask<T>> answer)
        where T : class
    {
        T? found = null;
        try
        {
            found = await answer(Begin);
            return found;
        }
        finally
        {
            Begin();
            own.Answer.SetResult(found);
        }

        void Begin() => _waiting.TryRemove(KeyValuePair.Create(question, own));
    }

    private sealed class Round
    {
        /// <summary>Null where there is none.</summary>
        public TaskCompletionSource<object?> Answer { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);
    }
}
