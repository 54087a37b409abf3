<script setup lang="ts">
import type { Schemas } from '@/app/api/client'
import { representationLabel } from '@/ui/marks'

/** How the child showed it, where the skill can be shown in more ways than one. */
defineProps<{ ways: Schemas['Representation'][] }>()
const way = defineModel<Schemas['Representation']>({ required: true })
</script>

<template>
  <div v-if="ways.length > 1" class="ways" role="radiogroup" :aria-label="$t('Shown with')">
    <span class="soft">{{ $t('Shown with') }}</span>
    <button
      v-for="r in ways"
      :key="r"
      type="button"
      role="radio"
      :aria-checked="way === r"
      class="way"
      :class="{ on: way === r }"
      @click="way = r"
    >
      {{ representationLabel(r) }}
    </button>
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
}

.way {
  min-height: var(--target);
  padding: 0 1rem;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}

.way.on {
  border-color: var(--spruce);
  background: var(--spruce);
  color: #fffcf5;
  font-weight: 700;
}
</style>
