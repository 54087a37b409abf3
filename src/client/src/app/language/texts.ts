/** English to another language. */
export type Texts = Record<string, string>

const word = /(?<![{\p{L}])\p{L}+(?![}\p{L}])/gu
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

/** Where only a word is spelled or said otherwise ("colour", "maths"), a language gives the word; what is filled in is left alone. Null where nothing changes. */
export function spelled(texts: Texts, message: string) {
  const said = message.replace(word, (found) => {
    const other = texts[found] ?? texts[found.toLowerCase()]
    if (!other) return found
    return found === found.toLowerCase() ? other : capital(other)
  })
  return said === message ? null : said
}

/** A message bracketed and half as long again, what is filled in left alone. */
export function lengthened(message: string) {
  return message
    .split(' | ')
    .map((form) => `⟦${form} ${filling(Math.ceil(form.replace(/\{[^}]*\}/g, '').length / 2))}⟧`)
    .join(' | ')
}

const LONGEST_WORD = 10
const filling = (letters: number) =>
  '~'
    .repeat(Math.max(1, letters))
    .match(new RegExp(`~{1,${LONGEST_WORD}}`, 'g'))!
    .join(' ')
