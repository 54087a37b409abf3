import { describe, expect, it } from 'vitest'
import { everywhere, ofPage } from './keys'
import { find, type Found } from './find'

const at = (kind: string, label: string): Found => ({ kind, label, to: { name: 'x', params: {} } })
const all = [
  at('Child', 'Zoë M.'),
  at('Child', 'Ana\u00a0Si.'),
  at('Skill', 'Say to five'),
  at('Skill', 'See to five'),
  at('Activity', 'Five, say it'),
  at('Child', 'مريم ا.'),
  at('Child', 'Ганна Ш.'),
]
const labels = (wanted: string) => find(all, wanted).map((f) => f.label)

describe('finding', () => {
  it('goes by beginnings of words, whatever their case and accents', () => {
    expect(labels('zoe')).toEqual(['Zoë M.'])
    expect(labels('FIVE s')).toEqual(['Five, say it', 'Say to five', 'See to five'])
    expect(labels('ive')).toEqual([])
  })
  it('takes a space for what keeps a name and its initial together', () => {
    expect(labels('ana si')).toEqual(['Ana\u00a0Si.'])
  })
  it('finds names of other scripts', () => {
    expect(labels('مر')).toEqual(['مريم ا.'])
    expect(labels('ган')).toEqual(['Ганна Ш.'])
  })
  it('finds nothing before something is looked for, and never more than fits', () => {
    expect(labels('  ')).toEqual([])
    expect(
      find(
        Array.from({ length: 50 }, () => at('Skill', 'Say')),
        'sa',
      ),
    ).toHaveLength(12)
  })
})

describe('keys', () => {
  it('mean one thing everywhere: no page gives a key of all pages another meaning, and a letter records the same', () => {
    const general = everywhere.map((k) => k.key)
    const meaning = new Map<string, string>()
    for (const { key, does } of Object.values(ofPage).flat()) {
      expect(general).not.toContain(key)
      if (/^[A-Z]$/.test(key)) expect(meaning.get(key) ?? does).toBe(does)
      meaning.set(key, does)
    }
  })
})
