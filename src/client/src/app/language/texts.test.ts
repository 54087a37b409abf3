import { afterEach, describe, expect, it } from 'vitest'
import { speak, spokenNow, t } from '.'
import { filled, lengthened, placesOf, spelled } from './texts'

afterEach(() => speak('en-GB'))

describe('Every text', () => {
  it('is its own English, with what belongs into it', () => {
    expect(t('Groups, week of {day}', { day: '23 November' })).toBe('Groups, week of 23 November')
    expect(t('A text with a dot. And another: {a}', { a: 0 })).toBe('A text with a dot. And another: 0')
    expect(t('Set-up of {name}', { name: undefined })).toBe('Set-up of ')
  })

  it('is spelled as where the school is', async () => {
    await speak('en-US')
    expect(t('Maths lead')).toBe('Math lead')
    expect(t('Colour of {colour}', { colour: 'Ms Colour' })).toBe('Color of Ms Colour')
    expect(t('Sign in')).toBe('Sign in')
    expect(document.documentElement.lang).toBe('en-US')
    expect(spokenNow()).toBe('en-US')
  })

  it('stays English where a language has no file', async () => {
    await speak('nl')
    expect(t('Maths lead')).toBe('Maths lead')
  })

  it('shows in the trial that it has passed here', async () => {
    await speak('en-XA')
    expect(t('Look for {what}', { what: 'Ana' })).toMatch(/^⟦Look for Ana ~+⟧$/)
  })
})

it('does not look into what is filled in', () => {
  expect(filled('{a} and {b}', { a: '{b}', b: '$&' })).toBe('{b} and $&')
  expect(spelled({ colour: 'color' }, '{colour} colour')).toBe('{colour} color')
  expect(spelled({ colour: 'color' }, 'Colours')).toBe('Colours')
})

it('has its places in their order', () => {
  expect(placesOf('{term}, {day} to {day2}')).toEqual(['term', 'day', 'day2'])
  expect(
    lengthened('{n} pages of all that was printed here')
      .split(/[ ⟦⟧]/)
      .filter((w) => w.length > 10),
  ).toEqual([])
})
