import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startServer } from './server'

/** The Wednesday on which the demo is looked at. */
export const DEMO_NOW = '2026-11-25T08:10:00'

/** Plays the demo out once; each spec gets a copy of its files. */
export default async function fillOnce() {
  const kept = mkdtempSync(join(tmpdir(), 'fobble-filled-'))
  const server = await startServer({ demo: true, now: DEMO_NOW })
  await server.end()
  cpSync(server.data, kept, { recursive: true })
  server.stop()
  process.env.FOBBLE_FILLED = kept
  return () => rmSync(kept, { recursive: true, force: true })
}
