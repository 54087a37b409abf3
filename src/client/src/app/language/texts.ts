/** English to another language. */
export type Texts = Record<string, string>

const place = /\{(\w+)\}/g
const word = /(?<![{\p{L}])\p{L}+(?![}\p{L}])/gu
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

/** With each `{name}` replaced by what belongs there; nothing for what is not known yet. What is filled in is not looked into. */
export const filled = (message: string, values: Record<string, unknown>) =>
  message.replace(place, (_, name: string) => String(values[name] ?? ''))

/** Names of the places of a message, in their order. */
export const placesOf = (message: string) => [...message.matchAll(place)].map(([, name]) => name!)

/** Where only a word is spelled or said otherwise ("colour", "maths"), a language gives the word; what is filled in is left alone. */
export const spelled = (texts: Texts, message: string) =>
  message.replace(word, (found) => {
    const other = texts[found] ?? texts[found.toLowerCase()]
    if (!other) return found
    return found === found.toLowerCase() ? other : capital(other)
  })

// As long as a word gets.
const words = /~{1,10}/g

/** A message bracketed and half as long again, in words that can wrap. */
export function lengthened(message: string) {
  const longer = Math.max(1, Math.ceil(message.replace(place, '').length / 2))
  return `⟦${message} ${'~'.repeat(longer).match(words)!.join(' ')}⟧`
}
