<script setup lang="ts">
import { computed } from 'vue'
import { api, type Schemas } from '@/app/api/client'
import PictureView from '@/mats/PictureView.vue'
import StepNumber from '@/ui/StepNumber.vue'
import MatFrame from './MatFrame.vue'
import MatStage from './MatStage.vue'
import StepsUnder from './StepsUnder.vue'
import { useAddress, whole } from '@/ui/useAddress'
import { useAsked } from './useAsked'
import { useSteps } from './useSteps'
import { t } from '@/app/language'

/** A number in blocks and in layered cards; put to it or taken from it kind by kind, with every exchange. */
const { at, put } = useAddress({ number: '153', show: 'Blocks', op: 'Add', other: '' })
const number = computed(() => whole(at.value.number, 0, 999, 153))
const operation = computed<Schemas['Operation']>(() => (at.value.op === 'TakeAway' ? 'TakeAway' : 'Add'))
const other = computed(() => (at.value.other === '' ? undefined : whole(at.value.other, 0, 999, 0)))
const asked = computed(() => ({ number: number.value, operation: operation.value, other: other.value }))
const { data: mat, error } = useAsked('kinds', asked, (params) =>
  api.GET('/api/classes/{classId}/mats/kinds', { params }),
)
const { at: place, last, step, on, back } = useSteps(computed(() => mat.value?.steps ?? []))
const working = computed(() => (mat.value?.steps.length ?? 0) > 0)
const picture = computed(() => {
  if (!mat.value) return undefined
  if (working.value) return step.value?.picture
  const { blocks, cardsApart, cardsTogether } = mat.value.number
  return { Blocks: blocks, Apart: cardsApart, Together: cardsTogether }[at.value.show] ?? blocks
})
const shows = [
  ['Blocks', t('Blocks')],
  ['Apart', t('Cards, apart')],
  ['Together', t('Cards, slid together')],
] as const
</script>

<template>
  <MatFrame :name="mat?.name ?? ''" :problem="error">
    <MatStage v-bind="working ? { steps: { at: place, last } } : {}" @on="on" @back="back">
      <PictureView v-if="picture" :picture="picture" fill />
      <template #under>
        <StepsUnder v-if="working" :step="step" />
        <template v-else-if="mat">
          <b>{{ mat.number.sentence }}</b>
          <span class="readings">{{ mat.number.readings.join(' · ') }}</span>
        </template>
      </template>
    </MatStage>
    <template #side>
      <section class="ruled">
        <h2>{{ $t('The number') }}</h2>
        <StepNumber :model-value="number" :label="$t('Number')" @update:model-value="put({ number: `${$event}` })" />
        <div class="shows" role="group" :aria-label="$t('Shown as')">
          <label v-for="[show, name] in shows" :key="show" class="check">
            <input type="radio" name="show" :disabled="working" :checked="at.show === show" @change="put({ show })" />
            {{ name }}
          </label>
        </div>
      </section>
      <section class="ruled">
        <h2>{{ $t('Work with a second number') }}</h2>
        <div class="beside">
          <select
            class="box"
            :aria-label="$t('Add or take away')"
            :value="operation"
            @change="put({ op: ($event.target as HTMLSelectElement).value })"
          >
            <option value="Add">+</option>
            <option value="TakeAway">−</option>
          </select>
          <StepNumber
            :model-value="other ?? 0"
            :label="$t('Second number')"
            @update:model-value="put({ other: `${$event}` })"
          />
        </div>
        <button v-if="working" type="button" class="button plain" @click="put({ other: '' })">
          {{ $t('Only the number') }}
        </button>
      </section>
    </template>
  </MatFrame>
</template>

<style scoped>
.readings {
  display: block;
  font-size: 0.8em;
}

.shows {
  display: grid;
  margin-top: 0.5rem;
}

.beside {
  display: flex;
  gap: 0.5rem;
}

.beside .box {
  min-height: var(--target);
  font: 700 1.4rem/1 var(--child);
}
</style>
