interface Ready {
  kind: string
  variant: string
  low: number
  high: number
  stories: string | null
}

/** Where a sheet lies ready with its numbers. */
export const placeSheets = (classId: number, { kind, variant, low, high, stories }: Ready) => ({
  name: 'sheets',
  params: { classId },
  query: { kind, variant, low, high, ...(stories ? { stories } : {}) },
})
