import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { expect, test, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { DEMO_NOW } from './filled'
import { startServer, type RunningServer, FIRST_CODE } from './server'
import { comeInAs, fillDay, goTo } from './visit'

const sample = (name: string) => fileURLToPath(new URL(`../../samples/${name}`, import.meta.url))
const tab = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'The plan' }).getByRole('link', { name, exact: true }).click()

test.describe('a year from nothing', () => {
  let server: RunningServer
  test.beforeAll(async () => {
    server = await startServer({ demo: false, now: '2026-09-09T08:00:00' })
  })
  test.afterAll(() => server.stop())
  test.beforeEach(({ page }) => page.clock.setFixedTime(new Date('2026-09-09T08:02:00Z')))

  test('it does not fit, a way out is taken, four days are lost, and Today follows', async ({ page }) => {
    await test.step('a new class', async () => {
      await page.goto(server.url)
      await page.getByLabel('Code', { exact: false }).fill(FIRST_CODE)
      await page.getByLabel('Your name').fill('Rosalind Achterberg')
      await page.getByLabel('School').fill('Kettle Lane School')
      await page.getByLabel('Class', { exact: true }).fill('Willow')
      await page.getByLabel('E-mail').fill('rosalind@kettle-lane.example')
      await page.getByLabel(/Password/).fill('nine wagons uphill')
      await page.getByRole('button', { name: 'Begin' }).click()
      await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Class', exact: true }).click()
      await page.getByRole('link', { name: 'Import the class list' }).click()
      await page.setInputFiles('input[type=file]', sample('class-list.csv'))
      await page.getByRole('button', { name: 'Add 14 children' }).click()
      await expect(page.getByText('14 children.', { exact: true })).toBeVisible()
      await page.getByRole('button', { name: 'I know my way' }).click()
      await expect(page.getByRole('heading', { name: /first hour/ })).toHaveCount(0)
    })

    await test.step('what is offered fits; everything there is does not, and says by how much', async () => {
      await goTo(page, 'Plan')
      await tab(page, 'Year')
      await expect(page.getByText('There is no plan for this year yet.')).toBeVisible()
      await page.getByRole('link', { name: 'Plan the year' }).click()
      await expect(page.getByRole('heading', { name: 'Plan the year' })).toBeVisible()
      await expectAccessible(page)
      await expect(page.getByRole('button', { name: 'Work it out' })).toBeVisible()
      await page.getByLabel('Up to which season').selectOption('Beyond')
      await page.getByRole('button', { name: 'Work out what could give way' }).click()
      await expect(page.getByRole('heading', { name: /\d+ lessons too many/ })).toBeVisible()
      await expect(page.getByRole('listitem').filter({ hasText: 'Half the buffer' })).toBeVisible({ timeout: 30_000 })
      await expectAccessible(page)
    })

    await test.step('a way out leads to a plan, which is looked at and taken', async () => {
      const ways = page.getByRole('listitem').filter({ hasText: 'Leave skills for another year' })
      await ways.getByRole('button', { name: 'Take this way' }).click()
      await expect(page.getByRole('heading', { name: 'It fits' })).toBeVisible({ timeout: 30_000 })
      await page.getByRole('button', { name: 'Take this plan' }).click()
      await expect(page.getByRole('heading', { name: 'The year' })).toBeVisible()
      await expect(page.locator('.threads .bead').first()).toBeVisible()
      await expectAccessible(page)
    })

    let lost = ''
    await test.step('Today has the plan’s lesson', async () => {
      await goTo(page, 'Today')
      await expect(page.getByRole('heading', { name: 'On the carpet' })).toBeVisible()
      await page.goto(`${server.url}/c/1/today/2026-09-10`)
      await expect(page.getByRole('heading', { name: 'Thursday 10 September' })).toBeVisible()
      const bead = page.getByRole('link', { name: /^Thursday 10 September: planned, / })
      lost = (await bead.getAttribute('aria-label'))!.replace(/^.*planned, /, '')
    })

    await test.step('four days are lost: what moves is shown with why, one move is not wanted, the rest is taken', async () => {
      await goTo(page, 'Plan')
      await tab(page, 'Re-plan')
      await expect(page.getByText('Nothing has happened yet')).toBeVisible()
      await fillDay(page, 'First lost day', '10/09/2026')
      await fillDay(page, 'Last lost day', '15/09/2026')
      await page.getByLabel('What the days were lost to').fill('Flood')
      await page.getByRole('button', { name: 'Lose them' }).click()
      await expect(page.getByText(/^\w+ lessons move/)).toBeVisible({ timeout: 30_000 })
      await expect(page.getByText(/Flood on 10 September: its day is gone/)).toBeVisible()
      await expect(page.getByRole('heading', { name: 'Before' })).toBeVisible()
      await expectAccessible(page)
      // The last of those that only make room: keeping it is worked out around, or said to be impossible.
      await page.getByRole('row').filter({ hasText: 'Makes room for' }).last().getByRole('checkbox').check()
      await expect(page.locator('[aria-busy=true]')).toHaveCount(0, { timeout: 30_000 })
      if (await page.getByText('What is held can’t stay where it is').isVisible()) {
        await page.locator('.moves, .ruled').getByRole('button', { name: /×$/ }).last().click()
        await expect(page.locator('[aria-busy=true]')).toHaveCount(0, { timeout: 30_000 })
      } else await expect(page.getByText('Kept where they are:')).toBeVisible()
      await page.getByRole('button', { name: 'Take it' }).click()
      await expect(page.getByText('The plan is revised.')).toBeVisible({ timeout: 30_000 })
    })

    await test.step('Today follows: no lesson on the lost days, and the lost lesson comes later', async () => {
      await page.goto(`${server.url}/c/1/today/2026-09-10`)
      await expect(page.getByText('No whole-class lesson on this day.')).toBeVisible()
      await expect(page.locator('#page').getByText('Flood')).toBeVisible()
      await page.goto(`${server.url}/c/1/plan/2026-09-16`)
      await page.getByRole('button', { name: /Let Fobble plan this week|Plan it anew/ }).click()
      await expect(page.getByText('The week is planned.')).toBeVisible()
      await page.goto(`${server.url}/c/1/plan/year`)
      await expect(page.getByText(/Four days lost to “Flood”/).first()).toBeVisible()
      const later = page.locator(`.threads .bead[aria-label^="${lost}, lesson"]`)
      await expect(later.first()).toBeVisible()
      await expect(page.locator('.threads .bead[aria-label*="Thursday 10 September"]')).toHaveCount(0)
    })

    await test.step('undo brings the plan back', async () => {
      await page.getByRole('button', { name: 'Undo' }).click()
      await expect(page.getByText('The plan is as it was before.')).toBeVisible()
      // The days stay lost in the calendar: the plan says so again.
      await expect(page.getByText(/on days without a lesson \(Flood\)/)).toBeVisible()
    })
  })
})

test.describe('a plan in force', () => {
  let server: RunningServer
  test.beforeAll(async () => {
    server = await startServer({ demo: true, now: DEMO_NOW })
  })
  test.afterAll(() => server.stop())
  test.beforeEach(async ({ page }) => {
    await page.clock.setFixedTime(new Date('2026-11-25T08:02:00Z'))
    await comeInAs(page, server, 'Ines Okonjo')
  })

  test('a lesson is dragged along its string: the price before the drop, anyway, and undo', async ({ page }) => {
    await page.goto(`${server.url}/c/1/plan/term/2027-02-01`)
    await expect(page.getByRole('heading', { name: 'Kite term' })).toBeVisible()
    await expectAccessible(page)
    const threads = page.locator('.threads')
    const bead = page.locator('.threads .bead').nth(12)
    const name = (await bead.getAttribute('aria-label'))!
    const [from, box] = [(await bead.boundingBox())!, (await threads.boundingBox())!]
    await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
    await page.mouse.down()
    // To the last week of the term: far from its other lessons.
    await page.mouse.move(box.x + box.width * 0.5, from.y + 5, { steps: 4 })
    await page.mouse.move(box.x + box.width * 0.97, from.y + 5, { steps: 4 })
    await expect(page.locator('.legend')).toContainText(/:.*(ten is the usual most|needs|before|Changes places)/)
    await page.mouse.up()
    await expect(page.getByRole('alertdialog', { name: 'Move it anyway?' })).toBeVisible()
    await page.getByRole('button', { name: 'Leave it' }).click()
    await expect(page.locator(`.bead[aria-label="${name}"]`)).toBeVisible()

    await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
    await page.mouse.down()
    await page.mouse.move(box.x + box.width * 0.97, from.y + 5, { steps: 6 })
    await page.waitForTimeout(500)
    await page.mouse.up()
    await page.getByRole('alertdialog').getByRole('button', { name: 'Move it anyway' }).click()
    await expect(page.getByText(/ is on .* now\./)).toBeVisible()
    await expect(page.locator(`.bead[aria-label="${name}"]`)).toHaveCount(0)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(page.locator(`.bead[aria-label="${name}"]`)).toBeVisible()
  })

  test('by keyboard: along the beads, a note, a pin', async ({ page }) => {
    await page.goto(`${server.url}/c/1/plan/year`)
    await page.locator('.threads .bead').first().focus()
    for (let i = 0; i < 50; i++) await page.keyboard.press('ArrowRight')
    const panel = page.getByRole('complementary', { name: 'The lesson' })
    await panel.getByLabel('Note').fill('Bring the lanterns.')
    await panel.getByRole('button', { name: 'Keep the note' }).click()
    await expect(page.locator('.bead.noted')).toHaveCount(1)
    await panel.getByRole('button', { name: 'Pin it to its day' }).click()
    await expect(panel.getByRole('button', { name: 'Let go of the pin' })).toBeVisible()
    await expectAccessible(page)
  })

  test('two adults at once: the second sees what the first did, and does theirs on top of it', async ({
    page,
    browser,
  }) => {
    // Another tablet, which hears nothing live: it still shows the plan as it was.
    const other = await (await browser.newContext({ timezoneId: 'UTC' })).newPage()
    await other.clock.setFixedTime(new Date('2026-11-25T08:12:00Z'))
    await other.route('**/live**', (route) => route.abort())
    await comeInAs(other, server, 'Ines Okonjo')
    const open = async (at: Page) => {
      await at.goto(`${server.url}/c/1/plan/year`)
      await at.locator('.threads .bead').first().focus()
      for (let i = 0; i < 60; i++) await at.keyboard.press('ArrowRight')
      return at.getByRole('complementary', { name: 'The lesson' })
    }
    const theirs = await open(other)
    const mine = await open(page)
    await mine.getByRole('button', { name: 'Pin it to its day' }).click()
    await expect(mine.getByRole('button', { name: 'Let go of the pin' })).toBeVisible()

    await theirs.getByLabel('Note').fill('Ask for the long bench.')
    await theirs.getByRole('button', { name: 'Keep the note' }).click()
    const told = other.getByRole('dialog', { name: 'Changed in the meantime' })
    await expect(told).toBeVisible()
    await expect(told.getByRole('listitem')).toContainText([/pinned|pin/i])
    await expect(theirs.getByLabel('Note')).toHaveValue('Ask for the long bench.')
    await expectAccessible(other)
    await told.getByRole('button', { name: 'Do mine on top of it' }).click()
    await expect(told).toBeHidden()
    const again = await open(page)
    await expect(again.getByLabel('Note')).toHaveValue('Ask for the long bench.')
    await expect(again.getByRole('button', { name: 'Let go of the pin' })).toBeVisible()
    await other.context().close()
  })

  test('the week: another activity with its reason, pinned; minutes add up; pages on paper', async ({ page }) => {
    await page.goto(`${server.url}/c/1/plan/2026-11-30`)
    await page.getByRole('button', { name: /Let Fobble plan this week|Plan it anew/ }).click()
    await expect(page.getByText('The week is planned.')).toBeVisible()
    // Reasons are folded away: first what, with what, who.
    for (const fold of await page.locator('.why-fold summary').all()) await fold.click()
    await expect(page.getByText(/= \d+ of 20 minutes/).first()).toBeVisible()
    await page
      .getByRole('button', { name: /Another instead of/ })
      .first()
      .click()
    const others = page.locator('.others')
    await expect(others.getByText(/minutes/).first()).toBeVisible()
    await expectAccessible(page)
    await others.getByRole('button').last().click()
    await expect(page.getByRole('button', { name: /Let go of the pin/ }).first()).toBeVisible()
    for (const address of ['weeks/2026-11-30/page', 'days/2026-11-26/page', 'plan/term/2026-11-30/page']) {
      const pdf = await page.request.get(`${server.url}/api/classes/1/${address}`)
      expect((await pdf.body()).subarray(0, 4).toString()).toBe('%PDF')
    }
  })

  test('coverage by strand and standard, of all classes one belongs to', async ({ page }) => {
    await page.goto(`${server.url}/c/1/plan/coverage`)
    await expect(page.getByText(/the plan of 2 November/)).toBeVisible()
    await expect(page.getByRole('rowheader', { name: 'Counting' })).toBeVisible()
    await page.getByLabel('By strand or by standard').selectOption({ index: 1 })
    await expect(page.getByRole('rowheader').first()).not.toHaveText('Counting')
    await expectAccessible(page)
  })

  test('at 200 % nothing is cut off', async ({ page }) => {
    await page.setViewportSize({ width: 640, height: 400 })
    for (const place of ['plan/year', 'plan/make', 'plan/revise', 'plan/coverage', 'plan/2026-11-25', 'set-up']) {
      await page.goto(`${server.url}/c/1/${place}`)
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      await page.waitForTimeout(400)
      expect(await page.evaluate(() => document.documentElement.scrollWidth), place).toBeLessThanOrEqual(641)
    }
  })

  test('closures from a calendar file, a half day, and the lessons as a calendar', async ({ page }) => {
    await goTo(page, 'Set-up')
    const file =
      'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//t//EN\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:20270215\r\nDTEND;VALUE=DATE:20270220\r\nSUMMARY:Lamp week\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n'
    await page.setInputFiles('input[type=file]', {
      name: 'closures.ics',
      mimeType: 'text/calendar',
      buffer: Buffer.from(file),
    })
    await page.getByRole('button', { name: 'Take 1 into the calendar' }).click()
    await expect(page.getByText('1 entry is in the calendar.')).toBeVisible()
    await expect(page.getByText('Lamp week')).toBeVisible()
    await page.setInputFiles('input[type=file]', {
      name: 'bad.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('Name,First\nSnow,soon\n'),
    })
    await expect(page.getByText('Line 2, First: “soon” is no day')).toBeVisible()
    await page.getByLabel('What for').fill('Fair')
    await fillDay(page, 'First day', '11/12/2026')
    await page.getByLabel('Kind of day').selectOption('HalfDay')
    await fillDay(page, 'School until', '12:00')
    await page.getByRole('button', { name: 'Add', exact: true }).first().click()
    await expect(page.getByText('half day until 12:00')).toBeVisible()
    await expectAccessible(page)
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Lessons for my calendar' }).click()
    const text = readFileSync((await (await download).path())!, 'utf8')
    expect(text).toContain('BEGIN:VEVENT')
    expect(text).not.toContain('SUMMARY:\r\n')
  })
})
