interface Ready {
  kind: string
  variant: string
  low: number
  high: number
}

/** Where a sheet lies ready with its numbers. */
export const placeSheets = (classId: number, { kind, variant, low, high }: Ready) => ({
  name: 'sheets',
  params: { classId },
  query: { kind, variant, low, high },
})
