import { beforeEach, describe, expect, it } from 'vitest'
import { Refused } from '@/app/api/client'
import { makeOutbox, type Observation, type Store, type Tap } from './outbox'

let kept: Record<string, string>
const store: Store = { getItem: (k) => kept[k] ?? null, setItem: (k, v) => void (kept[k] = v) }
const tap = (id: string, sendAt = 0): Tap => ({ classId: 1, sendAt, body: { id, support: 'Alone' } as Observation })
const sentTo = (sent: string[]) => async (t: Tap) => void sent.push(t.body.id)

beforeEach(() => (kept = {}))

describe('the outbox', () => {
  it('sends in order what is due and holds the rest', async () => {
    const sent: string[] = []
    const box = makeOutbox(sentTo(sent), store, () => 100)
    ;['a', 'b'].forEach((id) => box.add(tap(id, 50)))
    box.add(tap('later', 500))
    await box.flush()
    expect(sent).toEqual(['a', 'b'])
    expect(box.waiting.value).toBe(1)
    await box.flush(true)
    expect(sent).toEqual(['a', 'b', 'later'])
  })

  it('takes a tap back without a trace, once', async () => {
    const sent: string[] = []
    const box = makeOutbox(sentTo(sent), store, () => 0)
    box.add(tap('a', 10))
    expect([box.undo('a'), box.undo('a')]).toEqual([true, false])
    await box.flush(true)
    expect(sent).toEqual([])
  })

  it('adds a slip while the tap is still here', async () => {
    const sent: Tap[] = []
    const box = makeOutbox(
      async (t) => void sent.push(t),
      store,
      () => 0,
    )
    box.add(tap('a', 10))
    expect(box.amend('a', { slip: 'counts' })).toBe(true)
    await box.flush(true)
    expect(sent[0]!.body.slip).toBe('counts')
    expect(box.amend('a', { slip: 'x' })).toBe(false)
  })

  it('keeps everything while there is no network, over a reload, and sends it later with the same ids', async () => {
    const offline = makeOutbox(() => Promise.reject(new TypeError('fetch failed')), store)
    ;['a', 'b'].forEach((id) => offline.add(tap(id)))
    await offline.flush()
    expect([offline.waiting.value, offline.trouble.value]).toEqual([2, 'No network just now.'])
    const sent: string[] = []
    const reloaded = makeOutbox(sentTo(sent), store)
    await reloaded.flush()
    expect(sent).toEqual(['a', 'b'])
    expect(JSON.parse(kept['fobble.taps']!)).toEqual([])
  })

  it('waits when signed out, and shows what can never be taken', async () => {
    const answers = [new Refused('signed out', 401), new Refused('This child is not in the class.', 400)]
    const box = makeOutbox(() => Promise.reject(answers.shift()!), store)
    box.add(tap('a'))
    await box.flush()
    expect(box.waiting.value).toBe(1)
    await box.flush()
    expect(box.waiting.value).toBe(0)
    expect(box.refused.value[0]!.why).toBe('This child is not in the class.')
  })

  it('starts empty when the store holds nonsense', () => {
    kept['fobble.taps'] = '{not json'
    expect(makeOutbox(sentTo([]), store).waiting.value).toBe(0)
  })
})
