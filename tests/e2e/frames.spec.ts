import { expect, test, type Page } from '@playwright/test'
import { DEMO_NOW } from './filled'
import { pages } from './pages'
import { startServer, type RunningServer } from './server'
import { comeInAs } from './visit'

// A page before anything of it has come: what it says there is true still when all has come, and what can be tapped there stays under the finger. Found so: a button
// that moved away between press and release, and a page that said "outside the terms" until it knew better.
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => server.stop())

interface Seen {
  text: string
  acts: boolean
  x: number
  y: number
}

/** What stands on the page in words, where, and whether it can be tapped. */
const look = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('main *')].flatMap((e): Seen[] => {
      const text = [...e.childNodes]
        .filter((n) => n.nodeType === Node.TEXT_NODE)
        .map((n) => n.textContent!.trim())
        .join(' ')
        .trim()
      const at = e.getBoundingClientRect()
      if (!/\p{L}{2}/u.test(text) || at.width < 2 || e.closest('option, [role=status]') || !e.checkVisibility())
        return []
      const acting = e.closest('a, button, summary, label')
      return [{ text, acts: !!acting && !acting.matches(':disabled'), x: at.x, y: at.y }]
    }),
  )

test('what a page says before its content has come is true after, and nothing moves from under a finger', async ({
  page,
}) => {
  test.setTimeout(300_000)
  await comeInAs(page, server, 'Ines Okonjo')
  let release = () => {}
  let held: Promise<void> | undefined
  let underway = 0
  await page.route(/\/api\/(classes\/|school)/, async (route) => {
    underway++
    await held
    await route.continue().catch(() => undefined)
    underway--
  })
  const faults: string[] = []
  for (const address of pages) {
    held = new Promise((go) => (release = go))
    await page.goto(`${server.url}/c/1/${address}`)
    await expect(page.locator('main h1').first(), address).toBeVisible()
    // A busy machine may bring the bold letters of the open tab late; what is looked for is what the answers move.
    await page.evaluate(() => document.fonts.ready)
    await page.waitForTimeout(200)
    const before = await look(page)
    if (underway) await expect(page.getByText('On its way …'), address).toBeVisible()
    release()
    held = undefined
    await expect.poll(() => underway, { message: address }).toBe(0)
    await expect(page.getByText('On its way …'), address).toHaveCount(0)
    await page.waitForTimeout(300)
    const after = await look(page)
    for (const { text, acts, x, y } of before) {
      const now = after.filter((a) => a.text === text)
      if (!now.length) faults.push(`${address}: “${text}” was said too early`)
      else if (acts && !now.some((a) => Math.abs(a.x - x) + Math.abs(a.y - y) < 6))
        faults.push(`${address}: “${text}” moved by ${Math.round(now[0]!.x - x)}, ${Math.round(now[0]!.y - y)}`)
    }
  }
  expect(faults).toEqual([])
})
