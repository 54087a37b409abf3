<script setup lang="ts">
import type { Schemas } from '@/app/api/client'
import { t } from '@/app/language'

/** How much each aim counts, each with a sentence on what it does. */
const props = defineProps<{ weights: Schemas['WeightView'][]; steps: number[] }>()
const emit = defineEmits<{ set: [weights: Record<string, number>] }>()
const words: Record<number, string> = {
  0: t('not at all'),
  50: t('a little'),
  100: t('as usual'),
  200: t('much'),
  400: t('very much'),
}

function change(weight: Schemas['WeightView'], event: Event) {
  const step = props.steps[Number((event.target as HTMLInputElement).value)]!
  emit('set', { ...Object.fromEntries(props.weights.map((w) => [w.key, w.percent])), [weight.key]: step })
}
</script>

<template>
  <div>
    <h3>{{ $t('What counts how much') }}</h3>
    <div v-for="weight in weights" :key="weight.key" class="weight">
      <label :for="`weight-${weight.key}`">{{ weight.name }}</label>
      <input
        :id="`weight-${weight.key}`"
        type="range"
        min="0"
        :max="steps.length - 1"
        step="1"
        :value="steps.indexOf(weight.percent)"
        :aria-valuetext="words[weight.percent]"
        :aria-describedby="`does-${weight.key}`"
        @change="change(weight, $event)"
      />
      <b>{{ words[weight.percent] }}</b>
      <span :id="`does-${weight.key}`" class="small soft">{{ weight.does }}</span>
    </div>
  </div>
</template>

<style scoped>
.weight {
  display: grid;
  grid-template-columns: 9rem 1fr 5.4rem;
  gap: 0 0.7rem;
  align-items: center;
  padding: 0.35rem 0;
  border-top: 1px solid var(--line);
}

.weight .small {
  grid-column: 1 / -1;
}

input {
  height: 28px;
  accent-color: var(--spruce);
}
</style>
