import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { queryKey } from './keys'
import { useAccount } from './account'
import { api, take } from './api/client'
import { mondayOf } from './dates'

/** The day in the address (today where there is none), its Monday, and the week as far as it has come: asked for once for all who show it. */
export function useWeek() {
  const route = useRoute()
  const { classId, today } = useAccount()
  const day = computed(() => (typeof route.params.day === 'string' && route.params.day) || today.value)
  const monday = computed(() => (day.value ? mondayOf(day.value) : ''))
  const path = computed(() => ({ classId: classId.value, day: monday.value }))
  const { data: week, error } = useQuery({
    queryKey: queryKey('week', classId, monday),
    queryFn: () => take(api.GET('/api/classes/{classId}/weeks/{day}', { params: { path: path.value } })),
    enabled: computed(() => monday.value !== ''),
    placeholderData: keepPreviousData,
  })
  return { day, monday, path, week, error }
}
