import { useIntervalFn } from '@vueuse/core'
import { computed, onBeforeUnmount, ref } from 'vue'
import type { Schemas } from '@/app/api/client'
import { useAccount } from '@/app/account'
import type { SupportValue } from '@/ui/marks'
import { say } from '@/ui/notices'
import { newId } from '@/ui/newId'
import { scaledDown } from './photo'
import type { Marked } from './turns'
import { outbox } from './useOutbox'
import { t } from '@/app/language'

/** So long a tap can be undone without a trace, and more be said about it. */
export const UNDO_MS = 10_000
const WRITING_MS = 120_000

/** How many pages are open on which taps are made. */
export const tapping = ref(0)

export interface TapOf {
  childId: number
  childName: string
  skill: Schemas['CardSkill']
  setting: Schemas['Setting']
  support: SupportValue
  representation: Schemas['Representation']
  numbers: string | null
  sessionId: number | null
}
export interface More {
  slip?: string | null
  strategy?: string | null
  note?: string | null
}

/** Taps of this page by child: recorded into the outbox at once, and open to undo and to more for ten seconds. */
export function useTaps() {
  const { account, classId } = useAccount()
  const mine = ref<Record<number, Marked[]>>({})
  const tick = ref(Date.now())
  useIntervalFn(() => (tick.value = Date.now()), 1000)
  tapping.value++
  onBeforeUnmount(() => {
    tapping.value--
    void outbox.flush('leaving')
  })

  const change = (childId: number, id: string, more: Partial<Marked>) =>
    (mine.value[childId] = (mine.value[childId] ?? []).map((m) => (m.id === id ? { ...m, ...more } : m)))

  return {
    mine,
    tick,
    /** What was tapped last, as long as more can be said about it. */
    latest: computed(
      () =>
        Object.entries(mine.value)
          .flatMap(([childId, all]) =>
            all.filter((m) => m.until && m.until > tick.value).map((marked) => ({ childId: Number(childId), marked })),
          )
          .sort((a, b) => b.marked.until! - a.marked.until!)[0],
    ),
    record(tap: TapOf) {
      const now = Date.now()
      const id = newId()
      void outbox.add({
        kind: 'tap',
        id,
        classId: classId.value,
        adultId: account.value?.signedIn?.id ?? 0,
        what: `${tap.childName}: ${tap.skill.short}`,
        made: now,
        sendAt: now + UNDO_MS,
        body: {
          id,
          childId: tap.childId,
          skill: tap.skill.id,
          at: new Date(now).toISOString(),
          setting: tap.setting,
          support: tap.support,
          representation: tap.representation,
          numbers: tap.numbers,
          slip: null,
          strategy: null,
          note: null,
          sessionId: tap.sessionId,
        },
      })
      mine.value[tap.childId] = [
        ...(mine.value[tap.childId] ?? []),
        { id, support: tap.support, numbers: tap.numbers, until: now + UNDO_MS },
      ]
      return id
    },
    /** Whether it could still be taken back. */
    undo(childId: number, id: string) {
      const here = outbox.undo(id)
      if (here) mine.value[childId] = (mine.value[childId] ?? []).filter((m) => m.id !== id)
      return here
    },
    amend(childId: number, id: string, more: More) {
      const until = Date.now() + UNDO_MS
      const now = outbox.amend(id, more, until)
      if (now) change(childId, id, { ...more, id: now, until })
      else say(t('That was sent a while ago. Withdraw it on the child’s page and note it again.'), true)
    },
    /** While someone writes, or the camera is open, the tap waits. */
    hold(childId: number, id: string) {
      const until = Date.now() + WRITING_MS
      if (outbox.hold(id, until)) change(childId, id, { until })
    },
    async photo(childId: number, id: string, file: Blob) {
      const taken = outbox.photo(id, await scaledDown(file))
      outbox.hold(id, Date.now() + UNDO_MS)
      if (taken) change(childId, id, { photo: true, until: Date.now() + UNDO_MS })
      else say(t('The photo could not be kept: its tap was undone.'), true)
    },
  }
}
