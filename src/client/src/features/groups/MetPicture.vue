<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/app/api/client'
import { t } from '@/app/language'

/** How often each pair has met: a half square of knots, larger the more often; a ring where a pair has not met. Names run along the diagonal. */
const props = defineProps<{ children: Schemas['CompanyChild'][]; met: Schemas['MetView'][] }>()
const step = 19
const place = computed(() => new Map(props.children.map((c, i) => [c.id, i])))
const size = computed(() => props.children.length * step)
const most = computed(() => Math.max(1, ...props.met.map((m) => m.times)))
const looked = ref<number>()

const knots = computed(() =>
  props.met.map((m) => {
    const [a, b] = [place.value.get(m.first) ?? 0, place.value.get(m.second) ?? 0]
    const [column, row] = a < b ? [a, b] : [b, a]
    return {
      ...m,
      x: (column + 0.5) * step,
      y: (row + 0.5) * step,
      r: 2 + (m.times / most.value) * (step / 2 - 2.5),
      words: t('{name} and {name2}: {a}', {
        name: props.children[column]!.name,
        name2: props.children[row]!.name,
        a: m.times === 1 ? t('once') : t('{times} times', { times: m.times }),
      }),
    }
  }),
)
const touches = (m: Schemas['MetView']) =>
  looked.value === undefined || m.first === looked.value || m.second === looked.value

// For those who hear the page: each child with whom it has met, and how often.
const told = computed(() =>
  props.children.map((child) => ({
    name: child.name,
    met: props.met
      .filter((m) => m.first === child.id || m.second === child.id)
      .map((m) => {
        const other = m.first === child.id ? m.second : m.first
        return `${props.children[place.value.get(other) ?? 0]!.name} ${m.times}`
      })
      .join(', '),
  })),
)
</script>

<template>
  <figure>
    <svg
      :viewBox="`-4 -4 ${size + 84} ${size + 8}`"
      role="img"
      :aria-label="$t('How often each pair of children has been in a group together; the same as a list below')"
    >
      <g v-for="(child, i) in children" :key="child.id">
        <line
          class="line"
          :class="{ looked: looked === child.id }"
          x1="0"
          :x2="i * step"
          :y1="(i + 0.5) * step"
          :y2="(i + 0.5) * step"
        />
        <line
          class="line"
          :class="{ looked: looked === child.id }"
          :x1="(i + 0.5) * step"
          :x2="(i + 0.5) * step"
          :y1="(i + 1) * step"
          :y2="size"
        />
        <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions, vuejs-accessibility/mouse-events-have-key-events -- pointing only brings out what the list beside says in words -->
        <text
          class="said"
          :class="{ looked: looked === child.id }"
          :x="i * step + 6"
          :y="(i + 0.5) * step + 4"
          @mouseenter="looked = child.id"
          @mouseleave="looked = undefined"
        >
          {{ child.name }}
        </text>
      </g>
      <circle
        v-for="knot in knots"
        :key="`${knot.first}-${knot.second}`"
        class="knot"
        :class="{ dim: !touches(knot) }"
        :cx="knot.x"
        :cy="knot.y"
        :r="knot.r"
      >
        <title>{{ knot.words }}</title>
      </circle>
    </svg>
    <figcaption class="small soft">
      {{
        $t(
          'Each knot is a pair: the larger, the more often they sat together, {most} times at most. No knot: not yet. Point at a name to see its own.',
          { most },
        )
      }}
    </figcaption>
    <details>
      <summary>{{ $t('As a list') }}</summary>
      <ul>
        <li v-for="child in told" :key="child.name">
          <b class="said">{{ child.name }}</b> {{ child.met || $t('nobody yet') }}
        </li>
      </ul>
    </details>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}

svg {
  width: 100%;
  max-height: 80vh;
}

.line {
  stroke: var(--line);
  stroke-width: 1;
}

.line.looked {
  stroke: var(--spruce);
  stroke-width: 2;
}

text {
  fill: var(--ink);
  font-size: 11.5px;
  cursor: default;
}

text.looked {
  font-weight: 700;
}

.knot {
  fill: var(--ink);
}

.knot.dim {
  opacity: 0.18;
}

summary {
  min-height: 40px;
  padding-top: 0.6rem;
  cursor: pointer;
}
</style>
