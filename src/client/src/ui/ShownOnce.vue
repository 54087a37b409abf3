<script setup lang="ts">
/** Something that opens something, shown once: to be handed over, or put where it is needed, now. */
defineProps<{ words: string; what: string }>()
</script>

<template>
  <div class="once" role="status">
    <p>{{ words }}</p>
    <code>{{ what }}</code>
  </div>
</template>

<style scoped>
.once {
  margin-block: 0.8rem;
  padding-left: 0.8rem;
  border-left: 4px solid var(--marigold);
}

code {
  display: block;
  overflow-wrap: anywhere;
  user-select: all;
}
</style>
