<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { useClassNames } from '@/app/useClassNames'
import MapOverview from './MapOverview.vue'
import MapFile from './MapFile.vue'
import NewSkill from './NewSkill.vue'
import SkillPanel from './SkillPanel.vue'
import { hangUp } from './strings'
import { t } from '@/app/language'
import LongSelect from '@/ui/LongSelect.vue'
import PageError from '@/ui/PageError.vue'

/** The whole map: a string of beads for each strand, threads for what needs what, the class's or a child's strengths in the beads. */
const route = useRoute()
const router = useRouter()
const { classId, leadsSchool } = useAccount()
const names = useClassNames()
const childId = computed(() => (route.query.child ? Number(route.query.child) : undefined))
const picked = computed(() => (route.query.skill as string) || '')
const adding = ref(false)

const { data: map, error } = useQuery({
  queryKey: queryKey('map', classId, childId),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/map', {
        params: { path: { classId: classId.value }, query: { childId: childId.value } },
      }),
    ),
  placeholderData: keepPreviousData,
})
const strings = computed(() =>
  hangUp(
    (map.value?.strands ?? []).map((s) => s.id),
    map.value?.skills ?? [],
  ),
)
const strandName = computed(() => new Map((map.value?.strands ?? []).map((s) => [s.id, s.name])))
const near = computed(() => {
  const skill = map.value?.skills.find((s) => s.id === picked.value)
  const opens = (map.value?.skills ?? []).filter((s) => s.needs.includes(picked.value)).map((s) => s.id)
  return new Set([...(skill?.needs ?? []), ...opens])
})
const seasons: Record<string, string> = {
  Autumn: t('autumn'),
  Spring: t('spring'),
  Summer: t('summer'),
  Beyond: t('beyond'),
}
const seasonStarts = computed(() => {
  const seen = new Set<string>()
  return (map.value?.skills ?? []).filter((s) => {
    const key = `${s.strand} ${s.when}`
    return seen.has(key) ? false : seen.add(key)
  })
})
const fill = (s: { strength: number; has: number }) =>
  childId.value ? s.strength / 5 : s.has / Math.max(1, map.value?.children.length ?? 1)

const says = (s: Schemas['MapSkill']) =>
  `${s.short}. ${strandName.value.get(s.strand)}, ${seasons[s.when]}. ${s.hidden ? t('Hidden.') : s.inWords}`

const put = (change: { skill?: string; child?: string }) => {
  const query = Object.fromEntries(Object.entries({ ...route.query, ...change }).filter(([, value]) => value))
  return router.replace({ name: 'map', params: { classId: classId.value }, query })
}
const go = (skill: string) => put({ skill })
const lay = (child: string) => put({ child })

// Arrow keys walk along a string and from string to string.
function walk(event: KeyboardEvent, id: string) {
  const here = strings.value.beads.get(id)
  if (!here) return
  const [dx, dy] = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowDown: [0, 1], ArrowUp: [0, -1] }[event.key] ?? [0, 0]
  if (!dx && !dy) return
  event.preventDefault()
  const others = [...strings.value.beads.values()].filter((b) =>
    dx ? b.y === here.y && (b.x - here.x) * dx > 0 : (b.y - here.y) * dy! > 0,
  )
  const next = others.sort(
    (a, b) =>
      Math.abs(a.y - here.y) * 10 + Math.abs(a.x - here.x) - (Math.abs(b.y - here.y) * 10 + Math.abs(b.x - here.x)),
  )[0]
  if (next) void go(next.id).then(() => focus(next.id))
}
const focus = (id: string) => nextTick(() => document.getElementById(`bead-${id}`)?.focus())

// A skill that was come to by a link is brought into sight.
const scroller = ref<HTMLElement>()
watch(
  [picked, () => strings.value.width],
  async () => {
    await nextTick()
    const bead = strings.value.beads.get(picked.value)
    const box = scroller.value
    if (!bead || !box) return
    if (bead.x < box.scrollLeft + 60 || bead.x > box.scrollLeft + box.clientWidth - 60)
      box.scrollLeft = bead.x - box.clientWidth / 2
  },
  { immediate: true },
)
</script>

<template>
  <div class="page wide">
    <div class="page-head">
      <h1>{{ $t('Skill map') }}</h1>
      <div class="with">
        <span aria-hidden="true">{{ $t('Strengths of') }}</span>
        <LongSelect
          :model-value="childId ? `${childId}` : ''"
          :label="$t('Strengths of')"
          :none="$t('the whole class')"
          :options="names.map((c) => ({ value: `${c.id}`, label: c.name }))"
          @update:model-value="lay($event ?? '')"
        />
      </div>
      <label class="with">
        <span>{{ $t('Find') }}</span>
        <input
          type="text"
          list="all-skills"
          :placeholder="$t('a skill')"
          :aria-label="$t('Find a skill')"
          @change="
            (event) => {
              const found = map?.skills.find((s) => s.short === (event.target as HTMLInputElement).value)
              if (found) go(found.id)
            }
          "
        />
        <datalist id="all-skills">
          <option v-for="s in map?.skills" :key="s.id" :value="s.short" />
        </datalist>
      </label>
      <button v-if="picked" type="button" class="button plain" @click="go('')">{{ $t('The whole map') }}</button>
      <div v-if="leadsSchool" class="end">
        <button type="button" class="button" @click="adding = !adding">{{ $t('Add a skill of our own') }}</button>
        <MapFile />
      </div>
    </div>
    <PageError v-if="error" :error="error" />
    <NewSkill v-if="adding && map" :map="map" @done="(id) => ((adding = false), id && go(id))" />

    <MapOverview v-if="map && !picked" :map="map" :seasons="seasons" :says="says" :fill="fill" @go="go" />
    <div v-else-if="map" class="layout">
      <div ref="scroller" class="scroller" tabindex="-1">
        <div class="board" :style="{ width: `${strings.width}px`, height: `${strings.height}px` }">
          <svg :width="strings.width" :height="strings.height" aria-hidden="true">
            <path v-for="lane in strings.lanes" :key="lane.strand" class="string" :d="lane.path" />
            <path
              v-for="thread in strings.threads.filter((one) => one.from === picked || one.to === picked)"
              :key="thread.key"
              class="thread"
              :d="thread.path"
            />
          </svg>
          <div v-for="lane in strings.lanes" :key="lane.strand" class="lane" :style="{ top: `${lane.y - 33}px` }">
            <h2>{{ strandName.get(lane.strand) }}</h2>
          </div>
          <span
            v-for="s in seasonStarts"
            :key="`season-${s.id}`"
            class="season"
            :style="{
              left: `${(strings.beads.get(s.id)?.x ?? 0) - 34}px`,
              top: `${(strings.beads.get(s.id)?.y ?? 0) - 8}px`,
            }"
            aria-hidden="true"
            >{{ seasons[s.when] }}</span
          >
          <button
            v-for="s in map.skills"
            :id="`bead-${s.id}`"
            :key="s.id"
            type="button"
            class="bead"
            :class="{
              picked: s.id === picked,
              near: near.has(s.id),
              hidden: s.hidden,
              ready: s.ready > 0,
              changed: s.changed,
            }"
            :style="{
              left: `${strings.beads.get(s.id)?.x}px`,
              top: `${strings.beads.get(s.id)?.y}px`,
              '--fill': fill(s),
            }"
            :tabindex="s.id === picked || (!picked && s === map.skills[0]) ? 0 : -1"
            :aria-current="s.id === picked ? 'true' : undefined"
            :aria-label="says(s)"
            @click="go(s.id)"
            @keydown="walk($event, s.id)"
          >
            <i /><span>{{ s.short }}</span>
          </button>
        </div>
      </div>
      <SkillPanel :key="picked" :skill-id="picked" :map="map" @go="go" @close="go('')" />
    </div>
    <p v-if="map" class="soft small legend">
      <i class="dot" style="--fill: 0.5" />
      {{ $t('filled as far as {a}', { a: childId ? $t('the child is') : $t('the class has it') }) }}
      <i class="dot ready" style="--fill: 0.2" /> {{ childId ? $t('ready for it') : $t('someone is ready for it') }}
      <i class="dot hidden" style="--fill: 0" /> {{ $t('hidden by the school') }}
      <i class="dot changed" style="--fill: 0" />
      {{ $t('the school’s own or changed · beyond: after the {year} year', { year: map.year }) }}
    </p>
  </div>
</template>

<style scoped>
.wide {
  max-width: none;
}

.with {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
}

.layout {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 21rem;
  gap: 1.2rem;
  align-items: start;
}

.scroller {
  overflow: auto;
  max-height: calc(100vh - 14rem);
  min-height: 24rem;
  border-top: 1.5px solid var(--ink);
  border-bottom: 1px solid var(--line);
}

.board {
  position: relative;
}

svg {
  position: absolute;
  inset: 0;
}

.string {
  fill: none;
  stroke: var(--line-strong);
  stroke-width: 2.5;
  stroke-linecap: round;
}

.thread {
  fill: none;
  stroke: var(--spruce);
  stroke-width: 2.5;
}

.lane {
  position: absolute;
  inset-inline: 0;
  pointer-events: none;
}

.lane h2 {
  position: sticky;
  left: 4px;
  width: max-content;
  padding: 0 4px;
  background: var(--card);
  color: var(--ink-soft);
  font-size: 0.8rem;
}

.season {
  position: absolute;
  padding: 0 3px;
  background: var(--card);
  color: var(--ink-soft);
  font-size: 0.68rem;
  line-height: 1;
  z-index: 1;
  pointer-events: none;
  transform: translate(-50%, 0) rotate(-90deg);
}

.bead {
  position: absolute;
  display: grid;
  justify-items: center;
  width: 72px;
  min-height: 44px;
  margin: -15px 0 0 -36px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--ink);
  font: 400 0.72rem/1.05 var(--body);
  cursor: pointer;
}

.bead span {
  padding: 3px 1px 0;
  background: linear-gradient(var(--card) 0 0) center / 100% 100% no-repeat;
  overflow-wrap: break-word;
}

.bead i,
.dot {
  display: inline-block;
  width: 30px;
  height: 30px;
  border: 2px solid var(--line-strong);
  border-radius: 50%;
  background: linear-gradient(to top, var(--ink) calc(var(--fill) * 100%), var(--card) 0);
}

.dot {
  width: 16px;
  height: 16px;
  margin-left: 0.8rem;
  vertical-align: -3px;
}

.bead.ready i,
.dot.ready {
  border: 3px solid var(--spruce);
}

.bead.hidden i,
.dot.hidden {
  border-style: dashed;
  background: none;
  background-color: var(--card);
}

.bead.hidden span {
  color: var(--ink-soft);
  text-decoration: line-through;
}

.bead.changed i,
.dot.changed {
  box-shadow:
    0 0 0 2px var(--card),
    0 0 0 3.5px var(--ink);
}

.bead.near span {
  font-weight: 700;
}

.bead.picked i {
  outline: 3px solid var(--spruce);
  outline-offset: 3px;
}

.bead.picked span {
  font-weight: 700;
  text-decoration: underline;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem;
}

.legend .dot:first-child {
  margin-left: 0;
}

@media (max-width: 1000px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }

  .layout .scroller {
    max-height: 45vh;
    min-height: 18rem;
  }
}
</style>
