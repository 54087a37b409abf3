import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { queryKey } from './keys'
import { useAccount } from './account'
import { api, take } from './api/client'

/** The children of the class, by the names that may be seen on a board. */
export function useClassNames() {
  const { classId } = useAccount()
  const { data } = useQuery({
    queryKey: queryKey('children', classId),
    queryFn: () => take(api.GET('/api/classes/{classId}/children', { params: { path: { classId: classId.value } } })),
    staleTime: 60_000,
  })
  return computed(() => data.value ?? [])
}
