/** The query of an address; what is not chosen is left out. */
export function addressOf(asked: Record<string, string | number | undefined>) {
  const chosen = Object.entries(asked).filter(([, value]) => value !== undefined && value !== '')
  return new URLSearchParams(chosen.map(([key, value]) => [key, String(value)])).toString()
}
