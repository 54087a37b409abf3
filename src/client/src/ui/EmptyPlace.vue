<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router'

/** Where there is nothing yet: what will be here, why it is worth it, and the one thing to do. */
defineProps<{ what: string; why: string; to?: RouteLocationRaw; action?: string }>()
</script>

<template>
  <div class="empty">
    <p class="said">{{ what }}</p>
    <p class="soft">{{ why }}</p>
    <RouterLink v-if="to" class="button main" :to="to">{{ action }}</RouterLink>
  </div>
</template>

<style scoped>
.empty {
  max-width: 40rem;
  margin-block: 1rem;
}

.said {
  margin-bottom: 0.3rem;
  font-size: 1.2rem;
}
</style>
