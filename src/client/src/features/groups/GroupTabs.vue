<script setup lang="ts">
import PlaceTabs from '@/ui/PlaceTabs.vue'

/** From this week's tables to what they did. */
const tabs = [
  { name: 'groups', label: 'This week' },
  { name: 'groups-ahead', label: 'Weeks ahead' },
  { name: 'groups-after', label: 'What it did' },
  { name: 'groups-company', label: 'Turns and company' },
]
</script>

<template>
  <PlaceTabs label="Groups" :tabs="tabs" />
</template>
