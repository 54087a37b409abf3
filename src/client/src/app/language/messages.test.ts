import { expect, it } from 'vitest'
import { placesOf } from './texts'
import { textsOfClient, textsOfServer } from '../../../messages.mjs'

const sources = import.meta.glob<string>(['/src/**/*.{vue,ts}', '!/src/**/*.test.ts'], {
  query: '?raw',
  import: 'default',
  eager: true,
})
const texts = [...new Set(Object.values(sources).flatMap(textsOfClient))]

it('finds what there is to translate', () => {
  expect(texts).toContain('Sign in')
  expect(texts).toContain('Groups, week of {day}')
  expect(texts.length).toBeGreaterThan(1200)
  expect(textsOfServer(`Phrase($"{names.Child(c)} {(n == 1 ? "is" : "are")} away on {Words.Date(day)}") + Words.Count(n, "child", "children")`)).toEqual([
    '{0} {1} away on {2}', 'is', 'are', 'child', 'children',
  ]) // prettier-ignore
})

// A text is its own message: each brace is a place with a name, and each place is there once.
it('is a message that can be read, each', () => {
  for (const text of texts) {
    expect(text.replace(/\{\w+\}/g, ''), text).not.toMatch(/[{}]/)
    expect(new Set(placesOf(text)).size, text).toBe(placesOf(text).length)
  }
})
