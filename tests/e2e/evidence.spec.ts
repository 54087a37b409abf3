import { expect, test, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { DEMO_NOW } from './filled'
import { startServer, type RunningServer } from './server'
import { comeInAs, goTo } from './visit'

// From a baseline check to the page for the family, on the made-up school.
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => server.stop())
test.beforeEach(({ page }) => page.clock.install({ time: new Date('2026-11-25T08:12:00Z') }))

const tab = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'The class’s record' }).getByRole('link', { name }).click()

test('a whole baseline check: the questions come by themselves, it stops by itself, and the grid shows what it infers', async ({
  page,
}) => {
  await comeInAs(page, server, 'Tomasz Birk')
  await goTo(page, 'Class')
  await tab(page, 'Baseline')
  await page.getByLabel('Check Jonas E.').check()
  await page.getByLabel('Check Wren A.').check()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Begin' }).click()
  const asked = page.locator('.sure b')
  await expect(page.getByText('Lay out')).toBeVisible()
  await expect(page.getByText('Counts as right')).toBeVisible()
  await expectAccessible(page)

  // A child who knows what comes early: the aim of the question tells.
  let answers = 0
  const end = page.getByRole('button', { name: 'End the check' })
  while (!(await end.isVisible()) && answers < 31) {
    await page.keyboard.press(answers % 5 === 4 ? 'f' : 'a')
    await page.getByRole('button', { name: 'Next' }).click()
    answers += 1
    await expect(asked).toHaveText(String(answers), { timeout: 15_000 })
    if (answers === 3) {
      // Paused, and gone on with later.
      await page.getByRole('link', { name: 'Pause' }).click()
      await expect(page.getByText('under way since 25 November, 3 asked')).toBeVisible()
      await page.locator('li', { hasText: 'Jonas E.' }).getByRole('link', { name: 'Go on' }).click()
      await expect(asked).toHaveText('3')
    }
  }
  expect(answers).toBeGreaterThanOrEqual(6)
  expect(answers).toBeLessThanOrEqual(30)
  await end.click()
  await expect(page.getByText('Ended on 25 November')).toBeVisible()
  await expect(page.getByText('as a guess to confirm')).toBeVisible()

  // An adult knows better.
  await page.locator('.bead.likely').last().click()
  await page.getByRole('button', { name: 'I know it is not' }).click()
  await expect(page.locator('.bead.denied')).toHaveCount(1)
  await page.getByRole('button', { name: 'Leave it to the check' }).click()
  await expect(page.locator('.bead.denied')).toHaveCount(0)

  await goTo(page, 'Class')
  await page.getByLabel('All skills').check()
  const inferred = page.getByRole('button', { name: /^Jonas E\., .*: likely there, not seen yet/ })
  await expect(inferred.first()).toBeVisible()
  await inferred.first().click()
  await expect(page.getByRole('dialog')).toContainText('Not seen yet. The check of 25 November takes it to be there')
})

test('anyone, anything: child, skill, how it went; a note; and withdrawing it changes the grid', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Clipboard')
  await page.getByRole('link', { name: /Anyone, anything/ }).click()
  await page.getByRole('button', { name: 'Jonas E.' }).click()
  await page.getByLabel('Search a skill').fill('twenty bon')
  await page.getByRole('button', { name: 'Bonds to twenty' }).click()
  await expectAccessible(page)
  await page.locator('.codes').getByRole('button', { name: 'Alone' }).click()
  await page.getByRole('button', { name: 'Note', exact: true }).click()
  await page.getByLabel('Note about Jonas E.').fill('Did it on his fingers and toes')
  await page.getByRole('button', { name: 'Done' }).click()
  await goTo(page, 'Class')
  await page.getByLabel('All skills').check()
  const cell = page.getByRole('button', { name: /^Jonas E\., Bonds to twenty:/ })
  await expect(cell).toHaveAttribute('aria-label', /nearly/)
  await cell.click()
  const drawer = page.getByRole('dialog')
  await expect(drawer).toContainText('“Did it on his fingers and toes”')
  await drawer.getByRole('button', { name: 'Withdraw' }).click()
  await drawer.getByLabel('Why is it withdrawn?').fill('It was Hiro')
  await drawer.getByRole('button', { name: 'Withdraw' }).click()
  await expect(drawer).toContainText('withdrawn by Ines Okonjo')
  await page.keyboard.press('Escape')
  await expect(cell).toHaveAttribute('aria-label', /not seen/)
  await tab(page, 'Trail')
  await page.getByLabel('withdrawn only').check()
  await expect(page.getByText('It was Hiro')).toBeVisible()
  await expectAccessible(page)
})

test('the grid folds, filters, opens a column and a child; a maths lead has classes below each other', async ({
  page,
}) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Class')
  await expect(page.getByRole('rowheader')).toHaveCount(26)
  const columns = () => page.locator('th.skill button').count()
  const before = await columns()
  await page.getByRole('button', { name: 'Counting' }).click()
  expect(await columns()).toBeLessThan(before)
  await page.getByRole('button', { name: 'Counting' }).click()
  await page.getByLabel('Group', { exact: true }).selectOption({ index: 1 })
  expect(await page.getByRole('rowheader').count()).toBeLessThan(7)
  // A few children have all that the whole class has, and are looked at in a tenth of the time.
  await expectAccessible(page)
  await page.getByLabel('Group', { exact: true }).selectOption('')
  await page.getByLabel('Season', { exact: true }).selectOption('Spring')
  expect(await columns()).toBeLessThan(before)
  await page.getByLabel('Season', { exact: true }).selectOption('')
  await page.locator('th.skill button').first().click()
  await expect(page.getByRole('dialog')).toContainText('Ready')
  await expect(page.getByRole('dialog')).toContainText('Not yet')
  // Once it has come to rest.
  await expect(page.locator('.p-drawer-enter-active')).toHaveCount(0)
  await page.getByRole('dialog').getByRole('link').nth(3).click()
  await expect(page.getByRole('heading', { name: 'Next' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await page.getByRole('button', { name: 'Sign out' }).click()
  await page.getByRole('button', { name: 'Maeve Castellane' }).click()
  await goTo(page, 'Class')
  await page.getByLabel('All my classes').check()
  await expect(page.getByRole('rowheader')).toHaveCount(52)
})

test('a child’s page, and what leaves the house on paper', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Class')
  await page.getByRole('rowheader').nth(9).getByRole('link').click()
  for (const part of [
    'Next',
    'Strands',
    'Everything seen',
    'Slips that come again',
    'Groups so far',
    'Shown with, bonds, guess jar',
  ])
    await expect(page.getByRole('heading', { name: part })).toBeVisible()
  await expectAccessible(page)
  // The full record is a tap away.
  for (const fold of await page.locator('main details').all()) await fold.locator('summary').click()
  await expectAccessible(page)
  await page.getByRole('button', { name: /^Show earlier ones/ }).click()
  await expect(page.getByRole('button', { name: /^Show earlier ones/ })).toHaveCount(0)
  const href = await page.getByRole('link', { name: 'Page for the family' }).getAttribute('href')
  const pdf = await page.request.get(server.url + href)
  expect(pdf.headers()['content-type']).toBe('application/pdf')
  await page.locator('button.skill').first().click()
  await expect(page.getByRole('dialog')).toContainText('Secure asks for')
})

test('look again, slips and two adults say what to do; a file with a fault is refused by line', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Class')
  await tab(page, 'Look again')
  await expect(page.getByRole('heading', { name: 'Never quite sure' })).toBeVisible()
  await expectAccessible(page)
  await tab(page, 'Slips')
  await expect(page.getByText('the easier way:').first()).toBeVisible()
  await expectAccessible(page)
  await tab(page, 'Two adults')
  await expect(page.getByText(/^The same in \d+ % of/)).toBeVisible()
  await expectAccessible(page)
  await tab(page, 'In and out')
  await expectAccessible(page)
  const file = (text: string) => ({ name: 'seen.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  const input = page.getByLabel('Observations from a spreadsheet').and(page.locator('input'))
  await input.setInputFiles(file('Child,Skill,Day,Support\nKofi M.,say to five,2026-11-24,Maybe\n'))
  await expect(page.getByRole('alert')).toContainText('Line 2, Support: “Maybe” is none of')
  await input.setInputFiles(file('Child,Skill,Day,Support\nKofi M.,say to five,2026-11-24,alone\n'))
  await page.getByRole('button', { name: 'Take them' }).click()
  await expect(page.getByText('1 observations are in.')).toBeVisible()
})

test('the pages of the record hold at 200 % zoom and on a tablet', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  const places = ['class', 'class/children/3', 'class/look-again', 'class/slips', 'class/baseline', 'class/baseline/1']
  for (const size of [
    { width: 640, height: 400 },
    { width: 768, height: 1024 },
    { width: 390, height: 844 },
  ]) {
    await page.setViewportSize(size)
    const onPhone = size.width < 600
    const all = [...places, 'class/trail', 'class/records', 'class/agreement', 'clipboard', 'clipboard/anyone']
    for (const place of onPhone ? ['clipboard', 'clipboard/anyone'] : all) {
      await page.goto(`${server.url}/c/1/${place}`)
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      await page.waitForLoadState('networkidle')
      expect(
        await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
        `${place} at ${size.width}`,
      ).toBeLessThanOrEqual(0)
    }
  }
})
