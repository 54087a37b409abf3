<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { usePrimeVue } from 'primevue/config'
import DatePicker from 'primevue/datepicker'
import { computed, ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { dayOrder, weekBegins } from '@/app/dates'
import { queryKey } from '@/app/keys'

/** A day as the school writes it, typed or picked; days without school are shaded. Travels as 2026-11-25, empty where there is none. */
const day = defineModel<string>({ required: true })
const {
  label,
  min = '',
  max = '',
  required,
} = defineProps<{ label: string; min?: string; max?: string; required?: boolean }>()

const { classId, today } = useAccount()
const open = ref(false)
const { data: table } = useQuery({
  queryKey: queryKey('timetable', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/timetable', { params: { path: { classId: classId.value } } })),
  // Whoever leads the school without a class has no closures to shade.
  enabled: computed(() => open.value && !!classId.value),
})

// The picker thinks in the tablet's own days: midnight to midnight there.
const asDate = (text: string | undefined) => (text ? new Date(`${text}T00:00:00`) : undefined)
const two = (number: number) => String(number).padStart(2, '0')
const asDay = (date: Date) => `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`
const value = computed({
  get: () => asDate(day.value) ?? null,
  set: (date: unknown) => (day.value = date instanceof Date ? asDay(date) : ''),
})

type Cell = { year: number; month: number; day: number }
const dayOf = (at: Cell) => `${at.year}-${two(at.month + 1)}-${two(at.day)}`
const isToday = (at: Cell) => dayOf(at) === today.value
const isClosed = (at: Cell) =>
  table.value?.closures.some((c) => c.kind === 'Closed' && c.first <= dayOf(at) && dayOf(at) <= c.last)

const prime = usePrimeVue()
function opened() {
  open.value = true
  prime.config.locale!.firstDayOfWeek = weekBegins()
}
</script>

<template>
  <DatePicker
    v-model="value"
    class="day-field"
    show-icon
    icon-display="input"
    :aria-label="label"
    :date-format="dayOrder()"
    :placeholder="label"
    :min-date="asDate(min)"
    :max-date="asDate(max)"
    :required="required"
    @show="opened"
    @focus="opened"
  >
    <template #date="{ date }">
      <span :class="{ closed: isClosed(date), today: isToday(date) }">{{ date.day }}</span>
    </template>
  </DatePicker>
</template>

<style scoped>
.day-field {
  width: 10.5rem;
}

.today {
  display: grid;
  place-items: center;
  width: 100%;
  height: 100%;
  border: 2px solid var(--spruce);
  border-radius: 50%;
}

.closed {
  color: var(--ink-soft);
  text-decoration: line-through;
}
</style>
