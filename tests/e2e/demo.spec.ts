import { expect, test } from '@playwright/test'
import { expectAccessible } from './accessible'
import { DEMO_NOW } from './filled'
import { startServer, type RunningServer } from './server'
import { comeInAs, goTo } from './visit'

// Lantern Hill, on a fixed Wednesday.
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => server.stop())
// The browser's clock goes with the server's, a little ahead of it.
test.beforeEach(({ page }) => page.clock.install({ time: new Date('2026-11-25T08:12:00Z') }))

test('the front door of the demo is open to everyone', async ({ page }) => {
  await page.goto(server.url)
  await expect(page.getByRole('button', { name: 'Tomasz Birk' })).toBeVisible()
  await expectAccessible(page)
  await page.goto(`${server.url}/c/1/groups`)
  await page.getByRole('button', { name: 'Ines Okonjo' }).click()
  await expect(page.getByRole('heading', { name: /^Groups, week of/ })).toBeVisible()
})

test('a child is moved by hand: the price and the reason come before it is put down', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await page.getByRole('link', { name: 'Plan', exact: true }).click()
  await page.getByRole('link', { name: 'Week', exact: true }).click()
  await page.getByRole('link', { name: 'Go to next week' }).click()
  await page.getByRole('button', { name: 'Let Fobble plan this week' }).click()
  await page.getByRole('link', { name: 'Groups of this week' }).click()
  await page.getByRole('button', { name: 'Ask for groups' }).click()
  const first = page.getByRole('region', { name: /^First turn/ })
  await expect(first.getByText('Pick up a name to move it')).toBeVisible({ timeout: 30_000 })
  const tables = first.locator('article.table')
  const name = await tables.nth(0).locator('button.name').first().innerText()
  await tables.nth(0).getByRole('button', { name, exact: true }).click()
  await expect(page.locator('.price').first()).toContainText(/Costs|Gains/)
  await expectAccessible(page)
  await tables
    .nth(1)
    .getByRole('button', { name: `Put ${name} here` })
    .click()
  await expect(tables.nth(1).getByRole('button', { name, exact: true })).toBeVisible()
  await expect(tables.nth(0).getByRole('button', { name, exact: true })).toHaveCount(0)
  // The second turn is asked for beside the first, and accepted with it.
  await expect(page.getByRole('region', { name: /^Second turn/ }).getByText(/second turn this week/)).toBeVisible({
    timeout: 30_000,
  })
  await page.getByRole('button', { name: 'Accept these groups' }).click()
  await expect(tables.nth(1).locator('li', { hasText: name })).toBeVisible()
})

test('the clipboard keeps a tap while the network is gone, and sends it once when it is back', async ({
  page,
  context,
}) => {
  await comeInAs(page, server, 'Tomasz Birk')
  await page.getByRole('link', { name: 'Clipboard', exact: true }).click()
  await expectAccessible(page)
  await page.locator('a.session').first().click()
  const row = page.locator('li.row').first()
  const name = (await row.locator('.who').innerText()).split('\n')[0]!.trim()
  await context.setOffline(true)
  await page.keyboard.press('1')
  await page.keyboard.press('s')
  await expect(row.getByRole('button', { name: `${name}: Prompted` })).toHaveClass(/on/)
  await expect(page.getByText('No network just now. 1 waits to be sent; keep going.')).toBeVisible({ timeout: 20_000 })
  const sent = page.waitForResponse((r) => r.url().endsWith('/observations') && r.request().method() === 'POST')
  await context.setOffline(false)
  expect((await sent).status()).toBe(204)
  await page.reload()
  await expect(page.getByText(/^1 of \d recorded/)).toBeVisible()
})

test('a slide from the name to a code records that code', async ({ page }) => {
  await comeInAs(page, server, 'Tomasz Birk')
  await page.getByRole('link', { name: 'Clipboard', exact: true }).click()
  await page.locator('a.session').nth(1).click()
  const row = page.locator('li.row').first()
  await row.locator('.name').hover()
  await page.mouse.down()
  await row.getByRole('button', { name: /Together/ }).hover()
  await page.mouse.up()
  await expect(row.getByRole('button', { name: /Together/ })).toHaveClass(/on/)
  await expect(page.getByText(/^1 of \d recorded/)).toBeVisible()
})

test('a maths lead looks over a class and changes nothing; nobody sees a class that is not theirs', async ({
  page,
}) => {
  await comeInAs(page, server, 'Maeve Castellane')
  await page.getByLabel('Class', { exact: true }).selectOption('Alder')
  await expect(page.getByText('Alder, Lantern Hill School')).toBeVisible()
  await page.getByLabel('Class', { exact: true }).selectOption('Rowan')
  await page.getByRole('link', { name: 'Groups', exact: true }).click()
  await expect(page.locator('article.table').first()).toBeVisible()
  await expect(page.getByRole('button', { name: 'Ask again' })).toHaveCount(0)
  await page.getByRole('link', { name: 'Clipboard', exact: true }).click()
  await expect(page.getByText('recording is for its teacher and assistants')).toBeVisible()
  await page.getByRole('button', { name: 'Sign out' }).click()
  await page.getByRole('button', { name: 'Ines Okonjo' }).click()
  await expect(page.getByText('Rowan, Lantern Hill School')).toBeVisible()
  await page.goto(`${server.url}/c/2/today`)
  await expect(page.getByText('There is no bead here')).toBeVisible()
})

test('pages hold at 200 % zoom and on a tablet, and the grid is walked by arrow keys', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  for (const size of [
    { width: 640, height: 400 },
    { width: 768, height: 1024 },
  ]) {
    await page.setViewportSize(size)
    const fits = async (place: string) => {
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      await page.waitForLoadState('networkidle')
      expect(
        await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
        `${place} at ${size.width}`,
      ).toBeLessThanOrEqual(0)
    }
    for (const place of ['Today', 'Plan', 'Groups', 'Clipboard', 'Mats', 'Sheets', 'Set-up']) {
      await goTo(page, place)
      await fits(place)
    }
    for (const address of [
      'mats/sums',
      'mats/story',
      'mats/counters/TwoTenFrames',
      'mats/dice',
      'sheets?kind=Stories',
    ]) {
      await page.goto(`${server.url}/c/1/${address}`)
      await fits(address)
    }
  }
  await page.getByRole('link', { name: 'Class', exact: true }).click()
  await page.locator('td button[tabindex="0"]').focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toBeVisible()
})
