<script setup lang="ts">
import PlaceTabs from './PlaceTabs.vue'

/** From the whole year down to a week, and what comes of it. */
const tabs = [
  { name: 'year', label: 'Year' },
  { name: 'term', label: 'Term' },
  { name: 'week', label: 'Week' },
  { name: 'revise-plan', label: 'Re-plan' },
  { name: 'coverage', label: 'Coverage' },
]
</script>

<template>
  <PlaceTabs label="The plan" :tabs="tabs" />
</template>
