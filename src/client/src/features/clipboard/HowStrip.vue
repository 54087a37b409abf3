<script setup lang="ts">
import type { Schemas } from '@/app/api/client'
import { supportLabel } from '@/ui/marks'
import type { Marked } from './turns'

/** After a tap, for those who want to say more: which slip, which way. It lies at the foot of the screen and can be ignored. */
defineProps<{ name: string; marked: Marked; slips: Schemas['CardChoice'][]; strategies: Schemas['CardChoice'][] }>()
const emit = defineEmits<{ amend: [more: { slip?: string | null; strategy?: string | null }] }>()
</script>

<template>
  <div class="strip" role="group" :aria-label="`How ${name} did it`">
    <b class="said">{{ name }}</b> {{ supportLabel(marked.support).toLowerCase() }}
    <button
      v-for="slip in slips"
      :key="slip.id"
      type="button"
      class="chip"
      :class="{ on: marked.slip === slip.id }"
      :aria-pressed="marked.slip === slip.id"
      @click="emit('amend', { slip: marked.slip === slip.id ? null : slip.id })"
    >
      {{ slip.text }}
    </button>
    <button
      v-for="way in strategies"
      :key="way.id"
      type="button"
      class="chip way"
      :class="{ on: marked.strategy === way.id }"
      :aria-pressed="marked.strategy === way.id"
      @click="emit('amend', { strategy: marked.strategy === way.id ? null : way.id })"
    >
      {{ way.text }}
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

.chip.way {
  border-style: solid;
}

.chip.on {
  border: 1.5px solid var(--spruce);
  background: var(--spruce);
  color: #fffcf5;
}
</style>
