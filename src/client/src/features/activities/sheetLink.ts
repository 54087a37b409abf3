import type { Schemas } from '@/app/api/client'

/** Where the sheet of an activity lies ready. */
export const placeSheets = (classId: number, print: Schemas['ActivityPrint']) => ({
  name: 'sheets',
  params: { classId },
  query: { kind: print.kind, variant: print.variant, low: print.low, high: print.high },
})
