<script setup lang="ts">
import type { Schemas } from '@/app/api/client'

/** The smallest set of wishes that can't hold together; any one of them can be let go of. */
defineProps<{ wishes: Schemas['WishView'][] }>()
const emit = defineEmits<{ letGo: [wish: Schemas['WishView']] }>()
</script>

<template>
  <section class="conflict" aria-labelledby="conflict-head">
    <h2 id="conflict-head">
      {{ wishes.length === 1 ? $t('This can’t be kept') : $t('These can’t all be kept') }}
    </h2>
    <ul>
      <li v-for="wish in wishes" :key="wish.key">
        <span>{{ wish.sentence }}</span>
        <button type="button" class="button small" @click="emit('letGo', wish)">{{ $t('Let go of this one') }}</button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.conflict {
  max-width: 46rem;
  margin: 0.6rem 0 1.2rem;
  padding: 0.6rem 0.9rem;
  border: 1.5px solid var(--brick);
  border-radius: var(--corner);
  background: var(--card);
}

ul {
  margin: 0.3rem 0 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 1rem;
  padding: 0.35rem 0;
  border-top: 1px solid var(--line);
}

li .button {
  flex: none;
}
</style>
