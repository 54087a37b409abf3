<script setup lang="ts">
import { useRoute } from 'vue-router'
import { useAccount } from '@/app/account'

/** The ways of looking at a class's record, on one line under the heading. */
const { classId, leads } = useAccount()
const route = useRoute()
const tabs = [
  { name: 'class', label: 'Grid' },
  { name: 'look-again', label: 'Look again' },
  { name: 'slips', label: 'Slips' },
  { name: 'baseline', label: 'Baseline' },
  { name: 'trail', label: 'Trail' },
  { name: 'agreement', label: 'Two adults' },
]
</script>

<template>
  <nav class="tabs" aria-label="The class’s record">
    <RouterLink
      v-for="tab in [...tabs, ...(leads ? [{ name: 'records', label: 'In and out' }] : [])]"
      :key="tab.name"
      :to="{ name: tab.name, params: { classId } }"
      :aria-current="route.name === tab.name ? 'page' : undefined"
      >{{ tab.label }}</RouterLink
    >
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
