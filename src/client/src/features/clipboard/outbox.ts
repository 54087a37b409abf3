import { computed, ref, toRaw } from 'vue'
import { Refused, type Schemas } from '@/app/api/client'

export type Observation = Schemas['NewObservation']

export interface Tap {
  classId: number
  /** Who tapped: it is sent in nobody else's name. */
  adultId: number
  /** Child and skill in words, for when it has to be decided upon. */
  what: string
  body: Observation
  photo?: Blob
  /** When it was tapped (ms): the order in which taps are sent. */
  made: number
  /** Not sent before this moment (ms), so that it can be undone and a slip added. */
  sendAt: number
}

/** A tap that the server will not take as it is, kept until an adult has decided. */
export interface Aside {
  tap: Tap
  why: string
  fields: string[]
}

/** Where taps are kept between now and the server's answer. */
export interface Shelf {
  load(): Promise<{ taps: Tap[]; aside: Aside[] }>
  put(tap: Tap): Promise<void>
  remove(id: string): Promise<void>
  /** From the taps to those set aside, or back, in one step. */
  move(aside: Aside): Promise<void>
  back(tap: Tap): Promise<void>
  drop(id: string): Promise<void>
}

export interface Surroundings {
  send(tap: Tap): Promise<void>
  shelf: Shelf
  now?: () => number
  /** The adult who is signed in; undefined for nobody. */
  me: () => number | undefined
  /** Runs something in one tab at a time. */
  alone?: (run: () => Promise<void>) => Promise<void>
  /** Tells the other tabs that the shelf has changed. */
  changed?: () => void
}

/**
 * Taps on their way to the server. Each is kept in the browser's database from the moment it is made until the server has it, so that
 * neither a lost network nor a closed page nor a restart loses one; its id makes sending it twice harmless.
 */
export function makeOutbox({ send, shelf, now = Date.now, me, alone = (run) => run(), changed }: Surroundings) {
  const taps = ref<Tap[]>([])
  const aside = ref<Aside[]>([])
  const trouble = ref('')
  let sending: Promise<void> | undefined
  let loaded: Promise<void> | undefined

  const find = (id: string) => taps.value.find((t) => t.body.id === id)
  const bare = (tap: Tap): Tap => ({ ...toRaw(tap), body: { ...toRaw(tap.body) } })
  const forget = (id: string) => (taps.value = taps.value.filter((t) => t.body.id !== id))
  const keep = (work: Promise<void>) =>
    work.then(
      () => changed?.(),
      () => void (trouble.value = 'This browser cannot keep taps: leave the page open until they are sent.'),
    )

  async function read() {
    const kept = await shelf.load().catch(() => undefined)
    if (!kept) return
    // What was tapped since the page was opened is here already, and newer.
    const here = new Map(taps.value.map((t) => [t.body.id, t]))
    taps.value = [...kept.taps.map((t) => here.get(t.body.id) ?? t), ...unsaved(kept.taps)].sort(
      (a, b) => a.made - b.made,
    )
    aside.value = kept.aside
  }
  const saving = new Set<string>()
  const unsaved = (kept: Tap[]) => taps.value.filter((t) => saving.has(t.body.id) && !kept.includes(t))

  async function save(tap: Tap) {
    saving.add(tap.body.id)
    await keep(shelf.put(bare(tap)))
    saving.delete(tap.body.id)
  }

  const mine = (tap: Tap) => tap.adultId === me()
  const due = () => taps.value.find((t) => t.sendAt <= now() && mine(t))

  async function sendDue() {
    await (loaded ??= read())
    // Another tab may have sent some: the shelf knows.
    await read()
    for (let tap = due(); tap; tap = due()) {
      try {
        await send(bare(tap))
        trouble.value = ''
        forget(tap.body.id)
        await keep(shelf.remove(tap.body.id))
      } catch (error) {
        // Signed out or no network: it waits. Anything else the server will never take as it is, so an adult decides.
        if (!(error instanceof Refused) || [401, 408, 429].includes(error.status) || error.status >= 500) {
          trouble.value =
            error instanceof Refused && error.status === 401
              ? 'You are signed out: sign in again, and they are sent.'
              : error instanceof Refused
                ? 'The server does not answer just now.'
                : 'No network just now.'
          return
        }
        const reasons = Object.values(error.fields).flat().join(' ')
        const kept = { tap: bare(tap), why: reasons || error.message, fields: Object.keys(error.fields) }
        forget(tap.body.id)
        aside.value.push(kept)
        await keep(shelf.move(kept))
      }
    }
  }

  return {
    waiting: computed(() => taps.value.length),
    /** Of these, taps of another adult on this device. */
    others: computed(() => taps.value.filter((t) => !mine(t)).length),
    taps,
    aside,
    trouble,
    /** Reads what other tabs and earlier days have left. */
    load: () => (loaded = read()),
    add(tap: Tap) {
      taps.value.push(tap)
      return save(tap)
    },
    /** Adds to a tap that is still here, and gives it more time; false if it has gone. */
    amend(id: string, more: Partial<Observation>, also: { photo?: Blob; holdUntil?: number } = {}): boolean {
      const tap = find(id)
      if (!tap) return false
      Object.assign(tap.body, more)
      if (also.photo) tap.photo = also.photo
      if (also.holdUntil) tap.sendAt = Math.max(tap.sendAt, also.holdUntil)
      void save(tap)
      return true
    },
    /** Takes a tap back; false if it has gone already. */
    undo(id: string): boolean {
      const here = find(id) !== undefined
      forget(id)
      if (here) void keep(shelf.remove(id))
      return here
    },
    holds: (id: string) => find(id) !== undefined,
    /** Tries one that was set aside again, changed if need be. */
    async retry(id: string, more: Partial<Observation> = {}) {
      const kept = aside.value.find((a) => a.tap.body.id === id)
      if (!kept) return
      const tap = bare(kept.tap)
      Object.assign(tap.body, more)
      tap.sendAt = 0
      aside.value = aside.value.filter((a) => a !== kept)
      taps.value.push(tap)
      await keep(shelf.back(tap))
      await this.flush()
    },
    /** An adult has decided against it. */
    async drop(id: string) {
      aside.value = aside.value.filter((a) => a.tap.body.id !== id)
      await keep(shelf.drop(id))
    },
    /** Sends what is due, one after the other; a second call while one is under way joins it, and one for all then goes on with the rest. */
    flush(all = false): Promise<void> {
      if (all) taps.value.forEach((t) => (t.sendAt = 0))
      const run = () => (sending ??= alone(sendDue).finally(() => (sending = undefined)))
      return all && sending ? sending.then(run) : run()
    },
  }
}
