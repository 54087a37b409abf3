<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { clock, weekday } from '@/app/dates'
import { supports, type SupportValue } from '@/ui/marks'
import ChildRow from './ChildRow.vue'
import HowStrip from './HowStrip.vue'
import ShownWith from './ShownWith.vue'
import TapStatus from './TapStatus.vue'
import { turnOf, type Marked } from './turns'
import { useLive, type JustSeen } from './useLive'
import { outbox } from './useOutbox'
import { useTaps } from './useTaps'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

/** Made for one thumb: a child a row, one tap is "alone". */
const route = useRoute()
const { account, classId } = useAccount()
const me = computed(() => account.value?.signedIn?.id)
const sessionId = computed(() => Number(route.params.sessionId))
const { data: card, error } = useQuery({
  queryKey: queryKey('card', classId, sessionId),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/sessions/{sessionId}', {
        params: { path: { classId: classId.value, sessionId: sessionId.value } },
      }),
    ),
})

const shownWith = ref<Schemas['Representation']>()
const way = computed({
  get: () => shownWith.value ?? card.value?.skill.shownIn[0] ?? 'Objects',
  set: (chosen) => (shownWith.value = chosen),
})
const { mine, tick, latest, record: tap, undo: takeBack, amend, hold, photo } = useTaps()
watch(sessionId, () => {
  mine.value = {}
  heard.value = []
})

// Taps of another adult come in while both watch. To compare how two adults code, each can choose not to see the other's.
const apart = ref(false)
const heard = ref<JustSeen[]>([])
const gone = ref<string[]>([])
const live = useLive(classId, {
  seen: (seen) => {
    const news = !heard.value.some((h) => h.id === seen.id)
    if (news && seen.sessionId === sessionId.value && seen.adultId !== me.value) heard.value.push(seen)
  },
  withdrawn: (id) => gone.value.push(id),
})
const firstName = (by: string) => by.split(' ')[0]!
function theirs(childId: number): Marked[] {
  if (apart.value) return []
  const before = (card.value?.children.find((c) => c.id === childId)?.recorded ?? []).filter(
    (r) => r.adultId !== me.value,
  )
  const now = heard.value.filter((h) => h.childId === childId && !before.some((r) => r.id === h.id))
  return [
    ...before.map((r) => ({ id: r.id, support: r.support, numbers: r.numbers, by: t('Another adult') })),
    ...now.map((h) => ({ id: h.id, support: h.support, numbers: h.numbers, by: firstName(h.by) })),
  ].filter((m) => !gone.value.includes(m.id))
}
// What the server has, what still waits here from before (the page may have been closed in between), and what was tapped just now.
function own(childId: number): Marked[] {
  const tapped = mine.value[childId] ?? []
  const known = new Set(tapped.map((m) => m.id))
  const recorded = (card.value?.children.find((c) => c.id === childId)?.recorded ?? []).filter(
    (r) => r.adultId === me.value && !known.has(r.id) && !gone.value.includes(r.id),
  )
  recorded.forEach((r) => known.add(r.id))
  const waiting = outbox.taps.value
    .filter((t) => t.body.childId === childId && t.body.sessionId === sessionId.value && t.adultId === me.value)
    .filter((t) => !known.has(t.body.id))
    .map((t) => ({ id: t.body.id, support: t.body.support, numbers: t.body.numbers }))
  return [...recorded, ...waiting, ...tapped]
}
const marked = (childId: number) => [...theirs(childId), ...own(childId)]
const done = computed(() => card.value?.children.filter((c) => marked(c.id).length > 0).length ?? 0)
const picked = ref<number>()

function record(childId: number, support: SupportValue) {
  if (!card.value) return
  const place = card.value.children.findIndex((c) => c.id === childId)
  const item = turnOf(card.value.items, place, own(childId).length, card.value.children.length)
  const seen = { childId, support, numbers: item?.key ?? null, sessionId: sessionId.value }
  const id = tap({
    ...seen,
    childName: card.value.children[place]!.name,
    skill: card.value.skill,
    setting: card.value.setting,
    representation: way.value,
  })
  live.tapped({ ...seen, id, skill: card.value.skill.id, adultId: me.value ?? 0, by: '' })
}

function undo(childId: number, id: string) {
  if (takeBack(childId, id)) live.undone(id)
}

const open = computed(() => {
  const child = card.value?.children.find((c) => c.id === latest.value?.childId)
  return child && latest.value && { child, marked: latest.value.marked }
})
function keys(event: KeyboardEvent) {
  if (
    event.ctrlKey ||
    event.metaKey ||
    event.altKey ||
    (event.target as HTMLElement).matches('input, select, textarea')
  )
    return
  const child = card.value?.children[Number(event.key) - 1]
  if (/^[1-9]$/.test(event.key) && child) picked.value = child.id
  const support = supports.find((s) => s.key === event.key)
  if (support && picked.value) record(picked.value, support.value)
}
useEventListener(window, 'keydown', keys)
</script>

<template>
  <div class="page clip">
    <PageError v-if="error" :error="error" />
    <h1 v-if="!card && !error">…</h1>
    <template v-if="card">
      <div class="page-head">
        <div>
          <span class="soft">{{ weekday(card.day) }} {{ clock(card.start) }} · {{ card.activity.name }}</span>
          <h1 class="said">{{ card.skill.short }}</h1>
        </div>
        <div class="end">
          <label class="check"><input v-model="apart" type="checkbox" /> {{ $t('On my own, to compare') }}</label>
          <RouterLink class="button" :to="{ name: 'session', params: { classId, sessionId } }">{{
            $t('Session card')
          }}</RouterLink>
        </div>
      </div>
      <ShownWith v-model="way" :ways="card.skill.shownIn" />
      <div class="status" role="status">
        <b>{{ $t('{done} of {count}', { done, count: card.children.length }) }}</b> {{ $t('recorded') }} <TapStatus />
      </div>

      <ol class="rows">
        <ChildRow
          v-for="(child, i) in card.children"
          :key="child.id"
          :number="i + 1"
          :name="child.name"
          :away="child.away"
          :picked="picked === child.id"
          :item="turnOf(card.items, i, own(child.id).length, card.children.length)"
          :marked="marked(child.id)"
          :now="tick"
          @record="record(child.id, $event)"
          @undo="undo(child.id, $event)"
        />
      </ol>
      <HowStrip
        v-if="open"
        :key="open.marked.id"
        :name="open.child.name"
        :marked="open.marked"
        :slips="card.skill.slips"
        :strategies="card.skill.strategies"
        :photos="open.child.photosAllowed"
        @amend="amend(open.child.id, open.marked.id, $event)"
        @writing="hold(open.child.id, open.marked.id)"
        @photo="photo(open.child.id, open.marked.id, $event)"
      />
      <p v-else class="small soft keys-help">
        {{ $t('Keys: 1 to 9 pick a child; a, s, d, f record alone, prompted, together, not yet.') }}
      </p>
    </template>
  </div>
</template>

<style scoped>
.clip {
  display: flex;
  flex-direction: column;
  max-width: 60rem;
  min-height: calc(100vh - 141px);
}

.rows {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1.5px solid var(--ink);
}

@media (hover: none) {
  .keys-help {
    display: none;
  }
}
</style>
