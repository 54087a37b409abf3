/** Things marked on a drawing, as they stand in an address: their numbers between commas. */
export const marksOf = (list: string) => list.split(',').filter(Boolean).map(Number)

/** The list with a thing on it if it was off, and off if it was on; in order, so that the same marks are the same address. */
export function toggled(list: string, thing: number) {
  const marks = marksOf(list)
  const now = marks.includes(thing) ? marks.filter((n) => n !== thing) : [...marks, thing]
  return now.sort((a, b) => a - b).join(',')
}
