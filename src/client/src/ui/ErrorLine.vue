<script setup lang="ts">
import { computed } from 'vue'
import { t } from '@/app/language'

/** A child's errors over the jars: a dot above the line for too many, below for too few; none where the child did not guess. */
const props = defineProps<{ errors: (number | null)[] }>()

const Step = 18
const Height = 40
const width = computed(() => Math.max(4, props.errors.length) * Step)
const dots = computed(() =>
  props.errors.flatMap((error, i) => {
    if (error === null) return []
    const off = Math.max(-1, Math.min(1, error))
    return [{ x: (i + 0.5) * Step, y: Height / 2 - off * (Height / 2 - 5), far: Math.abs(error) > 1 }]
  }),
)
const said = computed(() =>
  props.errors
    .map((e) =>
      e === null
        ? t('no guess')
        : e === 0
          ? t('exact')
          : t('{round} % too {a}', { round: Math.round(Math.abs(e) * 100), a: e > 0 ? t('many') : t('few') }),
    )
    .join(', '),
)
</script>

<template>
  <svg :width="width" :height="Height" role="img" :aria-label="said">
    <line x1="0" :x2="width" :y1="Height / 2" :y2="Height / 2" />
    <polyline :points="dots.map((d) => `${d.x},${d.y}`).join(' ')" />
    <circle v-for="d in dots" :key="d.x" :cx="d.x" :cy="d.y" r="4" :class="{ far: d.far }" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
}

line {
  stroke: var(--line-strong);
  stroke-width: 1.5;
}

polyline {
  fill: none;
  stroke: var(--line);
  stroke-width: 1.5;
}

circle {
  fill: var(--spruce);
}

.far {
  fill: var(--card);
  stroke: var(--spruce);
  stroke-width: 2;
}
</style>
