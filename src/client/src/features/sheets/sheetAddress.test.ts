import { describe, expect, it } from 'vitest'
import { addressOf } from './sheetAddress'

describe('the address of a sheet', () => {
  it('says what was chosen and leaves out what was not', () =>
    expect(addressOf({ kind: 'Stories', seed: 7, on: undefined, children: '', theme: 'night-market' })).toBe(
      'kind=Stories&seed=7&theme=night-market',
    ))
  it('keeps what could be mistaken for part of it', () => expect(addressOf({ children: '3,4' })).toBe('children=3%2C4'))
})
