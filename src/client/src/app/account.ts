import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { queryKey } from './keys'
import { api, take } from './api/client'
import { speak } from './language'

export const accountQuery = {
  queryKey: queryKey('account'),
  queryFn: async () => {
    const state = await take(api.GET('/api/account', {}))
    await speak(state.language)
    return state
  },
  staleTime: 5 * 60_000,
}

/** Who is signed in, the class in the address, and what may be done in it. */
export function useAccount() {
  const route = useRoute()
  const { data } = useQuery(accountQuery)
  const classId = computed(() => Number(route.params.classId))
  const current = computed(() => data.value?.signedIn?.classes.find((c) => c.id === classId.value))
  return {
    account: data,
    classId,
    current,
    today: computed(() => current.value?.today ?? ''),
    leads: computed(() => current.value?.role === 'LeadTeacher' && !current.value.archived),
    records: computed(
      () => current.value !== undefined && current.value.role !== 'MathsLead' && !current.value.archived,
    ),
    leadsSchool: computed(() => current.value?.leadsSchool ?? false),
  }
}

/** After signing in or out, everything is asked for again. */
export function useForget() {
  const queries = useQueryClient()
  return async () => {
    await queries.cancelQueries()
    queries.clear()
    return queries.fetchQuery(accountQuery)
  }
}
