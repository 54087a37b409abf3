import { fileURLToPath } from 'node:url'
import { expect, test, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { startServer, type RunningServer, FIRST_CODE } from './server'

// The whole path on real input: a new school, its class list, and what the first week makes of it.
const sample = (name: string) => fileURLToPath(new URL(`../../samples/${name}`, import.meta.url))
let server: RunningServer

test.beforeAll(async () => {
  server = await startServer({ demo: false, now: '2026-09-09T08:00:00' })
})
test.afterAll(() => server.stop())
// The browser's clock goes with the server's, a little ahead of it.
test.beforeEach(({ page }) => page.clock.install({ time: new Date('2026-09-09T08:02:00Z') }))

async function place(page: Page, name: string) {
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name, exact: true }).click()
}

test('from a class list to next week’s groups, and on', async ({ page }) => {
  await test.step('the first start asks for the lead teacher’s account', async () => {
    await page.goto(server.url)
    await expect(page.getByRole('heading', { name: 'The first account' })).toBeVisible()
    await expectAccessible(page)
    await page.getByLabel('Code', { exact: false }).fill(FIRST_CODE)
    await page.getByLabel('Your name').fill('Rosalind Achterberg')
    await page.getByLabel('School').fill('Kettle Lane School')
    await page.getByLabel('Class', { exact: true }).fill('Willow')
    await page.getByLabel('E-mail').fill('rosalind@kettle-lane.example')
    // Guessed from the browser.
    await expect(page.getByLabel('Days are written')).toHaveValue('en-GB')
    await expect(page.getByLabel('Time zone')).toHaveValue('UTC')
    await page.getByLabel(/Password/).fill('short')
    await page.getByRole('button', { name: 'Begin' }).click()
    await expect(page.getByText(/at least 10 characters/)).toBeVisible()
    await page.getByLabel(/Password/).fill('nine wagons uphill')
    await page.getByRole('button', { name: 'Begin' }).click()
    await expect(page.getByRole('heading', { name: 'Wednesday 9 September' })).toBeVisible()
  })

  await test.step('a list with faults names each by line and column and changes nothing', async () => {
    await place(page, 'Class')
    await page.getByRole('link', { name: 'Import the class list' }).click()
    await page.setInputFiles('input[type=file]', sample('class-list-bad.csv'))
    await expect(page.getByText('6 things stand in the way. Nothing was taken.')).toBeVisible()
    await expect(page.getByText('Line 4, Date of birth:')).toBeVisible()
    await expect(page.getByRole('button', { name: /Add \d+ children/ })).toHaveCount(0)
    await expectAccessible(page)
  })

  await test.step('a good list is shown, then taken', async () => {
    await page.setInputFiles('input[type=file]', sample('class-list.csv'))
    await page.getByRole('button', { name: 'Add 14 children' }).click()
    await expect(page.getByText('14 children.', { exact: true })).toBeVisible()
    await page.getByRole('button', { name: 'I know my way' }).click()
    await expect(page.getByRole('heading', { name: /first hour/ })).toHaveCount(0)
    await place(page, 'Class')
    await expect(page.getByRole('rowheader')).toHaveCount(14)
    await expect(page.getByRole('rowheader', { name: 'Idris B.' })).toBeVisible()
    await expectAccessible(page)
  })

  await test.step('Fobble plans next week', async () => {
    await place(page, 'Plan')
    await page.getByRole('link', { name: 'Week', exact: true }).click()
    await page.getByRole('link', { name: 'Go to next week' }).click()
    await expect(page.getByRole('heading', { name: 'Week of 14 September' })).toBeVisible()
    await page.getByRole('button', { name: 'Let Fobble plan this week' }).click()
    await page.locator('.focus summary').first().click()
    await expect(page.getByText('14 of 14 are ready for it and nobody has it yet').first()).toBeVisible()
    await expect(page.locator('.focus')).toHaveCount(5)
    await expect(page.getByText('Small groups', { exact: true })).toHaveCount(5)
    await expect(page.getByRole('link', { name: /Monday 14 September: planned/ })).toBeVisible()
    await expectAccessible(page)
  })

  let first = ''
  let names: string[] = []
  await test.step('groups are proposed with a reason for each child, and accepted', async () => {
    await page.getByRole('link', { name: 'Groups of this week' }).click()
    await page.getByRole('button', { name: 'Ask for groups' }).click()
    // Two turns: the second is there when its groups are.
    await expect(page.getByText('No better set of groups exists for these aims')).toHaveCount(2, { timeout: 30_000 })
    const table = page.locator('article.table').first()
    await table.locator('.whys summary').click()
    await expect(table.getByText(/has not been in a group yet\./).first()).toBeVisible()
    const everyone = await page.locator('article.table button.name').allInnerTexts()
    expect(new Set(everyone).size).toBe(14)
    expect(everyone.length).toBeGreaterThan(14)
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Accept these groups' }).click()
    await expect(page.getByText('The groups are accepted')).toBeVisible()
    first = await table.getByRole('heading').innerText()
    names = await table.locator('li b').allInnerTexts()
  })

  await test.step('the session card has everything on one page', async () => {
    await page.getByRole('link', { name: 'Session card' }).first().click()
    for (const heading of [
      'Numbers to use, in this order',
      'What to do',
      'What to say',
      'Set out',
      'What to look for',
      'The children, and why each is here',
    ])
      await expect(page.getByRole('heading', { name: heading })).toBeVisible()
    expect(await page.locator('.numbers li').count()).toBeGreaterThanOrEqual(6)
    await expect(page.locator('.things b').first()).toHaveText(/^\d+$/)
    await expectAccessible(page)
  })

  await test.step('every child is recorded on the clipboard, one wrongly, which is undone', async () => {
    await page.getByRole('link', { name: 'Record on the clipboard' }).click()
    const [oops, ...others] = names
    await page.getByRole('button', { name: `${oops}: Not yet` }).click()
    await page.getByRole('button', { name: `Undo not yet for ${oops}` }).click()
    await expect(page.getByText(`0 of ${names.length} recorded`)).toBeVisible()
    for (const name of names) await page.getByRole('button', { name: `${name}: alone` }).click()
    await expect(page.getByText(`${names.length} of ${names.length} recorded`)).toBeVisible()
    await expect(page.getByRole('group', { name: `How ${others.at(-1)} did it` })).toBeVisible()
    await expectAccessible(page)
  })

  await test.step('the strengths change on the grid, with the reason', async () => {
    await place(page, 'Class')
    const cell = page.getByRole('button', { name: `${names[0]}, ${first}: nearly` })
    await expect(cell).toBeVisible()
    await expectAccessible(page)
    await cell.click()
    const drawer = page.getByRole('dialog')
    await expect(drawer.getByText('Nearly: alone once of the last one.')).toBeVisible()
    await expect(drawer.getByText('on two school days')).toBeVisible()
    await expect(drawer.locator('.seen li')).toHaveCount(1)
    await expectAccessible(page)
    await page.keyboard.press('Escape')
    await expect(drawer).toHaveCount(0)
  })

  await test.step('asked again, the groups differ and say why', async () => {
    await place(page, 'Groups')
    await page.getByRole('link', { name: 'Week after', exact: true }).click()
    await page.getByRole('link', { name: 'Week after', exact: true }).click()
    await expect(page.getByRole('heading', { name: 'Groups, week of 21 September' })).toBeVisible()
    await page.getByRole('button', { name: 'Ask for groups' }).click()
    await expect(
      page.getByRole('heading', { name: 'What is different from the week of 14 September' }).first(),
    ).toBeVisible({ timeout: 20_000 })
    await expect(
      page
        .locator('.changes')
        .getByText(/Since then .* alone today: it is nearly there\./)
        .first(),
    ).toBeVisible()
    // The second turn's proposal may come after the first's: its list is folded, the first's is not.
    const folded = page.locator('details.ruled:not([open]) > summary')
    await expect(page.locator('details.ruled')).toHaveCount(2)
    await folded.click()
    await expect(folded).toHaveCount(0)
    await expect(page.locator('.changes .way').getByText('→').last()).toBeVisible()
  })

  await test.step('Today shows all of it to a cover teacher', async () => {
    await place(page, 'Set-up')
    await expectAccessible(page)
    await page.getByRole('link', { name: 'Classes and adults of the school' }).click()
    await page.getByLabel('Name', { exact: true }).first().fill('Bertil Osei')
    await page.getByLabel('E-mail').fill('bertil@kettle-lane.example')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    const link = await page.locator('.once code').innerText()
    await page.getByRole('button', { name: 'Sign out' }).click()
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
    await page.goto(link)
    await page.getByLabel('Password').fill('lanterns at dusk')
    await page.getByRole('button', { name: 'Take it' }).click()
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
    await page.getByLabel('E-mail').fill('bertil@kettle-lane.example')
    await page.getByLabel('Password').fill('lanterns at dusk')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await expect(page.getByText('Nothing is planned for this day yet.')).toBeVisible()
    await page.getByRole('link', { name: 'Week after, from 14 September' }).click()
    await page.getByRole('link', { name: /^Monday 14 September/ }).click()
    await expect(page.getByRole('heading', { name: 'On the carpet' })).toBeVisible()
    const group = page.locator('a.group').filter({ hasText: names[0]! })
    await expect(group.getByRole('listitem')).toHaveText(names.map((name) => new RegExp(name.replace('.', '\\.'))))
    await expect(page.getByText(`Recorded: ${names.length} of ${names.length}`)).toBeVisible()
    await expect(page.getByRole('heading', { name: 'Set out' })).toBeVisible()
    await page.getByRole('button', { name: 'Mark' }).click()
    await page.getByRole('button', { name: names[1], pressed: false }).click()
    await expect(page.getByText(`Away: ${names[1]}`)).toBeVisible()
    await expectAccessible(page)
    await expect(page.getByRole('link', { name: 'Set-up' })).toHaveCount(0)
  })
})
