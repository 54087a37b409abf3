<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/app/api/client'
import { waysOfWriting } from '@/app/ways'

/** Where the school is: whose day it is when something is recorded, and how days are written. */
const props = defineProps<{ table: Schemas['TimetableView'] }>()
const emit = defineEmits<{ save: [place: Schemas['SchoolPlace']] }>()

const place = ref({ timeZone: '', locale: '' })
watch(
  () => props.table,
  ({ timeZone, locale }) => (place.value = { timeZone, locale }),
  { immediate: true },
)
const zones = computed(() => [...new Set([props.table.timeZone, ...Intl.supportedValuesOf('timeZone')])].sort())
const ways = computed(() => waysOfWriting(props.table.locales))
</script>

<template>
  <form class="beside line" @submit.prevent="emit('save', place)">
    <label
      >{{ $t('Time zone') }}
      <select v-model="place.timeZone" class="box">
        <option v-for="zone in zones" :key="zone" :value="zone">{{ zone.replaceAll('_', ' ') }}</option>
      </select></label
    >
    <label
      >{{ $t('Dates') }}
      <select v-model="place.locale" class="box">
        <option v-for="way in ways" :key="way.tag" :value="way.tag">{{ way.label }}</option>
      </select></label
    >
    <button class="button">{{ $t('Keep') }}</button>
  </form>
</template>
