import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { queryKey } from './keys'
import { api, Refused, take, type Schemas } from './api/client'
import { clearDevice, leaving } from './device'
import { speak, spokenNow } from './language'

const ask = () => take(api.GET('/api/account', {}))

/** Nobody, as far as is known without a network. */
const nobody = (): Schemas['AccountState'] => ({
  signedIn: null,
  firstStart: false,
  demoAdults: [],
  locales: [],
  language: spokenNow(),
  mail: false,
})

async function whoIsHere() {
  try {
    const state = await ask()
    if (!leaving.get()) return state
    // Signed out without a network: told now that there is one.
    if (state.signedIn) await take(api.POST('/api/account/sign-out', {}))
    leaving.over()
    return await ask()
  } catch (problem) {
    if (!leaving.get() || problem instanceof Refused) throw problem
    return nobody()
  }
}

export const accountQuery = {
  queryKey: queryKey('account'),
  queryFn: async () => {
    const state = await whoIsHere()
    // Signed out from elsewhere, or for too long not here.
    if (!state.signedIn) await clearDevice()
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
    today: computed(() => current.value?.today ?? data.value?.signedIn?.leads?.today ?? ''),
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

/** Signs out: the device forgets at once, the server when it can be reached. */
export function useLeave() {
  const forget = useForget()
  const router = useRouter()
  return async () => {
    leaving.set()
    await clearDevice()
    await forget()
    await router.push('/sign-in')
  }
}
