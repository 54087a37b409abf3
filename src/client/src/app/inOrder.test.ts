import { expect, it } from 'vitest'
import { inOrder } from './inOrder'

const slowThenFast = () => {
  const [done, order] = [[] as string[], inOrder()]
  const deed = (name: string, wait: number) =>
    order(async () => {
      await new Promise((r) => setTimeout(r, wait))
      done.push(name)
      if (name === 'refused') throw new Error('refused')
    })
  return { done, deed }
}

it('does them in the order they were asked for, however long each takes', async () => {
  const { done, deed } = slowThenFast()
  const last = await Promise.all([deed('first', 30), deed('second', 10), deed('third', 0)])
  expect(done).toEqual(['first', 'second', 'third'])
  expect(last).toEqual([false, false, true])
})

it('goes on after one that is refused, and tells only the one who asked', async () => {
  const { done, deed } = slowThenFast()
  const refused = deed('refused', 10)
  const next = deed('next', 0)
  await expect(refused).rejects.toThrow('refused')
  await next
  expect(done).toEqual(['refused', 'next'])
})
