import { fileURLToPath } from 'node:url'
import { expect, test, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { startServer, type RunningServer, FIRST_CODE } from './server'

// From an empty installation to the first session card: at most ten minutes and twelve decisions. A decision is a press on something, or a file chosen.
const MOST_MINUTES = 10
const MOST_DECISIONS = 12
const classList = fileURLToPath(new URL('../../samples/class-list.csv', import.meta.url))
let server: RunningServer

test.beforeAll(async () => {
  server = await startServer({ demo: false, now: '2026-09-09T08:00:00' })
})
test.afterAll(() => server.stop())

function counted(page: Page) {
  let decisions = 0
  const began = Date.now()
  return {
    async press(role: 'button' | 'link', name: string | RegExp) {
      decisions++
      await page.getByRole(role, { name }).first().click()
    },
    async file(path: string) {
      decisions++
      await page.setInputFiles('input[type=file]', path)
    },
    get decisions() {
      return decisions
    },
    get minutes() {
      return (Date.now() - began) / 60_000
    },
  }
}

test('the first hour takes ten minutes and twelve decisions at most, and does not come back', async ({ page }) => {
  const complaints: string[] = []
  page.on('pageerror', (error) => complaints.push(error.message))
  const first = counted(page)
  await page.goto(server.url)
  await page.getByLabel('Code', { exact: false }).fill(FIRST_CODE)
  await page.getByLabel('Your name').fill('Rosalind Achterberg')
  await page.getByLabel('School').fill('Kettle Lane School')
  await page.getByLabel('Class', { exact: true }).fill('Willow')
  await page.getByLabel('E-mail').fill('rosalind@kettle-lane.example')
  await page.getByLabel(/Password/).fill('nine wagons uphill')
  await first.press('button', 'Begin')
  await expect(page.getByRole('heading', { name: 'Willow’s first hour' })).toBeVisible()
  await expectAccessible(page)

  await first.press('link', 'Bring in the list')
  await first.file(classList)
  await first.press('button', 'Add 14 children')

  await expect(page.getByText('14 children.', { exact: true })).toBeVisible()
  await expect(page.getByText('Who works together?')).toBeVisible()
  await expectAccessible(page)
  await first.press('button', 'Keep it so')

  await expect(page.getByText('Autumn half-term')).toBeVisible()
  await expectAccessible(page)
  await first.press('button', 'That is how it is')
  await first.press('button', 'Begin as new')

  // What is offered fits: no newcomer is told of lessons too many.
  await expect(page.getByText(/skills in \d+ lessons fit the days there are/)).toBeVisible()
  await first.press('link', 'Work it out')
  await expect(page.getByRole('button', { name: 'Take this plan' })).toBeVisible({ timeout: 60_000 })
  await expect(page.getByText(/lessons too many/)).toHaveCount(0)
  await expectAccessible(page)
  await first.press('button', 'Take this plan')

  // Back where the next step waits.
  await expect(page.getByRole('button', { name: /A plan that fits.*In force/ })).toBeVisible()
  await first.press('link', 'Ask for groups')
  await expect(page.getByText('No better set of groups exists for these aims').first()).toBeVisible({ timeout: 30_000 })
  await first.press('button', 'Accept these groups')
  await first.press('link', 'Session card')
  await expect(page.getByRole('heading', { name: 'Numbers to use, in this order' })).toBeVisible()
  console.log(`first hour: ${first.decisions} decisions, ${first.minutes.toFixed(2)} minutes of a machine’s hands`)
  expect(first.decisions).toBeLessThanOrEqual(MOST_DECISIONS)
  expect(first.minutes).toBeLessThan(MOST_MINUTES)

  // Over for good.
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Today' }).click()
  await expect(page.getByRole('heading', { name: 'On the carpet' })).toBeVisible()
  await expect(page.getByRole('heading', { name: /first hour/ })).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('heading', { name: 'On the carpet' })).toBeVisible()
  await expect(page.getByRole('heading', { name: /first hour/ })).toHaveCount(0)
  expect(complaints).toEqual([])
})
