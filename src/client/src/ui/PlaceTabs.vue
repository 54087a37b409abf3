<script setup lang="ts">
import { useRoute } from 'vue-router'
import { useAccount } from '@/app/account'

/** The ways of looking at one place, on one line under the heading. */
defineProps<{ label: string; tabs: { name: string; label: string }[] }>()
const { classId } = useAccount()
const route = useRoute()
const day = () => (typeof route.params.day === 'string' && route.params.day ? { day: route.params.day } : {})
</script>

<template>
  <nav class="tabs" :aria-label="label">
    <RouterLink
      v-for="tab in tabs"
      :key="tab.name"
      :to="{ name: tab.name, params: { classId, ...day() } }"
      :aria-current="route.name === tab.name ? 'page' : undefined"
      >{{ tab.label }}</RouterLink
    >
    <slot />
  </nav>
</template>

<style scoped>
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.2rem;
  margin: -0.2rem 0 0.9rem;
  border-bottom: 1.5px solid var(--line-strong);
}

.tabs a {
  display: inline-flex;
  align-items: center;
  min-height: 40px;
  padding: 0 0.8rem;
  color: var(--ink);
  text-decoration: none;
}

.tabs a:hover {
  background: var(--spruce-wash);
}

.tabs a[aria-current] {
  box-shadow: inset 0 -4px 0 var(--spruce);
  font-weight: 700;
}

@media print {
  .tabs {
    display: none;
  }
}
</style>
