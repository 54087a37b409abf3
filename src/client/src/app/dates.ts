/** Days travel as 2026-11-25; these read and write them without any time zone. No day (yet) gives no text. */
const asDate = (day: string) => new Date(`${day}T12:00:00Z`)
const asDay = (date: Date) => date.toISOString().slice(0, 10)

export const addDays = (day: string, days: number) =>
  day ? asDay(new Date(asDate(day).getTime() + days * 86_400_000)) : ''

export function mondayOf(day: string): string {
  return day && addDays(day, -((asDate(day).getUTCDay() + 6) % 7))
}

const format = (options: Intl.DateTimeFormatOptions) => {
  const formatter = new Intl.DateTimeFormat('en-GB', { ...options, timeZone: 'UTC' })
  return (day: string) => (day ? formatter.format(asDate(day)) : '')
}

export const weekday = format({ weekday: 'long' })
export const shortWeekday = format({ weekday: 'short' })
export const dayAndMonth = format({ day: 'numeric', month: 'long' })
export const shortDay = format({ weekday: 'short', day: 'numeric', month: 'short' })
export const shortMonth = format({ month: 'short' })
export const dayOfMonth = format({ day: 'numeric' })
export const fullDay = format({ weekday: 'long', day: 'numeric', month: 'long' })

/** 09:40:00 as 9:40. */
export const clock = (time: string) => time.slice(0, 5).replace(/^0/, '')

export function moment(at: string): string {
  return new Date(at).toLocaleString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  })
}
