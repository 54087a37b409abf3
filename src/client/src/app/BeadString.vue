<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from './api/client'
import { addDays, dayOfMonth, dayAndMonth, fullDay, mondayOf, shortWeekday } from './dates'
import { t } from '@/app/language'

/** The week as a string of five beads. A bead fills as its day is planned, taught and recorded; today's is larger. */
const props = defineProps<{ day: string; today: string; week?: Schemas['WeekView'] }>()
const route = useRoute()

const monday = computed(() => mondayOf(props.day))
const beads = computed(() =>
  [0, 1, 2, 3, 4].map((i) => {
    const day = addDays(monday.value, i)
    const planned = props.week?.days.find((d) => d.day === day)
    return {
      day,
      state: planned?.state ?? 'Open',
      what: planned?.closed ?? planned?.focus?.short ?? '',
      today: day === props.today,
    }
  }),
)
const stateWords: Record<string, string> = {
  Closed: t('no lessons'),
  Open: t('not planned'),
  Planned: t('planned'),
  Taught: t('taught'),
  Recorded: t('recorded'),
}

// Beads lead to the same kind of page for another day where there is one, else to that day.
const place = computed(() =>
  ['today', 'week', 'groups', 'clipboard'].includes(String(route.name)) ? String(route.name) : 'today',
)
const to = (day: string) => ({ name: place.value, params: { classId: route.params.classId, day } })
const sag = [3, 11, 14, 11, 3]
</script>

<template>
  <nav class="string" :aria-label="$t('The week')">
    <svg class="thread" viewBox="0 0 1000 60" preserveAspectRatio="none" aria-hidden="true">
      <path d="M0 10 Q 500 58 1000 10" vector-effect="non-scaling-stroke" />
    </svg>
    <RouterLink
      class="turn"
      :to="to(addDays(monday, -7))"
      :aria-label="$t('Week before, from {day}', { day: dayAndMonth(addDays(monday, -7)) })"
      >‹</RouterLink
    >
    <RouterLink
      v-for="(bead, i) in beads"
      :key="bead.day"
      class="bead"
      :class="[bead.state, { now: bead.today, chosen: bead.day === day }]"
      :style="{ '--sag': `${sag[i]}px` }"
      :to="to(bead.day)"
      :aria-label="`${fullDay(bead.day)}: ${stateWords[bead.state]}${bead.what ? ', ' + bead.what : ''}${bead.today ? $t(', today') : ''}`"
      :aria-current="bead.day === day ? 'date' : undefined"
    >
      <span class="ball" aria-hidden="true" />
      <span class="name" aria-hidden="true">
        <b>{{ shortWeekday(bead.day) }} {{ dayOfMonth(bead.day) }}</b>
        <span class="what">{{ bead.what }}</span>
      </span>
    </RouterLink>
    <RouterLink
      class="turn"
      :to="to(addDays(monday, 7))"
      :aria-label="$t('Week after, from {day}', { day: dayAndMonth(addDays(monday, 7)) })"
      >›</RouterLink
    >
  </nav>
</template>

<style scoped>
.string {
  position: relative;
  display: grid;
  grid-template-columns: 44px repeat(5, 1fr) 44px;
  height: 92px;
}

.thread {
  position: absolute;
  inset: 9px 0 auto;
  width: 100%;
  height: 40px;
}

.thread path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}

.turn {
  position: relative;
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  color: var(--ink);
  font-size: 1.6rem;
  text-decoration: none;
  background: var(--paper);
}

.bead {
  position: relative;
  display: flex;
  flex-direction: column;
  align-items: center;
  min-width: 0;
  color: var(--ink);
  text-decoration: none;
  border-radius: var(--corner);
}

.ball {
  width: 26px;
  height: 26px;
  margin-top: calc(3px + var(--sag));
  border: 2.5px solid var(--spruce);
  border-radius: 50%;
  background: var(--paper);
}

.now .ball {
  width: 38px;
  height: 38px;
  margin-top: calc(var(--sag) - 3px);
}

/* Knot, ring, half, full. */
.Closed .ball {
  width: 10px;
  height: 10px;
  margin-top: calc(11px + var(--sag));
  background: var(--ink);
  border-color: var(--ink);
}

.Open .ball {
  border-style: dashed;
}

.Planned .ball {
  box-shadow: inset 0 0 0 4px var(--paper);
  background: #b9d3c9;
}

.Taught .ball {
  background: linear-gradient(to top, var(--spruce) 50%, var(--paper) 0);
}

.Recorded .ball {
  background: var(--spruce);
}

.name {
  display: grid;
  justify-items: center;
  max-width: 100%;
  font-size: 0.82rem;
  line-height: 1.15;
  margin-top: 3px;
}

.chosen b {
  padding-inline: 5px;
  border-radius: 3px;
  background: var(--ink);
  color: #fffcf5;
}

.what {
  max-width: 100%;
  padding-inline: 4px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: var(--ink-soft);
}

.bead:hover .ball {
  border-color: var(--ink);
}
</style>
