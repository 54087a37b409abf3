<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/app/api/client'
import { supportLabel } from '@/ui/marks'
import type { Marked } from './turns'

/** After a tap, for those who want to say more: which slip, which way. It lies at the foot of the screen and can be ignored. */
const props = defineProps<{
  name: string
  marked: Marked
  slips: Schemas['CardChoice'][]
  strategies: Schemas['CardChoice'][]
}>()
const emit = defineEmits<{ amend: [more: { slip?: string | null; strategy?: string | null }] }>()

const chips = computed(() => [
  ...props.slips.map((choice) => ({ ...choice, kind: 'slip' as const })),
  ...props.strategies.map((choice) => ({ ...choice, kind: 'strategy' as const })),
])
</script>

<template>
  <div class="strip" role="group" :aria-label="`How ${name} did it`">
    <b class="said">{{ name }}</b> {{ supportLabel(marked.support).toLowerCase() }}
    <button
      v-for="chip in chips"
      :key="`${chip.kind} ${chip.id}`"
      type="button"
      class="chip"
      :class="[chip.kind, { on: marked[chip.kind] === chip.id }]"
      :aria-pressed="marked[chip.kind] === chip.id"
      @click="emit('amend', { [chip.kind]: marked[chip.kind] === chip.id ? null : chip.id })"
    >
      {{ chip.text }}
    </button>
  </div>
</template>

<style scoped>
.strip {
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin: auto -1.5rem -2.5rem;
  padding: 0.7rem 1.5rem;
  border-top: 1.5px solid var(--ink);
  background: var(--paper-deep);
}

.chip {
  min-height: var(--target);
  padding: 0 0.9rem;
  border: 1.5px dashed var(--ink-soft);
  border-radius: 22px;
  background: var(--card);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}

.chip.strategy {
  border-style: solid;
}

.chip.on {
  border: 1.5px solid var(--spruce);
  background: var(--spruce);
  color: #fffcf5;
}
</style>
