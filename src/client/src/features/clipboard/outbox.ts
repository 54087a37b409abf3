import { computed, ref } from 'vue'
import { Refused, type Schemas } from '@/app/api/client'

export type Observation = Schemas['NewObservation']

export interface Tap {
  classId: number
  body: Observation
  /** Not sent before this moment (ms), so that it can be undone and a slip added. */
  sendAt: number
}

export interface Store {
  getItem(key: string): string | null
  setItem(key: string, value: string): void
}

const KEY = 'fobble.taps'

/**
 * Taps on their way to the server. Each is kept in the browser's store from the moment it is made until the server has it, so that
 * neither a lost network nor a closed page loses one; its id makes sending it twice harmless.
 */
export function makeOutbox(send: (tap: Tap) => Promise<void>, store: Store, now: () => number = Date.now) {
  const taps = ref<Tap[]>(read(store))
  const refused = ref<{ tap: Tap; why: string }[]>([])
  const trouble = ref('')
  let sending: Promise<void> | undefined

  const save = () => store.setItem(KEY, JSON.stringify(taps.value))
  const find = (id: string) => taps.value.find((t) => t.body.id === id)
  const remove = (id: string) => {
    taps.value = taps.value.filter((t) => t.body.id !== id)
    save()
  }

  async function sendDue() {
    for (let tap = due(); tap; tap = due()) {
      try {
        await send(tap)
        trouble.value = ''
        remove(tap.body.id)
      } catch (error) {
        // Signed out or no network: it waits. Anything else the server will never take, so it is shown instead of tried for ever.
        if (!(error instanceof Refused) || error.status === 401 || error.status >= 500) {
          trouble.value = error instanceof Refused ? error.message : 'No network just now.'
          return
        }
        remove(tap.body.id)
        refused.value.push({ tap, why: error.message })
      }
    }
  }
  const due = () => taps.value.find((t) => t.sendAt <= now())

  return {
    waiting: computed(() => taps.value.length),
    trouble,
    refused,
    add(tap: Tap) {
      taps.value.push(tap)
      save()
    },
    /** Adds to a tap that is still here; false if it has gone. */
    amend(id: string, more: Partial<Observation>): boolean {
      const tap = find(id)
      if (!tap) return false
      Object.assign(tap.body, more)
      save()
      return true
    },
    /** Takes a tap back; false if it has gone already. */
    undo(id: string): boolean {
      const here = find(id) !== undefined
      remove(id)
      return here
    },
    holds: (id: string) => find(id) !== undefined,
    /** Sends what is due, one after the other; a second call while one is under way joins it. */
    flush(all = false): Promise<void> {
      if (all) taps.value.forEach((t) => (t.sendAt = 0))
      return (sending ??= sendDue().finally(() => (sending = undefined)))
    },
  }
}

function read(store: Store): Tap[] {
  try {
    const kept: unknown = JSON.parse(store.getItem(KEY) ?? '[]')
    return Array.isArray(kept) ? (kept as Tap[]) : []
  } catch {
    return []
  }
}
