import { spawn, type ChildProcess } from 'node:child_process'
import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

const folder = fileURLToPath(new URL('../../src/Fobble.Server/', import.meta.url))

/** What the first start of a server of these specs asks for. */
export const FIRST_CODE = 'green lantern'

export interface RunningServer {
  url: string
  /** Folder of its data. */
  data: string
  stop(): void
  /** Asks it to end, as a machine that shuts down does, and waits until it has: how many milliseconds that took. */
  end(): Promise<number>
  /** Ends it as a power cut would, and leaves its data; `again` starts it on the same data. */
  kill(): void
  /** @param now Another moment than the one before. */
  again(now?: string): Promise<void>
}

/** A port that nobody has, so that specs can run side by side. */
const freePort = () =>
  new Promise<number>((resolve, reject) => {
    const asked = createServer()
    asked.on('error', reject)
    asked.listen(0, '127.0.0.1', () => {
      const { port } = asked.address() as { port: number }
      asked.close(() => resolve(port))
    })
  })

/** Starts the built application on a database of its own, at a fixed moment, so that a test means the same on every day. */
export async function startServer(options: {
  demo: boolean
  now: string
  zone?: string
  language?: string
  /** Folder into which the school's office puts its lists. */
  roster?: string
}): Promise<RunningServer> {
  const data = mkdtempSync(join(tmpdir(), 'fobble-e2e-'))
  // What the demo says is written down when it is filled, so another language fills it anew.
  if (options.demo && process.env.FOBBLE_FILLED && !options.language)
    cpSync(process.env.FOBBLE_FILLED, data, { recursive: true })
  const url = `http://127.0.0.1:${await freePort()}`
  let server: ChildProcess
  const start = async (now = options.now) => {
    server = spawn('dotnet', ['bin/Release/net10.0/Fobble.Server.dll'], {
      cwd: folder,
      env: {
        ...process.env,
        TZ: options.zone ?? 'UTC',
        // It lives for a minute: what the runtime invests in the long run it does not get back.
        DOTNET_TieredPGO: '0',
        ASPNETCORE_URLS: url,
        Fobble__Data: data,
        Fobble__Demo: String(options.demo),
        Fobble__Now: now,
        Fobble__FirstCode: FIRST_CODE,
        ...(options.roster && { Fobble__Roster: options.roster }),
        ...(options.language && { Fobble__Language: options.language }),
        Logging__LogLevel__Default: 'Warning',
      },
      // Its warnings stand beside the test that met them.
      stdio: ['ignore', 'inherit', 'inherit'],
    })
    // A busy machine may take its time; one that can't start ends by itself.
    for (let tries = 0; tries < 600; tries++) {
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
    server.kill('SIGKILL')
    rmSync(data, { recursive: true, force: true })
  }
  try {
    await start()
  } catch (fault) {
    stop()
    throw fault
  }
  const end = async () => {
    const asked = Date.now()
    const ended = new Promise((resolve) => server.once('exit', resolve))
    server.kill('SIGTERM')
    await ended
    return Date.now() - asked
  }
  return { url, data, stop, end, kill: () => void server.kill('SIGKILL'), again: start }
}
