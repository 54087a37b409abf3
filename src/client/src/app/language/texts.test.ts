import { afterEach, describe, expect, it } from 'vitest'
import { language, speak, t } from '.'
import { lengthened, spelled } from './texts'

afterEach(() => speak('en-GB'))

describe('Every text', () => {
  it('is its own English, with what belongs into it', () => {
    expect(t('Groups, week of {day}', { day: '23 November' })).toBe('Groups, week of 23 November')
    expect(t('A text with a dot. And another: {a}', { a: 'x' })).toBe('A text with a dot. And another: x')
  })

  it('is spelled as where the school is', async () => {
    await speak('en-US')
    expect(t('Maths lead')).toBe('Math lead')
    expect(t('Colour of {colour}', { colour: 'Ms Colour' })).toBe('Color of Ms Colour')
    expect(t('Sign in')).toBe('Sign in')
    expect(document.documentElement.lang).toBe('en-US')
  })

  it('stays English where a language has no file', async () => {
    await speak('en-IE')
    expect(t('Maths lead')).toBe('Maths lead')
  })

  it('is taken whole in another language', async () => {
    await speak('xx')
    language.global.setLocaleMessage('xx', { 'Maths lead': 'Hoofd rekenen', '{a} of {b}': '{b}: {a}' })
    expect(t('Maths lead')).toBe('Hoofd rekenen')
    expect(t('{a} of {b}', { a: 1, b: 2 })).toBe('2: 1')
  })

  it('shows in the trial that it has passed here', async () => {
    await speak('en-XA')
    expect(t('Look for {what}', { what: 'Ana' })).toMatch(/^⟦Look for Ana ~+⟧$/)
  })
})

it('leaves names of places in a text alone', () => {
  expect(spelled({ colour: 'color' }, '{colour} colour')).toBe('{colour} color')
  expect(spelled({ colour: 'color' }, 'Colours')).toBeNull()
  expect(lengthened('{n} page | {n} pages')).toMatch(/^⟦\{n\} page ~+⟧ \| ⟦\{n\} pages ~+⟧$/)
})
