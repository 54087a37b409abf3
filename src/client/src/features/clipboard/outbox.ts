import { computed, ref, toRaw } from 'vue'
import { Refused, type Schemas } from '@/app/api/client'
import { newId } from '@/ui/newId'
import { t } from '@/app/language'

export type Observation = Schemas['NewObservation']

interface Common {
  /** Of the entry; of a tap it is the observation's. */
  id: string
  classId: number
  /** Whose it is: it is sent in nobody else's name. */
  adultId: number
  /** Child and skill in words, for when it has to be decided upon. */
  what: string
  /** When it was made (ms): the order in which entries are sent. */
  made: number
  /** Not sent before this moment (ms), so that it can be undone and a slip added. */
  sendAt: number
  /** Somebody writes about it until then at the latest (ms): it waits, even when the page is hidden. */
  holdUntil?: number
  /** It was on its way at least once, so it may have arrived, whatever was heard since. */
  tried?: boolean
}
export interface Tap extends Common {
  kind: 'tap'
  body: Observation
}
export interface Photo extends Common {
  kind: 'photo'
  /** The observation it belongs to. */
  of: string
  photo: Blob
}
export interface Withdrawal extends Common {
  kind: 'withdrawal'
  of: string
  why: string
}
export type Entry = Tap | Photo | Withdrawal

/** An entry that the server will not take as it is, kept until an adult has decided. */
export interface Aside {
  entry: Entry
  why: string
  fields: string[]
}

/** Where entries are kept between now and the server's answer. */
export interface Store {
  load(): Promise<{ entries: Entry[]; aside: Aside[] }>
  put(entry: Entry): Promise<void>
  remove(id: string): Promise<void>
  /** From the entries to those set aside, or back, in one step. */
  move(aside: Aside): Promise<void>
  back(entry: Entry): Promise<void>
  drop(id: string): Promise<void>
}

export interface Surroundings {
  send(entry: Entry): Promise<void>
  store: Store
  now?: () => number
  /** The adult who is signed in; undefined for nobody. */
  me: () => number | undefined
  /** Runs something in one tab at a time. */
  alone?: (run: () => Promise<void>) => Promise<void>
  /** Tells the other tabs that the store has changed. */
  changed?: () => void
}

/** What is sent: what is due; when the page is hidden also what could still be undone; when it is left, also what somebody writes about. */
export type How = 'due' | 'hidden' | 'leaving'

const UNDONE = t('Undone just after it was tapped')
const MORE_SAID = t('Noted anew with more said about it')

/**
 * Taps on their way to the server, with what follows them: photos, and withdrawals of what was undone too late to be taken back. Each is kept in the
 * browser's database from the moment it is made until the server has it, so that neither a lost network nor a closed page nor a restart loses one; its id
 * makes sending it twice harmless.
 */
export function makeOutbox({ send, store, now = () => Date.now(), me, alone = (run) => run(), changed }: Surroundings) {
  const entries = ref<Entry[]>([])
  const aside = ref<Aside[]>([])
  const trouble = ref('')
  const signedOut = ref(false)
  const arrived = ref(0)
  let taken = 0
  /** Taps that this page has sent: undoing one withdraws it. */
  const sent = new Map<string, Tap>()
  let sending: Promise<void> | undefined
  let loaded: Promise<void> | undefined

  const find = (id: string) => entries.value.find((e) => e.id === id)
  const findTap = (id: string) => entries.value.find((e): e is Tap => e.kind === 'tap' && e.id === id)
  const bare = <T extends Entry>(entry: T): T =>
    entry.kind === 'tap' ? { ...toRaw(entry), body: { ...toRaw(entry.body) } } : { ...toRaw(entry) }
  const forget = (id: string) => {
    unsaved.delete(id)
    entries.value = entries.value.filter((e) => e.id !== id)
  }
  const keep = (work: Promise<void>) =>
    work.then(
      () => (changed?.(), true),
      () => {
        trouble.value = t('This browser cannot keep taps: leave the page open until they are sent.')
        return false
      },
    )

  async function read() {
    const kept = await store.load().catch(() => undefined)
    if (!kept) return
    // What was made since the page was opened is here already, and newer; that it was on its way, another tab knows.
    const here = new Map(entries.value.map((e) => [e.id, e]))
    const merged = kept.entries.map((e) => Object.assign(here.get(e.id) ?? e, e.tried ? { tried: true } : {}))
    const known = new Set(kept.entries.map((e) => e.id))
    // What is here and in the store no more, another tab has sent.
    taken += entries.value.filter((e) => !known.has(e.id) && !unsaved.has(e.id)).length
    entries.value = [...merged, ...entries.value.filter((e) => !known.has(e.id) && unsaved.has(e.id))].sort(
      (a, b) => a.made - b.made,
    )
    aside.value = kept.aside
    arrived.value = taken
  }
  /** Here only: on their way into the store, or refused by it. */
  const unsaved = new Set<string>()

  async function save(entry: Entry) {
    unsaved.add(entry.id)
    if (await keep(store.put(bare(entry)))) unsaved.delete(entry.id)
  }
  function add(entry: Entry) {
    entries.value.push(entry)
    return save(entry)
  }

  const mine = (entry: Entry) => entry.adultId === me()
  // What belongs to a tap comes after it, also where that one waits for a decision.
  const follows = (entry: Entry) =>
    entry.kind !== 'tap' && (find(entry.of) !== undefined || aside.value.some((a) => a.entry.id === entry.of))
  const due = () => entries.value.find((e) => e.sendAt <= now() && mine(e) && !follows(e))

  /** Withdraws what has arrived, or may have: it is sent after the tap itself. */
  function withdraw(tap: Tap, why: string) {
    const id = `${tap.id}/withdrawal`
    if (find(id)) return
    const { classId, adultId, what } = tap
    void add({ kind: 'withdrawal', id, of: tap.id, why, classId, adultId, what, made: now(), sendAt: 0 })
  }

  async function setAside(entry: Entry, error: Refused) {
    forget(entry.id)
    const withdrawal = find(`${entry.id}/withdrawal`)
    if (withdrawal) {
      // It was undone while it was on its way, and the server does not want it either.
      forget(withdrawal.id)
      await keep(store.remove(entry.id))
      await keep(store.remove(withdrawal.id))
      return
    }
    const reasons = Object.values(error.fields).flat().join(' ')
    const kept = { entry: bare(entry), why: reasons || error.message, fields: Object.keys(error.fields) }
    aside.value.push(kept)
    await keep(store.move(kept))
  }

  async function sendAll() {
    await sendDue()
    arrived.value = taken
  }
  async function sendDue() {
    await (loaded ??= read())
    // Another tab may have sent some: the store knows.
    await read()
    for (let entry = due(); entry; entry = due()) {
      if (!entry.tried) {
        entry.tried = true
        await save(entry)
      }
      try {
        await send(bare(entry))
        trouble.value = ''
        signedOut.value = false
        if (entry.kind === 'tap') sent.set(entry.id, bare(entry))
        forget(entry.id)
        await keep(store.remove(entry.id))
        taken++
      } catch (error) {
        // Signed out, no network, too much at once: it waits. Anything else the server will never take as it is, so an adult decides.
        if (!(error instanceof Refused) || [401, 408, 429].includes(error.status) || error.status >= 500) {
          signedOut.value = error instanceof Refused && error.status === 401
          trouble.value = signedOut.value
            ? t('You are signed out: sign in again, and they are sent.')
            : error instanceof Refused
              ? t('The server does not answer just now.')
              : t('No network just now.')
          return
        }
        await setAside(entry, error)
      }
    }
  }

  return {
    waiting: computed(() => entries.value.length),
    /** Of these, entries of another adult on this device. */
    others: computed(() => entries.value.filter((e) => !mine(e)).length),
    taps: computed(() => entries.value.filter((e): e is Tap => e.kind === 'tap')),
    aside,
    trouble,
    /** Whether it is that nobody is signed in any more. */
    signedOut,
    /** How many the server has taken since the page was opened, whenever and by whichever call they were sent. */
    arrived,
    /** Reads what other tabs and earlier days have left. */
    load: () => (loaded = read()),
    add,
    /** Gives a tap more time, as somebody writes about it. */
    hold(id: string, until: number): boolean {
      const tap = findTap(id)
      if (!tap || tap.tried) return false
      tap.holdUntil = until
      tap.sendAt = Math.max(tap.sendAt, until)
      void save(tap)
      return true
    },
    /**
     * Adds to a tap and gives it more time. One that has been on its way is withdrawn, and noted anew with what was added.
     * @returns the id under which it goes now; undefined where it is not known here.
     */
    amend(id: string, more: Partial<Observation>, sendAt: number): string | undefined {
      const tap = findTap(id)
      if (tap && !tap.tried) {
        Object.assign(tap.body, more)
        tap.sendAt = sendAt
        delete tap.holdUntil
        void save(tap)
        return id
      }
      const gone = tap ?? sent.get(id)
      if (!gone) return undefined
      withdraw(gone, MORE_SAID)
      const next = newId()
      void add({
        ...bare(gone),
        id: next,
        body: { ...gone.body, ...more, id: next },
        sendAt,
        made: now(),
        tried: false,
      })
      const photo = entries.value.find((e): e is Photo => e.kind === 'photo' && e.of === id)
      if (photo) void save(Object.assign(photo, { of: next, made: now() + 1 }))
      return next
    },
    /** Adds a photo: an entry of its own, sent after its tap, whether that one has gone or not. */
    photo(of: string, photo: Blob): boolean {
      const tap = findTap(of) ?? sent.get(of)
      if (!tap) return false
      const { classId, adultId, what } = tap
      void add({ kind: 'photo', id: `${of}/photo`, of, photo, classId, adultId, what, made: now(), sendAt: 0 })
      return true
    },
    /** Takes a tap back: without a trace while it waits; one that has been on its way is withdrawn. False where it is not known here. */
    undo(id: string): boolean {
      const tap = findTap(id)
      const photo = find(`${id}/photo`)
      if (photo) {
        forget(photo.id)
        void keep(store.remove(photo.id))
      }
      if (tap && !tap.tried) {
        forget(id)
        void keep(store.remove(id))
        return true
      }
      const gone = tap ?? sent.get(id)
      if (!gone) return false
      withdraw(gone, UNDONE)
      return true
    },
    holds: (id: string) => find(id) !== undefined,
    /** Tries one that was set aside again, changed if need be. */
    async retry(id: string, more: Partial<Observation> = {}) {
      const kept = aside.value.find((a) => a.entry.id === id)
      if (!kept) return
      const entry = bare(kept.entry)
      if (entry.kind === 'tap') Object.assign(entry.body, more)
      entry.sendAt = 0
      aside.value = aside.value.filter((a) => a !== kept)
      entries.value.push(entry)
      await keep(store.back(entry))
      await this.flush()
    },
    /** An adult has decided against it; what belongs to it goes too. */
    async drop(id: string) {
      aside.value = aside.value.filter((a) => a.entry.id !== id)
      await keep(store.drop(id))
      for (const entry of entries.value.filter((e) => e.kind !== 'tap' && e.of === id)) {
        forget(entry.id)
        await keep(store.remove(entry.id))
      }
    },
    /** Sends one after the other; a second call while one is under way joins it, and one that asks for more goes on with the rest. */
    flush(how: How = 'due'): Promise<void> {
      for (const entry of how === 'due' ? [] : entries.value) {
        if (how === 'leaving' || !entry.holdUntil || entry.holdUntil <= now()) entry.sendAt = 0
      }
      const run = () => (sending ??= alone(sendAll).finally(() => (sending = undefined)))
      return how !== 'due' && sending ? sending.then(run) : run()
    },
  }
}
