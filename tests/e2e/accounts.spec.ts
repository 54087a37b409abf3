import { execFileSync } from 'node:child_process'
import { createHmac } from 'node:crypto'
import { fileURLToPath } from 'node:url'
import { expect, test, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { startServer, type RunningServer, FIRST_CODE } from './server'

// One after the other, in one school.
test.describe.configure({ mode: 'serial' })

// A password that is lost, and a tablet that is: both are got over without anybody else's help, and what was open there opens nothing more.
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer({ demo: false, now: '2026-11-25T08:00:00' })
})
test.afterAll(() => server.stop())

const EMAIL = 'rosalind@kettle-lane.example'

async function signIn(page: Page, password: string, email = EMAIL) {
  await page.goto(`${server.url}/sign-in`)
  await page.getByLabel('E-mail').fill(email)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
}

/** What whoever keeps the school's server types, and hands on. */
function linkOfTheServer() {
  const said = execFileSync('dotnet', ['bin/Release/net10.0/Fobble.Server.dll', 'password', EMAIL], {
    cwd: fileURLToPath(new URL('../../src/Fobble.Server/', import.meta.url)),
    env: { ...process.env, Fobble__Data: server.data },
    encoding: 'utf8',
  })
  return said.split('\n').find((line) => line.startsWith('/new-password#'))!
}

test('a lost password and a lost tablet', async ({ page, browser }) => {
  await page.goto(server.url)
  await page.getByLabel('Code', { exact: false }).fill(FIRST_CODE)
  await page.getByLabel('Your name').fill('Rosalind Achterberg')
  await page.getByLabel('School').fill('Kettle Lane School')
  await page.getByLabel('Class', { exact: true }).fill('Willow')
  await page.getByLabel('E-mail').fill(EMAIL)
  await page.getByLabel(/Password/).fill('password1234')
  await page.getByRole('button', { name: 'Begin' }).click()
  await expect(page.getByText('This password is among those that are tried first.')).toBeVisible()
  await page.getByLabel(/Password/).fill('nine wagons uphill')
  await page.getByRole('button', { name: 'Begin' }).click()
  await expect(page.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()

  const elsewhere = await browser.newContext({ viewport: { width: 768, height: 1024 } })
  const tablet = await elsewhere.newPage()
  await signIn(tablet, 'nine wagons uphill')
  await expect(tablet.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()

  await test.step('the tablet is signed out from here', async () => {
    await page.getByRole('link', { name: 'Rosalind Achterberg' }).click()
    await expect(page.getByText('this one')).toBeVisible()
    await expectAccessible(page)
    await page.getByRole('button', { name: /^Sign out Chrome/ }).click()
    await expect(page.getByRole('button', { name: /^Sign out Chrome/ })).toHaveCount(0)
    await tablet.reload()
    await expect(tablet.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  })

  await test.step('a new password is taken once it is hard to guess', async () => {
    await page.getByLabel('The one you have').fill('nine wagons downhill')
    await page.getByLabel('The new one').fill('seven lanterns in fog')
    await page.getByRole('button', { name: 'Change it' }).click()
    await expect(page.getByText('This is not your password.')).toBeVisible()
    await page.getByLabel('The one you have').fill('nine wagons uphill')
    await page.getByRole('button', { name: 'Change it' }).click()
    await expect(page.getByText('Your password is changed.')).toBeVisible()
  })

  await test.step('lost, it is got back by a link of the school’s server, once', async () => {
    const link = linkOfTheServer()
    await tablet.goto(`${server.url}${link}`)
    await expectAccessible(tablet)
    await tablet.getByLabel(/Password/).fill('four kites over water')
    await tablet.getByRole('button', { name: 'Take it' }).click()
    await expect(tablet.getByRole('heading', { name: 'Sign in' })).toBeVisible()
    await signIn(tablet, 'seven lanterns in fog')
    await expect(tablet.getByText('Address and password do not go together.')).toBeVisible()
    await signIn(tablet, 'four kites over water')
    await expect(tablet.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()
    // Whoever had the old password is out.
    await page.reload()
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
    await page.goto(`${server.url}${link}`)
    await page.getByLabel(/Password/).fill('five trams at noon')
    await page.getByRole('button', { name: 'Take it' }).click()
    await expect(page.getByText('This link holds no more')).toBeVisible()
  })
  await elsewhere.close()
})

test('an assistant joins, leads, hands over and is taken out, and sees nothing more from then on', async ({
  page,
  browser,
}) => {
  // The other test of this file has made the school; its lead has the password of its end.
  await signIn(page, 'four kites over water')
  await expect(page.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()
  await page.goto(`${server.url}/c/1/set-up`)
  await page.getByRole('link', { name: 'Classes and adults of the school' }).click()
  await page.getByLabel('Role of Rosalind Achterberg in Willow').selectOption('Assistant')
  await expect(page.getByText('A class needs a lead teacher')).toBeVisible()
  await expect(page.getByLabel('Role of Rosalind Achterberg in Willow')).toHaveValue('LeadTeacher')
  await page.getByLabel('Name', { exact: true }).first().fill('Bertil Osei')
  await page.getByLabel('E-mail').fill('bertil@kettle-lane.example')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByText('Invited, has not come in yet.')).toBeVisible()
  // Without mail the link is handed over.
  const link = await page.locator('.once code').innerText()

  const elsewhere = await browser.newContext()
  const his = await elsewhere.newPage()
  await his.goto(link)
  await his.getByLabel('Password').fill('lanterns at dusk')
  await his.getByRole('button', { name: 'Take it' }).click()
  await expect(his.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await signIn(his, 'lanterns at dusk', 'bertil@kettle-lane.example')
  await expect(his.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()
  await page.getByRole('button', { name: 'Take Bertil Osei out of Willow' }).click()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Take out Bertil Osei' }).last().click()
  await expect(page.getByText('Bertil Osei does not see Willow any more.')).toBeVisible()
  await his.reload()
  await expect(his.getByText('There is no bead here')).toBeVisible()
  // Who leads the school hands a new password over.
  await page.getByRole('button', { name: 'A new password for Rosalind Achterberg' }).click()
  await expect(page.getByText('/new-password#')).toBeVisible()
  await elsewhere.close()
})

test('a class is made, and put into the archive, where it is read and no more written', async ({ page }) => {
  await signIn(page, 'four kites over water')
  await expect(page.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()
  await page.goto(`${server.url}/c/1/school`)
  const make = page.locator('form', { hasText: 'Begins like' })
  await make.getByLabel('Name').fill('willow')
  await make.getByLabel('Lead teacher').selectOption({ label: 'Rosalind Achterberg' })
  await make.getByRole('button', { name: 'Make the class' }).click()
  await expect(page.getByText('There is a class called willow already.')).toBeVisible()
  await make.getByLabel('Name').fill('Hazel')
  await make.getByLabel('Begins like').selectOption({ label: 'Willow' })
  await make.getByRole('button', { name: 'Make the class' }).click()
  await expect(page.getByText('Hazel is there.')).toBeVisible()

  await page.getByRole('combobox', { name: 'Class', exact: true }).selectOption({ label: 'Hazel' })
  await expect(page.getByRole('heading', { name: 'Hazel’s first hour' })).toBeVisible()
  await page.goto(`${server.url}/c/2/school`)
  await page.getByRole('button', { name: 'Into the archive' }).first().click()
  await expect(page.getByText('Hazel can be read, and no more written.')).toBeVisible()
  await expect(page.getByText('Hazel is in the archive: it can be read, and no more written.')).toBeVisible()
  await expectAccessible(page)
  await expect(page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Set-up' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Teach Hazel again' }).click()
  await expect(page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Set-up' })).toBeVisible()
})

/** What the program on the phone shows (RFC 6238), by the phone's own time. */
function codeOf(letters: string) {
  const bits = [...letters]
    .map((c) => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(c).toString(2).padStart(5, '0'))
    .join('')
  const secret = Buffer.from(bits.match(/.{8}/g)!.map((byte) => parseInt(byte, 2)))
  const span = Buffer.alloc(8)
  span.writeBigInt64BE(BigInt(Math.floor(Date.now() / 30_000)))
  const hash = createHmac('sha1', secret).update(span).digest()
  const number = hash.readUInt32BE(hash[19]! & 0xf) & 0x7fffffff
  return String(number % 1_000_000).padStart(6, '0')
}

test('a second step is put in and asked for; the phone is lost; the school is taken out', async ({ page, browser }) => {
  await signIn(page, 'four kites over water')
  await expect(page.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()
  await page.goto(`${server.url}/c/1/account`)
  const step = page.locator('section', { has: page.getByRole('heading', { name: 'A second step at sign-in' }) })
  await step.getByLabel('Your password').fill('four kites under water')
  await step.getByRole('button', { name: 'Begin' }).click()
  await expect(step.getByRole('alert')).toContainText('This is not your password.')
  await step.getByLabel('Your password').fill('four kites over water')
  await step.getByRole('button', { name: 'Begin' }).click()
  await expect(step.getByRole('img', { name: /A square for your phone/ })).toBeVisible()
  await expectAccessible(page)
  const letters = (await step.locator('code').innerText()).replaceAll(' ', '')
  await step.getByLabel('The six digits').fill('000000')
  await step.getByRole('button', { name: 'Put it in' }).click()
  await expect(step.getByRole('alert')).toContainText('This is not the code that the phone shows now.')
  await step.getByLabel('The six digits').fill(codeOf(letters))
  await step.getByRole('button', { name: 'Put it in' }).click()
  await expect(step.locator('.spare li')).toHaveCount(8)
  await expectAccessible(page)
  const spare = await step.locator('.spare li').first().innerText()
  await step.getByRole('button', { name: 'They are written down' }).click()
  await expect(step.getByText('Spare codes left: 8.')).toBeVisible()

  await test.step('elsewhere the password alone does not come in, a spare code does', async () => {
    const elsewhere = await browser.newContext()
    const tablet = await elsewhere.newPage()
    await signIn(tablet, 'four kites over water')
    const code = tablet.getByLabel('Code that your phone shows, or a spare one')
    await expect(code).toBeFocused()
    await expectAccessible(tablet)
    await code.fill('123')
    await tablet.getByRole('button', { name: 'Sign in' }).click()
    await expect(tablet.getByRole('alert')).toContainText('This code does not come in')
    await expect(code).toBeFocused()
    await code.fill(spare)
    await tablet.getByRole('button', { name: 'Sign in' }).click()
    await expect(tablet.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()
    await elsewhere.close()
  })

  await page.goto(`${server.url}/c/1/school/children`)
  await page.getByLabel('Of the whole school').fill('four kites over water')
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take the school out' }).click(),
  ])
  expect(file.suggestedFilename()).toBe('school-2026-11-25.zip')
  await expectAccessible(page)

  await page.goto(`${server.url}/c/1/school`)
  await page.getByRole('button', { name: 'Take out the second step of Rosalind Achterberg' }).click()
  await expect(page.getByText('comes in with the password alone')).toBeVisible()
})
