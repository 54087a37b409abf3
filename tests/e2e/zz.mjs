import { chromium } from '@playwright/test'
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
export const open = async (w = 1280, h = 800, who = 'Ines Okonjo', url = 'http://127.0.0.1:5301') => {
  const page = await (await b.newContext({ viewport: { width: w, height: h }, locale: 'en-GB', timezoneId: 'UTC', serviceWorkers: 'block' })).newPage()
  await page.clock.install({ time: new Date('2026-11-25T08:00:00Z') })
  page.on('console', (m) => m.type() === 'error' && console.log('ERR', m.text()))
  page.on('pageerror', (e) => console.log('PAGEERR', e.message))
  if (who) { await page.goto(url + '/sign-in'); await page.getByRole('button', { name: who }).click(); await page.waitForURL(/\/c\//) }
  return page
}
export const shot = (page, name, full = false) => page.screenshot({ path: `/var/tmp/shots/${name}.png`, fullPage: full })
export const done = () => b.close()
