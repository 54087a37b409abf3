<script setup lang="ts">
/** A field, and beneath it what the server found wrong there: the rules are kept in one place. */
defineProps<{ name: string; faults: Record<string, string[]> }>()
</script>

<template>
  <span class="faulty" :class="{ wrong: faults[name] }">
    <slot />
    <em v-for="reason in faults[name]" :key="reason" role="alert">{{ reason }}</em>
  </span>
</template>

<style scoped>
.faulty {
  display: inline-grid;
  gap: 0.2rem;
}

.wrong :deep(input) {
  border-color: var(--brick);
}

em {
  max-width: 18rem;
  color: var(--brick);
  font-size: 0.9rem;
  font-style: normal;
}
</style>
