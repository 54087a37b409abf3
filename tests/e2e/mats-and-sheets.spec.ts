import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { DEMO_NOW } from './filled'
import { startServer, type RunningServer } from './server'
import { comeInAs, goTo } from './visit'

// Lantern Hill, on a fixed Wednesday.
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW })
})
test.afterAll(() => server.stop())

async function openMat(page: Page, name: string) {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Mats')
  await page.getByRole('link', { name: new RegExp(`^${name}`) }).click()
  await expect(page.getByRole('heading', { name, exact: true })).toBeVisible()
}

const onMat = (page: Page) => page.getByRole('region', { name: 'The mat' })
const centreOf = (page: Page, nth: number, role: string) =>
  page
    .locator(`svg circle.${role}`)
    .nth(nth)
    .evaluate((c) => `${c.getAttribute('cx')} ${c.getAttribute('cy')}`)

test('eight and seven make ten on the board, forwards and back, by keys and by corners', async ({ page }) => {
  await openMat(page, 'Sums, worked')
  await page.getByRole('button', { name: /^Make ten/ }).click()
  await page.getByRole('button', { name: 'On the board' }).click()
  const lines = onMat(page).getByRole('list', { name: 'The sum so far' })
  await expect(lines).toHaveText('8 + 7')
  await page.keyboard.press('ArrowRight')
  await expect(onMat(page)).toContainText('Eight is two short of ten. Seven is two and five.')
  const before = await Promise.all(Array.from({ length: 7 }, (_, i) => centreOf(page, i, 'CounterB')))
  await page.keyboard.press('ArrowRight')
  await expect(onMat(page)).toContainText('Two move over: eight and two make ten.')
  const after = await Promise.all(Array.from({ length: 7 }, (_, i) => centreOf(page, i, 'CounterB')))
  expect(after.filter((at, i) => at !== before[i])).toHaveLength(2)
  await expect(lines.getByRole('listitem')).toHaveText(['8 + 7', '8 + 2 + 5', '10 + 5'])
  await expectAccessible(page)
  await page.getByRole('button', { name: 'On', exact: true }).click()
  await expect(lines.getByRole('listitem').last()).toHaveText('15')
  await page.getByRole('button', { name: 'Back' }).click()
  await expect(lines.getByRole('listitem').last()).toHaveText('10 + 5')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('heading', { name: 'Sums, worked' })).toBeVisible()
  await expect(page.getByText('step 3 of 4')).toBeVisible()
})

test('a change-unknown story is wrongly circled first, and caught, then solved', async ({ page }) => {
  await openMat(page, 'Story')
  // Six wagons of which four stay, wherever that stands among the stories.
  const numbers = 'low=6&high=6&theme=hill-railway'
  let seed = 0
  for (let told = ''; !told.includes('6 wagons stand') || !told.includes('6 − □ = 4');) {
    const story = `${server.url}/api/classes/1/mats/story?kind=TakeFromChange&${numbers}&seed=${++seed}`
    told = JSON.stringify(await (await page.request.get(story)).json())
    expect(seed).toBeLessThan(100)
  }
  await page.goto(`${server.url}/c/1/mats/story?${numbers}&seed=${seed}`)
  await expect(onMat(page)).toContainText('6 wagons stand at the hill station.')
  await expect(onMat(page)).not.toContainText('How many')
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'On', exact: true }).click()
  await expect(onMat(page)).toContainText('How many wagons rolled away?')
  await expect(onMat(page)).toContainText('6 − □ = 4')
  await page.getByRole('textbox', { name: 'Draw' }).fill('6')
  await page.keyboard.press('Tab')
  const thing = (n: number) => page.locator('.drawing circle.CounterA').nth(n)
  // Marks lie over the thing, so the tap goes to its place and not to its circle.
  const tap = async (...things: number[]) => {
    for (const n of things) {
      const box = (await thing(n).boundingBox())!
      const marks = await page.locator('.drawing svg').innerHTML()
      await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2)
      await expect.poll(() => page.locator('.drawing svg').innerHTML()).not.toBe(marks)
    }
  }
  await expect(thing(5)).toBeVisible()
  await tap(0, 1)
  await page.getByLabel('crosses out').check()
  await tap(2, 3, 4, 5)
  await expect(page.locator('.drawing line.Cross')).toHaveCount(8)
  await page.getByRole('button', { name: 'Check my picture' }).click()
  await expect(onMat(page).getByRole('status')).toHaveText(
    'Circled are 2, the part that goes. Circle the 4 that stay, and cross out the 2 that go.',
  )
  await expectAccessible(page)

  await tap(2, 3)
  await page.getByLabel('circles', { exact: true }).check()
  await tap(2, 3)
  await page.getByRole('button', { name: 'Check my picture' }).click()
  await expect(onMat(page).getByRole('status')).toHaveText('The picture tells the story.')
  await page.getByRole('textbox', { name: 'Answer heard' }).fill('4')
  await page.keyboard.press('Tab')
  await expect(page.getByText('Gave the part that the story tells.')).toBeVisible()
  await page.getByRole('textbox', { name: 'Answer heard' }).fill('2')
  await page.keyboard.press('Tab')
  await expect(page.getByText('Right.')).toBeVisible()
})

test('a number is flashed for its time and then hidden until it is asked for', async ({ page }) => {
  await openMat(page, 'See it, say it')
  const picture = onMat(page).getByRole('img')
  await expect(picture).toBeVisible()
  await page.keyboard.press('e')
  await expect(onMat(page).getByRole('status')).toHaveText('Eyes up')
  await expect(picture).toBeHidden()
  await expect(picture).toBeVisible({ timeout: 2000 })
  await expect(onMat(page).getByRole('status')).toHaveText('What did you see?', { timeout: 4000 })
  await expect(picture).toBeHidden()
  await page.getByRole('button', { name: 'Open the curtain' }).click()
  await page.getByRole('button', { name: 'What can be read' }).click()
  await expect(onMat(page)).toContainText('five and two · three short of ten')
})

test('counters are laid, turned, crossed out and undone by keys alone', async ({ page }) => {
  await openMat(page, 'Ten frame')
  await page.getByLabel('the sum').check()
  const mat = page.getByRole('application')
  for (let tabs = 0; tabs < 40 && !(await mat.evaluate((m) => m === document.activeElement)); tabs++)
    await page.keyboard.press('Tab')
  await expect(mat).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.locator('circle.CounterA')).toHaveCount(1)
  for (const next of [2, 3, 4]) {
    await page.keyboard.press('1')
    await expect(page.locator('circle.CounterA')).toHaveCount(next)
  }
  await page.keyboard.press('2')
  await expect(onMat(page)).toContainText('4 + 1 = 5')
  await page.keyboard.press('x')
  await page.keyboard.press('Enter')
  await expect(onMat(page)).toContainText('5 − 1 = 4')
  await page.keyboard.press('z')
  await expect(onMat(page)).toContainText('4 + 1 = 5')
  await page.keyboard.press('?')
  await expect(page.getByText('lay one of the other colour')).toBeVisible()
  await expectAccessible(page)
  await page.keyboard.press('Escape')
  await page.keyboard.press('b')
  await expect(page.getByRole('button', { name: 'Leave' })).toBeVisible()
  await page.reload()
  await expect(onMat(page)).toContainText('4 + 1 = 5')
  await expect(page.getByRole('button', { name: 'Leave' })).toBeVisible()
})

test('a counter is dragged over to fill the ten, and a covered part gives nothing away', async ({ page }) => {
  await openMat(page, 'Two ten frames')
  await page.getByLabel('the sum').check()
  await page.getByRole('textbox', { name: 'First part' }).fill('9')
  await page.getByRole('textbox', { name: 'Second part' }).fill('4')
  await page.keyboard.press('Tab')
  await page.getByRole('button', { name: 'Lay out 9 and 4' }).click()
  await expect(onMat(page)).toContainText('9 + 4 = 13')
  const blue = page.locator('circle.CounterB').nth(3)
  const [from, to] = [await blue.boundingBox(), await page.locator('rect.Cell').nth(9).boundingBox()]
  await page.mouse.move(from!.x + from!.width / 2, from!.y + from!.height / 2)
  await page.mouse.down()
  await page.mouse.move(to!.x + to!.width / 2, to!.y + to!.height / 2, { steps: 4 })
  await page.mouse.up()
  await expect.poll(() => page.url()).toContain('b13.')
  await page.getByRole('button', { name: 'Cover a part' }).click()
  await page.locator('rect.Cell').nth(15).click()
  await expect(onMat(page)).toContainText('ten in sight: how many under the cover?')
  await expect(page.locator('circle.CounterB')).toHaveCount(1)
})

test('the desks reckon for the adult, and every mat and desk passes axe', async ({ page }) => {
  await comeInAs(page, server, 'Tomasz Birk')
  await goTo(page, 'Mats')
  await expect(page.getByRole('link', { name: /^Guess jar/ })).toBeVisible()
  await expectAccessible(page)
  await page.getByRole('link', { name: /^Dice desk/ }).click()
  await expect(page.getByText('Every throw stays from 0 to 10.')).toBeVisible()
  await page.getByLabel('Faces of die 1').fill('1-6')
  await page.keyboard.press('Tab')
  await expect(page.getByText(/Can fall below zero: 10 of 36 throws/)).toBeVisible()
  await page.getByLabel('Faces of die 1').fill('six')
  await page.keyboard.press('Tab')
  await expect(page.getByRole('alert')).toContainText("'six' is no die")
  for (const desk of ['counters/Bond', 'counters/Ring', 'look', 'path', 'kinds?other=12', 'dice', 'shakes', 'jar']) {
    await page.goto(`${server.url}/c/1/mats/${desk}`)
    await expect(onMat(page).locator('svg').first()).toBeVisible()
    await expectAccessible(page)
  }
})

test('a session card opens its mat ready laid', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await page.goto(`${server.url}/c/1/carpet/2026-11-25`)
  await page.getByRole('link', { name: 'On its mat' }).first().click()
  await expect(onMat(page).getByRole('img')).toBeVisible()
  await expect(page.getByRole('alert')).toHaveCount(0)
})

test('a sheet is chosen, seen, downloaded and opened: the paper shows what the screen showed', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await goTo(page, 'Sheets')
  await page.getByRole('button', { name: 'Sentences to finish' }).click()
  await page.getByLabel('missing number').check()
  await page.getByRole('group', { name: 'For whom' }).getByRole('checkbox').nth(0).check()
  await page.getByRole('group', { name: 'For whom' }).getByRole('checkbox').nth(1).check()
  await expect(page.getByText('page 1 of 3')).toBeVisible()
  await page.getByRole('button', { name: 'Next page' }).click()
  await page.getByRole('button', { name: 'Next page' }).click()
  await expect(page.getByText('page 3 of 3, answers')).toBeVisible()
  await page.getByRole('button', { name: 'Page before' }).click()
  await page.getByRole('button', { name: 'Page before' }).click()
  await expectAccessible(page)

  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download PDF, 3 pages' }).click(),
  ])
  expect(file.suggestedFilename()).toBe('number-sentences-to-finish-1.pdf')
  const pdf = await file.path()
  expect(execFileSync('pdftotext', ['-l', '1', pdf, '-'], { encoding: 'utf8' })).toContain('seed 1')

  // Poppler draws the PDF, the browser the SVG; both are looked at through blocks of eight dots.
  const drawn = join(mkdtempSync(join(tmpdir(), 'fobble-sheet-')), 'page')
  execFileSync('pdftoppm', ['-png', '-r', '72', '-l', '1', '-singlefile', pdf, drawn])
  const difference = await page.evaluate(
    async ({ png, svg }) => {
      const size = { width: 592, height: 840 }
      const dots = (image: CanvasImageSource) => {
        const canvas = Object.assign(document.createElement('canvas'), {
          width: size.width / 8,
          height: size.height / 8,
        })
        const pen = canvas.getContext('2d')!
        pen.imageSmoothingQuality = 'high'
        pen.fillStyle = '#fff'
        pen.fillRect(0, 0, canvas.width, canvas.height)
        pen.drawImage(image, 0, 0, canvas.width, canvas.height)
        return pen.getImageData(0, 0, canvas.width, canvas.height).data.filter((_, i) => i % 4 === 0)
      }
      const paper = await createImageBitmap(
        new Blob([Uint8Array.from(atob(png), (c) => c.charCodeAt(0))], { type: 'image/png' }),
      )
      const screen = new Image()
      screen.src = svg
      await screen.decode()
      const [a, b] = [dots(paper), dots(screen)]
      const inked = [...a.keys()].filter((i) => a[i]! < 250 || b[i]! < 250)
      return {
        inked: inked.length,
        mean: inked.reduce((sum, i) => sum + Math.abs(a[i]! - b[i]!), 0) / inked.length / 255,
      }
    },
    {
      png: readFileSync(`${drawn}.png`).toString('base64'),
      svg: (await page.locator('.preview img').getAttribute('src'))!,
    },
  )
  expect(difference.inked).toBeGreaterThan(100)
  expect(difference.mean).toBeLessThan(0.08)
})

test('the whole class guesses at a run, and on opening day the nearest are named', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await expect(page.getByText('8 of 26 have guessed how many wooden beads are in the tall jar.')).toBeVisible()
  await page.getByRole('link', { name: 'To the jar' }).click()
  await expectAccessible(page)
  const fields = page.getByRole('textbox', { name: /^Guess of/ })
  for (let i = 8; i < 26; i++) {
    await expect(fields.nth(i)).toHaveValue('')
    if (i === 8) await fields.nth(i).focus()
    await page.keyboard.type(String(20 + i))
    await page.keyboard.press('Enter')
  }
  await expect(page.getByText('26 of 26 have guessed')).toBeVisible()
  await fields.nth(3).fill('many')
  await page.keyboard.press('Enter')
  await expect(page.getByText('A guess is a number from 1 to 999.')).toBeVisible()
  const nearest = (await fields.nth(25).getAttribute('aria-label'))!.replace('Guess of ', '')
  await page.getByLabel('Counted').fill('45')
  await page.getByRole('button', { name: 'Open the jar' }).click()
  await expect(page.getByText('4 heaps of ten and 5')).toBeVisible()
  await expect(page.getByText(/^Nearest:/)).toContainText(nearest)
  await expect(page.getByLabel('How many to put in')).toHaveValue('50')
  await expectAccessible(page)
  await page.getByRole('link', { name: 'Lay it out on the board' }).click()
  await expect(onMat(page)).toContainText('45: 4 heaps of ten and 5')
})

test('the class’s way of filling frames is chosen in set-up and seen on its mats', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  const way = async (label: RegExp) => {
    await goTo(page, 'Set-up')
    await page.getByRole('link', { name: /Frames, signs/ }).click()
    await page.getByLabel(label).check()
  }
  await way(/^By pairs/)
  await expect(page.getByText('follows it from now on')).toBeVisible()
  await page.goto(`${server.url}/c/1/mats/look?number=6`)
  await expect(page.locator('svg circle.CounterA')).toHaveCount(6)
  const rows = await page
    .locator('svg circle.CounterA')
    .evaluateAll((all) => new Set(all.map((c) => c.getAttribute('cy'))).size)
  const columns = await page
    .locator('svg circle.CounterA')
    .evaluateAll((all) => new Set(all.map((c) => c.getAttribute('cx'))).size)
  expect([rows, columns]).toEqual([2, 3])
  await way(/^By fives/)
  await expect(page.getByText('follows it from now on')).toBeVisible()
})
