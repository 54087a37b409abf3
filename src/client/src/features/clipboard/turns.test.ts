import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import { turnOf } from './turns'

const items = ['a', 'b', 'c', 'd', 'e', 'f'].map((key) => ({ key }) as Schemas['Item'])

describe('turns', () => {
  it('go round the table, so that every item of the card comes up', () => {
    const keys = [0, 1].flatMap((turn) => [0, 1, 2].map((place) => turnOf(items, place, turn, 3)!.key))
    expect(keys).toEqual(['a', 'b', 'c', 'd', 'e', 'f'])
  })
  it('begin again when the card is used up', () => expect(turnOf(items, 1, 2, 3)!.key).toBe('b'))
  it('have nothing to offer on an empty card', () => expect(turnOf([], 0, 0, 3)).toBeUndefined())
})
