import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { expect, test, type Download } from '@playwright/test'
import { expectAccessible } from './accessible'
import { DEMO_NOW } from './filled'
import { startServer, type RunningServer } from './server'
import { choose, comeInAs, goTo } from './visit'

// Lantern Hill, on a fixed Wednesday.
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => server.stop())

const textOf = async (download: Download) => readFileSync((await download.path())!, 'utf8')

test('from a question to the list of what to set out and the printed pack', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Activities')
  await expect(page.getByText(/of \d+ activities/)).toBeVisible()

  // What shall Rowan do on Wednesday for hidden part to 7, with what we own?
  await page.getByLabel('What for: words and numbers').fill('hidden part to 7')
  await page.getByLabel('At most this many minutes').fill('10')
  await page.getByLabel('Number of children').fill('4')
  await page.getByLabel('nothing to print').check()
  await page.getByLabel('with what we own').check()
  await choose(page, 'Without', 'without ten frames')
  const found = page.getByRole('row').filter({ hasText: 'Under the lid' })
  await expect(found.getByRole('cell', { name: '10', exact: true })).toBeVisible()
  await expect(page.getByRole('row').filter({ hasText: 'Two sides of ten' })).toHaveCount(0)
  await expectAccessible(page)
  await found.getByRole('link').click()

  await expect(page.getByRole('heading', { name: 'Under the lid' })).toBeVisible()
  await expect(page.getByLabel('Set for')).toHaveValue('bond.all-7')
  await expect(page.getByRole('listitem').filter({ hasText: /Blue counters/ })).toContainText('7')
  await expect(page.getByRole('note', { name: 'Take care' })).toContainText('Small parts')
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Put it in' }).click()

  await expect(page.getByRole('heading', { name: 'Set out', exact: true })).toBeVisible()
  await expect(page.getByRole('row', { name: /Blue counters/ })).toContainText('9:15 carpet: 7, Under the lid')
  await expectAccessible(page)
  await page.getByRole('button', { name: 'The whole week' }).click()
  await expect(page.getByText('week of 23 November')).toBeVisible()
  const print = page.getByRole('link', { name: /Print the pack/ })
  const pages = Number(/(\d+) page/.exec(await print.innerText())![1])
  const [pack] = await Promise.all([page.waitForEvent('download'), print.click()])
  const info = execFileSync('/usr/bin/pdfinfo', [(await pack.path())!], { encoding: 'utf8' })
  expect(info).toContain(`Pages:           ${pages}`)

  await goTo(page, 'Today')
  await expect(
    page.getByRole('heading', { name: 'Under the lid' }).or(page.getByText('Under the lid').first()),
  ).toBeVisible()
})

test('the map shows the class and a child, and is the school’s own', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Map')
  const bead = (name: string) => page.getByRole('button', { name: new RegExp(`^${name}\\.`) })
  await bead('See to three').click()
  const panel = page.getByRole('complementary')
  await expect(panel).toContainText('I can see up to three without counting.')
  await expect(panel.getByRole('button', { name: 'See to five' })).toBeVisible()
  await expectAccessible(page)

  // By keyboard along the string, and to what it opens.
  await bead('See to three').press('ArrowRight')
  await expect(page.getByRole('complementary', { name: 'See to five' })).toBeVisible()
  await choose(page, 'Strengths of', 'Chiara L.')
  await expect(bead('See to three')).toHaveAccessibleName(/Seeing quantities, autumn/)

  // A circle is refused and told why; a season can be changed and taken back.
  await page.getByLabel('Find').fill('All ways to make five')
  await page.getByLabel('Find').press('Enter')
  await expect(panel).toContainText('I can find all the ways to make five')
  await panel.getByRole('button', { name: 'Change for our school' }).click()
  const form = page.getByRole('form', { name: 'Change this skill' })
  await choose(page, 'Add a skill that it needs', 'Know bonds of five')
  await form.getByRole('button', { name: 'Keep' }).click()
  await expect(form.getByRole('alert')).toContainText('It would be a circle')
  await form.getByRole('button', { name: 'Take out Know bonds of five' }).click()
  await form.getByLabel('Season').selectOption('Spring')
  await form.getByRole('button', { name: 'Keep' }).click()
  await expect(panel).toContainText('in spring')

  // The map goes out as a file, and would change nothing when it comes back.
  await page.getByText('As a file').click()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'CASE 1.0 (JSON)' }).click(),
  ])
  expect(await textOf(file)).toContain('"associationType": "precedes"')
  await page.getByLabel('Take a map from a file').setInputFiles({
    name: 'map.json',
    mimeType: 'application/json',
    buffer: Buffer.from(await textOf(file)),
  })
  await expect(page.getByText('0 new, 0 changed, 0 hidden.')).toBeVisible()
  await page.getByText('As a file').click()
  await panel.getByRole('button', { name: 'Change for our school' }).click()
  await form.getByRole('button', { name: 'Back to how it came' }).click()
  await expect(panel).toContainText('in autumn')
})

test('the cupboard counts, takes a kind of our own, and warns the class that needs it only', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Cupboard')
  await expect(page.getByRole('listitem').filter({ hasText: 'Pasta shells' })).toContainText(
    'Small part, Wheat and gluten, Food',
  )
  await expectAccessible(page)
  await page.getByLabel('How many: Bell').fill('2')
  await page.getByLabel('How many: Bell').press('Tab')
  await page.getByRole('button', { name: 'Add a kind of our own' }).click()
  const form = page.getByRole('form', { name: 'A kind of our own' })
  await form.getByLabel('What', { exact: true }).fill('Felt stars')
  await form.getByRole('button', { name: 'Put it in the cupboard' }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Felt stars' })).toContainText('our own')
  await page.getByLabel('Someone puts things in their mouth').uncheck()
  await expect(page.getByRole('listitem').filter({ hasText: 'Pasta shells' })).not.toContainText('Small part')
  await page.getByLabel('Someone puts things in their mouth').check()
  await expect(page.getByRole('listitem').filter({ hasText: 'Pasta shells' })).toContainText('Small part')
  await page.getByLabel('Take counts from a file').setInputFiles({
    name: 'counts.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Item,Count\nbell,3\ndrum,lots\n'),
  })
  await expect(page.getByRole('alert')).toContainText('Line 3, Count: “lots” is no number')
  await page.reload()
  await expect(page.getByLabel('How many: Bell')).toHaveValue('2')
})

test('an activity of our own is written, found and handed on', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Activities')
  await page.getByRole('link', { name: 'Write one of our own' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Under the hat')
  await expect(page.getByLabel('Steps, a line each')).toHaveValue(/Everyone says/)
  await expectAccessible(page)
  await page.getByLabel('Steps, a line each').fill('')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('alert')).toContainText('steps is missing')
  await page.getByLabel('Steps, a line each').fill('Hats on.\nWho hides?')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('heading', { name: 'Under the hat' })).toBeVisible()
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Hand on' }).click()])
  expect(await textOf(file)).toContain('name: Under the hat')
  await goTo(page, 'Activities')
  await page.getByLabel('What for: words and numbers').fill('hat')
  await expect(page.getByRole('row').filter({ hasText: 'Under the hat' })).toContainText('our own')
})

test('the class’s way is chosen once and followed', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Set-up')
  await page.getByRole('link', { name: /Frames, signs/ }).click()
  await expect(page.getByRole('heading', { name: 'How Rowan works' })).toBeVisible()
  await expectAccessible(page)
  // The first choice takes its time on the way: the second must neither overtake it nor be undone by it.
  let before = 0
  await page.route('**/api/classes/1/approach', async (route) => {
    if (route.request().method() === 'PATCH' && before++ === 0) await new Promise((r) => setTimeout(r, 1_500))
    await route.continue()
  })
  await page.getByLabel(/^less/).check()
  await page.getByLabel(/^From the start/).check()
  await expect(page.getByText('Everything follows it from now on.').first()).toBeVisible()
  await goTo(page, 'Map')
  await expect(page.getByRole('button', { name: /^Which has less\./ })).toBeVisible()
  await page.goto(`${server.url}/c/1/mats/counters/TenFrame?state=a1a2a3b4b5_____`)
  await expect(page.getByText('3 + 2 = 5')).toBeVisible()
})

test('each new page holds at 200 %', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await page.setViewportSize({ width: 640, height: 400 })
  for (const path of [
    'map?skill=bond.all-5',
    'activities',
    'activities/under-the-lid',
    'activities/under-the-lid/change',
    'cupboard',
    'set-out',
    'set-up/approach',
  ]) {
    await page.goto(`${server.url}/c/1/${path}`)
    await page.waitForLoadState('networkidle')
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(640)
  }
})
