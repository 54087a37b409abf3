import { expect, test } from '@playwright/test'
import { DEMO_NOW } from './filled'
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
