import { expect, type Page } from '@playwright/test'
import type { RunningServer } from './server'

/** Comes in through the demo's front door on its Wednesday. */
export async function comeInAs(page: Page, server: RunningServer, name: string) {
  await page.goto(server.url)
  await page.getByRole('button', { name }).click()
  await expect(page.getByRole('heading', { name: 'Wednesday 25 November' })).toBeVisible()
}

/** A place on the rail. */
export const goTo = (page: Page, place: string) =>
  page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: place, exact: true }).click()

/** Types a day as the school writes it, or a time, and puts the picker away. */
export async function fillDay(page: Page, label: string, text: string) {
  const field = page.getByLabel(label, { exact: true })
  await field.fill(text)
  await field.press('Escape')
}
