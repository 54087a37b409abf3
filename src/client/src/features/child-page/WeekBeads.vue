<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import { t } from '@/app/language'

/** The string of a child's year: a bead a week, larger the more was seen, with a ring for what became secure in it. */
const props = defineProps<{ weeks: Schemas['ChildBead'][] }>()
const STEP = 26
const HEIGHT = 64
const most = computed(() => Math.max(1, ...props.weeks.map((w) => w.seen)))
const beads = computed(() =>
  props.weeks.map((week, i) => {
    const x = (i + 0.5) * STEP
    const along = props.weeks.length > 1 ? i / (props.weeks.length - 1) : 0.5
    return {
      ...week,
      x,
      y: 18 + 64 * along * (1 - along),
      r: week.seen ? 3.5 + 6 * Math.sqrt(week.seen / most.value) : 2.5,
      says: t('Week of {day}: seen {a}{b}', {
        day: dayAndMonth(week.monday),
        a: week.seen === 1 ? t('once') : t('{seen} times', { seen: week.seen }),
        b: week.secured.length ? t('; secure: {list}', { list: week.secured.join(', ') }) : '',
      }),
    }
  }),
)
const width = computed(() => Math.max(1, props.weeks.length) * STEP)
</script>

<template>
  <svg
    :viewBox="`0 0 ${width} ${HEIGHT}`"
    :style="{ width: `${width}px` }"
    role="img"
    :aria-label="$t('The year so far: {list}', { list: beads.map((b) => b.says).join('. ') })"
  >
    <polyline :points="beads.map((b) => `${b.x},${b.y}`).join(' ')" />
    <g v-for="bead in beads" :key="bead.monday">
      <title>{{ bead.says }}</title>
      <circle :cx="bead.x" :cy="bead.y" :r="bead.r" :class="{ seen: bead.seen }" />
      <circle v-if="bead.secured.length" :cx="bead.x" :cy="bead.y" :r="bead.r + 3" class="ring" />
      <text v-if="bead.secured.length" :x="bead.x" :y="bead.y + bead.r + 15">{{ bead.secured.length }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
}

polyline {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}

circle {
  fill: var(--card);
  stroke: var(--spruce);
  stroke-width: 1.5;
}

.seen {
  fill: var(--spruce);
}

.ring {
  fill: none;
  stroke: var(--ink);
}

text {
  fill: var(--ink);
  font: 700 11px var(--body);
  text-anchor: middle;
}
</style>
