<script setup lang="ts">
import { useAccount } from '@/app/account'
import PlaceTabs from './PlaceTabs.vue'
import { t } from '@/app/language'

/** The ways of looking at a class's record. */
const { leads } = useAccount()
const tabs = [
  { name: 'class', label: t('Grid') },
  { name: 'look-again', label: t('Look again') },
  { name: 'slips', label: t('Slips') },
  { name: 'baseline', label: t('Baseline') },
  { name: 'trail', label: t('Trail') },
  { name: 'agreement', label: t('Two adults') },
]
</script>

<template>
  <PlaceTabs
    :label="$t('The class’s record')"
    :tabs="[...tabs, ...(leads ? [{ name: 'records', label: $t('In and out') }] : [])]"
  />
</template>
