<script setup lang="ts">
import PlaceTabs from '@/ui/PlaceTabs.vue'
import { t } from '@/app/language'

/** From this week's tables to what they did. */
const tabs = [
  { name: 'groups', label: t('This week') },
  { name: 'groups-ahead', label: t('Weeks ahead') },
  { name: 'groups-after', label: t('What it did') },
  { name: 'groups-company', label: t('Turns and company') },
]
</script>

<template>
  <PlaceTabs :label="$t('Groups')" :tabs="tabs" />
</template>
