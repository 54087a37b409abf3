<script setup lang="ts">
import type { Schemas } from '@/app/api/client'

/** What is said for a step, and the line beside it. */
defineProps<{ step: Schemas['MatStep'] | undefined }>()
</script>

<template>
  <span v-if="step" aria-live="polite"
    >{{ step.says }} <b>{{ step.line }}</b></span
  >
</template>

<style scoped>
b {
  margin-left: 0.6em;
  white-space: nowrap;
}
</style>
