import { expect, test, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { startServer, type RunningServer } from './server'

// July: the children of two classes go up, one repeats, one leaves; and in September the year is there.
let server: RunningServer
test.beforeAll(async () => (server = await startServer({ demo: true, now: '2027-07-19T08:00:00' })))
test.afterAll(() => server.stop())

async function comeIn(page: Page) {
  await page.goto(server.url)
  await page.getByRole('button', { name: 'Ines Okonjo' }).click()
  await expect(page).toHaveURL(/\/c\/\d+\//)
}

// Tomasz leads the school and belongs to no class: what is the school's is told by its clock and in its way all the same.
test('whoever leads the school without a class gets the new year ready, too', async ({ page, browser }) => {
  await comeIn(page)
  await page.goto(`${server.url}/c/1/school`)
  await page.getByRole('row').filter({ hasText: 'tomasz@' }).getByRole('checkbox').check()
  await page.getByRole('button', { name: 'Take Tomasz Birk out of Rowan' }).click()
  await page.getByLabel('Who takes the lessons in the timetable?').selectOption({ label: 'Ines Okonjo' })
  await page.getByRole('button', { name: 'Take out Tomasz Birk' }).click()
  await expect(page.getByText('Tomasz Birk does not see Rowan any more.')).toBeVisible()

  const his = await (await browser.newContext({ locale: 'en-US', timezoneId: 'America/Denver' })).newPage()
  await his.goto(server.url)
  await his.getByRole('button', { name: 'Tomasz Birk' }).click()
  await his.getByRole('link', { name: 'A new year, a child that moves or leaves' }).click()
  await expect(his.getByRole('heading', { name: 'A new school year, from 6 Sept 2027' })).toBeVisible()
  await expectAccessible(his)
  await his.getByRole('link', { name: 'The office’s list' }).click()
  await his.getByRole('button', { name: 'The made-up office’s next list' }).click()
  await expect(his.getByText('roster-001.zip, Mon 19 Jul')).toBeVisible()
  await expectAccessible(his)

  // Ines has the same list before her, and decides first: he is told, and nothing is done twice.
  await page.goto(`${server.url}/c/1/school/roster`)
  await page.getByRole('button', { name: 'Do the 50 that are ticked' }).click()
  await expect(page.getByText('Nothing to decide')).toBeVisible()
  await his.getByRole('button', { name: 'Do the 50 that are ticked' }).click()
  await expect(his.getByText('has changed meanwhile')).toBeVisible()
  await expect(his.getByText('Nothing to decide')).toBeVisible()
})

test('a new year is begun, taken back, and begun again', async ({ page }) => {
  await comeIn(page)
  const address = `${server.url}/c/1/school/children`
  await page.goto(`${server.url}/c/1/school`)
  await page.getByRole('link', { name: 'A new year, a child that moves or leaves' }).click()
  await expect(page.getByRole('heading', { name: 'A new school year, from 6 Sept 2027' })).toBeVisible()
  await expectAccessible(page)

  // Rowan becomes Ash; one of it repeats in Alder, one leaves.
  const names = page.getByRole('group', { name: 'Classes of the new year' }).getByLabel('Name')
  await names.nth(1).fill('')
  await page.getByRole('button', { name: 'Begin the new year' }).click()
  await expect(names.nth(1)).toBeFocused()
  await names.nth(1).fill('alder')
  await page.getByRole('button', { name: 'Begin the new year' }).click()
  await expect(page.getByRole('alert')).toContainText('There is a class called alder already.')
  await names.nth(1).fill('Ash')
  await page.getByText('Some go elsewhere, repeat or leave').nth(1).click()
  const children = page.locator('.from').nth(1).locator('label.child')
  const [repeats, leaves] = [children.nth(0), children.nth(1)]
  const leaver = (await leaves.locator('span').textContent())!
  await repeats.getByRole('combobox').selectOption({ label: 'Alder' })
  await leaves.getByRole('combobox').selectOption({ label: 'away from the school' })
  await expect(page.getByText(`${leaver} → away`)).toBeVisible()
  await expect(page.getByText('1 leave. It can be taken back for a day.')).toBeVisible()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Begin the new year' }).click()
  await expect(page.getByText('The new year has begun.')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Who has left' })).toBeVisible()
  await page.getByLabel('Of one child').selectOption({ label: leaver })
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take it out', exact: true }).click(),
  ])
  expect(file.suggestedFilename()).toMatch(/^child-\d+-2027-07-19\.zip$/)
  await expectAccessible(page)

  // The class of before is read; the new one is there with what its children have.
  await page.goto(`${server.url}/c/1/class`)
  await expect(page.getByText(leaver.split(' ')[0]!).first()).toBeVisible()
  await page.goto(address)
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(page.getByText('The year is taken back')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Who has left' })).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Take it back' })).toHaveCount(0)

  await page.getByRole('group', { name: 'Classes of the new year' }).getByLabel('Name').nth(1).fill('Ash')
  await page.getByRole('button', { name: 'Begin the new year' }).click()
  await expect(page.getByText('The new year has begun.')).toBeVisible()
  await page.goto(server.url)
  await expect(page).toHaveURL(/\/c\/\d+\//)
  expect(page.url()).not.toContain('/c/1/')
  await page.goto(`${page.url().match(/.*\/c\/\d+/)![0]}/class`)
  await expect(page.getByText(leaver.split(' ')[0]!).first()).toBeVisible()
})

test('a child leaves, comes back to another class, and is erased when its time is over', async ({ page }) => {
  await comeIn(page)
  await page.goto(`${server.url}/c/1/school/children`)
  const [who, where] = [page.locator('form.one select').nth(0), page.locator('form.one select').nth(1)]
  await expect(who).toBeVisible()
  const name = (await who.locator('optgroup').first().locator('option').first().textContent())!
  await who.selectOption({ label: name })
  await where.selectOption({ label: 'away from the school' })
  await page.getByRole('button', { name: 'Write it down' }).click()
  await expect(page.getByText(`${name} has left.`)).toBeVisible()
  await expect(page.getByRole('listitem').filter({ hasText: name })).toContainText('Kept until')
  await who.selectOption({ label: name })
  await where.selectOption({ index: 2 })
  await page.getByRole('button', { name: 'Write it down' }).click()
  await expect(page.getByText(`${name} is in`)).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Who has left' })).toHaveCount(0)

  await who.selectOption({ label: name })
  await where.selectOption({ label: 'away from the school' })
  await page.getByRole('button', { name: 'Write it down' }).click()
  await page.getByRole('button', { name: `Erase ${name}` }).click()
  await page.getByLabel('Its whole name, once more').fill('somebody else')
  await page.getByRole('button', { name: 'Erase for good' }).click()
  await expect(page.getByRole('alert')).toContainText('write its whole name')
  await expectAccessible(page)
  await page.getByLabel('Its whole name, once more').fill(name)
  await page.getByRole('button', { name: 'Erase for good' }).click()
  await expect(page.getByText('Everything about the child is gone.')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Who has left' })).toHaveCount(0)
})
