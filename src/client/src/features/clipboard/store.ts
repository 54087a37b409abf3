import { openDB, type DBSchema } from 'idb'
import type { Aside, Entry, Observation, Store } from './outbox'

interface Stored extends DBSchema {
  entries: { key: string; value: Entry }
  aside: { key: string; value: Aside }
}

/** A tap as the first version of the application kept it, with its photo inside. */
interface FirstTap {
  classId: number
  adultId: number
  what: string
  body: Observation
  photo?: Blob
  made: number
  sendAt: number
}
function entriesOf({ photo, body, ...rest }: FirstTap): Entry[] {
  const tap: Entry = { kind: 'tap', id: body.id, body, ...rest }
  return photo
    ? [tap, { ...rest, kind: 'photo', id: `${body.id}/photo`, of: body.id, photo, made: rest.made + 1 }]
    : [tap]
}

/** The browser's own database: outlives a closed page, a restart, and an update of the application. */
export function openStore(name = 'fobble'): Store {
  const db = openDB<Stored>(name, 2, {
    async upgrade(fresh, from, _, transaction) {
      fresh.createObjectStore('entries', { keyPath: 'id' })
      if (from < 1) {
        fresh.createObjectStore('aside', { keyPath: 'entry.id' })
        return
      }
      // What was tapped before the update is not lost by it.
      const old = transaction as unknown as {
        objectStore(name: string): { getAll(): Promise<unknown[]>; put(value: unknown): Promise<unknown> }
      }
      const taps = (await old.objectStore('taps').getAll()) as FirstTap[]
      const aside = (await old.objectStore('aside').getAll()) as { tap: FirstTap; why: string; fields: string[] }[]
      fresh.deleteObjectStore('taps' as never)
      fresh.deleteObjectStore('aside')
      fresh.createObjectStore('aside', { keyPath: 'entry.id' })
      for (const entry of taps.flatMap(entriesOf)) await old.objectStore('entries').put(entry)
      for (const { tap, why, fields } of aside) {
        const [entry, photo] = entriesOf(tap)
        await old.objectStore('aside').put({ entry, why, fields })
        if (photo) await old.objectStore('entries').put(photo)
      }
    },
  })
  return {
    async load() {
      const both = (await db).transaction(['entries', 'aside'])
      const [entries, aside] = await Promise.all([
        both.objectStore('entries').getAll(),
        both.objectStore('aside').getAll(),
      ])
      return { entries: entries.sort((a, b) => a.made - b.made), aside }
    },
    put: async (entry) => void (await (await db).put('entries', entry)),
    remove: async (id) => (await db).delete('entries', id),
    async move(aside) {
      // Both at once: an entry is never in neither place.
      const both = (await db).transaction(['entries', 'aside'], 'readwrite')
      await Promise.all([
        both.objectStore('entries').delete(aside.entry.id),
        both.objectStore('aside').put(aside),
        both.done,
      ])
    },
    async back(entry) {
      const both = (await db).transaction(['entries', 'aside'], 'readwrite')
      await Promise.all([both.objectStore('aside').delete(entry.id), both.objectStore('entries').put(entry), both.done])
    },
    drop: async (id) => (await db).delete('aside', id),
  }
}
