<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import type { Schemas } from '@/app/api/client'
import PictureView from '@/mats/PictureView.vue'
import { distance, type At } from './touch'

/**
 * A picture to put hands on. A pointer taps a point of it, or drags from one to another; keys have it as one stop of the tab key, go from
 * spot to spot with the arrows and act on one with Enter.
 */
const props = defineProps<{
  picture: Schemas['Picture']
  /** What it is, for those who hear it. */
  label: string
  /** Where keys can go, in the order in which they go. */
  spots: At[]
  /** Whether something that can be dragged lies at a point. */
  grab?: (point: At) => boolean
  /** What has been picked up. */
  held?: At | undefined
}>()
const emit = defineEmits<{ tap: [At]; drop: [from: At, to: At]; spot: [number] }>()

const Still = 0.3
const svg = useTemplateRef<{ $el: SVGSVGElement }>('svg')
const drag = ref<{ from: At; now: At; holds: boolean }>()
const dragged = computed(() => {
  const d = drag.value
  return d?.holds && distance(d.from, d.now) > Still ? d.now : undefined
})

function pointOf(event: PointerEvent): At {
  const matrix = svg.value!.$el.getScreenCTM()!.inverse()
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
  return { x, y }
}

function down(event: PointerEvent) {
  const point = pointOf(event)
  drag.value = { from: point, now: point, holds: props.grab?.(point) ?? false }
  if (drag.value.holds) svg.value!.$el.setPointerCapture(event.pointerId)
}

function over(event: PointerEvent) {
  if (drag.value?.holds) drag.value.now = pointOf(event)
}

function up(event: PointerEvent) {
  const began = drag.value
  drag.value = undefined
  if (!began) return
  const point = pointOf(event)
  if (began.holds && distance(began.from, point) > Still) emit('drop', began.from, point)
  else emit('tap', began.from)
}

const cursor = ref(0)
const focused = ref(false)
const here = computed(() => props.spots[Math.min(cursor.value, props.spots.length - 1)])

function walk(event: KeyboardEvent) {
  const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
  const count = props.spots.length
  if (step && count) cursor.value = (Math.min(cursor.value, count - 1) + step + count) % count
  else if (event.key === 'Enter' && count) emit('spot', Math.min(cursor.value, count - 1))
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -- an application of its own: focus and keys are handled here -->
  <div
    class="touch"
    role="application"
    tabindex="0"
    :aria-label="$t('{label} Arrow keys go from place to place, Enter acts. {name}', { label, name: here?.name ?? '' })"
    @keydown="walk"
    @focus="focused = true"
    @blur="focused = false"
  >
    <PictureView
      ref="svg"
      :picture="picture"
      fill
      @pointerdown="down"
      @pointermove="over"
      @pointerup="up"
      @pointercancel="drag = undefined"
    >
      <circle v-if="dragged" class="dragged" :cx="dragged.x" :cy="dragged.y" r="0.42" />
      <circle v-if="held" class="held" :cx="held.x" :cy="held.y" r="0.47" />
      <circle v-if="focused && here" class="cursor" :cx="here.x" :cy="here.y" r="0.58" />
    </PictureView>
  </div>
</template>

<style scoped>
.touch {
  min-height: 0;
  min-width: 0;
  display: grid;
  touch-action: none;
  cursor: pointer;
}

.touch > :deep(svg) {
  min-height: 0;
}

.dragged,
.held,
.cursor {
  fill: none;
  pointer-events: none;
  stroke: var(--spruce);
  stroke-width: 0.09;
}

.dragged {
  fill: var(--spruce-wash);
}

.held {
  stroke-dasharray: 0.2 0.12;
}
</style>
