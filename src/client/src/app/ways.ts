/** Ways of writing days, each told by a day written so and by where it is usual. */
const sample = new Date('2026-11-25T12:00:00Z')
const regions = new Intl.DisplayNames('en', { type: 'region' })
const written = (locale: string) => new Intl.DateTimeFormat(locale, { timeZone: 'UTC' }).format(sample)

export const waysOfWriting = (locales: readonly string[]) =>
  locales.map((tag) => ({ tag, label: `${written(tag)}, as in ${regions.of(tag.split('-')[1]!)}` }))
