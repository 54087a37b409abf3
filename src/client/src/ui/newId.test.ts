import { describe, expect, it } from 'vitest'
import { newId } from './newId'

describe('a new id', () => {
  it('is a version 4 UUID also where the browser makes none', () => {
    const uuid = crypto.randomUUID
    Object.defineProperty(crypto, 'randomUUID', { value: undefined, configurable: true })
    const ids = [newId(), newId()]
    Object.defineProperty(crypto, 'randomUUID', { value: uuid, configurable: true })
    for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
    expect(ids[0]).not.toBe(ids[1])
  })
})
