import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'

/** The children of the class, by the names that may be seen on a board. */
export function useClassNames() {
  const { classId } = useAccount()
  const { data } = useQuery({
    queryKey: ['sheets', classId],
    queryFn: () => take(api.GET('/api/classes/{classId}/sheets', { params: { path: { classId: classId.value } } })),
    staleTime: 60_000,
  })
  return computed(() => data.value?.children ?? [])
}
