import { expect, it } from 'vitest'
import { supports } from '@/ui/marks'

const sources = Object.values(import.meta.glob<string>('./*.vue', { query: '?raw', import: 'default', eager: true }))

// Who records with a hand on the keys goes on to a mat and back: a letter that says how a child did does nothing else there.
it('leaves the letters that record alone', () => {
  const letters = sources.flatMap((source) => [
    ...[...source.matchAll(/\bkey: '(\w)'/g)].map((m) => m[1]!),
    ...[...source.matchAll(/[{,]\s*(\w): (?:\$?t\(|shakes|\(\) =>)/g)].map((m) => m[1]!),
  ])
  expect(new Set(letters)).toEqual(
    new Set(['1', '2', 'b', 'c', 'e', 'h', 'k', 'l', 'm', 'n', 'o', 'r', 't', 'u', 'x', 'z']),
  )
  expect(letters.filter((letter) => supports.some((s) => s.key === letter))).toEqual([])
})
