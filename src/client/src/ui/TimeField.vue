<script setup lang="ts">
import DatePicker from 'primevue/datepicker'
import { computed } from 'vue'
import { byHalves } from '@/app/dates'

/** A time as 09:30, shown by the school's clock; empty where there is none. */
const time = defineModel<string>({ required: true })
const { label, required } = defineProps<{ label: string; required?: boolean }>()

const two = (number: number) => String(number).padStart(2, '0')
const value = computed({
  get: () => (time.value ? new Date(`2026-01-01T${time.value.slice(0, 5)}:00`) : null),
  set: (at: unknown) => (time.value = at instanceof Date ? `${two(at.getHours())}:${two(at.getMinutes())}` : ''),
})

// The picker itself reads no time that is typed without its halves of the day. A school's 1:15 is after noon.
function typed(event: Event) {
  const read = /^\s*(\d{1,2})[:.](\d{2})\s*(?:([ap])\.?\s?m\.?)?\s*$/i.exec((event.target as HTMLInputElement).value)
  if (!read || Number(read[1]) > 23 || Number(read[2]) > 59) return
  const hour = Number(read[1])
  const afternoon = read[3] ? read[3].toLowerCase() === 'p' : byHalves() && hour > 0 && hour < 7
  const by24 = hour < 12 && afternoon ? hour + 12 : hour === 12 && read[3] && !afternoon ? 0 : hour
  time.value = `${two(by24)}:${read[2]}`
}
</script>

<template>
  <DatePicker
    v-model="value"
    class="time-field"
    time-only
    :class="{ wide: byHalves() }"
    :hour-format="byHalves() ? '12' : '24'"
    :step-minute="5"
    :aria-label="label"
    :placeholder="label"
    :required="required"
    @input="typed"
  />
</template>

<style scoped>
.time-field {
  width: 6.2rem;
}

.time-field.wide {
  width: 7.4rem;
}
</style>
