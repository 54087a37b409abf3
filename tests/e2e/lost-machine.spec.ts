import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { expect, test, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { DEMO_NOW } from './filled'
import { startServer, type RunningServer } from './server'
import { comeInAs } from './visit'

// The machine in the cupboard breaks: its data are gone, and what there is lies on another disk.
const backups = mkdtempSync(join(tmpdir(), 'fobble-backups-'))
const settings = { Fobble__Backup__Folder: backups, Fobble__Backup__Passphrase: 'seven lanterns in fog' }
let server: RunningServer
test.beforeAll(async () => {
  Object.assign(process.env, settings)
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => {
  server.stop()
  rmSync(backups, { recursive: true, force: true })
  for (const name of Object.keys(settings)) delete process.env[name]
})
test.beforeEach(({ page }) => page.clock.install({ time: new Date('2026-11-25T08:12:00Z') }))

/** What a page says once all of it has come. */
async function read(page: Page, path: string, comesLast: string) {
  await page.goto(server.url + path)
  await expect(page.locator('main')).toContainText(comesLast)
  await expect(page.getByText('On its way')).toBeHidden()
  return page.locator('main').innerText()
}
const both = async (page: Page) => [
  await read(page, '/c/1/class', 'Amara'),
  await read(page, '/c/1/class/children/1', 'Everything seen'),
]

test('a school is put back from its backup, and every page says what it said', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  const before = await both(page)
  await page.goto(`${server.url}/c/1/school`)
  const runs = page.locator('section', { has: page.getByRole('heading', { name: 'How it runs' }) }).last()
  await expect(runs).toContainText('No backup was taken yet')
  await runs.getByRole('button', { name: 'Take a backup now' }).click()
  await expect(page.getByText('A backup was taken, opened again and found whole.')).toBeVisible({ timeout: 30_000 })
  await expect(runs).toContainText('The last backup is of')
  await expectAccessible(page)

  server.kill()
  rmSync(server.data, { recursive: true })
  const [file] = readdirSync(backups).filter((name) => name.endsWith('.fobble'))
  execFileSync('dotnet', ['bin/Release/net10.0/Fobble.Server.dll', 'restore', join(backups, file!)], {
    cwd: fileURLToPath(new URL('../../src/Fobble.Server/', import.meta.url)),
    env: { ...process.env, Fobble__Data: server.data },
  })
  await server.again()

  // Whoever was signed in then still is: the keys were in it, too.
  expect(await both(page)).toEqual(before)
})
