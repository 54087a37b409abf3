import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter, type Ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { take } from '@/app/api/client'

type Answer<T> = Promise<{ data?: T; error?: unknown; response: Response }>

/** Asks the core what follows from the address. What was shown stays until the answer is there; a refusal is shown at once and not asked again. */
export function useAsked<Q, T>(
  name: string,
  query: Ref<Q>,
  ask: (params: { path: { classId: number }; query: Q }) => Answer<T>,
  enabled: MaybeRefOrGetter<boolean> = true,
) {
  const { classId } = useAccount()
  return useQuery({
    queryKey: queryKey('mat', name, classId, query),
    queryFn: () => take(ask({ path: { classId: classId.value }, query: query.value })),
    placeholderData: keepPreviousData,
    retry: false,
    enabled: () => toValue(enabled),
  })
}
