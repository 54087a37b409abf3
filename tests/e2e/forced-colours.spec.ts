import { expect, test } from '@playwright/test'
import { expectAccessible } from './accessible'
import { DEMO_NOW } from './filled'
import { pages } from './pages'
import { startServer, type RunningServer } from './server'
import { comeInAs } from './visit'

// Colours chosen by the system, and nothing that moves: what is drawn instead of written must still tell one state from another.
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => server.stop())
test.use({ forcedColors: 'active', reducedMotion: 'reduce' })

test('marks and beads are told apart in the system’s colours', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await page.goto(`${server.url}/c/1/class`)
  // A picture of each kind of mark, as it is drawn.
  const legend = page.locator('.mark')
  await expect(legend.first()).toBeVisible()
  const seen = new Map<string, string>()
  for (const state of [
    ...[1, 2, 3, 4, 5].map((s) => `.mark.s${s}:not(.again, .ready)`),
    '.mark.again',
    '.mark.inferred',
  ]) {
    const drawn = page.locator(state).last()
    await drawn.scrollIntoViewIfNeeded()
    seen.set(state, (await drawn.screenshot({ animations: 'disabled' })).toString('base64'))
  }
  expect(new Set(seen.values()).size).toBe(seen.size)

  await page.goto(`${server.url}/c/1/map`)
  const bead = (name: string) => page.getByRole('button', { name: new RegExp(`^${name}\\.`) }).locator('i')
  await expect(bead('Say to five')).toBeVisible()
  expect((await bead('Say to five').screenshot()).equals(await bead('Say to a hundred').screenshot())).toBe(false)
})

test('each page has nothing that axe finds, in these colours', async ({ page }) => {
  test.setTimeout(300_000)
  await comeInAs(page, server, 'Ines Okonjo')
  for (const address of pages) {
    await page.goto(`${server.url}/c/1/${address}`)
    await expect(page.locator('main h1').first(), address).toBeVisible()
    await page.waitForLoadState('networkidle')
    // What is open is shown as open.
    const open = page.locator('.rail [aria-current=page]').first()
    expect(await open.evaluate((e) => getComputedStyle(e).outlineStyle), address).not.toBe('none')
    await expectAccessible(page)
  }
})
