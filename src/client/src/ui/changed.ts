import { ref } from 'vue'
import { Changed } from '@/app/api/client'

interface Offer {
  sentence: string
  changes: string[]
  answer: (again: boolean) => void
}

/** What is asked just now; the dialog that shows it stands in the shell. */
export const offer = ref<Offer>()

export function answerOffer(again: boolean) {
  const asked = offer.value
  offer.value = undefined
  asked?.answer(again)
}

const ask = (changed: Changed) =>
  new Promise<boolean>((answer) => (offer.value = { sentence: changed.message, changes: changed.changes, answer }))

/**
 * Sends something that rests on what the page shows. Where somebody else was faster, what is shown is read anew, what has changed is told, and it is
 * offered again on top of that.
 * @param send reads the version it rests on when it is called.
 * @param refresh reads anew what it rests on.
 * @returns the answer; undefined where the adult leaves it as it is now.
 */
export async function decide<T>(send: () => Promise<T>, refresh: () => Promise<unknown>): Promise<T | undefined> {
  try {
    return await send()
  } catch (error) {
    if (!(error instanceof Changed)) throw error
    await refresh()
    return (await ask(error)) ? decide(send, refresh) : undefined
  }
}
