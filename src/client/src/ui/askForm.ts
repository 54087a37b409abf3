import type { InjectionKey, Ref } from 'vue'
import { t } from '@/app/language'

/** What is wrong in a form, by the names of its fields. */
export type Faults = Record<string, string[]>

/** What a form keeps for the fields in it. */
export interface AskedForm {
  faults: Ref<Faults>
  /** Those that can show what is wrong with them. */
  fields: Map<string, () => HTMLElement | null>
}
export const askedForm: InjectionKey<AskedForm> = Symbol('form')

type Control = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement

export const controlIn = (field: HTMLElement | null) => field?.querySelector<Control>('input, select, textarea') ?? null

/** What the page itself can see to be wrong with a field, in the words of the school; null where nothing is. */
export function wrongWith(control: Control): string | null {
  const { validity } = control
  if (validity.valid) return null
  const { min, max } = control as HTMLInputElement
  if (validity.badInput) return t('This is no number.')
  if (validity.valueMissing) return t('This is still missing.')
  if (validity.rangeUnderflow) return t('It is {min} at least.', { min })
  if (validity.rangeOverflow) return t('It is {max} at most.', { max })
  if (validity.typeMismatch) return t('This is no e-mail address.')
  return t('This can’t be read.')
}
