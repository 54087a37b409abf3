<script setup lang="ts">
import DatePicker from 'primevue/datepicker'
import { computed } from 'vue'

/** A time by the twenty-four-hour clock, as 09:30; empty where there is none. */
const time = defineModel<string>({ required: true })
const { label, required } = defineProps<{ label: string; required?: boolean }>()

const two = (number: number) => String(number).padStart(2, '0')
const value = computed({
  get: () => (time.value ? new Date(`2026-01-01T${time.value.slice(0, 5)}:00`) : null),
  set: (at: unknown) => (time.value = at instanceof Date ? `${two(at.getHours())}:${two(at.getMinutes())}` : ''),
})

// The picker itself reads no time that is typed by this clock.
function typed(event: Event) {
  const read = /^\s*(\d{1,2})[:.](\d{2})\s*$/.exec((event.target as HTMLInputElement).value)
  if (read && Number(read[1]) < 24 && Number(read[2]) < 60) time.value = `${two(Number(read[1]))}:${read[2]}`
}
</script>

<template>
  <DatePicker
    v-model="value"
    class="time-field"
    time-only
    hour-format="24"
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
</style>
