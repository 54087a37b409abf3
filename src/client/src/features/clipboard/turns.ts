import type { Schemas } from '@/app/api/client'

/** Something recorded in this session; `until` is set while it can be undone. */
export interface Marked {
  id: string
  support: Schemas['Support']
  numbers: string | null
  slip?: string | null
  strategy?: string | null
  note?: string | null
  photo?: boolean
  /** Another adult's first name, where it is not one's own. */
  by?: string
  until?: number
}

/** The numbers a child has next: the card's items go round the table, a turn each, and begin again when they are used up. */
export function turnOf(
  items: Schemas['Item'][],
  place: number,
  turns: number,
  children: number,
): Schemas['Item'] | undefined {
  return items[(place + turns * children) % items.length]
}
