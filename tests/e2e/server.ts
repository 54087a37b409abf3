import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

const folder = fileURLToPath(new URL('../../src/Fobble.Server/', import.meta.url))

export interface RunningServer {
  url: string
  stop(): void
  /** Ends it as a power cut would, and leaves its data; `again` starts it on the same data. */
  kill(): void
  again(): Promise<void>
}

/** Starts the built application on a database of its own, at a fixed moment, so that a test means the same on every day. */
export async function startServer(port: number, options: { demo: boolean; now: string }): Promise<RunningServer> {
  const data = mkdtempSync(join(tmpdir(), 'fobble-e2e-'))
  const url = `http://127.0.0.1:${port}`
  let server: ChildProcess
  const start = async () => {
    server = spawn('dotnet', ['bin/Release/net10.0/Fobble.Server.dll'], {
      cwd: folder,
      env: {
        ...process.env,
        TZ: 'UTC',
        ASPNETCORE_URLS: url,
        Fobble__Data: data,
        Fobble__Demo: String(options.demo),
        Fobble__Now: options.now,
        Logging__LogLevel__Default: 'Warning',
      },
      stdio: ['ignore', 'ignore', 'inherit'],
    })
    for (let tries = 0; tries < 150; tries++) {
      if (server.exitCode !== null) break
      if (
        await fetch(`${url}/health`).then(
          (r) => r.ok,
          () => false,
        )
      )
        return
      await new Promise((wait) => setTimeout(wait, 200))
    }
    throw new Error(`The server did not start at ${url}.`)
  }
  const stop = () => {
    server.kill()
    rmSync(data, { recursive: true, force: true })
  }
  try {
    await start()
  } catch (fault) {
    stop()
    throw fault
  }
  return { url, stop, kill: () => void server.kill('SIGKILL'), again: start }
}
