<script setup lang="ts">
import type { Schemas } from '@/app/api/client'

/**
 * Draws a picture of the core. The core says what is where and what role it has; looks are given here and nowhere else. Things keep their
 * size from picture to picture, unless the picture is to fill the place it stands in; what has the same key slides to where it now lies.
 */
defineProps<{ picture: Schemas['Picture']; fill?: boolean }>()

const corners = (points: Schemas['Point'][]) => points.map((p) => `${p.x},${p.y}`).join(' ')
</script>

<template>
  <svg
    class="picture"
    :class="{ fill }"
    :style="fill ? undefined : { width: `calc(var(--unit, 1.15rem) * ${picture.width})` }"
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
      <polygon v-else-if="shape.kind === 'Outline'" :class="shape.role" :points="corners(shape.points)" />
      <polyline v-else-if="shape.kind === 'Trail'" :class="shape.role" :points="corners(shape.points)" />
      <text
        v-else
        :class="shape.role"
        :x="shape.x"
        :y="shape.y"
        :font-size="shape.height"
        :text-anchor="shape.fromLeft ? 'start' : 'middle'"
        dominant-baseline="central"
      >
        {{ shape.text }}
      </text>
    </template>
    <slot />
  </svg>
</template>

<style scoped>
.picture {
  display: block;
  max-width: 100%;
  height: auto;
}

.picture.fill {
  width: 100%;
  height: 100%;
}

circle,
rect,
line,
polygon,
polyline {
  stroke: var(--ink);
  stroke-width: 0.06;
  fill: none;
  transition:
    cx 0.45s,
    cy 0.45s,
    x 0.45s,
    y 0.45s,
    fill 0.3s;
}

.Cell,
.Tray,
.Card,
.Part,
.Whole,
.Hand {
  fill: var(--card);
}

.Tray,
.Cover {
  fill: var(--paper-deep);
}

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

.Link,
.Rule {
  stroke: var(--line-strong);
}

.Block {
  stroke-width: 0.03;
}

.Hop {
  stroke: var(--spruce);
  stroke-width: 0.09;
}

.Loop {
  stroke-width: 0.1;
}

.Cross {
  stroke-width: 0.13;
  stroke-linecap: round;
}

.Cover {
  stroke-dasharray: 0.18 0.12;
}

.Cut {
  stroke: var(--line-strong);
  stroke-dasharray: 0.2 0.16;
}

.Loop,
.Cross,
.Hop,
.Cover,
.Letter {
  animation: appear 0.4s;
}

@keyframes appear {
  from {
    opacity: 0;
  }
}

text {
  fill: var(--ink);
  font-family: var(--child);
  font-weight: 700;
}

text.Note,
text.Trace {
  fill: var(--ink-soft);
  font-weight: 400;
}
</style>
