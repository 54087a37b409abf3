import AxeBuilder from '@axe-core/playwright'
import { expect, type Page } from '@playwright/test'

/** No breach of WCAG 2.1 A or AA that axe can find on the screen as it stands. */
export async function expectAccessible(page: Page) {
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']).analyze()
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`)).toEqual([])
}
