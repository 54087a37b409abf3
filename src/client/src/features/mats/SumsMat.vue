<script setup lang="ts">
import { computed } from 'vue'
import { api, type Schemas } from '@/app/api/client'
import { useClassNames } from '@/app/useClassNames'
import PictureView from '@/mats/PictureView.vue'
import StepNumber from '@/ui/StepNumber.vue'
import MatFrame from './MatFrame.vue'
import MatStage from './MatStage.vue'
import { useAddress, whole } from '@/ui/useAddress'
import { useAsked } from './useAsked'
import { useSteps } from './useSteps'
import LongSelect from '@/ui/LongSelect.vue'

/** A sum worked by every strategy that fits, step by step, with the sum growing beside the picture. */
const { at, put } = useAddress({ a: '8', op: 'Add', b: '7', way: '', child: '' })
const a = computed(() => whole(at.value.a, 0, 99, 8))
const operation = computed<Schemas['Operation']>(() => (at.value.op === 'TakeAway' ? 'TakeAway' : 'Add'))
const b = computed(() => whole(at.value.b, 0, operation.value === 'TakeAway' ? a.value : 99, 7))
const child = computed(() => (at.value.child ? Number(at.value.child) : undefined))
const children = useClassNames()

const asked = computed(() => ({ a: a.value, operation: operation.value, b: b.value, childId: child.value }))
const { data: sum, error } = useAsked('sums', asked, (params) =>
  api.GET('/api/classes/{classId}/mats/sums', { params }),
)
const way = computed(
  () =>
    sum.value?.strategies.find((s) => s.kind === at.value.way) ??
    sum.value?.strategies.find((s) => s.kind === sum.value?.recommended),
)
const { at: place, last, step, lines, on, back } = useSteps(computed(() => way.value?.steps ?? []))
</script>

<template>
  <MatFrame :name="$t('Sums, worked')" :problem="error">
    <MatStage :steps="{ at: place, last }" @on="on" @back="back">
      <div v-if="step" class="worked">
        <PictureView :picture="step.picture" fill />
        <ol class="lines" :aria-label="$t('The sum so far')">
          <li v-for="line in lines" :key="line">{{ line }}</li>
        </ol>
      </div>
      <template #under>
        <span v-if="step" aria-live="polite">{{ step.says }}</span>
      </template>
    </MatStage>

    <template #side>
      <section class="ruled">
        <h2>{{ $t('The sum') }}</h2>
        <div class="sum">
          <StepNumber
            :model-value="a"
            :label="$t('First number')"
            :high="99"
            @update:model-value="put({ a: `${$event}` })"
          />
          <select
            class="box op"
            :aria-label="$t('Add or take away')"
            :value="operation"
            @change="put({ op: ($event.target as HTMLSelectElement).value })"
          >
            <option value="Add">+</option>
            <option value="TakeAway">−</option>
          </select>
          <StepNumber
            :model-value="b"
            :label="$t('Second number')"
            :high="operation === 'TakeAway' ? a : 99"
            @update:model-value="put({ b: `${$event}` })"
          />
        </div>
        <div class="field">
          <span aria-hidden="true">{{ $t('For whom') }}</span>
          <LongSelect
            :model-value="at.child"
            :label="$t('For whom')"
            :none="$t('anyone')"
            :options="(children ?? []).map((c) => ({ value: `${c.id}`, label: c.name }))"
            @update:model-value="put({ child: $event ?? '' })"
          />
        </div>
        <p v-if="sum" class="small">{{ sum.reason }}</p>
      </section>
      <section class="ruled">
        <h2>{{ $t('Ways') }}</h2>
        <ul class="ways">
          <li v-for="s in sum?.strategies" :key="s.kind">
            <button
              type="button"
              :aria-pressed="s.kind === way?.kind"
              @click="put({ way: s.kind === sum?.recommended ? '' : s.kind })"
            >
              <b>{{ s.name }}</b>
              <span class="small soft">{{ s.mentalSteps }} {{ s.mentalSteps === 1 ? $t('step') : $t('steps') }}</span>
              <span v-if="s.kind === sum?.recommended" class="take small">{{ $t('take this one') }}</span>
            </button>
          </li>
        </ul>
        <p v-if="way" class="small">{{ way.fits }}</p>
        <p v-if="way && place === last" class="said family">{{ way.family.join(' · ') }}</p>
      </section>
    </template>
  </MatFrame>
</template>

<style scoped>
.worked {
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 1.4rem;
}

.worked > :deep(svg) {
  min-height: 0;
}

.lines {
  align-self: center;
  list-style: none;
  margin: 0;
  padding: 0;
  min-width: 9rem;
  font: 700 1.5rem/1.5 var(--child);
}

.lines li:not(:last-child) {
  color: var(--ink-soft);
  font-weight: 400;
}

:global(.mat.board .lines) {
  min-width: 17rem;
  font-size: clamp(2rem, 7vh, 4.4rem);
}

/* Written one below the other, the sign before the second number. */
.sum {
  display: grid;
  grid-template-columns: auto auto;
  gap: 0.5rem;
  justify-content: start;
  margin-top: 0.4rem;
}

.sum > :first-child {
  grid-column: 2;
}

.op {
  grid-row: 2;
  min-height: var(--target);
  font: 700 1.5rem/1 var(--child);
}

.field {
  margin-block: 0.6rem 0.2rem;
}

.ways {
  list-style: none;
  margin: 0.3rem 0;
  padding: 0;
}

.ways button {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 0.6rem;
  width: 100%;
  min-height: var(--target);
  padding: 0.3rem 0.6rem;
  border: 0;
  border-left: 5px solid transparent;
  border-bottom: 1px solid var(--line);
  background: transparent;
  color: var(--ink);
  font: inherit;
  text-align: left;
  align-content: center;
  cursor: pointer;
}

.ways button:hover,
.ways button[aria-pressed='true'] {
  background: var(--spruce-wash);
}

.ways button[aria-pressed='true'] {
  border-left-color: var(--spruce);
}

.take {
  margin-left: auto;
  color: var(--spruce);
  font-weight: 700;
}

.family {
  font-size: 1.1rem;
}
</style>
