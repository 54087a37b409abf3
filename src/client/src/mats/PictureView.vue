<script setup lang="ts">
import type { Schemas } from '@/app/api/client'

/** Draws a picture of the core. The core says what is where and what role it has; looks are given here and nowhere else. Things keep their size from picture to picture. */
defineProps<{ picture: Schemas['Picture'] }>()
</script>

<template>
  <svg
    class="picture"
    :style="{ width: `calc(var(--unit, 1.15rem) * ${picture.width})` }"
    :viewBox="`0 0 ${picture.width} ${picture.height}`"
    role="img"
    :aria-label="picture.description"
  >
    <template v-for="shape in picture.shapes" :key="shape.key">
      <circle v-if="shape.kind === 'Circle'" :class="shape.role" :cx="shape.x" :cy="shape.y" :r="shape.width / 2" />
      <rect
        v-else-if="shape.kind === 'Box'"
        :class="shape.role"
        :x="shape.x"
        :y="shape.y"
        :width="shape.width"
        :height="shape.height"
        :rx="shape.role === 'Cell' ? 0.04 : 0.16"
      />
      <line
        v-else-if="shape.kind === 'Line'"
        :class="shape.role"
        :x1="shape.x"
        :y1="shape.y"
        :x2="shape.x + shape.width"
        :y2="shape.y + shape.height"
      />
      <text
        v-else
        :class="shape.role"
        :x="shape.x"
        :y="shape.y"
        :font-size="shape.height"
        text-anchor="middle"
        dominant-baseline="central"
      >
        {{ shape.text }}
      </text>
    </template>
  </svg>
</template>

<style scoped>
.picture {
  display: block;
  max-width: 100%;
  height: auto;
}

circle,
rect,
line {
  stroke: var(--ink);
  stroke-width: 0.06;
  fill: none;
  transition:
    cx 0.35s,
    cy 0.35s;
}

.Cell,
.Tray,
.Card,
.Part,
.Whole {
  fill: var(--card);
}

.Tray,
.Cover {
  fill: var(--paper-deep);
}

/* The second colour carries a ring as well, so that the two stay apart in grey print. */
.CounterA {
  fill: var(--marigold);
}

.CounterB {
  fill: var(--blue);
}

.Pip {
  fill: var(--ink);
}

.Ring {
  stroke-width: 0.16;
  stroke: var(--line-strong);
}

.Link {
  stroke: var(--line-strong);
}

.Cover {
  stroke-dasharray: 0.18 0.12;
}

text {
  fill: var(--ink);
  font-family: var(--child);
  font-weight: 700;
}
</style>
