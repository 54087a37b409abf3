import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

const folder = fileURLToPath(new URL('../../src/Fobble.Server/', import.meta.url))

export interface RunningServer {
  url: string
  stop(): void
}

/** Starts the built application on a database of its own, at a fixed moment, so that a test means the same on every day. */
export async function startServer(port: number, options: { demo: boolean; now: string }): Promise<RunningServer> {
  const data = mkdtempSync(join(tmpdir(), 'fobble-e2e-'))
  const url = `http://127.0.0.1:${port}`
  const server: ChildProcess = spawn('dotnet', ['bin/Release/net10.0/Fobble.Server.dll'], {
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
  const stop = () => {
    server.kill()
    rmSync(data, { recursive: true, force: true })
  }
  for (let tries = 0; tries < 150; tries++) {
    if (server.exitCode !== null) break
    if (
      await fetch(`${url}/health`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return { url, stop }
    await new Promise((wait) => setTimeout(wait, 200))
  }
  stop()
  throw new Error(`The server did not start at ${url}.`)
}
