import { openDB, type DBSchema } from 'idb'
import type { Aside, Shelf, Tap } from './outbox'

interface Stored extends DBSchema {
  taps: { key: string; value: Tap }
  aside: { key: string; value: Aside }
}

/** The browser's own database: outlives a closed page, a restart, and an update of the application. */
export function openShelf(name = 'fobble'): Shelf {
  const db = openDB<Stored>(name, 1, {
    upgrade(fresh) {
      fresh.createObjectStore('taps', { keyPath: 'body.id' })
      fresh.createObjectStore('aside', { keyPath: 'tap.body.id' })
    },
  })
  return {
    async load() {
      const both = (await db).transaction(['taps', 'aside'])
      const [taps, aside] = await Promise.all([both.objectStore('taps').getAll(), both.objectStore('aside').getAll()])
      return { taps: taps.sort((a, b) => a.made - b.made), aside }
    },
    put: async (tap) => void (await (await db).put('taps', tap)),
    remove: async (id) => (await db).delete('taps', id),
    async move(aside) {
      // Both at once: a tap is never in neither place.
      const both = (await db).transaction(['taps', 'aside'], 'readwrite')
      await Promise.all([
        both.objectStore('taps').delete(aside.tap.body.id),
        both.objectStore('aside').put(aside),
        both.done,
      ])
    },
    async back(tap) {
      const both = (await db).transaction(['taps', 'aside'], 'readwrite')
      await Promise.all([both.objectStore('aside').delete(tap.body.id), both.objectStore('taps').put(tap), both.done])
    },
    drop: async (id) => (await db).delete('aside', id),
  }
}
