<script setup lang="ts">
import { useAccount } from '@/app/account'
import PlaceTabs from './PlaceTabs.vue'

/** The ways of looking at a class's record. */
const { leads } = useAccount()
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
  <PlaceTabs
    label="The class’s record"
    :tabs="[...tabs, ...(leads ? [{ name: 'records', label: 'In and out' }] : [])]"
  />
</template>
