/** Something that can be gone to. */
export interface Found {
  kind: string
  label: string
  to: { name: string; params: Record<string, string | number>; query?: Record<string, string> }
}

// Accents and case do not matter when one looks for something.
const plain = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()

/** What has every word that is looked for at the beginning of one of its own, in the order given; what begins with the first word comes first. */
export function find(all: Found[], wanted: string, most = 12): Found[] {
  const words = plain(wanted).split(/\s+/).filter(Boolean)
  if (!words.length) return []
  const hits = all.filter((one) => {
    const own = plain(one.label).split(/[^\p{L}\p{N}]+/u)
    return words.every((word) => own.some((w) => w.startsWith(word)))
  })
  const first = (one: Found) => Number(!plain(one.label).startsWith(words[0]!))
  return hits.sort((a, b) => first(a) - first(b)).slice(0, most)
}
