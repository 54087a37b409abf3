<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Schemas } from '@/app/api/client'
import PictureView from '@/mats/PictureView.vue'
import StepNumber from '@/ui/StepNumber.vue'
import MatFrame from './MatFrame.vue'
import MatStage from './MatStage.vue'
import { freshSeed, useAddress, whole } from '@/ui/useAddress'
import { useAsked } from './useAsked'
import { t } from '@/app/language'

/** A number laid out one way or another, shown for a moment; what can be read off it comes when it is asked for. */
const { at, put } = useAddress({ layout: 'Frame', number: '7', seed: '1', low: '3', high: '8' })
const layouts: Record<Schemas['LookLayout'], string> = {
  Frame: t('Ten frame'),
  Dice: t('Dice'),
  Fingers: t('Fingers'),
  Row: t('Row, five and some'),
  Doubles: t('Two rows'),
  Array: t('Rows'),
  Circle: t('Circle'),
  Tower: t('Tower of cubes'),
  Bunches: t('Bunches'),
  Scattered: t('Scattered'),
  Domino: t('Domino'),
  Ticket: t('Ticket'),
  HeapsOfTen: t('Heaps of ten'),
}
const number = computed(() => whole(at.value.number, 1, 200, 7))
const low = computed(() => whole(at.value.low, 1, 200, 3))
const high = computed(() => Math.max(low.value, whole(at.value.high, 1, 200, 8)))
const asked = computed(() => ({
  layout: at.value.layout as Schemas['LookLayout'],
  number: number.value,
  seed: whole(at.value.seed, 1, 999_999, 1),
}))
const { data: look, error } = useAsked('look', asked, (params) =>
  api.GET('/api/classes/{classId}/mats/look', { params }),
)
const told = ref(false)
watch(look, () => (told.value = false))

/** Another number of the range, never the same twice running. */
function another() {
  const from = Array.from({ length: high.value - low.value + 1 }, (_, i) => low.value + i).filter(
    (n) => n !== number.value,
  )
  const next = from[Math.floor(Math.random() * from.length)] ?? number.value
  put({ number: String(next), seed: freshSeed() })
}

const key = (pressed: string) => (pressed === 'n' ? another() : (told.value = !told.value))
</script>

<template>
  <MatFrame :name="$t('See it, say it')" :problem="error">
    <MatStage
      :flash="look?.flashSeconds ?? 1"
      :corner="{ key: 'n', label: $t('Another') }"
      :keys="{ n: $t('another number'), l: $t('what can be read off it') }"
      @key="key"
    >
      <PictureView v-if="look" :picture="look.picture" fill />
      <template #under>
        <span v-if="told && look" aria-live="polite">{{ look.readings.join(' · ') }}</span>
        <span v-else class="soft">{{ $t('How many? How did you see it?') }}</span>
      </template>
      <template #run>
        <button type="button" class="button" @click="another">{{ $t('Another number') }}</button>
        <button type="button" class="button" :aria-pressed="told" @click="told = !told">
          {{ $t('What can be read') }}
        </button>
      </template>
    </MatStage>
    <template #side>
      <section class="ruled">
        <h2>{{ $t('Shown as') }}</h2>
        <select
          class="box wide"
          :aria-label="$t('Shown as')"
          :value="at.layout"
          @change="put({ layout: ($event.target as HTMLSelectElement).value })"
        >
          <option v-for="(name, layout) in layouts" :key="layout" :value="layout">{{ name }}</option>
        </select>
      </section>
      <section class="ruled">
        <h2>{{ $t('Number') }}</h2>
        <StepNumber
          :model-value="number"
          :label="$t('Number')"
          :low="1"
          :high="200"
          @update:model-value="put({ number: `${$event}` })"
        />
        <h2 class="gap">{{ $t('Another one comes from') }}</h2>
        <StepNumber
          :model-value="low"
          :label="$t('From')"
          :low="1"
          :high="200"
          @update:model-value="put({ low: `${$event}` })"
        />
        <span class="to">{{ $t('to') }}</span>
        <StepNumber
          :model-value="high"
          :label="$t('To')"
          :low="1"
          :high="200"
          @update:model-value="put({ high: `${$event}` })"
        />
      </section>
    </template>
  </MatFrame>
</template>

<style scoped>
.wide {
  width: 100%;
  min-height: var(--target);
}

.gap {
  margin: 0.9rem 0 0.3rem;
}

.to {
  margin-inline: 0.4rem;
}
</style>
