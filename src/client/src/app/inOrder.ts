/**
 * Does one thing after another, in the order they were asked for: of two taps on one choice the second is never
 * overtaken by the first, and what is sent is put together when it goes, from what the one before it has left.
 * Gives what is done with a deed: whether it was the last that waited. An error is its own only.
 */
export function inOrder() {
  let before: Promise<unknown> = Promise.resolve()
  return async (deed: () => Promise<unknown>): Promise<boolean> => {
    const mine = before.catch(() => {}).then(deed)
    before = mine
    await mine
    return before === mine
  }
}
