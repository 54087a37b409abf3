import { expect, test } from '@playwright/test'
import { expectAccessible } from './accessible'
import { DEMO_NOW } from './filled'
import { startServer, type RunningServer } from './server'
import { comeInAs, fillDay } from './visit'

// Adults come and go, and a child that has left goes for good; by mail, as it arrives in the demo's own post office.
let server: RunningServer
test.beforeAll(async () => (server = await startServer({ demo: true, now: DEMO_NOW })))
test.afterAll(() => server.stop())

test('an adult is invited by mail, loses the password, and gets back in by mail', async ({ page, browser }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await page.goto(`${server.url}/c/1/school`)
  const room = page.locator('details[open]').filter({ hasText: 'Rowan' })
  await room.getByLabel('Name', { exact: true }).fill('Bertil Osei')
  await room.getByLabel('E-mail').fill('bertil@lantern-hill.example')
  await room.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByText('A mail is on its way to Bertil Osei.')).toBeVisible()
  await expect(page.getByText('Invited, has not come in yet.')).toBeVisible()
  await expect(page.locator('.once code')).toHaveCount(0)

  const his = await (await browser.newContext()).newPage()
  await his.goto(`${server.url}/post`)
  await expectAccessible(his)
  await his.getByRole('article').filter({ hasText: 'your account' }).getByRole('link').click()
  await his.getByLabel('Password').fill('lanterns at dusk')
  await his.getByRole('button', { name: 'Take it' }).click()
  await his.getByText('Come in with a password').click()
  await expectAccessible(his)

  // Lost before it was used.
  await his.getByRole('link', { name: 'Lost your password?' }).click()
  await his.getByLabel('E-mail').fill('bertil@lantern-hill.example')
  await expectAccessible(his)
  await his.getByRole('button', { name: 'Send me a link' }).click()
  await expect(his.getByText('a mail is on its way')).toBeVisible()
  await his.goto(`${server.url}/post`)
  await his.getByRole('article').filter({ hasText: 'a new password' }).getByRole('link').click()
  await his.getByLabel('Password').fill('four kites over water')
  await his.getByRole('button', { name: 'Take it' }).click()
  await his.getByText('Come in with a password').click()
  await his.getByLabel('E-mail').fill('bertil@lantern-hill.example')
  await his.getByLabel('Password').fill('four kites over water')
  await his.getByRole('button', { name: 'Sign in' }).click()
  await expect(his.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()

  await page.reload()
  await page.getByText('Who looked, who changed what').click()
  await expect(page.getByText('Bertil Osei chose a password by a link').first()).toBeVisible()
  await expectAccessible(page)
})

test('cover is for its days, as the school writes them', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await page.goto(`${server.url}/c/1/school`)
  const room = page.locator('details[open]').filter({ hasText: 'Rowan' })
  await room.getByLabel('Name', { exact: true }).fill('Nilufar Aziz')
  await room.getByLabel('E-mail').fill('nilufar@lantern-hill.example')
  await room.getByLabel('Role', { exact: true }).selectOption('Cover')
  await fillDay(page, 'First day', '20/11/2026')
  await fillDay(page, 'Last day', '24/11/2026')
  await room.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByText('This day is over already.')).toBeVisible()
  await fillDay(page, 'First day', '26/11/2026')
  await fillDay(page, 'Last day', '27/11/2026')
  await expectAccessible(page)
  await room.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByText('Cover, 26 November to 27 November')).toBeVisible()
})

test('a child that has left is erased, once its whole name is written', async ({ page }) => {
  await comeInAs(page, server, 'Ines Okonjo')
  await page.goto(`${server.url}/c/1/class/children/1`)
  const name = await page.getByRole('heading', { level: 1 }).innerText()
  await page.getByText('Name and birthday').click()
  const whole = `${await page.getByLabel('First name').inputValue()} ${await page.getByLabel('Last name').inputValue()}`
  await page.getByText('Has left: erase').click()
  await page.getByLabel('Its whole name, once more').fill('Somebody')
  await page.getByRole('button', { name: 'Erase for good' }).click()
  await expect(page.getByText(`write its whole name: ${whole}`)).toBeVisible()
  await expectAccessible(page)
  await page.getByLabel('Its whole name, once more').fill(whole)
  await page.getByRole('button', { name: 'Erase for good' }).click()
  await expect(page.getByText(/^Erased, with \d+ observations/)).toBeVisible()
  await expect(page.getByRole('link', { name, exact: true })).toHaveCount(0)
})

test.describe('with the worker that keeps a day', () => {
  test.use({ serviceWorkers: 'allow' })
  test('signing out without a network clears the device, and the server hears of it once there is one', async ({
    page,
    context,
  }) => {
    await comeInAs(page, server, 'Tomasz Birk')
    const kept = () =>
      page.evaluate(async () => {
        if (!(await caches.has('fobble-day'))) return 0
        return (await (await caches.open('fobble-day')).keys()).length
      })
    // The worker has the page, and the day with it.
    await page.evaluate(() => navigator.serviceWorker.ready)
    await page.reload()
    await expect.poll(kept).toBeGreaterThan(0)
    const session = (await context.cookies()).find((cookie) => cookie.name === 'fobble')!

    await context.setOffline(true)
    await page.getByRole('button', { name: 'Sign out' }).click()
    await expect(page).toHaveURL(/\/sign-in/)
    expect(await kept()).toBe(0)
    await page.goto(`${server.url}/c/1/class`)
    await expect(page).toHaveURL(/\/sign-in/)
    await expect(page.getByText('Amara')).toHaveCount(0)

    await context.setOffline(false)
    await page.goto(server.url)
    await expect(page.getByRole('button', { name: 'Tomasz Birk' })).toBeVisible()
    const copied = await fetch(`${server.url}/api/classes/1/timetable`, {
      headers: { cookie: `fobble=${session.value}` },
    })
    expect(copied.status).toBe(401)
  })

  test('a session that was ended from elsewhere clears the device at the next page', async ({ page, browser }) => {
    await comeInAs(page, server, 'Tomasz Birk')
    const kept = () =>
      page.evaluate(async () =>
        (await caches.has('fobble-day')) ? (await (await caches.open('fobble-day')).keys()).length : 0,
      )
    await page.evaluate(() => navigator.serviceWorker.ready)
    await page.reload()
    await expect.poll(kept).toBeGreaterThan(0)

    const elsewhere = await (await browser.newContext()).newPage()
    await comeInAs(elsewhere, server, 'Tomasz Birk')
    await elsewhere.goto(`${server.url}/c/1/account`)
    await elsewhere.getByRole('button', { name: 'Sign out everywhere else' }).click()
    await expect(elsewhere.getByRole('button', { name: 'Sign out everywhere else' })).toHaveCount(0)

    await page.goto(`${server.url}/c/1/class`)
    await expect(page).toHaveURL(/\/sign-in/)
    await expect.poll(kept).toBe(0)
  })
})
