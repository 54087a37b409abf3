import { fileURLToPath } from 'node:url'
import { expect, test, type Page } from '@playwright/test'
import { startServer, type RunningServer } from './server'
import { goTo as place } from './visit'

// One picture of each main view, made from the demo's data on a fixed Wednesday: ./fobble screenshots.
const folder = fileURLToPath(new URL('../../docs/screenshots/', import.meta.url))
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(5393, { demo: true, now: '2026-11-25T08:10:00' })
})
test.afterAll(() => server.stop())

const shoot = async (page: Page, name: string) => {
  for (const notice of await page.locator('.notice .away').all()) await notice.click()
  await page.waitForLoadState('networkidle')
  await page.mouse.move(0, 0)
  await page.screenshot({ path: `${folder}${name}.png`, animations: 'disabled' })
}

test('pictures of the main views', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-11-25T08:12:00Z') })
  await page.goto(server.url)
  await expect(page.getByRole('button', { name: 'Ines Okonjo' })
