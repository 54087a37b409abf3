<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/app/api/client'
import { waysOfWriting } from '@/app/ways'
import LongSelect from '@/ui/LongSelect.vue'

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
    <span aria-hidden="true">{{ $t('Time zone') }}</span>
    <LongSelect
      v-model="place.timeZone"
      :label="$t('Time zone')"
      :options="zones.map((zone) => ({ value: zone, label: zone.replaceAll('_', ' ') }))"
    />
    <label
      >{{ $t('Dates') }}
      <select v-model="place.locale" class="box">
        <option v-for="way in ways" :key="way.tag" :value="way.tag">{{ way.label }}</option>
      </select></label
    >
    <button class="button">{{ $t('Keep') }}</button>
  </form>
</template>
