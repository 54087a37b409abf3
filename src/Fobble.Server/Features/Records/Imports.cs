using System.Collections.Concurrent;

namespace Fobble.Server.Features.Records;

/// <summary>How far files are that are being read or taken in, for whoever sent them.</summary>
internal sealed class Imports
{
    private readonly ConcurrentDictionary<(AdultId By, Guid Id), Import> _underWay = new();

    /// <param name="id">As whoever sends the file calls it; null where nobody will ask.</param>
    /// <returns>To be told how far it is, and disposed of at its end.</returns>
    public Import Begin(AdultId by, Guid? id)
    {
        var key = (by, id ?? Guid.NewGuid());
        return _underWay[key] = new(() => _underWay.TryRemove(key, out _));
    }

    /// <returns>0 to 1; null where there is no such file on its way.</returns>
    public double? ShareOf(AdultId by, Guid id) => _underWay.TryGetValue((by, id), out var import) ? import.Share : null;
}

/// <summary>One file on its way in.</summary>
internal sealed class Import(Action end) : IDisposable
{
    private double _share;

    /// <summary>Of all that is to be done with it, 0 to 1.</summary>
    public double Share => Volatile.Read(ref _share);

    /// <summary>A part of the work, from one share of the whole to another.</summary>
    public IProgress<double> Part(double from, double to) => new Reporter(share => Volatile.Write(ref _share, from + (share * (to - from))));

    public void Dispose() => end();

    // Not Progress<T>: that one tells it later, on another thread.
    private sealed class Reporter(Action<double> tell) : IProgress<double>
    {
        public void Report(double value) => tell(value);
    }
}
