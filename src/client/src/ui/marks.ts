import { t } from '@/app/language'
const names = [t('not seen'), t('tried'), t('with a prompt'), t('nearly'), t('secure'), t('kept')]

/** A mark in words, for those who hear the page. */
export function markWords(strength: number, lookAgain = false, ready = false, inferred = false): string {
  const words = [inferred && strength === 0 ? t('likely there, not seen yet') : (names[strength] ?? t('not seen'))]
  if (lookAgain) words.push(t('look again'))
  if (ready && strength < 4) words.push(t('ready'))
  return words.join(', ')
}

export const strengthName = (strength: number) => names[strength] ?? ''

/** Support levels in the order in which they are offered. */
export const supports = [
  { value: 'Alone', label: t('Alone'), key: 'a' },
  { value: 'Prompted', label: t('Prompted'), key: 's' },
  { value: 'Together', label: t('Together'), key: 'd' },
  { value: 'NotYet', label: t('Not yet'), key: 'f' },
] as const

export type SupportValue = (typeof supports)[number]['value']

export const supportLabel = (value: string) => supports.find((s) => s.value === value)?.label ?? value

const representations: Record<string, string> = {
  Objects: t('objects'),
  Fingers: t('fingers'),
  Picture: t('drawing'),
  Spoken: t('words'),
  Symbols: t('numerals'),
}
export const representationLabel = (value: string) => representations[value] ?? value

const settings: Record<string, string> = {
  Carpet: t('carpet'),
  Group: t('group'),
  Choice: t('choice time'),
  OneToOne: t('one to one'),
  Baseline: t('baseline check'),
}
export const settingLabel = (value: string) => settings[value] ?? value
