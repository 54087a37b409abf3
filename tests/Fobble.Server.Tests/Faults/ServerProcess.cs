using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Fobble.Server.Tests.Faults;

/// <summary>The server as a process of its own, as a school runs it: it can be killed, asked to end, and begun again on the same folder.</summary>
internal sealed class ServerProcess : IDisposable
{
    public const string FirstCode = "green lantern";

    public static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);

    private readonly Process _process;
    private readonly StringBuilder _said = new();

    private ServerProcess(Process process, Uri url, Uri https) => (_process, Url, Https) = (process, url, https);

    public Uri Url { get; }

    /// <summary>Where it answers besides, if it was given a certificate.</summary>
    public Uri Https { get; }

    public string Said
    {
        get
        {
            lock (_said)
            {
                return _said.ToString();
            }
        }
    }

    public int Id => _process.Id;

    /// <summary>What it needs of memory just now, in bytes.</summary>
    public long Memory
    {
        get
        {
            _process.Refresh();
            return _process.WorkingSet64;
        }
    }

    /// <summary>Begins it, and does not wait.</summary>
    /// <param name="settings">As environment: <c>Fobble__Demo</c>.</param>
    public static ServerProcess Begin(string data, IReadOnlyDictionary<string, string>? settings = null, params string[] command)
    {
        var (url, https) = ($"http://127.0.0.1:{FreePort()}", $"https://127.0.0.1:{FreePort()}");
        // A write beyond what the system lets a process write is an error to it, as by a full disk, and not its end.
        ProcessStartInfo start = new(
            "sh",
            ["-c", "trap '' XFSZ; exec \"$@\"", "sh", "dotnet", Path.Combine(AppContext.BaseDirectory, "Fobble.Server.dll"), .. command]
        )
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            WorkingDirectory = AppContext.BaseDirectory,
        };
        start.Environment["Fobble__Data"] = data;
        start.Environment["Fobble__FirstCode"] = FirstCode;
        start.Environment["ASPNETCORE_URLS"] = settings?.ContainsKey("Fobble__Https__Certificate") == true ? $"{url};{https}" : url;
        start.Environment["Logging__LogLevel__Default"] = "Warning";
        foreach (var (name, value) in settings ?? new Dictionary<string, string>())
        {
            start.Environment[name] = value;
        }

        ServerProcess server = new(new Process { StartInfo = start }, new(url), new(https));
        server._process.OutputDataReceived += server.Hear;
        server._process.ErrorDataReceived += server.Hear;
        server._process.Start();
        server._process.BeginOutputReadLine();
        server._process.BeginErrorReadLine();
        return server;
    }

    /// <summary>Begins it, and waits until it can keep something.</summary>
    public static async Task<ServerProcess> ReadyAsync(string data, IReadOnlyDictionary<string, string>? settings = null)
    {
        var server = Begin(data, settings);
        await server.UntilReadyAsync();
        return server;
    }

    /// <returns>How long that took.</returns>
    public async Task<TimeSpan> UntilReadyAsync()
    {
        var began = Stopwatch.GetTimestamp();
        using HttpClient client = new() { BaseAddress = Url };
        while (!_process.HasExited && Stopwatch.GetElapsedTime(began) < Patience)
        {
            try
            {
                if ((await client.GetAsync(new Uri("/health/ready", UriKind.Relative))).IsSuccessStatusCode)
                {
                    return Stopwatch.GetElapsedTime(began);
                }
            }
            catch (HttpRequestException)
            {
                // Not yet.
            }

            await Task.Delay(20);
        }

        throw new InvalidOperationException($"The server is not ready. It said: {Said}");
    }

    /// <summary>As by a power cut.</summary>
    public void Kill()
    {
        _process.Kill();
        _process.WaitForExit();
    }

    /// <summary>Asks it to end, as systemd does.</summary>
    /// <returns>How long it took.</returns>
    public async Task<TimeSpan> EndAsync()
    {
        var began = Stopwatch.GetTimestamp();
        using var asked = Process.Start("kill", ["-TERM", _process.Id.ToString(CultureInfo.InvariantCulture)]);
        await _process.WaitForExitAsync();
        return Stopwatch.GetElapsedTime(began);
    }

    /// <summary>Waits until it ends by itself.</summary>
    public async Task<int> ExitCodeAsync()
    {
        using CancellationTokenSource over = new(Patience);
        await _process.WaitForExitAsync(over.Token);
        return _process.ExitCode;
    }

    public void Dispose()
    {
        if (!_process.HasExited)
        {
            Kill();
        }

        _process.Dispose();
    }

    private void Hear(object sender, DataReceivedEventArgs line)
    {
        lock (_said)
        {
            _said.AppendLine(line.Data);
        }
    }

    private static int FreePort()
    {
        using TcpListener free = new(IPAddress.Loopback, 0);
        free.Start();
        return ((IPEndPoint)free.LocalEndpoint).Port;
    }
}
