import { fileURLToPath } from 'node:url'
import { expect, test, type Page } from '@playwright/test'
import { DEMO_NOW } from './filled'
import { startServer, type RunningServer, FIRST_CODE } from './server'
import { fillDay, goTo as place } from './visit'

// One picture of each main view, made from the demo's data on a fixed Wednesday: ./fobble screenshots.
const folder = fileURLToPath(new URL('../../docs/screenshots/', import.meta.url))
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => server.stop())

const shoot = async (page: Page, name: string) => {
  for (const notice of await page.locator('.notice .away').all()) await notice.click()
  await page.waitForLoadState('networkidle')
  await page.mouse.move(0, 0)
  await page.screenshot({ path: `${folder}${name}.png`, animations: 'disabled' })
}

test('a picture of the first hour', async ({ page }) => {
  const fresh = await startServer({ demo: false, now: '2026-09-09T08:00:00' })
  await page.goto(fresh.url)
  await page.getByLabel('Code', { exact: false }).fill(FIRST_CODE)
  await page.getByLabel('Your name').fill('Rosalind Achterberg')
  await page.getByLabel('School').fill('Kettle Lane School')
  await page.getByLabel('Class', { exact: true }).fill('Willow')
  await page.getByLabel('E-mail').fill('rosalind@kettle-lane.example')
  await page.getByLabel(/Password/).fill('nine wagons uphill')
  await page.getByRole('button', { name: 'Begin' }).click()
  await page.getByRole('link', { name: 'Bring in the list' }).click()
  await page.setInputFiles('input[type=file]', fileURLToPath(new URL('../../samples/class-list.csv', import.meta.url)))
  await page.getByRole('button', { name: 'Add 14 children' }).click()
  await page.getByRole('button', { name: 'Keep it so' }).click()
  await expect(page.getByText('Autumn half-term')).toBeVisible()
  await shoot(page, 'first-hour')
  await fresh.stop()
})

test('pictures of the main views', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-11-25T08:12:00Z') })
  await page.goto(server.url)
  await expect(page.getByRole('button', { name: 'Ines Okonjo' })).toBeVisible()
  await page.getByRole('button', { name: 'Ines Okonjo' }).click()
  await expect(page.getByRole('heading', { name: 'On the carpet' })).toBeVisible()
  await shoot(page, 'today')

  await place(page, 'Class')
  await expect(page.getByRole('rowheader')).toHaveCount(26)
  await shoot(page, 'class')
  await page.goto(`${server.url}/c/1/class/children/4`)
  await expect(page.getByRole('heading', { name: 'Next' })).toBeVisible()
  await shoot(page, 'child')

  // A check under way, a few answers on.
  await page.goto(`${server.url}/c/1/class/baseline`)
  await page.locator('li', { hasText: 'under way' }).getByRole('link', { name: 'Go on' }).click()
  await expect(page.getByText('Lay out')).toBeVisible({ timeout: 15_000 })
  for (const key of ['a', 's', 'a', 'a']) {
    await page.keyboard.press(key)
    const before = await page.locator('.sure b').innerText()
    await page.getByRole('button', { name: 'Next', exact: true }).click()
    await expect(page.locator('.sure b')).toHaveText(String(Number(before) + 1), { timeout: 15_000 })
  }
  await page.keyboard.press('s')
  await shoot(page, 'baseline')

  await page.goto(`${server.url}/c/1/plan/year`)
  await page.locator('.threads .bead').first().focus()
  for (let i = 0; i < 60; i++) await page.keyboard.press('ArrowRight')
  await shoot(page, 'plan-year')
  await page.goto(`${server.url}/c/1/plan/revise`)
  await fillDay(page, 'First lost day', '07/12/2026')
  await fillDay(page, 'Last lost day', '10/12/2026')
  await page.getByLabel('What the days were lost to').fill('Snow')
  await page.getByRole('button', { name: 'Lose them' }).click()
  await expect(page.getByText(/Snow on \d+ December/).first()).toBeVisible({ timeout: 30_000 })
  await shoot(page, 'plan-revised')

  await place(page, 'Plan')
  await page.getByRole('link', { name: 'Week', exact: true }).click()
  await page.getByRole('link', { name: 'Go to next week' }).click()
  await page.getByRole('button', { name: 'Let Fobble plan this week' }).click()
  await expect(page.locator('.focus')).toHaveCount(4)
  await shoot(page, 'plan-week')

  await page.getByRole('link', { name: 'Groups of this week' }).click()
  await page.getByRole('button', { name: 'Ask for groups' }).click()
  await expect(page.getByText('Pick up a name to move it')).toHaveCount(2, { timeout: 30_000 })
  await shoot(page, 'groups-proposal')
  await page.getByRole('button', { name: 'Accept these groups' }).click()
  await expect(page.getByText('The groups are accepted')).toBeVisible()
  for (const [name, heading] of [['after', 'What the group work did']]) {
    await page.goto(`${server.url}/c/1/groups/${name}`)
    await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible()
    await expect(page.locator('tbody tr').first()).toBeVisible()
    await shoot(page, `groups-${name}`)
  }
  await page.goto(`${server.url}/c/1/groups/2026-12-02`)

  await page.getByRole('link', { name: 'Session card' }).nth(2).click()
  await expect(page.getByRole('heading', { name: 'What to do' })).toBeVisible()
  await shoot(page, 'session-card')
  await page.setViewportSize({ width: 768, height: 1024 })
  await page.getByRole('link', { name: 'Record on the clipboard' }).click()
  await page.locator('button.name').first().click()
  await page
    .locator('li.row')
    .nth(1)
    .getByRole('button', { name: /Prompted/ })
    .click()
  await shoot(page, 'clipboard')
  await page.setViewportSize({ width: 1280, height: 800 })
  // Left as one leaves it, so that nothing waits to be sent on the pictures after it.
  await place(page, 'Today')
  await expect(page.getByRole('link', { name: 'Clipboard', exact: true })).toBeVisible()

  const mat = async (name: string, address: string, ...keys: string[]) => {
    await page.goto(`${server.url}/c/1/mats/${address}`)
    await expect(page.locator('.cloth svg').first()).toBeVisible()
    for (const key of keys) await page.keyboard.press(key)
    await page.waitForTimeout(600)
    await shoot(page, name)
  }
  await mat('mat-make-ten', 'sums?way=MakeTen&board=1', 'ArrowRight', 'ArrowRight')
  await page.goto(`${server.url}/c/1/jar`)
  await expect(page.getByRole('heading', { name: 'How far off, jar by jar' })).toBeVisible()
  await shoot(page, 'guess-jar')
  await place(page, 'Sheets')
  await page.getByRole('button', { name: 'Story pages' }).click()
  await page.getByLabel('Ink').selectOption('filled colours')
  await expect(page.getByText('page 1 of 3')).toBeVisible()
  await expect(page.locator('.preview img')).toHaveAttribute('src', /ink=Full/)
  await expect
    .poll(() => page.locator('.preview img').evaluate((i: HTMLImageElement) => i.complete && i.naturalWidth > 0))
    .toBe(true)
  await shoot(page, 'sheets')

  await place(page, 'Set-up')
  await expect(page.getByRole('heading', { name: 'Timetable' })).toBeVisible()
  await shoot(page, 'set-up')

  await page.goto(`${server.url}/c/1/map?skill=bond.all-5`)
  await expect(page.getByRole('heading', { name: 'What to do' })).toBeVisible({ timeout: 20_000 })
  await shoot(page, 'map')
  await page.goto(`${server.url}/c/1/activities?text=hidden+part+to+7&children=4&onlyOwned=1`)
  await expect(page.getByText(/of \d+ activities/)).toBeVisible()
  await shoot(page, 'activities')
  await place(page, 'Cupboard')
  await expect(page.getByText('Yellow counters', { exact: true })).toBeVisible()
  await shoot(page, 'cupboard')
})
