import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'

/** The year's plan of the class in the address. */
export function usePlan() {
  const { classId } = useAccount()
  const queries = useQueryClient()
  const { data: plan, error } = useQuery({
    queryKey: queryKey('year-plan', classId),
    queryFn: () => take(api.GET('/api/classes/{classId}/plan', { params: { path: { classId: classId.value } } })),
  })
  /** Everything that follows the plan is asked for again: weeks, days, cards. */
  const refresh = () => queries.invalidateQueries()
  return { classId, plan, error, refresh }
}
