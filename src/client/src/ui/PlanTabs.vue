<script setup lang="ts">
import PlaceTabs from './PlaceTabs.vue'
import { t } from '@/app/language'

/** From the whole year down to a week, and what comes of it. */
const tabs = [
  { name: 'year', label: t('Year') },
  { name: 'term', label: t('Term') },
  { name: 'week', label: t('Week') },
  { name: 'revise-plan', label: t('Re-plan') },
  { name: 'coverage', label: t('Coverage') },
]
</script>

<template>
  <PlaceTabs :label="$t('The plan')" :tabs="tabs" />
</template>
