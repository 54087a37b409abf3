import { expect, test, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { DEMO_NOW } from './filled'
import { pages } from './pages'
import { startServer, type RunningServer } from './server'
import { comeInAs } from './visit'

// Each page of the demo: it says what it is, is gone through by keys alone, passes axe as it is and in the system's colours, fits a tablet and 200 %, and has nothing
// to complain of in the browser's console, where a style or script that the page does not allow would show too.
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => server.stop())
// In two halves, side by side.
test.describe.configure({ mode: 'parallel' })

/** Walks some way through a page by Tab: what one comes to and can't see, or can't see that one is there. */
async function byKeys(page: Page, address: string) {
  const faults: string[] = []
  await page.locator('main').focus()
  for (let stop = 0; stop < 20; stop++) {
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
      return {
        what: `${e.tagName} ${e.getAttribute('aria-label') ?? e.textContent?.trim().slice(0, 40)}`,
        // Past the last one, the browser itself has it.
        past: e === document.body,
        ringed,
        seen: box.bottom > 0 && box.top < innerHeight && box.width > 0,
      }
    })
    if (at.past && stop === 0) faults.push(`${address}: nothing to act on`)
    if (at.past) break
    if (!at.ringed) faults.push(`${address}: ${at.what} shows no ring`)
    if (!at.seen) faults.push(`${address}: ${at.what} is out of sight`)
  }
  return faults
}

/** Words of two parts that stand on one line with no room between them. */
function touching(page: Page) {
  return page.evaluate(() => {
    document.querySelectorAll('details').forEach((d) => (d.open = true))
    const found: string[] = []
    const walk = document.createTreeWalker(document.querySelector('main')!, NodeFilter.SHOW_TEXT)
    let before: { data: string; words: string; parent: Element; box: DOMRect } | undefined
    while (walk.nextNode()) {
      const text = walk.currentNode as Text
      const words = text.data.trim()
      if (!text.parentElement!.checkVisibility() || text.parentElement!.closest('.hidden-words')) continue
      if (!words) {
        if (text.data) before = undefined
        continue
      }
      const range = document.createRange()
      range.selectNodeContents(text)
      const boxes = [...range.getClientRects()]
      if (!boxes.length) continue
      const gap = before && boxes[0]!.left - before.box.right
      if (
        before &&
        before.parent !== text.parentElement &&
        Math.abs(before.box.bottom - boxes[0]!.bottom) < 6 &&
        Math.abs(gap!) < 3 &&
        /[\p{L}\p{N}.,:;!?”)]$/u.test(before.data) &&
        /^[\p{L}\p{N}“(]/u.test(text.data)
      )
        found.push(`${before.words.slice(-20)}|${words.slice(0, 20)}`)
      before = { data: text.data, words, parent: text.parentElement!, box: boxes.at(-1)! }
    }
    return found
  })
}

for (const half of [0, 1])
  test(`each page holds, ${half + 1} of 2`, async ({ page }) => {
    test.setTimeout(900_000)
    const faults: string[] = []
    page.on('console', (message) => {
      if (message.type() === 'error') faults.push(`${page.url()}: ${message.text()}`)
    })
    page.on('pageerror', (error) => faults.push(`${page.url()}: ${error.message}`))
    await comeInAs(page, server, 'Ines Okonjo')
    for (const address of pages.filter((_, i) => i % 2 === half)) {
      await page.goto(`${server.url}/c/1/${address}`)
      await expect(page.locator('main h1').first(), address).toBeVisible()
      await page.waitForLoadState('networkidle')
      // A few children have all that the whole class has, and are looked at in a tenth of the time.
      if (address === 'class') await page.getByLabel('Group', { exact: true }).selectOption({ index: 1 })
      await expectAccessible(page)

      await page.emulateMedia({ forcedColors: 'active', reducedMotion: 'reduce' })
      // What is open is shown as open.
      const open = page.locator('.rail [aria-current=page]').first()
      expect(await open.evaluate((e) => getComputedStyle(e).outlineStyle), address).not.toBe('none')
      await expectAccessible(page)
      await page.emulateMedia({ forcedColors: null, reducedMotion: null })

      // A tablet, and what 200 % leaves of 1280 by 800.
      for (const [width, height] of [
        [768, 1024],
        [640, 400],
      ] as const) {
        await page.setViewportSize({ width, height })
        expect(await page.evaluate(() => document.documentElement.scrollWidth), address).toBeLessThanOrEqual(width + 1)
      }
      await page.setViewportSize({ width: 1280, height: 800 })
      faults.push(...(await byKeys(page, address)))
      faults.push(...(await touching(page)).map((words) => `${address}: no room between ${words}`))
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
