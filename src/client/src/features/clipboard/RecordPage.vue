<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { clock, weekday } from '@/app/dates'
import { representationLabel, supports, type SupportValue } from '@/ui/marks'
import ChildRow from './ChildRow.vue'
import HowStrip from './HowStrip.vue'
import { turnOf, type Marked } from './turns'
import { outbox } from './useOutbox'

/** Made for one thumb: a child a row, one tap is "alone". */
const UNDO_MS = 10_000
const route = useRoute()
const queries = useQueryClient()
const { classId } = useAccount()
const sessionId = computed(() => Number(route.params.sessionId))
const { data: card, error } = useQuery({
  queryKey: ['card', classId, sessionId],
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/sessions/{sessionId}', {
        params: { path: { classId: classId.value, sessionId: sessionId.value } },
      }),
    ),
})

const shownWith = ref<Schemas['Representation']>()
const way = computed(() => shownWith.value ?? card.value?.skill.shownIn[0] ?? 'Objects')
const mine = ref<Record<number, Marked[]>>({})
const marked = (childId: number): Marked[] => [
  ...(card.value?.children.find((c) => c.id === childId)?.recorded ?? []),
  ...(mine.value[childId] ?? []),
]
const done = computed(() => card.value?.children.filter((c) => marked(c.id).length > 0).length ?? 0)
const picked = ref<number>()

function record(childId: number, support: SupportValue) {
  if (!card.value) return
  const place = card.value.children.findIndex((c) => c.id === childId)
  const item = turnOf(card.value.items, place, marked(childId).length, card.value.children.length)
  const id = crypto.randomUUID()
  outbox.add({
    classId: classId.value,
    sendAt: Date.now() + UNDO_MS,
    body: {
      id,
      childId,
      skill: card.value.skill.id,
      at: new Date().toISOString(),
      setting: card.value.setting,
      support,
      representation: way.value,
      numbers: item?.key ?? null,
      slip: null,
      strategy: null,
      note: null,
      sessionId: sessionId.value,
    },
  })
  mine.value[childId] = [
    ...(mine.value[childId] ?? []),
    { id, support, numbers: item?.key ?? null, until: Date.now() + UNDO_MS },
  ]
}

function undo(childId: number, id: string) {
  if (outbox.undo(id)) mine.value[childId] = (mine.value[childId] ?? []).filter((m) => m.id !== id)
}

function amend(childId: number, id: string, more: { slip?: string | null; strategy?: string | null }) {
  if (!outbox.amend(id, more)) return
  mine.value[childId] = (mine.value[childId] ?? []).map((m) => (m.id === id ? { ...m, ...more } : m))
}

// What was tapped last, as long as more can be said about it.
const tick = ref(Date.now())
const latest = computed(() => {
  const open = (card.value?.children ?? []).flatMap((child) =>
    (mine.value[child.id] ?? []).filter((m) => m.until && m.until > tick.value).map((marked) => ({ child, marked })),
  )
  return open.sort((a, b) => b.marked.until! - a.marked.until!)[0]
})
let timer: ReturnType<typeof setInterval>
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
onMounted(() => {
  timer = setInterval(() => (tick.value = Date.now()), 1000)
  window.addEventListener('keydown', keys)
})
onBeforeUnmount(async () => {
  clearInterval(timer)
  window.removeEventListener('keydown', keys)
  await outbox.flush(true)
  await queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'account' })
})
watch(sessionId, () => (mine.value = {}))
</script>

<template>
  <div class="page clip">
    <p v-if="error" class="warn" role="alert">{{ error.message }}</p>
    <template v-if="card">
      <div class="page-head">
        <div>
          <span class="soft">{{ weekday(card.day) }} {{ clock(card.start) }} · {{ card.activity.name }}</span>
          <h1 class="said">{{ card.skill.short }}</h1>
        </div>
        <div class="end">
          <RouterLink class="button" :to="{ name: 'session', params: { classId, sessionId } }">Session card</RouterLink>
        </div>
      </div>
      <div v-if="card.skill.shownIn.length > 1" class="ways" role="radiogroup" aria-label="Shown with">
        <span class="soft">Shown with</span>
        <button
          v-for="r in card.skill.shownIn"
          :key="r"
          type="button"
          role="radio"
          :aria-checked="way === r"
          class="way"
          :class="{ on: way === r }"
          @click="shownWith = r"
        >
          {{ representationLabel(r) }}
        </button>
      </div>
      <p class="status" role="status">
        <b>{{ done }} of {{ card.children.length }}</b> recorded
        <template v-if="outbox.trouble.value">
          · {{ outbox.trouble.value }} {{ outbox.waiting.value }} wait to be sent; keep going.</template
        >
      </p>
      <div v-for="lost in outbox.refused.value" :key="lost.tap.body.id" class="warn">
        Could not be recorded: {{ lost.why }}
      </div>

      <ol class="rows">
        <ChildRow
          v-for="(child, i) in card.children"
          :key="child.id"
          :number="i + 1"
          :name="child.name"
          :away="child.away"
          :picked="picked === child.id"
          :item="turnOf(card.items, i, marked(child.id).length, card.children.length)"
          :marked="marked(child.id)"
          :now="tick"
          @record="record(child.id, $event)"
          @undo="undo(child.id, $event)"
        />
      </ol>
      <HowStrip
        v-if="latest"
        :name="latest.child.name"
        :marked="latest.marked"
        :slips="card.skill.slips"
        :strategies="card.skill.strategies"
        @amend="amend(latest.child.id, latest.marked.id, $event)"
      />
      <p v-else class="small soft keys-help">
        Keys: 1 to 9 pick a child; a, s, d, f record alone, prompted, together, not yet.
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

.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
}

.way {
  min-height: var(--target);
  padding: 0 1rem;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}

.way.on {
  border-color: var(--spruce);
  background: var(--spruce);
  color: #fffcf5;
  font-weight: 700;
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
