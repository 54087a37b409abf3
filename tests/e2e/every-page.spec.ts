import { expect, test } from '@playwright/test'
import { expectAccessible } from './accessible'
import { DEMO_NOW } from './filled'
import { pages } from './pages'
import { startServer, type RunningServer } from './server'
import { comeInAs } from './visit'

// Each page of the demo: it says what it is, fits a tablet, and has nothing to complain of in the browser's console, where a style or script that the page does not
// allow would show too.
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => server.stop())

test('no page complains, and each fits a tablet', async ({ page }) => {
  const complaints: string[] = []
  page.on('console', (message) => {
    if (message.type() === 'error') complaints.push(`${page.url()}: ${message.text()}`)
  })
  page.on('pageerror', (error) => complaints.push(`${page.url()}: ${error.message}`))
  await page.setViewportSize({ width: 768, height: 1024 })
  await comeInAs(page, server, 'Ines Okonjo')
  for (const address of pages) {
    await page.goto(`${server.url}/c/1/${address}`)
    await expect(page.locator('main h1').first(), address).toBeVisible()
    await page.waitForLoadState('networkidle')
    expect(await page.evaluate(() => document.documentElement.scrollWidth), address).toBeLessThanOrEqual(769)
  }
  expect(complaints).toEqual([])
})

test('on each page axe finds nothing, and at 200 % nothing runs over', async ({ page }) => {
  test.setTimeout(300_000)
  await comeInAs(page, server, 'Ines Okonjo')
  for (const address of pages) {
    await page.setViewportSize({ width: 1280, height: 800 })
    await page.goto(`${server.url}/c/1/${address}`)
    await expect(page.locator('main h1').first(), address).toBeVisible()
    await page.waitForLoadState('networkidle')
    await expectAccessible(page)
    // What 200 % leaves of 1280 by 800.
    await page.setViewportSize({ width: 640, height: 400 })
    expect(await page.evaluate(() => document.documentElement.scrollWidth), address).toBeLessThanOrEqual(641)
  }
})

test('each page is gone through by keys alone, and shows where one is', async ({ page }) => {
  test.setTimeout(300_000)
  const faults: string[] = []
  await comeInAs(page, server, 'Ines Okonjo')
  for (const address of pages) {
    await page.goto(`${server.url}/c/1/${address}`)
    await expect(page.locator('main h1').first(), address).toBeVisible()
    await page.waitForLoadState('networkidle')
    await page.locator('main').focus()
    const stops = new Set<string>()
    for (let i = 0; i < 25; i++) {
      await page.keyboard.press('Tab')
      const at = await page.evaluate(() => {
        const e = document.activeElement as HTMLElement
        const box = e.getBoundingClientRect()
        // What carries the ring may be what stands around a field.
        const ringed = [e, e.parentElement, e.parentElement?.parentElement].some((x) => {
          if (!x) return false
          const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(x)
          return (outlineStyle !== 'none' && outlineWidth !== '0px') || boxShadow !== 'none'
        })
        const seen = box.bottom > 0 && box.top < innerHeight && box.width > 0
        return {
          what: `${e.tagName} ${e.getAttribute('aria-label') ?? e.textContent?.trim().slice(0, 40)} ${Math.round(box.x)},${Math.round(box.y + scrollY)}`,
          lost: e === document.body,
          ringed,
          seen,
        }
      })
      // Past the last one, the browser itself has it.
      if (at.lost) break
      if (!at.ringed || !at.seen)
        faults.push(`${address}: ${at.what}${at.ringed ? '' : ' shows no ring'}${at.seen ? '' : ' is out of sight'}`)
      stops.add(at.what)
    }
    if (!stops.size) faults.push(`${address}: nothing to act on`)
  }
  expect(faults).toEqual([])
})

test('the page’s styles carry a nonce that no other answer has', async ({ page }) => {
  const nonces: string[] = []
  for (const address of ['/', '/index.html', '/c/1/today']) {
    const answer = await page.request.get(`${server.url}${address}`)
    const policy = answer.headers()['content-security-policy']!
    expect(policy).not.toContain('unsafe')
    const nonce = /'nonce-([^']+)'/.exec(policy)![1]!
    expect(await answer.text()).toContain(`nonce="${nonce}"`)
    nonces.push(nonce)
  }
  expect(new Set(nonces).size).toBe(3)
})
