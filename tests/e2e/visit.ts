import { expect, type Page } from '@playwright/test'
import type { RunningServer } from './server'

/** Comes in through the demo's front door on its Wednesday. */
export async function comeInAs(page: Page, server: RunningServer, name: string) {
  await page.goto(server.url)
  await page.getByRole('button', { name }).click()
  await expect(page.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()
}

/** A place on the rail; on a narrow screen the rarer ones are behind *More*. */
export async function goTo(page: Page, place: string) {
  const places = page.getByRole('navigation', { name: 'Places' })
  const link = places.getByRole('link', { name: place, exact: true })
  const more = places.getByRole('button', { name: 'More' })
  await expect(places).toBeVisible()
  if (!(await link.isVisible()) && (await more.isVisible())) await more.click()
  await link.click()
}

/** Types a day as the school writes it, or a time, and puts the picker away. */
export async function fillDay(page: Page, label: string, text: string) {
  const field = page.getByLabel(label, { exact: true })
  await field.fill(text)
  await field.press('Escape')
}

/** One of a long list: opened, and looked for by its letters where there are many. */
export async function choose(page: Page, label: string, option: string) {
  const box = page.getByRole('combobox', { name: label, exact: true })
  await box.click()
  // This one's own list: the one before may be on its way out still.
  await expect(box).toHaveAttribute('aria-expanded', 'true')
  const list = page.locator(`[id="${await box.getAttribute('aria-controls')}"]`)
  const letters = page.locator('.p-select-overlay', { has: list }).getByPlaceholder('A few letters')
  await expect(list).toBeVisible()
  // As a hand types it: what keeps a name and its initial together is a space there.
  if (await letters.isVisible()) await letters.fill(option.replaceAll('\u00a0', ' '))
  await list.getByRole('option', { name: option, exact: true }).click()
}
