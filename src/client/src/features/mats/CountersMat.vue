<script setup lang="ts">
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import StepNumber from '@/ui/StepNumber.vue'
import { say, sayError } from '@/ui/notices'
import MatFrame from './MatFrame.vue'
import MatStage from './MatStage.vue'
import TouchPicture from './TouchPicture.vue'
import { counterAt, placeAt, spotsOf, type At } from './touch'
import { freshSeed, useAddress } from '@/ui/useAddress'
import { t } from '@/app/language'

/** Counters laid out by hand. What is done is asked of the core, which answers with what then lies there; that stands in the address. */
type Deed = NonNullable<Schemas['MatDeed']>
type Kind = NonNullable<Schemas['MatKind']>
type Tool = 'a' | 'b' | 'Move' | 'Turn' | 'Cross' | 'Circle' | 'Remove' | 'Cover'

const route = useRoute()
const queries = useQueryClient()
const { classId } = useAccount()
const kind = computed(() => String(route.params.kind || 'TenFrame') as Kind)
const { at, put } = useAddress({ state: '', sum: '', read: '1' })

const tools: { tool: Tool; key: string; label: string }[] = [
  { tool: 'a', key: '1', label: t('Lay') },
  { tool: 'b', key: '2', label: t('Lay') },
  { tool: 'Move', key: 'm', label: t('Move') },
  { tool: 'Turn', key: 't', label: t('Turn over') },
  { tool: 'Cross', key: 'x', label: t('Cross out') },
  { tool: 'Circle', key: 'o', label: t('Circle') },
  { tool: 'Remove', key: 'r', label: t('Take off') },
  { tool: 'Cover', key: 'h', label: t('Cover a part') },
]

type Ask = {
  deed?: Deed
  counter?: number
  zone?: number
  place?: number
  second?: boolean
  first?: number
  more?: number
  seed?: number
}
const ask = (state: string, deed: Ask = {}) =>
  take(
    api.GET('/api/classes/{classId}/mats/counters/{kind}', {
      params: { path: { classId: classId.value, kind: kind.value }, query: { state, ...deed } },
    }),
  )
const keyOf = (state: string) => queryKey('mat', 'counters', classId.value, kind.value, state)
const { data: mat, error } = useQuery({
  queryKey: queryKey(
    'mat',
    'counters',
    classId,
    kind,
    computed(() => at.value.state),
  ),
  queryFn: () => ask(at.value.state),
  placeholderData: keepPreviousData,
})

const tool = ref<Tool>('a')
const held = ref<number>()
const past = ref<string[]>([])
const deal = ref({ first: 5, more: 3 })
const shakes = computed(() => ['Tray', 'Ring'].includes(kind.value))
const hasCounters = computed(() => (mat.value?.counters.length ?? 0) > 0 || (mat.value?.covered.some(Boolean) ?? false))
watch(kind, () => (past.value = []))

async function doIt(deed: Ask) {
  try {
    const before = at.value.state
    const now = await ask(before, deed)
    if (now.refused) return say(now.refused, true)
    queries.setQueryData(keyOf(now.state), now)
    past.value.push(before)
    put({ state: now.state })
  } catch (problem) {
    sayError(problem)
  }
}

function undo() {
  const before = past.value.pop()
  if (before !== undefined) put({ state: before })
}

/** The tool in hand, used on a counter or on a free place. */
async function use(spot: { counter?: number | undefined; zone: number; place?: number | undefined }) {
  const { counter, zone, place } = spot
  if (held.value !== undefined && counter === undefined) {
    const moving = held.value
    held.value = undefined
    return doIt({ deed: 'Move', counter: moving, zone, place })
  }
  if (tool.value === 'Cover') return doIt({ deed: 'Cover', zone })
  if (tool.value === 'a' || tool.value === 'b')
    return counter === undefined || !mat.value?.view.places.some((p) => p.place !== null)
      ? doIt({ deed: 'Put', zone, place, second: tool.value === 'b' })
      : undefined
  if (counter === undefined) return
  if (tool.value === 'Move') held.value = held.value === counter ? undefined : counter
  else await doIt({ deed: tool.value, counter })
}

const layNext = (second: boolean) => doIt({ deed: 'Put', second })
const shake = () => doIt({ deed: 'Shake', seed: Number(freshSeed()) })

const spots = computed(() => (mat.value ? spotsOf(mat.value) : []))
const lifted = computed(() => spots.value.find((s) => s.counter === held.value && s.counter !== undefined))

function tap(point: At) {
  const found = counterAt(mat.value!, point)
  const place = found ?? placeAt(mat.value!, point)
  if (place) void use({ counter: found?.id, zone: place.zone, place: place.place ?? undefined })
}

function drop(from: At, to: At) {
  const [counter, place] = [counterAt(mat.value!, from), placeAt(mat.value!, to)]
  if (counter && place)
    void doIt({ deed: 'Move', counter: counter.id, zone: place.zone, place: place.place ?? undefined })
}

const keys = computed(() => ({
  '1': t('lay one'),
  '2': t('lay one of the other colour'),
  ...Object.fromEntries(tools.slice(2).map((t) => [t.key, t.label.toLowerCase()])),
  n: shakes.value ? t('shake') : t('turn all by chance'),
  z: t('undo'),
  '⏎': t('on the mat: arrows and Enter'),
}))

function key(pressed: string) {
  if (pressed === '1' || pressed === '2') void layNext(pressed === '2')
  else if (pressed === 'n') void shake()
  else if (pressed === 'z') undo()
  else tool.value = tools.find((t) => t.key === pressed)?.tool ?? tool.value
}

// Where signs come after things, the sum is put under a mat by hand.
const withSum = computed(() => (at.value.sum === '' ? (mat.value?.signsFirst ?? false) : at.value.sum !== '0'))
</script>

<template>
  <MatFrame :name="mat?.name ?? ''" :problem="error">
    <MatStage
      :flash="mat?.view.flashSeconds ?? 1"
      :keys="keys"
      :corner="{ key: 'n', label: shakes ? $t('Shake') : $t('By chance') }"
      @key="key"
    >
      <TouchPicture
        v-if="mat"
        :picture="mat.view.picture"
        :label="`${mat.name}.`"
        :spots="spots"
        :grab="(point) => counterAt(mat!, point) !== undefined"
        :held="lifted"
        @tap="tap"
        @drop="drop"
        @spot="use(spots[$event]!)"
      />
      <template #under>
        <span v-if="mat?.view.sentence && withSum" class="sentence">{{ mat.view.sentence }}</span>
        <span v-if="mat && hasCounters && at.read !== '0'" class="readings" aria-live="polite">{{
          mat.view.readings.join(' · ')
        }}</span>
      </template>
      <template #run>
        <button type="button" class="button" :disabled="!hasCounters" @click="shake">
          {{ shakes ? $t('Shake') : kind === 'Heap' ? $t('Scatter') : $t('Turn all by chance') }}
        </button>
        <button type="button" class="button" :disabled="past.length === 0" @click="undo">{{ $t('Undo') }}</button>
      </template>
    </MatStage>

    <template #side>
      <section class="ruled">
        <h2>{{ $t('In the hand') }}</h2>
        <div class="tools" role="group" :aria-label="$t('In the hand')">
          <button
            v-for="one in tools"
            :key="one.tool"
            type="button"
            :aria-pressed="tool === one.tool"
            @click="tool = one.tool"
          >
            <i v-if="one.tool === 'a' || one.tool === 'b'" class="dot" :class="one.tool" />
            {{ one.label }} <span v-if="one.tool === 'b'" class="hidden-words">{{ $t('the other colour') }}</span>
          </button>
        </div>
        <p class="small soft">{{ $t('Tap a place or a counter. A counter can also be dragged.') }}</p>
      </section>
      <section class="ruled">
        <h2>{{ $t('Under it') }}</h2>
        <label class="check"
          ><input type="checkbox" :checked="withSum" @change="put({ sum: withSum ? '0' : '1' })" />
          {{ $t('the sum') }}</label
        >
        <label class="check"
          ><input type="checkbox" :checked="at.read !== '0'" @change="put({ read: at.read === '0' ? '1' : '0' })" />
          {{ $t('what can be read') }}</label
        >
      </section>
      <section class="ruled">
        <h2>{{ $t('Lay out') }}</h2>
        <div class="deal">
          <StepNumber v-model="deal.first" :label="$t('First part')" :high="40" />
          <StepNumber v-model="deal.more" :label="$t('Second part')" :high="40" />
        </div>
        <div class="buttons">
          <button
            type="button"
            class="button"
            @click="doIt({ deed: 'Deal', first: deal.first, more: deal.more, seed: Number(freshSeed()) })"
          >
            {{ $t('Lay out {first} and {more}', { first: deal.first, more: deal.more }) }}
          </button>
          <button type="button" class="button" @click="doIt({ deed: 'Clear' })">{{ $t('Clear the mat') }}</button>
        </div>
      </section>
    </template>
  </MatFrame>
</template>

<style scoped>
.sentence {
  display: block;
  font-weight: 700;
  font-size: 1.15em;
}

.readings {
  font-size: 0.85em;
}

.tools {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem;
  margin-top: 0.4rem;
}

.tools button {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  min-height: var(--target);
  padding: 0.2rem 0.7rem;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font: 700 0.95rem/1.2 var(--body);
  cursor: pointer;
}

.tools button[aria-pressed='true'] {
  border-color: var(--spruce);
  background: var(--spruce-wash);
  box-shadow: inset 0 0 0 1.5px var(--spruce);
}

.dot {
  width: 1.3rem;
  height: 1.3rem;
  border: 1.5px solid var(--ink);
  border-radius: 50%;
  background: var(--marigold);
}

.dot.b {
  background: var(--blue);
}

.deal,
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  margin-top: 0.5rem;
}
</style>
