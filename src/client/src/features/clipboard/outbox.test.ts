import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it } from 'vitest'
import { Refused } from '@/app/api/client'
import { makeOutbox, type Aside, type Observation, type Shelf, type Tap } from './outbox'
import { openShelf } from './shelf'

let made = 0
const tap = (id: string, sendAt = 0, adultId = 1): Tap => ({
  classId: 1,
  adultId,
  what: `Kofi: ${id}`,
  made: ++made,
  sendAt,
  body: { id, support: 'Alone', sessionId: 7 } as Observation,
})

/** A shelf in memory that tells what lies on it. */
function memory(): Shelf & { taps: Map<string, Tap>; aside: Map<string, Aside> } {
  const taps = new Map<string, Tap>()
  const aside = new Map<string, Aside>()
  return {
    taps,
    aside,
    load: async () => ({ taps: [...taps.values()].sort((a, b) => a.made - b.made), aside: [...aside.values()] }),
    put: async (t) => void taps.set(t.body.id, t),
    remove: async (id) => void taps.delete(id),
    move: async (a) => void (taps.delete(a.tap.body.id), aside.set(a.tap.body.id, a)),
    back: async (t) => void (aside.delete(t.body.id), taps.set(t.body.id, t)),
    drop: async (id) => void aside.delete(id),
  }
}
const box = (
  send: (t: Tap) => Promise<void>,
  shelf: Shelf = memory(),
  more: { now?: () => number; me?: () => number | undefined } = {},
) => makeOutbox({ send, shelf, now: () => 100, me: () => 1, ...more })
const sentTo = (sent: string[]) => async (t: Tap) => void sent.push(t.body.id)
const noNetwork = () => Promise.reject(new TypeError('fetch failed'))

describe('the outbox', () => {
  it('sends in order what is due and holds the rest', async () => {
    const sent: string[] = []
    const out = box(sentTo(sent))
    for (const id of ['a', 'b']) await out.add(tap(id, 50))
    await out.add(tap('later', 500))
    await out.flush()
    expect(sent).toEqual(['a', 'b'])
    expect(out.waiting.value).toBe(1)
    await out.flush(true)
    expect(sent).toEqual(['a', 'b', 'later'])
  })

  it('takes a tap back without a trace, once', async () => {
    const [sent, shelf] = [[] as string[], memory()]
    const out = box(sentTo(sent), shelf)
    await out.add(tap('a', 500))
    expect([out.undo('a'), out.undo('a')]).toEqual([true, false])
    await out.flush(true)
    expect([sent, shelf.taps.size]).toEqual([[], 0])
  })

  it('adds a slip or a note while the tap is still here, and gives it more time', async () => {
    const sent: Tap[] = []
    const out = box(async (t) => void sent.push(t))
    await out.add(tap('a', 90))
    expect(out.amend('a', { note: 'said why' }, { holdUntil: 900 })).toBe(true)
    await out.flush()
    expect(sent).toEqual([])
    await out.flush(true)
    expect(sent[0]!.body.note).toBe('said why')
    expect(out.amend('a', { slip: 'x' })).toBe(false)
  })

  it('keeps everything while there is no network, over a restart, and sends it later with the same ids', async () => {
    const shelf = memory()
    const offline = box(noNetwork, shelf)
    for (const id of ['a', 'b']) await offline.add(tap(id))
    await offline.flush()
    expect([offline.waiting.value, offline.trouble.value]).toEqual([2, 'No network just now.'])
    const sent: string[] = []
    const restarted = box(sentTo(sent), shelf)
    await restarted.load()
    expect(restarted.waiting.value).toBe(2)
    await restarted.flush()
    expect([sent, shelf.taps.size]).toEqual([['a', 'b'], 0])
  })

  it('sends everything when asked to, also while it is sending something else', async () => {
    const sent: string[] = []
    let go = () => {}
    const out = box(async (t) => {
      if (t.body.id === 'a') await new Promise<void>((resolve) => (go = resolve))
      sent.push(t.body.id)
    })
    await out.add(tap('a'))
    const first = out.flush()
    await new Promise((r) => setTimeout(r))
    await out.add(tap('b', 500))
    const all = out.flush(true)
    go()
    await Promise.all([first, all])
    expect(sent).toEqual(['a', 'b'])
  })

  it('does not send what another tab has sent meanwhile', async () => {
    const [one, other, shelf] = [[] as string[], [] as string[], memory()]
    const first = box(sentTo(one), shelf)
    await first.add(tap('a', 500))
    const second = box(sentTo(other), shelf)
    await second.flush(true)
    await second.load()
    await second.flush(true)
    await first.flush(true)
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
    await out.flush(true)
    expect([sent, out.others.value]).toEqual([[], 1])
    me = 1
    await out.flush(true)
    expect(sent).toEqual(['a'])
  })

  it('sets aside what can not be taken, goes on with the next, and keeps it for a decision over a restart', async () => {
    const [sent, shelf] = [[] as string[], memory()]
    const picky = async (t: Tap) => {
      if (t.body.id === 'a' && t.body.sessionId) throw new Refused('Withdrawn.', 400, { sessionId: ['Withdrawn.'] })
      sent.push(t.body.id)
    }
    const out = box(picky, shelf)
    for (const id of ['a', 'b']) await out.add(tap(id))
    await out.flush()
    expect(sent).toEqual(['b'])
    const later = box(picky, shelf)
    await later.load()
    expect(later.aside.value.map((a) => [a.tap.what, a.why, a.fields])).toEqual([
      ['Kofi: a', 'Withdrawn.', ['sessionId']],
    ])
    await later.retry('a', { sessionId: null })
    expect([sent, later.aside.value.length, shelf.aside.size]).toEqual([['b', 'a'], 0, 0])
  })

  it('puts one away for good when an adult says so', async () => {
    const shelf = memory()
    const out = box(() => Promise.reject(new Refused('This child is not in the class any more.', 400)), shelf)
    await out.add(tap('a'))
    await out.flush()
    await out.drop('a')
    expect([out.aside.value.length, shelf.aside.size, shelf.taps.size]).toEqual([0, 0, 0])
  })

  it('still sends what is in the page when the browser keeps nothing', async () => {
    const broken = memory()
    const fail = () => Promise.reject(new Error('private mode'))
    const sent: string[] = []
    const out = box(sentTo(sent), { ...broken, load: fail, put: fail, remove: fail })
    await out.add(tap('a', 500))
    expect(out.trouble.value).toContain('leave the page open')
    await out.flush(true)
    expect(sent).toEqual(['a'])
  })
})

describe('the browser’s own shelf', () => {
  let shelf: Shelf
  beforeEach(() => (shelf = openShelf(`test-${++made}`)))

  it('gives taps back in the order in which they were made, with their photo', async () => {
    await shelf.put({ ...tap('z'), photo: new Blob(['x']) })
    await shelf.put(tap('a'))
    const { taps } = await shelf.load()
    expect(taps.map((t) => t.body.id)).toEqual(['z', 'a'])
    expect(taps[0]!.photo).toBeDefined()
  })
  it('has a tap in one place only, whatever is done', async () => {
    const one = tap('a')
    await shelf.put(one)
    await shelf.move({ tap: one, why: 'gone', fields: [] })
    expect(await shelf.load()).toMatchObject({ taps: [], aside: [{ why: 'gone' }] })
    await shelf.back(one)
    expect((await shelf.load()).aside).toEqual([])
    await shelf.remove('a')
    expect((await shelf.load()).taps).toEqual([])
  })
})
