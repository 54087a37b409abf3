<script setup lang="ts">
import { notices, putAway } from './notices'
</script>

<template>
  <div class="stack" role="status" aria-live="polite">
    <div v-for="notice in notices" :key="notice.id" class="notice" :class="{ bad: notice.bad }">
      <span>{{ notice.text }}</span>
      <button type="button" class="away" @click="putAway(notice.id)">{{ $t('Put away') }}</button>
    </div>
  </div>
</template>

<style scoped>
.stack {
  position: fixed;
  top: 8px;
  left: 50%;
  transform: translateX(-50%);
  z-index: 2000;
  display: grid;
  gap: 0.5rem;
  max-width: min(30rem, calc(100vw - 2rem));
}

.notice {
  display: flex;
  gap: 1rem;
  align-items: center;
  padding: 0.7rem 0.9rem;
  border: 1.5px solid var(--ink);
  border-left-width: 8px;
  border-radius: var(--corner);
  background: var(--card);
}

.notice.bad {
  border-color: var(--brick);
}

.away {
  margin-left: auto;
  border: 0;
  background: none;
  color: var(--spruce);
  font: inherit;
  font-size: 0.9rem;
  text-decoration: underline;
  cursor: pointer;
  white-space: nowrap;
}
</style>
