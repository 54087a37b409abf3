<script setup lang="ts">
import type { Schemas } from '@/app/api/client'

/** Cautions beside what causes them, closed by the standing advice. Nothing where there is nothing to say. */
defineProps<{ cautions: Schemas['Caution'][]; standing?: string }>()
</script>

<template>
  <div v-if="cautions.length" class="cautions small" role="note" :aria-label="$t('Take care')">
    <p v-for="caution in cautions" :key="caution.text">
      <b>{{ caution.items.join(', ') }}:</b> {{ caution.text }}
    </p>
    <p>{{ standing ?? $t('Follow your setting’s risk assessment and local rules.') }}</p>
  </div>
</template>

<style scoped>
.cautions {
  margin-top: 0.5rem;
  border-left: 4px solid var(--brick);
  padding-left: 0.7rem;
}

b::first-letter {
  text-transform: uppercase;
}
</style>
