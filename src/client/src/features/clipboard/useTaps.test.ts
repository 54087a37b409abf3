import 'fake-indexeddb/auto'
import { useQueryClient, type QueryClient } from '@tanstack/vue-query'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { h, nextTick, ref } from 'vue'
import { fakeApi, openPage } from '@/testing/page'
import { useArrivals } from './useArrivals'
import { outbox, tapsAreOf } from './useOutbox'
import { useTaps, type TapOf } from './useTaps'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))

const tap = {
  childId: 3,
  childName: 'Kofi M.',
  skill: { id: 'a', short: 'See to five' },
  setting: 'Group',
  support: 'Alone',
  representation: 'Objects',
  numbers: null,
  sessionId: 7,
} as TapOf

let taps: ReturnType<typeof useTaps>
let queries: QueryClient
const open = ref(true)
const clipboard = { setup: () => ((taps = useTaps()), () => h('p')) }
const page = {
  setup: () => (useArrivals(), (queries = useQueryClient()), () => (open.value ? h(clipboard) : h('p'))),
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date'], now: 1_000_000 })
  open.value = true
  tapsAreOf(1)
})
afterEach(() => vi.useRealTimers())
const after = (ms: number) => vi.setSystemTime(1_000_000 + ms)
const waiting = () => outbox.taps.value.map((t) => t.id)

it('leaves a tap ten seconds in which it can be undone without a trace, and sends it then', async () => {
  const { wrapper } = await openPage(page, '/c/1/record')
  const undone = taps.record(tap)
  after(1)
  const kept = taps.record(tap)
  after(9_900)
  await outbox.flush()
  expect(waiting()).toEqual([undone, kept])
  expect(taps.undo(3, undone)).toBe(true)
  after(10_001)
  await outbox.flush()
  expect([waiting(), outbox.arrived.value]).toEqual([[], 1])
  wrapper.unmount()
})

it('has what is open read anew when a tap has arrived, and only once the clipboard is left where that is open', async () => {
  const { wrapper } = await openPage(page, '/c/1/record')
  const anew = vi.spyOn(queries, 'invalidateQueries')
  taps.record(tap)
  after(10_000)
  await outbox.flush()
  await nextTick()
  expect(anew.mock.calls.map(([which]) => which)).toMatchObject([{ refetchType: 'none' }])
  open.value = false
  await nextTick()
  await nextTick()
  expect(anew.mock.calls.map(([which]) => which)).toMatchObject([{ refetchType: 'none' }, { refetchType: 'active' }])
  wrapper.unmount()
})
