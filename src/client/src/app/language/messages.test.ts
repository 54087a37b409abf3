import { baseCompile } from '@intlify/message-compiler'
import { expect, it } from 'vitest'
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

// A text is its own message: a brace, an @ or a | that is not escaped would be taken for something else.
it('is a message that can be read, each', () => {
  const faults: string[] = []
  for (const text of texts) baseCompile(text, { onError: (fault) => faults.push(`${text}: ${fault.message}`) })
  expect(faults).toEqual([])
})
