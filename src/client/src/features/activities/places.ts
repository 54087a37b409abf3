import type { Schemas } from '@/app/api/client'

/** When in the day an activity is for, in the order of the day. */
export const places: { value: Schemas['Place']; label: string }[] = [
  { value: 'Starter', label: 'Starter' },
  { value: 'Carpet', label: 'Carpet' },
  { value: 'Group', label: 'Small group' },
  { value: 'Choice', label: 'Choice time' },
  { value: 'Transition', label: 'Change-over' },
]

export const placeLabel = (place: Schemas['Place']) => places.find((p) => p.value === place)?.label ?? place

/** Least to most children: 2–5, or 1 where they are the same. */
export const span = (least: number, most: number) => (least === most ? `${least}` : `${least}–${most}`)
