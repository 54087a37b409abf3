using System.Buffers;
using System.ComponentModel;
using System.Diagnostics.CodeAnalysis;
using System.Reflection;
using Microsoft.Extensions.Caching.Hybrid;

namespace Fobble.Server.Hosting;

/// <summary>
/// The cache writes out whatever it keeps, be it only to learn its size, and keeps nothing that is longer than a megabyte. What is marked as immutable is kept as
/// it is and never leaves the process: there is nothing to write, and each entry counts as one.
/// </summary>
internal sealed class KeptInMemory : IHybridCacheSerializerFactory
{
    public bool TryCreateSerializer<T>([NotNullWhen(true)] out IHybridCacheSerializer<T>? serializer)
    {
        serializer = typeof(T).GetCustomAttribute<ImmutableObjectAttribute>() is { Immutable: true } ? new One<T>() : null;
        return serializer is not null;
    }

    private sealed class One<T> : IHybridCacheSerializer<T>
    {
        public void Serialize(T value, IBufferWriter<byte> target) => target.Write<byte>([1]);

        public T Deserialize(ReadOnlySequence<byte> source) => throw new NotSupportedException($"{typeof(T).Name} is kept in memory only.");
    }
}
