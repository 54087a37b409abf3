import { spokenNow, t } from '@/app/language'
/** Ways of writing days, each told by a day written so and by where it is usual. */
const sample = new Date('2026-11-25T12:00:00Z')
const regions = new Intl.DisplayNames(spokenNow(), { type: 'region' })
const written = (locale: string) => new Intl.DateTimeFormat(locale, { timeZone: 'UTC' }).format(sample)

export const waysOfWriting = (locales: readonly string[]) =>
  locales.map((tag) => ({
    tag,
    label: t('{written}, as in {of}', { written: written(tag), of: regions.of(tag.split('-')[1]!) }),
  }))
