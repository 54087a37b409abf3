import { useQueryClient } from '@tanstack/vue-query'
import { watch } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { useWeek } from '@/app/week'

/**
 * Fetches the day's cards and children while there is a network, so that the clipboard opens without one: the service worker keeps
 * what has been fetched.
 */
export function useDayAhead() {
  const queries = useQueryClient()
  const { classId, records, today } = useAccount()
  const { week, monday } = useWeek()

  async function fetchAhead() {
    const path = { classId: classId.value }
    const day = week.value?.days.find((d) => d.day === today.value)
    // These are in the page already, but on a first visit they came before the worker did.
    await Promise.all(['account', `classes/${path.classId}/weeks/${monday.value}`].map((a) => fetch(`/api/${a}`)))
    await queries.prefetchQuery({
      queryKey: queryKey('anyone', path.classId),
      queryFn: () => take(api.GET('/api/classes/{classId}/clipboard', { params: { path } })),
    })
    for (const { sessionId } of day?.slots ?? [])
      if (sessionId)
        await queries.prefetchQuery({
          queryKey: queryKey('card', path.classId, sessionId),
          queryFn: () =>
            take(api.GET('/api/classes/{classId}/sessions/{sessionId}', { params: { path: { ...path, sessionId } } })),
        })
  }

  watch(
    [week, classId, records],
    async () => {
      if (!records.value || !week.value || !('serviceWorker' in navigator)) return
      await navigator.serviceWorker.ready
      // On the very first visit the worker takes the page over a moment later.
      if (!navigator.serviceWorker.controller)
        await new Promise((wait) => navigator.serviceWorker.addEventListener('controllerchange', wait, { once: true }))
      await fetchAhead().catch(() => undefined)
    },
    { immediate: true },
  )
}
