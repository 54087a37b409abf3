import { expect, test, type Page } from '@playwright/test'
import { DEMO_NOW } from './filled'
import { startServer, type RunningServer } from './server'

// Another language is a file and not a rewrite: in the trial language (CLDR's en-XA) every text that passes the catalogue, of client or core, is bracketed and half as
// long again. What is read outside of brackets has not passed; what runs over the edge would be cut off.
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: true, now: DEMO_NOW, language: 'en-XA' })
})
test.afterAll(() => server.stop())

const pages = [
  'today', 'plan', 'plan/year', 'plan/term', 'plan/make', 'plan/revise', 'plan/coverage', 'class', 'class/children/1', 'class/look-again', 'thoughts', 'class/slips',
  'class/baseline', 'class/trail', 'class/records', 'class/agreement', 'groups', 'groups/ahead', 'groups/after', 'groups/company', 'clipboard', 'clipboard/anyone',
  'mats', 'mats/counters/TenFrame', 'jar', 'sheets', 'map', 'activities', 'activities/under-the-lid', 'cupboard', 'set-out', 'set-up', 'set-up/approach',
  'set-up/class-list', 'account', 'school', 'school/children', 'school/roster',
] // prettier-ignore

// What is nobody's text: names and dates, what the school has written, and standards as they were published.
const notOurs =
  /^(Rowan  Lantern Hill School|Rowan|Alder|Lantern Hill( School)?|(Lantern|Kite|Wagon) (term|week)|Training day|Hill railway trip|Market fair|(Winter|Summer|Spring|Autumn) (break|holidays?)|Ines Okonjo|Tomasz Birk|Maeve Castellane|Esc|Esc|wooden beads|Ines Okonjo  *Tomasz Birk|UTC|Etc)$/
const dates =
  /\b(Mon|Tues?|Wed(nes)?|Thu(rs)?|Fri|Sat(ur)?|Sun)(day)?\b|\b(Jan(uary)?|Feb(ruary)?|Mar(ch)?|Apr(il)?|May|June?|July?|Aug(ust)?|Sept?(ember)?|Oct(ober)?|Nov(ember)?|Dec(ember)?)\b|\b(mm|cm|ml)\b/g

// Places of the time zones' list, standards, and what adults noted in their own words.
const quoted = /^\s*(\p{L}[\p{L}-]+\/|Common Core|England: |“.*”\s*$)/u

/** Texts of a page outside of brackets, by a walk over its letters and what a screen reader is told. */
function unsaid(page: Page) {
  return page.evaluate(() => {
    const outside = (text: string) => {
      let depth = 0
      let left = ''
      for (const letter of text) {
        if (letter === '⟦') depth++
        else if (letter === '⟧') depth--
        else if (depth === 0) left += letter
        else if (depth > 0 && left.at(-1) !== '\n') left += '\n'
      }
      return left.split('\n')
    }
    const found: string[] = []
    const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    while (walk.nextNode()) {
      const text = walk.currentNode as Text
      if (!text.parentElement!.closest('script, style, noscript, .standard, [data-quoted]'))
        found.push(...outside(text.data))
    }
    for (const element of document.querySelectorAll('[aria-label], [placeholder], [alt]'))
      for (const name of ['aria-label', 'placeholder', 'alt']) found.push(...outside(element.getAttribute(name) ?? ''))
    return found
  })
}

test('every text of the main screens passes the language, and none is too long for its place', async ({ page }) => {
  await page.setViewportSize({ width: 768, height: 1024 })
  await page.goto(server.url)
  await page.getByRole('button', { name: 'Ines Okonjo' }).click()
  await page.waitForURL(/today/)
  const children: { shortName: string; given: string; family: string }[] = await page.request
    .get(`${server.url}/api/classes/1/children`)
    .then((answer) => answer.json())
  const ofSchool: { classes: { children: { name: string }[] }[] } = await page.request
    .get(`${server.url}/api/school/children`)
    .then((answer) => answer.json())
  const names = [...children, ...ofSchool.classes.flatMap((c) => c.children)]
    .flatMap((c) => Object.values(c).filter((v) => typeof v === 'string'))
    .sort((a, b) => b.length - a.length)
  const missing: string[] = []
  const wide: string[] = []
  for (const address of pages) {
    await page.goto(`${server.url}/c/1/${address}`)
    await expect(page.locator('main h1').first(), address).toBeVisible()
    await page.waitForLoadState('networkidle')
    for (const text of await unsaid(page)) {
      const bare = names
        .reduce((left, name) => left.replaceAll(name, ''), text)
        .replace(dates, '')
        .replace(/[^\p{L} ]/gu, ' ')
        .trim()
      if (/\p{L}{2}/u.test(bare) && !notOurs.test(bare) && !quoted.test(text))
        missing.push(`${address}: ${text.trim()}`)
    }
    const width = await page.evaluate(() => document.documentElement.scrollWidth)
    if (width > 769) wide.push(`${address}: ${width}`)
  }
  expect([...new Set(missing)]).toEqual([])
  expect(wide).toEqual([])
})
