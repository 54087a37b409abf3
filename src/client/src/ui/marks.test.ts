import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import MarkFrame from './MarkFrame.vue'
import { markWords, supports } from './marks'

describe('marks', () => {
  it('can be heard', () => {
    expect(markWords(0)).toBe('not seen')
    expect(markWords(3, true, true)).toBe('nearly, look again, ready')
    expect(markWords(5, false, true)).toBe('kept')
  })
  it('are one picture with words, or silent beside words that are there', () => {
    expect(mount(MarkFrame, { props: { strength: 4 } }).attributes()).toMatchObject({
      role: 'img',
      'aria-label': 'secure',
    })
    expect(mount(MarkFrame, { props: { strength: 4, silent: true } }).attributes('role')).toBeUndefined()
  })
  it('carry strength, look again and ready as classes', () => {
    expect(mount(MarkFrame, { props: { strength: 2, lookAgain: true, ready: true } }).classes()).toEqual([
      'mark',
      's2',
      'again',
      'ready',
    ])
    expect(mount(MarkFrame, { props: { strength: 5, ready: true } }).classes()).not.toContain('ready')
  })
  it('are recorded with four keys side by side', () => expect(supports.map((s) => s.key).join('')).toBe('asdf'))
})
