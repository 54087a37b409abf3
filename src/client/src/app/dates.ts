import { shallowRef } from 'vue'

/** Where the school is and how it writes dates; the tablet may be set to anything. */
const place = shallowRef({ locale: 'en-GB', timeZone: 'UTC' })
export function schoolIsAt(locale: string, timeZone: string) {
  if (place.value.locale !== locale || place.value.timeZone !== timeZone) place.value = { locale, timeZone }
}

/** Days travel as 2026-11-25; these read and write them without any time zone. No day (yet) gives no text. */
const asDate = (day: string) => new Date(`${day}T12:00:00Z`)
const asDay = (date: Date) => date.toISOString().slice(0, 10)

export const addDays = (day: string, days: number) =>
  day ? asDay(new Date(asDate(day).getTime() + days * 86_400_000)) : ''

export function mondayOf(day: string): string {
  return day && addDays(day, -((asDate(day).getUTCDay() + 6) % 7))
}

// A formatter is slow to make and quick to use; a school has one of each.
const formatters = new Map<string, Intl.DateTimeFormat>()
function formatter(options: Intl.DateTimeFormatOptions) {
  const key = `${place.value.locale} ${JSON.stringify(options)}`
  let found = formatters.get(key)
  if (!found) formatters.set(key, (found = new Intl.DateTimeFormat(place.value.locale, options)))
  return found
}
const format = (options: Intl.DateTimeFormatOptions) => (day: string) =>
  day ? formatter({ ...options, timeZone: 'UTC' }).format(asDate(day)) : ''

export const weekday = format({ weekday: 'long' })
export const shortWeekday = format({ weekday: 'short' })
export const dayAndMonth = format({ day: 'numeric', month: 'long' })
export const shortDay = format({ weekday: 'short', day: 'numeric', month: 'short' })
export const shortMonth = format({ month: 'short' })
export const dayOfMonth = format({ day: 'numeric' })
export const fullDay = format({ weekday: 'long', day: 'numeric', month: 'long' })
export const birthDay = format({ day: 'numeric', month: 'short', year: 'numeric' })

/** How a school writes a day in numbers, in the picker's own letters (yy is the whole year), and the first day of its week (0 is Sunday). */
export const dayOrder = () =>
  formatter({ day: '2-digit', month: '2-digit', year: 'numeric' })
    .formatToParts(new Date())
    .map(({ type, value }) => ({ day: 'dd', month: 'mm', year: 'yy' })[type as 'day'] ?? value)
    .join('')
const fromSunday = ['en-CA', 'en-IN', 'en-US', 'en-ZA']
export const weekBegins = () => (fromSunday.includes(place.value.locale) ? 0 : 1)

/** The days of a school's week as the server names them, and as they are said. */
export const schoolDays = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday'] as const
const week = ['Sunday', ...schoolDays, 'Saturday']
export const dayOfWeek = (name: string) => weekday(addDays('2026-11-01', week.indexOf(name)))

/** Whether the school's clocks count to twelve, as in 1:15 PM. */
export const byHalves = () => formatter({ hour: 'numeric' }).resolvedOptions().hour12 ?? false

/** 13:15:00 as 13:15, or 1:15 PM. */
export const clock = (time: string) =>
  time
    ? formatter({ hour: 'numeric', minute: '2-digit', timeZone: 'UTC' })
        .format(new Date(`2026-01-01T${time.slice(0, 5)}:00Z`))
        .replace(/^0/, '')
        .replace(/\s/, '\u00a0')
    : ''

/** The day an instant lies in where the school is, as the server writes days. */
export const dayOf = (at: string) =>
  new Intl.DateTimeFormat('en-CA', { timeZone: place.value.timeZone, dateStyle: 'short' }).format(new Date(at))

/** An instant as the school's clocks showed it. */
export function moment(at: string): string {
  const options = { weekday: 'short', day: 'numeric', month: 'short', hour: 'numeric', minute: '2-digit' } as const
  return formatter({ ...options, timeZone: place.value.timeZone }).format(new Date(at))
}
