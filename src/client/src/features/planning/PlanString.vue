<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/app/api/client'
import { dayOfMonth, fullDay, shortMonth } from '@/app/dates'
import { beadsOf, dayAt, daysOf, keyOf, termsOf } from './layout'

type Lesson = Schemas['LessonView']

/** The year as a string: weeks from left to right, a thread for each strand, a bead for each lesson. Beads can be picked, and dragged along. */
const props = defineProps<{
  weeks: Schemas['PlanWeek'][]
  strands: Schemas['PlanStrand'][]
  lessons: Lesson[]
  reviews?: Schemas['ReviewView'][]
  today: string
  chosen?: Lesson
  /** What each day would mean for the bead in hand, by day. */
  prices?: Map<string, Schemas['DayPriceView']>
  draggable?: boolean
  /** Beads to mark, by skill/day. */
  moved?: Set<string>
  label: string
}>()
const emit = defineEmits<{ pick: [Lesson]; lift: [Lesson]; over: [string | undefined]; drop: [Lesson, string] }>()

const days = computed(() => daysOf(props.weeks))
const beads = computed(() => beadsOf(props.lessons, props.weeks, props.strands))
const terms = computed(() => termsOf(props.weeks))
const close = computed(() => props.weeks.length > 20)
const different = computed(() =>
  props.weeks.flatMap((w, i) =>
    w.days.flatMap((d, k) => (d.different || !d.school ? [{ x: i * 5 + k, day: d.day, why: d.different ?? '' }] : [])),
  ),
)
const todayAt = computed(() => days.value.indexOf(props.today))
const starters = computed(() => {
  const at = new Map(days.value.map((d, i) => [d, i]))
  const row = props.strands.findIndex((s) => s.id === props.chosen?.strand)
  return (props.reviews ?? [])
    .filter((r) => r.skill === props.chosen?.skill && at.has(r.day))
    .map((r) => ({ ...r, x: at.get(r.day)!, row }))
})
const percent = (x: number) => `${((x + 0.5) * 100) / Math.max(1, days.value.length)}%`
const key = keyOf

// In hand: the bead follows the finger; the day under it is told to whoever shows what a drop would mean.
const threads = ref<HTMLElement>()
const held = ref<{ lesson: Lesson; from: number; x: number; day?: string; began: boolean }>()

function lift(lesson: Lesson, event: PointerEvent) {
  emit('pick', lesson)
  if (!props.draggable || lesson.past || event.button !== 0) return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  held.value = { lesson, from: event.clientX, x: 0, began: false }
}

function move(event: PointerEvent) {
  const inHand = held.value
  if (!inHand || !threads.value) return
  inHand.x = event.clientX - inHand.from
  if (!inHand.began && Math.abs(inHand.x) > 5) {
    inHand.began = true
    emit('lift', inHand.lesson)
  }
  if (!inHand.began) return
  const box = threads.value.getBoundingClientRect()
  const day = dayAt(props.weeks, (event.clientX - box.left) / box.width)
  if (day !== inHand.day) {
    inHand.day = day
    emit('over', day)
  }
}

function letGo() {
  const inHand = held.value
  held.value = undefined
  emit('over', undefined)
  if (inHand?.began && inHand.day && inHand.day !== inHand.lesson.day) emit('drop', inHand.lesson, inHand.day)
}

const overAt = computed(() => (held.value?.day ? days.value.indexOf(held.value.day) : -1))
const overKind = computed(() => {
  const price = held.value?.day ? props.prices?.get(held.value.day) : undefined
  if (!props.prices) return ''
  return !price || price.refused ? 'refused' : price.advice.length ? 'advice' : 'open'
})

function step(event: KeyboardEvent, by: number) {
  event.preventDefault()
  const inOrder = [...beads.value].sort((a, b) => a.x - b.x || a.row - b.row).map((b) => b.lesson)
  const at = inOrder.findIndex((l) => props.chosen && key(l) === key(props.chosen))
  const next = inOrder[Math.min(inOrder.length - 1, Math.max(0, at + by))]
  if (!next) return
  emit('pick', next)
  requestAnimationFrame(() =>
    threads.value?.querySelector<HTMLElement>(`[data-key="${CSS.escape(key(next))}"]`)?.focus(),
  )
}
const tabbable = computed(() => {
  const chosen = beads.value.find((b) => props.chosen && key(b.lesson) === key(props.chosen))
  return chosen ? key(chosen.lesson) : beads.value[0] && key(beads.value[0].lesson)
})
</script>

<template>
  <div class="string" :class="{ close }" role="group" :aria-label="label">
    <div class="names">
      <span class="term-space" />
      <span v-for="strand in strands" :key="strand.id" class="name small">{{ strand.name }}</span>
    </div>
    <div class="scroll">
      <div class="over">
        <div class="terms" aria-hidden="true">
          <span v-for="term in terms" :key="term.first" class="term small" :style="{ flexGrow: term.count }">{{
            term.name
          }}</span>
        </div>
        <div class="weeks" aria-hidden="true">
          <span v-for="(week, i) in weeks" :key="week.monday" class="week"
            >{{ dayOfMonth(week.monday)
            }}<b v-if="i === 0 || shortMonth(week.monday) !== shortMonth(weeks[i - 1]?.monday ?? '')">{{
              ` ${shortMonth(week.monday)}`
            }}</b></span
          >
        </div>
      </div>
      <div ref="threads" class="threads" :style="{ '--rows': strands.length, '--weeks': weeks.length }">
        <i v-for="(_, i) in weeks" :key="i" class="line" :style="{ left: `${(i * 100) / weeks.length}%` }" />
        <i
          v-for="day in different"
          :key="day.day"
          v-tooltip.top="day.why"
          class="off"
          :style="{ left: `${(day.x * 100) / days.length}%`, width: `${100 / days.length}%` }"
        />
        <i v-for="(strand, row) in strands" :key="strand.id" class="thread" :style="{ '--row': row }" />
        <i v-if="todayAt >= 0" v-tooltip.top="$t('today')" class="now" :style="{ left: percent(todayAt) }" />
        <i
          v-if="overAt >= 0"
          class="target"
          :class="overKind"
          :style="{ left: `${(overAt * 100) / days.length}%`, width: `${100 / days.length}%` }"
        />
        <i
          v-for="starter in starters"
          :key="starter.day + starter.round"
          v-tooltip.top="$t('Starter, {day}', { day: fullDay(starter.day) })"
          class="starter"
          :style="{ left: percent(starter.x), '--row': starter.row }"
        />
        <button
          v-for="bead in beads"
          :key="key(bead.lesson)"
          v-tooltip.top="
            $t('{short} · {number} of {of} · {day}', {
              short: bead.lesson.short,
              number: bead.lesson.number,
              of: bead.lesson.of,
              day: fullDay(bead.lesson.day),
            })
          "
          type="button"
          class="bead"
          :class="{
            given: bead.lesson.given,
            missed: bead.lesson.past && !bead.lesson.given,
            looks: bead.lesson.stage === 'Check',
            pinned: bead.lesson.pinned,
            noted: bead.lesson.note,
            same: chosen?.skill === bead.lesson.skill,
            chosen: chosen && key(chosen) === key(bead.lesson),
            moved: moved?.has(`${bead.lesson.skill}/${bead.lesson.day}`),
            held: held?.began && held.lesson === bead.lesson,
          }"
          :data-key="key(bead.lesson)"
          :tabindex="key(bead.lesson) === tabbable ? 0 : -1"
          :aria-pressed="chosen ? key(chosen) === key(bead.lesson) : false"
          :aria-label="
            $t('{short}, lesson {number} of {of}, {day}{a}{b}', {
              short: bead.lesson.short,
              number: bead.lesson.number,
              of: bead.lesson.of,
              day: fullDay(bead.lesson.day),
              a: bead.lesson.given ? $t(', given') : '',
              b: bead.lesson.pinned ? $t(', pinned') : '',
            })
          "
          :style="{
            left: percent(bead.x),
            '--row': bead.row,
            '--under': bead.under,
            '--dx': held?.began && held.lesson === bead.lesson ? `${held.x}px` : '0px',
          }"
          @pointerdown="lift(bead.lesson, $event)"
          @pointermove="move"
          @pointerup="letGo"
          @pointercancel="held = undefined"
          @click="emit('pick', bead.lesson)"
          @keydown.right="step($event, 1)"
          @keydown.left="step($event, -1)"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.string {
  --height: 40px;
  --size: 16px;
  display: grid;
  grid-template-columns: fit-content(8.8rem) minmax(0, 1fr);
}

.close {
  --height: 34px;
  --size: 9px;
}

.names {
  display: grid;
  grid-auto-rows: var(--height);
  grid-template-rows: 42px;
}

.name {
  display: flex;
  align-items: center;
  padding-right: 0.5rem;
  line-height: 1.1;
}

.scroll {
  min-width: 0;
  overflow-x: auto;
}

.over,
.threads {
  min-width: calc(var(--weeks, 40) * 21px);
}

.over {
  height: 42px;
}

.terms,
.weeks {
  display: flex;
}

.term {
  flex-basis: 0;
  overflow: hidden;
  border-left: 1.5px solid var(--line-strong);
  padding-left: 0.3rem;
  color: var(--ink-soft);
  white-space: nowrap;
}

.week {
  flex: 1 0 0;
  overflow: visible;
  min-width: 0;
  padding-left: 2px;
  color: var(--ink-soft);
  font-size: 0.72rem;
  white-space: nowrap;
}

/* At the end there is room for the day only. */
.week:last-child b {
  display: none;
}

.close .week:nth-child(even) {
  color: transparent;
}

.close .week b {
  color: var(--ink-soft);
}

.close .week:not(:has(b)) {
  color: transparent;
}

.threads {
  position: relative;
  height: calc(var(--rows) * var(--height));
  border-top: 1px solid var(--line);
  touch-action: pan-y;
}

.threads > i {
  position: absolute;
  pointer-events: none;
}

.line {
  top: 0;
  bottom: 0;
  border-left: 1px solid var(--line);
}

.off {
  top: 0;
  bottom: 0;
  background: repeating-linear-gradient(135deg, var(--line) 0 1.5px, transparent 1.5px 5px);
}

.thread {
  top: calc((var(--row) + 0.5) * var(--height));
  right: 0;
  left: 0;
  border-top: 1.5px solid var(--line-strong);
}

.now {
  top: -6px;
  bottom: 0;
  border-left: 2px solid var(--ink);
}

.target {
  top: 0;
  bottom: 0;
  background: var(--spruce-wash);
  outline: 2px solid var(--spruce);
}

.target.advice {
  outline-style: dashed;
}

.target.refused {
  background: none;
  outline: 2px solid var(--brick);
}

.starter {
  top: calc((var(--row) + 0.5) * var(--height) + var(--size) * 0.75);
  width: 7px;
  height: 7px;
  margin-left: -3.5px;
  background: var(--ink);
  transform: rotate(45deg);
}

.bead {
  position: absolute;
  top: calc((var(--row) + 0.5) * var(--height) - var(--size) / 2 + var(--under) * var(--size) * 0.9);
  width: var(--size);
  height: var(--size);
  margin-left: calc(var(--size) / -2);
  padding: 0;
  box-sizing: border-box;
  border: 2px solid var(--spruce);
  border-radius: 50%;
  background: var(--card);
  cursor: grab;
  transform: translateX(var(--dx));
  touch-action: none;
}

/* Larger to the finger than to the eye. */
.bead::after {
  position: absolute;
  inset: -8px 0;
  content: '';
}

.bead.given {
  border-color: var(--ink-soft);
  background: var(--ink-soft);
  cursor: pointer;
}

.bead.missed {
  border-color: var(--brick);
  border-style: dashed;
  cursor: pointer;
}

.bead.looks {
  border-radius: 2px;
}

.bead.pinned {
  box-shadow: 0 -5px 0 -2px var(--ink);
}

.bead.noted {
  background: radial-gradient(var(--ink) 30%, var(--card) 34%);
}

.bead.same {
  background: var(--spruce);
}

.bead.moved {
  border-color: var(--ink);
  background: var(--marigold);
}

.bead.chosen {
  z-index: 2;
  outline: 2px solid var(--ink);
  outline-offset: 2px;
}

.bead.held {
  z-index: 3;
  cursor: grabbing;
}
</style>
