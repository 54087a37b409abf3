import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { expect, test, type Browser, type Page } from '@playwright/test'
import { strToU8, zipSync } from 'fflate'
import { startServer, type RunningServer, FIRST_CODE } from './server'
import { fillDay } from './visit'

// A school over two years, on a clock that moves: what one day leaves behind is what the next one finds.
const EMAIL = 'rosalind@kettle-lane.example'
let server: RunningServer
const office = mkdtempSync(join(tmpdir(), 'fobble-office-'))
test.beforeAll(async () => (server = await startServer({ demo: false, now: '2026-09-09T08:00:00', roster: office })))
test.afterAll(() => server.stop())
test.use({ actionTimeout: 30_000 })

/** The server ends and starts again on another day, and whoever comes in then has that day's clock. */
async function itIs(now: string, browser: Browser, faults: string[]): Promise<Page> {
  await server.end()
  await server.again(now)
  return open(now, browser, faults)
}

async function open(now: string, browser: Browser, faults: string[]): Promise<Page> {
  const page = await (
    await browser.newContext({ serviceWorkers: 'block', locale: 'en-GB', timezoneId: 'UTC' })
  ).newPage()
  page.on('pageerror', (fault) => faults.push(`${now}: ${fault.message}`))
  page.on('response', (answer) => {
    if (answer.status() >= 500) faults.push(`${now}: ${answer.status()} ${answer.url()}`)
  })
  await page.clock.install({ time: new Date(`${now}Z`) })
  return page
}

async function signIn(page: Page, email: string, password: string) {
  await page.goto(`${server.url}/sign-in`)
  await page.getByLabel('E-mail').fill(email)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page).not.toHaveURL(/sign-in/)
}

async function take(page: Page, classId: number, children: string[]) {
  await page.goto(`${server.url}/c/${classId}/set-up/class-list`)
  const list = ['First name,Last name,Date of birth', ...children].join('\n')
  await page.setInputFiles('input[type=file]', { name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(list) })
  await page.getByRole('button', { name: /^Add / }).click()
  await expect(page.getByRole('button', { name: /^Add / })).toHaveCount(0)
}

/** Adds an adult to a class, who chooses a password by the link that is handed over. */
async function adds(
  page: Page,
  browser: Browser,
  room: string,
  name: string,
  password: string,
  cover?: [string, string],
) {
  const part = page.locator('details[open]').filter({ hasText: room })
  await part.getByLabel('Name', { exact: true }).fill(name)
  await part.getByLabel('E-mail').fill(`${name.split(' ')[0]!.toLowerCase()}@kettle-lane.example`)
  await part.getByLabel('Role', { exact: true }).selectOption(cover ? 'Cover' : 'LeadTeacher')
  if (cover) {
    await fillDay(page, 'First day', cover[0])
    await fillDay(page, 'Last day', cover[1])
  }
  await part.getByRole('button', { name: 'Add', exact: true }).click()
  const link = await page.locator('.once code').innerText()
  const theirs = await browser.newPage()
  await theirs.goto(link)
  await theirs.getByLabel('Password').fill(password)
  await theirs.getByRole('button', { name: 'Take it' }).click()
  await expect(theirs.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await theirs.close()
}

async function sees(page: Page, classId: number, child: string, note: string) {
  await page.goto(`${server.url}/c/${classId}/clipboard/anyone`)
  await page.getByRole('button', { name: child }).click()
  await page.getByLabel('Search a skill').fill('twenty bon')
  await page.getByRole('button', { name: 'Bonds to twenty' }).click()
  await page.locator('.codes').getByRole('button', { name: 'Alone' }).click()
  await page.getByRole('button', { name: 'Note', exact: true }).click()
  await page.getByLabel(`Note about ${child}`).fill(note)
  await page.getByRole('button', { name: 'Done' }).click()
  // It is sent once it can't be taken back any more.
  await page.clock.fastForward(15_000)
  await expect
    .poll(async () => (await page.request.get(`${server.url}/api/classes/${classId}/trail`)).text())
    .toContain(note)
}

async function child(page: Page, name: string, to: string) {
  await page.locator('form.one select').nth(0).selectOption({ label: name })
  await page.locator('form.one select').nth(1).selectOption({ label: to })
  await page.getByRole('button', { name: 'Write it down' }).click()
}

/** What the school's office puts into its folder in a night: each child by its key, name, day of birth and class. */
function officeDrops(file: string, children: [key: string, name: string, born: string, room: string][], cut = false) {
  const rooms = ['Willow', 'Hazel', 'Juniper']
  const csv = (lines: string[]) => strToU8(lines.join('\n'))
  const zip = zipSync({
    'manifest.csv': csv(['propertyName,value', 'oneroster.version,1.2', 'file.users,bulk']),
    'orgs.csv': csv(['sourcedId,name,type', 'o,Kettle Lane School,school']),
    'academicSessions.csv': csv([
      'sourcedId,title,type,startDate,endDate,parentSourcedId',
      'y,Year,schoolYear,2026-09-01,2027-07-20,',
    ]),
    'classes.csv': csv([
      'sourcedId,title,schoolSourcedId,termSourcedIds',
      ...rooms.map((name, i) => `k${i},${name},o,y`),
    ]),
    'users.csv': csv([
      'sourcedId,givenName,familyName',
      ...children.map(([key, name]) => `${key},${name.replace(' ', ',')}`),
    ]),
    'enrollments.csv': csv([
      'sourcedId,classSourcedId,userSourcedId,role,beginDate,endDate',
      ...children.map(([key, , , room]) => `e-${key},k${rooms.indexOf(room)},${key},student,,`),
    ]),
    'demographics.csv': csv(['sourcedId,birthDate', ...children.map(([key, , born]) => `${key},${born}`)]),
  })
  writeFileSync(join(office, file), cut ? zip.slice(0, zip.length / 2) : zip)
}

/** Whether a text stands in any file of the school's data, in whatever place. */
const standsInData = (text: string) =>
  readdirSync(server.data, { recursive: true, withFileTypes: true })
    .filter((file) => file.isFile())
    .some((file) => readFileSync(join(file.parentPath, file.name)).includes(text))

test('a school over two years', async ({ browser }) => {
  test.setTimeout(600_000)
  const faults: string[] = []
  let page = await open('2026-09-09T08:02:00', browser, faults)
  let password = 'nine wagons uphill'

  await test.step('September: the first start, three classes', async () => {
    await page.goto(server.url)
    await page.getByLabel('Code', { exact: false }).fill(FIRST_CODE)
    await page.getByLabel('Your name').fill('Rosalind Achterberg')
    await page.getByLabel('School').fill('Kettle Lane School')
    await page.getByLabel('Class', { exact: true }).fill('Willow')
    await page.getByLabel('E-mail').fill(EMAIL)
    await page.getByLabel(/Password/).fill(password)
    await page.getByRole('button', { name: 'Begin' }).click()
    await expect(page.getByRole('heading', { name: 'Wednesday 9 September' })).toBeVisible()
    await take(page, 1, [
      'Amina,Yusuf,2021-11-03',
      'Bruno,Castellan,2021-09-17',
      'Chidi,Obiora,2022-01-22',
      'Daria,Kolasa,2021-12-30',
    ])
    await page.goto(`${server.url}/c/1/school`)
    await adds(page, browser, 'Willow', 'Bertil Osei', 'lanterns at dusk')
    const make = page.locator('form', { hasText: 'Begins like' })
    for (const [name, lead] of [
      ['Hazel', 'Bertil Osei'],
      ['Juniper', 'Rosalind Achterberg'],
    ] as const) {
      await make.getByLabel('Name').fill(name)
      await make.getByLabel('Lead teacher').selectOption({ label: lead })
      await make.getByLabel('Begins like').selectOption({ label: 'Willow' })
      await make.getByRole('button', { name: 'Make the class' }).click()
      await expect(page.getByText(`${name} is there.`)).toBeVisible()
    }
    await take(page, 3, ['Edda,Novak,2022-02-01', 'Farid,Salim,2021-10-11'])
    await sees(page, 1, 'Amina Y.', 'zebra crossing')
  })

  await test.step('October: nights of the office', async () => {
    const all: Parameters<typeof officeDrops>[1] = [
      ['p1', 'Amina Yusuf', '2021-11-03', 'Willow'],
      ['p2', 'Bruno Castellan', '2021-09-17', 'Willow'],
      ['p3', 'Chidi Obiora', '2022-01-22', 'Willow'],
      ['p4', 'Daria Kolasa', '2021-12-30', 'Willow'],
      ['p5', 'Edda Novak', '2022-02-01', 'Juniper'],
      ['p6', 'Farid Salim', '2021-10-11', 'Juniper'],
    ]
    officeDrops('night-1.zip', all)
    page = await itIs('2026-10-06T08:00:00', browser, faults)
    await signIn(page, EMAIL, password)
    const says = async (text: string) =>
      expect(async () => {
        await page.goto(`${server.url}/c/1/school/roster`)
        await expect(page.getByText(text)).toBeVisible({ timeout: 2000 })
      }).toPass()
    await says('Amina Yusuf of Willow is on the list under this name.')
    await page.getByRole('button', { name: 'Do the 6 that are ticked' }).click()
    await expect(page.getByText('Nothing to decide: the list and Fobble say the same.')).toBeVisible()

    // The next night a child is new and one has another name; the night after, the file is cut off.
    all[5] = ['p6', 'Farid Salim-Vogt', '2021-10-11', 'Juniper']
    all.push(['p7', 'Hedda Storm', '2022-04-04', 'Juniper'])
    officeDrops('night-2.zip', all)
    page = await itIs('2026-10-07T08:00:00', browser, faults)
    await signIn(page, EMAIL, password)
    await says('Hedda Storm is new on the list, in Juniper.')
    officeDrops('night-3.zip', all, true)
    page = await itIs('2026-10-08T08:00:00', browser, faults)
    await signIn(page, EMAIL, password)
    await says('This is no zip, or only a part of one.')
    await page.getByRole('checkbox', { name: 'Hedda Storm is new on the list' }).check()
    await page.getByRole('checkbox', { name: 'Farid Salim is called' }).check()
    await page.getByRole('button', { name: 'Do the 2 that are ticked' }).click()
    await expect(page.getByText('Nothing to decide: the list and Fobble say the same.')).toBeVisible()
    await page.goto(`${server.url}/c/3/class`)
    await expect(page.getByRole('rowheader', { name: 'Hedda S.' })).toBeVisible()
    await expect(page.getByRole('rowheader')).toHaveCount(3)
  })

  await test.step('November: cover comes, and is a stranger afterwards', async () => {
    page = await itIs('2026-11-25T08:00:00', browser, faults)
    await signIn(page, EMAIL, password)
    await page.goto(`${server.url}/c/1/school`)
    await adds(page, browser, 'Willow', 'Nilufar Aziz', 'seven lanterns in fog', ['25/11/2026', '26/11/2026'])
    const hers = await open('2026-11-25T08:05:00', browser, faults)
    await signIn(hers, 'nilufar@kettle-lane.example', 'seven lanterns in fog')
    await expect(hers.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()
    await sees(hers, 1, 'Bruno C.', 'counted on')

    page = await itIs('2026-11-27T08:00:00', browser, faults)
    await page.goto(`${server.url}/sign-in`)
    await page.getByLabel('E-mail').fill('nilufar@kettle-lane.example')
    await page.getByLabel('Password').fill('seven lanterns in fog')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await expect(page.getByRole('alert')).toContainText('belong to no class')
    expect((await page.request.get(`${server.url}/api/classes/1/children`)).status()).toBe(403)
  })

  await test.step('January: a lost password', async () => {
    page = await itIs('2027-01-13T08:00:00', browser, faults)
    const said = execFileSync('dotnet', ['bin/Release/net10.0/Fobble.Server.dll', 'password', EMAIL], {
      cwd: fileURLToPath(new URL('../../src/Fobble.Server/', import.meta.url)),
      env: { ...process.env, Fobble__Data: server.data, Fobble__Now: '2027-01-13T08:00:00', TZ: 'UTC' },
      encoding: 'utf8',
    })
    password = 'four kites over water'
    await page.goto(`${server.url}${said.split('\n').find((line) => line.startsWith('/new-password#'))}`)
    await page.getByLabel(/Password/).fill(password)
    await page.getByRole('button', { name: 'Take it' }).click()
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
    await signIn(page, EMAIL, password)
    await expect(page.getByRole('heading', { name: 'Wednesday 13 January' })).toBeVisible()
  })

  await test.step('February: one joins, one moves, one leaves', async () => {
    page = await itIs('2027-02-10T08:00:00', browser, faults)
    await signIn(page, EMAIL, password)
    await take(page, 1, ['Gitte,Holm,2022-03-03'])
    await page.goto(`${server.url}/c/1/school/children`)
    await child(page, 'Bruno Castellan', 'Juniper')
    await expect(page.getByText('Bruno Castellan is in Juniper now')).toBeVisible()
    await child(page, 'Amina Yusuf', 'away from the school')
    await expect(page.getByText('Amina Yusuf has left.')).toBeVisible()
    await page.goto(`${server.url}/c/1/class`)
    await expect(page.getByRole('rowheader')).toHaveCount(3)
    // What cover saw in the other class has come along.
    await page.goto(`${server.url}/c/3/class`)
    await page.getByRole('link', { name: 'Bruno C.' }).click()
    await expect(page.getByText('counted on')).toHaveCount(1)
  })

  await test.step('July and September: the classes of the next year', async () => {
    page = await itIs('2027-07-19T08:00:00', browser, faults)
    await signIn(page, EMAIL, password)
    await page.goto(`${server.url}/c/1/school/children`)
    await page.getByRole('button', { name: 'Begin the new year' }).click()
    await expect(page.getByText('The new year has begun.')).toBeVisible()

    page = await itIs('2027-09-08T08:00:00', browser, faults)
    await signIn(page, EMAIL, password)
    await expect(page.getByRole('heading', { name: 'Wednesday 8 September' })).toBeVisible()
    const { signedIn } = (await (await page.request.get(`${server.url}/api/account`)).json()) as {
      signedIn: { classes: { id: number; name: string; archived: boolean }[] }
    }
    const willow = signedIn.classes.find((c) => c.name === 'Willow' && !c.archived)!.id
    await page.goto(`${server.url}/c/${willow}/class`)
    await expect(page.getByRole('rowheader')).toHaveCount(3)
    await sees(page, willow, 'Chidi O.', 'in the second year')
    // The class of before is read as it stood, with who left only later.
    await page.goto(`${server.url}/c/1/class`)
    await expect(page.getByText('it can be read, and no more written')).toBeVisible()
    await expect(page.getByRole('rowheader', { name: 'Chidi O.' })).toBeVisible()
  })

  await test.step('July once more: all of them leave', async () => {
    page = await itIs('2028-07-17T08:00:00', browser, faults)
    await signIn(page, EMAIL, password)
    await page.goto(`${page.url().match(/.*\/c\/\d+/)![0]}/school/children`)
    await expect(page.getByRole('listitem').filter({ hasText: 'Amina Yusuf' })).toContainText('Kept until')
    await expect(page.locator('.from > label select')).toHaveCount(3)
    for (const box of await page.locator('.from > label select').all())
      await box.selectOption({ label: 'away from the school' })
    await expect(page.getByText('0 stay, 7 leave.')).toBeVisible()
    await page.getByRole('button', { name: 'Begin the new year' }).click()
    await expect(page.getByText('The new year has begun.')).toBeVisible()
  })

  await test.step('September: whose time is over is erased, from the file, too', async () => {
    page = await itIs('2028-09-13T08:00:00', browser, faults)
    await signIn(page, EMAIL, password)
    await page.goto(`${page.url().match(/.*\/c\/\d+/)![0]}/school/children`)
    const due = page.getByRole('listitem').filter({ hasText: 'Amina Yusuf' })
    await expect(due).toContainText('is it still needed?')
    expect(standsInData('zebra crossing')).toBe(true)
    await page.getByRole('button', { name: 'Erase Amina Yusuf' }).click()
    await page.getByLabel('Its whole name, once more').fill('Amina Yusuf')
    await page.getByRole('button', { name: 'Erase for good' }).click()
    await expect(page.getByText('Everything about the child is gone.')).toBeVisible()
    await expect(due).toHaveCount(0)
    await server.end()
    for (const text of ['zebra crossing', 'Yusuf']) expect(standsInData(text), text).toBe(false)
  })
  expect(faults).toEqual([])
})
