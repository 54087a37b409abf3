import type { Schemas } from '@/app/api/client'
import { t } from '@/app/language'

/** When in the day an activity is for, in the order of the day. */
export const places: { value: Schemas['Place']; label: string }[] = [
  { value: 'Starter', label: t('Starter') },
  { value: 'Carpet', label: t('Carpet') },
  { value: 'Group', label: t('Small group') },
  { value: 'Choice', label: t('Choice time') },
  { value: 'Transition', label: t('Change-over') },
]

export const placeLabel = (place: Schemas['Place']) => places.find((p) => p.value === place)?.label ?? place

/** Least to most children: 2–5, or 1 where they are the same. */
export const span = (least: number, most: number) => (least === most ? `${least}` : `${least}–${most}`)
