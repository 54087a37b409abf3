import 'fake-indexeddb/auto'
import { openDB } from 'idb'
import { beforeEach, describe, expect, it } from 'vitest'
import { watch } from 'vue'
import { Refused } from '@/app/api/client'
import { makeOutbox, type Aside, type Entry, type Observation, type Store, type Tap } from './outbox'
import { openStore } from './store'

let made = 0
const tap = (id: string, sendAt = 0, adultId = 1): Tap => ({
  kind: 'tap',
  id,
  classId: 1,
  adultId,
  what: `Kofi: ${id}`,
  made: ++made,
  sendAt,
  body: { id, support: 'Alone', sessionId: 7 } as Observation,
})

/** A store in memory that tells what lies in it. */
function memory(): Store & { entries: Map<string, Entry>; aside: Map<string, Aside> } {
  const entries = new Map<string, Entry>()
  const aside = new Map<string, Aside>()
  return {
    entries,
    aside,
    load: async () => ({
      entries: [...entries.values()].sort((a, b) => a.made - b.made).map((e) => ({ ...e })),
      aside: [...aside.values()],
    }),
    put: async (e) => void entries.set(e.id, e),
    remove: async (id) => void entries.delete(id),
    move: async (a) => void (entries.delete(a.entry.id), aside.set(a.entry.id, a)),
    back: async (e) => void (aside.delete(e.id), entries.set(e.id, e)),
    drop: async (id) => void aside.delete(id),
  }
}
const box = (
  send: (e: Entry) => Promise<void>,
  store: Store = memory(),
  more: { now?: () => number; me?: () => number | undefined } = {},
) => makeOutbox({ send, store, now: () => 100, me: () => 1, ...more })
const sentTo = (sent: string[]) => async (e: Entry) => void sent.push(e.id)
const noNetwork = () => Promise.reject(new TypeError('fetch failed'))

/** A server that keeps the first request until it is told to go on. */
function slow(sent: Entry[], answer?: Refused) {
  let go = () => {}
  const send = async (e: Entry) => {
    if (!sent.length) await new Promise<void>((resolve) => (go = resolve))
    sent.push(e)
    if (answer && sent.length === 1) throw answer
  }
  return { send, go: () => go() }
}
const turn = () => new Promise((r) => setTimeout(r))

describe('the outbox', () => {
  it('sends in order what is due and holds the rest', async () => {
    const sent: string[] = []
    const out = box(sentTo(sent))
    for (const id of ['a', 'b']) await out.add(tap(id, 50))
    await out.add(tap('later', 500))
    await out.flush()
    expect(sent).toEqual(['a', 'b'])
    expect(out.waiting.value).toBe(1)
    await out.flush('leaving')
    expect(sent).toEqual(['a', 'b', 'later'])
  })

  it('takes a tap back without a trace, once', async () => {
    const [sent, store] = [[] as string[], memory()]
    const out = box(sentTo(sent), store)
    await out.add(tap('a', 500))
    expect([out.undo('a'), out.undo('a')]).toEqual([true, false])
    await out.flush('leaving')
    expect([sent, store.entries.size]).toEqual([[], 0])
  })

  it('adds a slip or a note while the tap is still here, and gives it more time', async () => {
    const sent: Entry[] = []
    const out = box(async (t) => void sent.push(t))
    await out.add(tap('a', 90))
    expect(out.amend('a', { note: 'said why' }, 900)).toBe('a')
    await out.flush()
    expect(sent).toEqual([])
    await out.flush('leaving')
    expect((sent[0] as Tap).body.note).toBe('said why')
    expect(out.amend('unknown', { slip: 'x' }, 900)).toBeUndefined()
  })

  it('keeps everything while there is no network, over a restart, and sends it later with the same ids', async () => {
    const store = memory()
    const offline = box(noNetwork, store)
    for (const id of ['a', 'b']) await offline.add(tap(id))
    await offline.flush()
    expect([offline.waiting.value, offline.trouble.value]).toEqual([2, 'No network just now.'])
    const sent: string[] = []
    const restarted = box(sentTo(sent), store)
    await restarted.load()
    expect(restarted.waiting.value).toBe(2)
    await restarted.flush()
    expect([sent, store.entries.size]).toEqual([['a', 'b'], 0])
  })

  it('sends everything when asked to, also while it is sending something else', async () => {
    const sent: string[] = []
    let go = () => {}
    const out = box(async (t) => {
      if (t.id === 'a') await new Promise<void>((resolve) => (go = resolve))
      sent.push(t.id)
    })
    await out.add(tap('a'))
    const first = out.flush()
    await new Promise((r) => setTimeout(r))
    await out.add(tap('b', 500))
    const all = out.flush('leaving')
    go()
    await Promise.all([first, all])
    expect(sent).toEqual(['a', 'b'])
  })

  it('does not send what another tab has sent meanwhile', async () => {
    const [one, other, store] = [[] as string[], [] as string[], memory()]
    const first = box(sentTo(one), store)
    await first.add(tap('a', 500))
    const second = box(sentTo(other), store)
    await second.flush('leaving')
    await second.load()
    await second.flush('leaving')
    await first.flush('leaving')
    expect([...one, ...other]).toEqual(['a'])
  })

  it('waits when signed out or when the server fails, and drops nothing', async () => {
    const answers = [new Refused('signed out', 401), new Refused('ill', 503), undefined]
    const out = box(async () => {
      const answer = answers.shift()
      if (answer) throw answer
    })
    await out.add(tap('a'))
    await out.flush()
    expect(out.trouble.value).toContain('sign in again')
    await out.flush()
    expect([out.trouble.value, out.waiting.value]).toEqual(['The server does not answer just now.', 1])
    await out.flush()
    expect(out.waiting.value).toBe(0)
  })

  it('sends nothing in another adult’s name', async () => {
    const sent: string[] = []
    let me: number | undefined = 2
    const out = box(sentTo(sent), memory(), { me: () => me })
    await out.add(tap('a', 0, 1))
    await out.flush('leaving')
    expect([sent, out.others.value]).toEqual([[], 1])
    me = 1
    await out.flush('leaving')
    expect(sent).toEqual(['a'])
  })

  it('sets aside what can not be taken, goes on with the next, and keeps it for a decision over a restart', async () => {
    const [sent, store] = [[] as string[], memory()]
    const picky = async (t: Entry) => {
      if (t.id === 'a' && t.kind === 'tap' && t.body.sessionId)
        throw new Refused('Withdrawn.', 400, { sessionId: ['Withdrawn.'] })
      sent.push(t.id)
    }
    const out = box(picky, store)
    for (const id of ['a', 'b']) await out.add(tap(id))
    await out.flush()
    expect(sent).toEqual(['b'])
    const later = box(picky, store)
    await later.load()
    expect(later.aside.value.map((a) => [a.entry.what, a.why, a.fields])).toEqual([
      ['Kofi: a', 'Withdrawn.', ['sessionId']],
    ])
    await later.retry('a', { sessionId: null })
    expect([sent, later.aside.value.length, store.aside.size]).toEqual([['b', 'a'], 0, 0])
  })

  it('puts one away for good when an adult says so', async () => {
    const store = memory()
    const out = box(() => Promise.reject(new Refused('This child is not in the class any more.', 400)), store)
    await out.add(tap('a'))
    await out.flush()
    await out.drop('a')
    expect([out.aside.value.length, store.aside.size, store.entries.size]).toEqual([0, 0, 0])
  })

  it('still sends what is in the page when the browser keeps nothing', async () => {
    const broken = memory()
    const fail = () => Promise.reject(new Error('private mode'))
    const sent: string[] = []
    const out = box(sentTo(sent), { ...broken, load: fail, put: fail, remove: fail })
    await out.add(tap('a', 500))
    expect(out.trouble.value).toContain('leave the page open')
    await out.flush('leaving')
    expect(sent).toEqual(['a'])
  })

  it.each([408, 429, 500, 503])('never sets a tap aside for a %i: it waits and is sent again', async (status) => {
    const answers: (Refused | undefined)[] = [new Refused('too many', status), undefined]
    const sent: string[] = []
    const out = box(async (e) => {
      const answer = answers.shift()
      if (answer) throw answer
      sent.push(e.id)
    })
    await out.add(tap('a'))
    await out.flush()
    expect([out.aside.value.length, out.waiting.value]).toEqual([0, 1])
    await out.flush()
    expect(sent).toEqual(['a'])
  })

  it('sends nothing before its window is over, and at its end', async () => {
    let now = 0
    const sent: string[] = []
    const out = box(sentTo(sent), memory(), { now: () => now })
    await out.add(tap('a', 10_000))
    for (now of [0, 5_000, 9_999]) await out.flush()
    expect(sent).toEqual([])
    now = 10_000
    await out.flush()
    expect(sent).toEqual(['a'])
  })

  it('withdraws a tap that is undone while it is on its way', async () => {
    const sent: Entry[] = []
    const { send, go } = slow(sent)
    const out = box(send)
    await out.add(tap('a'))
    const flush = out.flush()
    await turn()
    expect(out.undo('a')).toBe(true)
    go()
    await flush
    await out.flush()
    expect(sent.map((e) => [e.kind, e.kind === 'withdrawal' && e.of])).toEqual([
      ['tap', false],
      ['withdrawal', 'a'],
    ])
  })

  it('withdraws a tap that is undone after it was sent', async () => {
    const sent: Entry[] = []
    const out = box(async (e) => void sent.push(e))
    await out.add(tap('a', 500))
    await out.flush('hidden')
    expect(out.undo('a')).toBe(true)
    await out.flush()
    expect(sent.map((e) => e.kind)).toEqual(['tap', 'withdrawal'])
  })

  it('wants nothing more of a tap that was undone on its way and then refused', async () => {
    const sent: Entry[] = []
    const store = memory()
    const { send, go } = slow(sent, new Refused('This child is not in the class any more.', 400))
    const out = box(send, store)
    await out.add(tap('a'))
    const flush = out.flush()
    await turn()
    out.undo('a')
    go()
    await flush
    expect([sent.length, out.aside.value.length, out.waiting.value, store.entries.size]).toEqual([1, 0, 0, 0])
  })

  it('notes a tap anew when a slip is added while it is on its way: nothing that was said is lost', async () => {
    const sent: Entry[] = []
    const { send, go } = slow(sent)
    const out = box(send)
    await out.add(tap('a'))
    const flush = out.flush()
    await turn()
    const next = out.amend('a', { slip: 'skips' }, 0)
    go()
    await flush
    await out.flush()
    expect(next).not.toBe('a')
    expect(sent.map((e) => [e.kind, e.kind === 'tap' ? e.body.slip : e.of])).toEqual([
      ['tap', undefined],
      ['withdrawal', 'a'],
      ['tap', 'skips'],
    ])
  })

  it('holds what somebody writes about while the page is hidden, and sends it when the page is left', async () => {
    const sent: string[] = []
    const out = box(sentTo(sent))
    await out.add(tap('held', 500))
    await out.add(tap('free', 500))
    expect(out.hold('held', 900)).toBe(true)
    await out.flush('hidden')
    expect(sent).toEqual(['free'])
    await out.flush('leaving')
    expect(sent).toEqual(['free', 'held'])
  })

  it('sends a photo after its tap, also when that one has gone while the camera was open', async () => {
    const sent: string[] = []
    const out = box(sentTo(sent))
    await out.add(tap('a'))
    await out.flush()
    expect(out.photo('a', new Blob(['x']))).toBe(true)
    await out.add(tap('b', 500))
    out.photo('b', new Blob(['y']))
    await out.flush()
    expect(sent).toEqual(['a', 'a/photo'])
    await out.flush('leaving')
    expect(sent).toEqual(['a', 'a/photo', 'b', 'b/photo'])
  })

  it('takes a photo back with its tap', async () => {
    const [sent, store] = [[] as string[], memory()]
    const out = box(sentTo(sent), store)
    await out.add(tap('a', 500))
    out.photo('a', new Blob(['x']))
    out.undo('a')
    await out.flush('leaving')
    expect([sent, store.entries.size]).toEqual([[], 0])
  })

  it('knows from the store that another tab has it on its way, and withdraws it then', async () => {
    const store = memory()
    const sent: Entry[] = []
    const { send, go } = slow(sent)
    const first = box(send, store)
    await first.add(tap('a'))
    const flush = first.flush()
    await turn()
    const second = box(async (e) => void sent.push(e), store)
    await second.load()
    expect(second.undo('a')).toBe(true)
    go()
    await flush
    await second.flush()
    expect(sent.map((e) => e.kind)).toEqual(['tap', 'withdrawal'])
  })

  it('reads the store again before it sends: what another tab has taken back is not sent', async () => {
    const [sent, store] = [[] as string[], memory()]
    const first = box(sentTo(sent), store)
    await first.add(tap('a', 500))
    const second = box(sentTo(sent), store)
    await second.load()
    second.undo('a')
    await turn()
    await first.flush('leaving')
    expect(sent).toEqual([])
  })
})

describe('what has arrived is told, whenever it was sent', () => {
  it('also where leaving the page did not get it there, and a later call did', async () => {
    const answers = [new TypeError('fetch failed'), undefined]
    const out = box(async () => {
      const answer = answers.shift()
      if (answer) throw answer
    })
    await out.add(tap('a', 500))
    await out.flush('leaving')
    expect(out.arrived.value).toBe(0)
    await out.flush()
    expect(out.arrived.value).toBe(1)
  })
  it('also where another tab has sent it', async () => {
    const store = memory()
    const first = box(noNetwork, store)
    await first.add(tap('a'))
    const second = box(sentTo([]), store)
    await second.flush()
    await first.load()
    expect([first.arrived.value, second.arrived.value]).toEqual([1, 1])
  })
  it('once for all that went in one go', async () => {
    const out = box(sentTo([]))
    const told: number[] = []
    watch(out.arrived, (now) => told.push(now), { flush: 'sync' })
    for (const id of ['a', 'b', 'c']) await out.add(tap(id))
    await out.flush()
    expect(told).toEqual([3])
  })
})

it('keeps a tap that the browser will not store on the page, and sends it', async () => {
  const [sent, store] = [[] as string[], memory()]
  const out = box(
    sentTo(sent),
    { ...store, put: () => Promise.reject(new Error('QuotaExceededError')) },
    { now: () => 100 },
  )
  await out.add(tap('a', 500))
  expect(out.trouble.value).toContain('leave the page open')
  await out.load()
  await out.flush()
  expect([sent, out.waiting.value]).toEqual([[], 1])
  await out.flush('leaving')
  expect([sent, out.waiting.value]).toEqual([['a'], 0])
})

describe('the browser’s own store', () => {
  let store: Store
  let name: string
  beforeEach(() => (store = openStore((name = `test-${++made}`))))

  it('gives entries back in the order in which they were made, photos too', async () => {
    await store.put(tap('z'))
    await store.put({ ...tap('y'), kind: 'photo', id: 'z/photo', of: 'z', photo: new Blob(['x']) })
    await store.put(tap('a'))
    const { entries } = await store.load()
    expect(entries.map((e) => e.id)).toEqual(['z', 'z/photo', 'a'])
  })
  it('has an entry in one place only, whatever is done', async () => {
    const one = tap('a')
    await store.put(one)
    await store.move({ entry: one, why: 'gone', fields: [] })
    expect(await store.load()).toMatchObject({ entries: [], aside: [{ why: 'gone' }] })
    await store.back(one)
    expect((await store.load()).aside).toEqual([])
    await store.remove('a')
    expect((await store.load()).entries).toEqual([])
  })
  it('takes over what the first version of the application had kept', async () => {
    const before = `${name}-before`
    const old = await openDB(before, 1, {
      upgrade(db) {
        db.createObjectStore('taps', { keyPath: 'body.id' })
        db.createObjectStore('aside', { keyPath: 'tap.body.id' })
      },
    })
    const first = (id: string) => ({ classId: 1, adultId: 1, what: id, made: ++made, sendAt: 0, body: { id } })
    await old.put('taps', { ...first('a'), photo: new Blob(['x']) })
    await old.put('aside', { tap: first('b'), why: 'gone', fields: ['sessionId'] })
    old.close()
    const { entries, aside } = await openStore(before).load()
    expect(entries.map((e) => [e.kind, e.id])).toEqual([
      ['tap', 'a'],
      ['photo', 'a/photo'],
    ])
    expect(aside.map((a) => [a.entry.id, a.why, a.fields])).toEqual([['b', 'gone', ['sessionId']]])
  })
})
