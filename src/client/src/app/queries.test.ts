import { QueryObserver } from '@tanstack/vue-query'
import { expect, it } from 'vitest'
import { Queries } from './queries'

/** Answers one after the other, each when it is told to. */
function answers() {
  const given: ((data: string) => void)[] = []
  return { given, ask: () => new Promise<string>((answer) => given.push(answer)) }
}
const turn = () => new Promise((r) => setTimeout(r))

it.each(['first', 'later'])('asks again for what was on its way when something changed: a %s answer', async (which) => {
  const queries = new Queries()
  const { given, ask } = answers()
  const seen: (string | undefined)[] = []
  const off = new QueryObserver(queries, { queryKey: ['grid'], queryFn: ask }).subscribe((r) => seen.push(r.data))
  if (which === 'later') {
    given[0]!('long before')
    await turn()
    void queries.refetchQueries()
  }
  const read = queries.invalidateQueries({ queryKey: ['grid'] })
  await turn()
  given.at(-2)!('before the change')
  given.at(-1)!('after it')
  await read
  expect(seen.at(-1)).toBe('after it')
  expect(seen).not.toContain('before the change')
  off()
})

it('leaves what only goes stale on its way', async () => {
  const queries = new Queries()
  const { given, ask } = answers()
  const off = new QueryObserver(queries, { queryKey: ['card'], queryFn: ask }).subscribe(() => {})
  await queries.invalidateQueries({ refetchType: 'none' })
  given[0]!('the card')
  await turn()
  expect([given.length, queries.getQueryData(['card'])]).toEqual([1, 'the card'])
  off()
})
