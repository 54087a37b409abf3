import { expect, test } from '@playwright/test'
import { DEMO_NOW } from './filled'
import { startServer, type RunningServer } from './server'
import { comeInAs, goTo } from './visit'

// A network that is there, gone, and half there: what was tapped arrives, each tap once, whatever became of its way.
const TAPS = 40
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => server.stop())

/** The same numbers in each run (a linear congruential generator: Numerical Recipes, 1992, from memory): what fails once fails again. */
function numbers(seed: number) {
  return (below: number) => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0
    return Math.floor((seed / 2 ** 32) * below)
  }
}

for (const seed of [1, 2])
  test(`a network that flaps, way ${seed}: nothing lost, nothing doubled`, async ({ page, context }) => {
    const next = numbers(seed)
    await page.clock.install({ time: new Date('2026-11-25T08:12:00Z') })
    await comeInAs(page, server, 'Ines Okonjo')
    const before = await recorded()
    await goTo(page, 'Clipboard')
    await page.getByRole('link', { name: /Anyone, anything/ }).click()
    await expect(page.locator('.child').first()).toBeVisible()

    // Of the ways that a question can go wrong, the worst is the one that is answered and the answer lost.
    const ways = { lostOnItsWay: 0, answerLost: 0, sentAway: 0, late: 0, arrived: 0 }
    let calm = false
    await page.route('**/api/classes/1/observations', async (route) => {
      const way = calm ? 9 : next(10)
      if (way < 3) {
        ways.lostOnItsWay++
        await route.abort('connectionreset')
      } else if (way < 5) {
        ways.answerLost++
        await route.fetch().catch(() => undefined)
        await route.abort('connectionaborted').catch(() => undefined)
      } else if (way < 6) {
        ways.sentAway++
        await route.fulfill({ status: 503, contentType: 'application/problem+json', body: '{}' })
      } else {
        if (way < 8) {
          ways.late++
          await new Promise((later) => setTimeout(later, 200 + next(600)))
        }
        ways.arrived++
        await route.continue().catch(() => undefined)
      }
    })
    for (let tap = 0; tap < TAPS; tap++) {
      await page.locator('.child').nth(next(12)).click()
      await page.locator('button.skill').first().click()
      await page
        .locator('.codes')
        .getByRole('button', { name: next(2) ? 'Together' : 'alone' })
        .click()
      if (next(4) === 0) await context.setOffline(next(2) === 0)
      await page.clock.runFor(1_000 + next(12_000))
    }

    calm = true
    await context.setOffline(false)
    await expect
      .poll(
        async () => {
          await page.clock.runFor(20_000)
          return (await recorded()) - before
        },
        { timeout: 60_000 },
      )
      .toBe(TAPS)
    await expect(page.locator('.waits')).toHaveCount(0)
    await page.clock.runFor(120_000)
    expect((await recorded()) - before).toBe(TAPS)
    console.log(`way ${seed}: ${JSON.stringify(ways)}`)
    expect(Math.min(...Object.values(ways)), 'each of them was met').toBeGreaterThan(0)

    async function recorded() {
      const answer = await page.request.get(`${server.url}/api/classes/1/trail?from=2026-11-25&by=1`)
      return ((await answer.json()) as { entries: unknown[] }).entries.length
    }
  })
