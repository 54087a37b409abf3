import { expect, test } from '@playwright/test'
import { expectAccessible } from './accessible'
import { startServer, type RunningServer } from './server'
import { comeInAs, goTo } from './visit'

// Children whose names come in other scripts, and two of one name, from the class list to the lists that everybody sees.
let server: RunningServer

test.beforeAll(async () => {
  server = await startServer({ demo: true, now: '2026-11-25T08:10:00' })
})
test.afterAll(() => server.stop())

const list = `First name,Last name
مريم,الخطيب
山田,太郎
Ганна,Шевченко
Ζωή,Παππά
ශ්‍රී,පෙරේරා
กานต์,ศรีสุข
Ana,Silva
Ana,Silva
`

test('names of six scripts are whole on screen, and two of one name are told apart', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Set-up')
  await page.getByRole('link', { name: 'Import a class list' }).click()
  await page.setInputFiles('input[type=file]', { name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(list) })
  await expect(
    page.getByText('Ana Silva is on line 8 already. If they are two children, give each a mark.'),
  ).toBeVisible()
  await page.getByLabel('Mark of the child in line 8').fill('B')
  await page.getByLabel('Mark of the child in line 8').press('Tab')
  await expect(page.getByRole('button', { name: 'Add 8 children' })).toBeVisible()
  await page.getByLabel('Mark of the child in line 9').fill('R')
  await page.getByLabel('Mark of the child in line 9').press('Tab')
  await expect(page.getByRole('row', { name: /Ana S\. \(R\)/ })).toBeVisible()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Add 8 children' }).click()

  await expect(page.getByRole('rowheader', { name: 'Ana S. (B)' })).toBeVisible()
  await expect(page.getByRole('rowheader', { name: 'Ana S. (R)' })).toBeVisible()
  for (const name of ['مريم', '山田', 'Ганна', 'Ζωή', 'ශ්‍රී', 'กานต์'])
    await expect(page.getByRole('rowheader', { name })).toBeVisible()

  // A font of ours was fetched for each script that the usual two lack, whatever this machine has.
  const loaded = () =>
    page.evaluate(async () => {
      await document.fonts.ready
      return [...document.fonts]
        .filter((f) => f.family.includes('Names') && f.status === 'loaded')
        .map((f) => f.unicodeRange)
    })
  const covers = (ranges: string[], letter: string) =>
    ranges.some((list) =>
      list.split(',').some((range) => {
        const [first, last] = range.trim().slice(2).split('-')
        const code = letter.codePointAt(0)!
        return parseInt(first!, 16) <= code && code <= parseInt(last ?? first!, 16)
      }),
    )
  for (const letter of ['م', '山', 'Г', 'Ζ', 'ර', 'ก'])
    await expect.poll(async () => covers(await loaded(), letter), { message: letter }).toBe(true)
})

test('the page for a family prints the name in its script', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Class')
  const address = await page
    .getByRole('rowheader', { name: 'مريم' })
    .getByRole('link')
    .getAttribute('href')
    .then((href) => `${server.url}/api${href!.replace('/c/', '/classes/').replace('/class/', '/')}/family-page`)
  const pdf = await page.request.get(address)
  expect(pdf.headers()['content-type']).toContain('application/pdf')
  expect((await pdf.body()).includes(Buffer.from('NotoSansArabic'))).toBe(true)
})
