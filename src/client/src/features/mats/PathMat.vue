<script setup lang="ts">
import { computed } from 'vue'
import { api } from '@/app/api/client'
import PictureView from '@/mats/PictureView.vue'
import StepNumber from '@/ui/StepNumber.vue'
import MatFrame from './MatFrame.vue'
import MatStage from './MatStage.vue'
import StepsUnder from './StepsUnder.vue'
import { useAddress, whole } from '@/ui/useAddress'
import { useAsked } from './useAsked'
import { useSteps } from './useSteps'

/** Hops on a path of stones, or on the open line where the way is long. */
const { at, put } = useAddress({ low: '0', high: '20', start: '12', hops: '3' })
const low = computed(() => whole(at.value.low, 0, 999, 0))
const high = computed(() => Math.max(low.value, whole(at.value.high, 0, 999, 20)))
const start = computed(() => Math.min(high.value, Math.max(low.value, whole(at.value.start, 0, 999, 0))))
const hops = computed(() => at.value.hops.split(',').filter(Boolean))
const asked = computed(() => ({ low: low.value, high: high.value, start: start.value, hops: hops.value.join(',') }))
const { data: walk, error } = useAsked('path', asked, (params) =>
  api.GET('/api/classes/{classId}/mats/path', { params }),
)
const { at: place, last, step, on, back } = useSteps(computed(() => walk.value?.steps ?? []))

const setHop = (index: number, hop: number) =>
  put({ hops: hops.value.map((h, i) => (i === index ? `${hop}` : h)).join(',') })
</script>

<template>
  <MatFrame :name="$t('Path and line')" :problem="error">
    <MatStage :steps="{ at: place, last }" @on="on" @back="back">
      <PictureView v-if="step" :picture="step.picture" fill />
      <template #under><StepsUnder :step="step" /></template>
    </MatStage>
    <template #side>
      <section class="ruled">
        <h2>{{ $t('The path') }}</h2>
        <p class="soft small">{{ $t('To 21 stones it is a path, longer an open line.') }}</p>
        <div class="beside">
          <StepNumber :model-value="low" :label="$t('Path from')" @update:model-value="put({ low: `${$event}` })" />
          <StepNumber :model-value="high" :label="$t('Path to')" @update:model-value="put({ high: `${$event}` })" />
        </div>
        <h2 class="after">{{ $t('Stand on') }}</h2>
        <StepNumber
          :model-value="start"
          :label="$t('Stand on')"
          :low="low"
          :high="high"
          @update:model-value="put({ start: `${$event}` })"
        />
      </section>
      <section class="ruled">
        <h2>{{ $t('Hops, on or back') }}</h2>
        <ol>
          <li v-for="(hop, i) in hops" :key="i">
            <StepNumber
              :model-value="Number(hop)"
              :label="$t('Hop {a}', { a: i + 1 })"
              :low="-99"
              :high="99"
              @update:model-value="setHop(i, $event)"
            />
          </li>
        </ol>
        <button
          type="button"
          class="button"
          :disabled="hops.length > 11"
          @click="put({ hops: [...hops, '2'].join(',') })"
        >
          {{ $t('One more hop') }}
        </button>
        <button
          type="button"
          class="button plain"
          :disabled="hops.length === 0"
          @click="put({ hops: hops.slice(0, -1).join(',') })"
        >
          {{ $t('Take the last away') }}
        </button>
      </section>
    </template>
  </MatFrame>
</template>

<style scoped>
ol {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 0.4rem;
}
</style>
