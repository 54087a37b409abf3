import { expect, test } from '@playwright/test'
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
