const names = ['not seen', 'tried', 'with a prompt', 'nearly', 'secure', 'kept']

/** A mark in words, for those who hear the page. */
export function markWords(strength: number, lookAgain = false, ready = false, inferred = false): string {
  const words = [inferred && strength === 0 ? 'likely there, not seen yet' : (names[strength] ?? 'not seen')]
  if (lookAgain) words.push('look again')
  if (ready && strength < 4) words.push('ready')
  return words.join(', ')
}

export const strengthName = (strength: number) => names[strength] ?? ''

/** Support levels in the order in which they are offered. */
export const supports = [
  { value: 'Alone', label: 'Alone', key: 'a' },
  { value: 'Prompted', label: 'Prompted', key: 's' },
  { value: 'Together', label: 'Together', key: 'd' },
  { value: 'NotYet', label: 'Not yet', key: 'f' },
] as const

export type SupportValue = (typeof supports)[number]['value']

export const supportLabel = (value: string) => supports.find((s) => s.value === value)?.label ?? value

const representations: Record<string, string> = {
  Objects: 'objects',
  Fingers: 'fingers',
  Picture: 'drawing',
  Spoken: 'words',
  Symbols: 'numerals',
}
export const representationLabel = (value: string) => representations[value] ?? value

const settings: Record<string, string> = {
  Carpet: 'carpet',
  Group: 'group',
  Choice: 'choice time',
  OneToOne: 'one to one',
  Baseline: 'baseline check',
}
export const settingLabel = (value: string) => settings[value] ?? value
