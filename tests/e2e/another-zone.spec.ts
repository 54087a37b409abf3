import { fileURLToPath } from 'node:url'
import { expect, test } from '@playwright/test'
import { startServer, type RunningServer, FIRST_CODE } from './server'
import { choose, goTo } from './visit'

// A quarter past nine on Wednesday in Sydney; the server stands where it is still Tuesday evening, and so might a tablet.
test.use({ timezoneId: 'Australia/Sydney' })
const sample = fileURLToPath(new URL('../../samples/class-list.csv', import.meta.url))
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: false, now: '2026-11-24T22:15:00', zone: 'UTC' })
})
test.afterAll(() => server?.stop())

test('what is seen at nine in the morning belongs to that morning, wherever the server stands', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-11-24T22:17:00Z') })
  await page.goto(server.url)
  await page.getByLabel('Code', { exact: false }).fill(FIRST_CODE)
  await page.getByLabel('Your name').fill('Rosalind Achterberg')
  await page.getByLabel('School').fill('Kettle Lane School')
  await page.getByLabel('Class', { exact: true }).fill('Willow')
  await page.getByLabel('E-mail').fill('rosalind@kettle-lane.example')
  await page.getByLabel(/Password/).fill('nine wagons uphill')
  await page.getByRole('button', { name: 'Begin' }).click()
  await expect(page.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()

  await goTo(page, 'Class')
  await page.getByRole('link', { name: 'Import the class list' }).click()
  await page.setInputFiles('input[type=file]', sample)
  await page.getByRole('button', { name: 'Add 14 children' }).click()
  await expect(page.getByText('14 children.', { exact: true })).toBeVisible()

  await goTo(page, 'Clipboard')
  await page.getByRole('link', { name: /Anyone, anything/ }).click()
  await page.getByRole('button', { name: 'Idris B.' }).click()
  await page.getByLabel('Search a skill').fill('twenty bon')
  await page.getByRole('button', { name: 'Bonds to twenty' }).click()
  await page.locator('.codes').getByRole('button', { name: 'Alone' }).click()
  await goTo(page, 'Class')
  await page.getByRole('link', { name: 'Trail', exact: true }).click()
  await expect(page.getByText(/25 Nov.*\b0?9:1\d/).first()).toBeVisible()

  // The school can be told to be elsewhere; the same instant is another day there.
  await goTo(page, 'Set-up')
  await expect(page.getByRole('combobox', { name: 'Time zone' })).toHaveText('Australia/Sydney')
  await choose(page, 'Time zone', 'America/Denver')
  await page.getByLabel('Dates').selectOption('en-US')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await goTo(page, 'Today')
  await expect(page.getByRole('heading', { name: 'Tuesday, November 24' })).toBeVisible()
})
