import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, expect, test, type BrowserContext, type Page } from '@playwright/test'
import { DEMO_NOW } from './filled'
import { startServer, type RunningServer } from './server'
import { comeInAs, goTo } from './visit'

// What was tapped is never lost and never doubled: without a network, over a restart of the browser, over the death of the server.
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => server.stop())
const setClock = (page: Page, time = '08:12') => page.clock.install({ time: new Date(`2026-11-25T${time}:00Z`) })

/** Observations that an adult recorded today, as the trail has them. */
async function recorded(page: Page, by: number): Promise<string[]> {
  const answer = await page.request.get(`${server.url}/api/classes/1/trail?from=2026-11-25&by=${by}`)
  const { entries } = (await answer.json()) as {
    entries: { child: string; seen: { short: string; support: string } }[]
  }
  return entries.map((e) => `${e.child} ${e.seen.support}`)
}

async function open(folder: string, time: string): Promise<{ context: BrowserContext; page: Page }> {
  const context = await chromium.launchPersistentContext(folder, {
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
    viewport: { width: 768, height: 1024 },
    locale: 'en-GB',
    timezoneId: 'UTC',
    serviceWorkers: 'allow',
  })
  const page = context.pages()[0] ?? (await context.newPage())
  await setClock(page, time)
  return { context, page }
}

test('a whole session without network, the browser restarted in the middle: nothing lost, nothing doubled', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'fobble-browser-'))
  let { context, page } = await open(folder, '08:12')
  await comeInAs(page, server, 'Tomasz Birk')
  await goTo(page, 'Clipboard')
  // Of three children or more: what is tapped is of three.
  const ofThree = page.locator('a.session:has([role=listitem]:nth-child(3))').first()
  const session = await ofThree.getAttribute('href')

  // The application, the day's cards and the children are kept before the network goes.
  const ready = (path: string) =>
    page.evaluate(async (end) => {
      const kept = (await (await caches.open('fobble-day')).keys()).map((k) => k.url)
      const all = ['account', 'clipboard', `sessions/${end}`].every((e) => kept.some((url) => url.endsWith(e)))
      return all && navigator.serviceWorker.controller?.state
    }, path)
  await expect.poll(() => ready(session!.split('/').at(-1)!), { timeout: 20_000 }).toBe('activated')
  await context.setOffline(true)
  await page.reload()
  await ofThree.click()
  const rows = page.locator('li.row')
  await expect(rows.first()).toBeVisible()
  const names = (await rows.locator('.who').allInnerTexts()).map((t) => t.split('\n')[0]!.trim())
  await rows.nth(0).getByRole('button', { name: 'alone' }).click()
  await rows.nth(1).getByRole('button', { name: 'Prompted' }).click()
  await expect(page.getByText(`2 of ${names.length} recorded`)).toBeVisible()
  await page.waitForTimeout(400)
  await context.close()

  // Opened again, and there is still no way to the server: what was tapped is there. The server is really gone this time, since
  // the browser's emulation of "offline" begins a moment after its workers do.
  server.kill()
  ;({ context, page } = await open(folder, '08:14'))
  await page.goto(`${server.url}${session}`)
  await expect(page.getByText('2 wait to be sent')).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText(`2 of ${names.length} recorded`)).toBeVisible()
  await page.locator('li.row').nth(2).getByRole('button', { name: 'Not yet' }).click()
  await page.getByRole('link', { name: /^Clipboard/ }).click()
  await page.getByRole('link', { name: /Anyone, anything/ }).click()
  await page.locator('.child').first().click()
  await page.locator('button.skill').first().click()
  await page.locator('.codes').getByRole('button', { name: 'Together' }).click()
  const anyone = (await page.locator('.child').first().innerText()).split('\n')[0]!.trim()

  // Back online: the restart has ended the sign-in. Nothing is dropped; after signing in everything is sent.
  await server.again()
  await page.clock.runFor(11_000)
  await expect(page.getByText('You are signed out: sign in again, and they are sent.')).toBeVisible({ timeout: 20_000 })
  await page.goto(`${server.url}/sign-in`)
  await page.getByRole('button', { name: 'Tomasz Birk' }).click()
  await expect(page.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()
  const all = [`${names[0]} Alone`, `${names[1]} Prompted`, `${names[2]} NotYet`, `${anyone} Together`].sort()
  await expect
    .poll(
      async () => {
        await page.clock.runFor(2_000)
        return (await recorded(page, 2)).sort()
      },
      { timeout: 20_000 },
    )
    .toEqual(all)
  await expect(page.locator('.waits')).toHaveCount(0)
  await context.close()
  rmSync(folder, { recursive: true, force: true })
})

test('the server is killed between taps and comes back: each tap is one observation', async ({ page }) => {
  await setClock(page)
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Clipboard')
  await page.locator('a.session').nth(1).click()
  const rows = page.locator('li.row')
  await rows.nth(0).getByRole('button', { name: 'alone' }).click()
  await page.clock.runFor(11_000)
  await expect.poll(() => recorded(page, 1).then((r) => r.length)).toBe(1)
  server.kill()
  await rows.nth(1).getByRole('button', { name: 'Together' }).click()
  await rows.nth(2).getByRole('button', { name: 'alone' }).click()
  await page.clock.runFor(11_000)
  await expect(page.getByText('2 wait to be sent')).toBeVisible({ timeout: 15_000 })
  await server.again()
  await expect
    .poll(
      async () => {
        await page.clock.runFor(2_000)
        return recorded(page, 1).then(
          (r) => r.length,
          () => 0,
        )
      },
      { timeout: 20_000 },
    )
    .toBe(3)
  await page.clock.runFor(5_000)
  expect(await recorded(page, 1)).toHaveLength(3)
})

test('what can never be recorded as it is waits for a decision', async ({ page }) => {
  await setClock(page)
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Clipboard')
  await page.locator('a.session').nth(2).click()
  const row = page.locator('li.row').first()
  // As if the session had been withdrawn meanwhile: the server does not know it.
  await page.route('**/api/classes/1/observations', async (route) => {
    const body = route.request().postDataJSON() as { sessionId: number | null }
    await route.continue({ postData: JSON.stringify({ ...body, sessionId: body.sessionId && 99_999 }) })
  })
  const before = (await recorded(page, 1)).length
  await row.getByRole('button', { name: 'alone' }).click()
  await page.clock.runFor(11_000)
  const kept = page.getByRole('list', { name: 'Could not be recorded' })
  await expect(kept).toContainText('This session has been withdrawn')
  await page.reload()
  await expect(kept).toContainText('This session has been withdrawn')
  await kept.getByRole('button', { name: 'Record it without the session' }).click()
  await expect.poll(() => recorded(page, 1).then((r) => r.length)).toBe(before + 1)
  await expect(kept).toHaveCount(0)
})

test('two adults record the same group and see each other’s taps', async ({ page, browser }) => {
  const other = await (await browser.newContext({ timezoneId: 'UTC', serviceWorkers: 'block' })).newPage()
  for (const [adult, at] of [
    ['Ines Okonjo', page],
    ['Tomasz Birk', other],
  ] as const) {
    await setClock(at)
    await comeInAs(at, server, adult)
    await goTo(at, 'Clipboard')
    await at.locator('a.session').last().click()
    await at.locator('li.row').first().waitFor()
  }
  await page.waitForTimeout(1500)
  await other.locator('li.row').first().getByRole('button', { name: 'Together' }).click()
  // At once: nobody waits for the ten seconds in which it could be undone.
  await expect(page.locator('li.row').first()).toContainText('Tomasz: together', { timeout: 3_000 })
  await other.locator('li.row').first().getByRole('button', { name: /^Undo/ }).click()
  await expect(page.locator('li.row').first()).not.toContainText('Tomasz')
  await other.locator('li.row').first().getByRole('button', { name: 'Together' }).click()
  await other.clock.runFor(11_000)
  await expect(page.locator('li.row').first()).toContainText('Tomasz: together', { timeout: 8_000 })
  // Who wants to compare afterwards does not look.
  await page.getByLabel('On my own').check()
  await expect(page.locator('li.row').first()).not.toContainText('Tomasz')
  await page.locator('li.row').first().getByRole('button', { name: 'Prompted' }).click()
  await page.clock.runFor(11_000)
  await expect(other.locator('li.row').first()).toContainText('Ines: prompted', { timeout: 8_000 })
  await page.getByRole('link', { name: 'Class', exact: true }).click()
  await page.getByRole('link', { name: 'Two adults' }).click()
  await expect(page.getByText(/^The same in 0 % of one moment/)).toBeVisible()
  await other.context().close()
})

test('asked to end, the server ends within five seconds, whatever it is working at and whoever listens', async ({
  page,
}) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Clipboard')
  await expect(page.locator('a.session').first()).toBeVisible()
  const token = (await page.context().cookies()).find((c) => c.name === 'XSRF-TOKEN')!.value
  const ask = (path: string, data: object) =>
    page.request.post(`${server.url}/api/classes/1/${path}`, {
      headers: { 'X-XSRF-TOKEN': decodeURIComponent(token) },
      data,
    })

  // A year's plan and weeks ahead in the background, and questions that somebody waits for, more than there are cores.
  const scope = (await (await page.request.get(`${server.url}/api/classes/1/plan/scope`)).json()) as { usual: object }
  const draft = await ask('plan/drafts/', { ...scope.usual, thorough: true })
  expect(draft.status()).toBe(200)
  expect((await ask('weeks/2026-12-02/groups/ahead', { weeks: 8 })).status()).toBe(200)
  const nothing = { seats: [], aims: [], kept: [], turns: [], work: [], letGo: [], without: [] }
  const waiting = Array.from({ length: 6 }, () =>
    ask('weeks/2026-12-02/groups/proposal', nothing).catch(() => 'cut off'),
  )
  await page.waitForTimeout(300)
  expect(await server.end()).toBeLessThan(5000)
  await Promise.all(waiting)
  await server.again()
})
