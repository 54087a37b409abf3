/** A message bracketed and half as long again, what is filled in left alone. */
export function lengthened(message: string) {
  const letters = message.replace(/\{[^}]*\}/g, '').length
  return `⟦${message} ${'~'.repeat(Math.max(1, Math.ceil(letters / 2)))}⟧`
}
