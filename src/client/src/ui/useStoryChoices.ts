import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'

/** Kinds and themes that stories can be chosen from. */
export function useStoryChoices() {
  const { classId } = useAccount()
  const { data } = useQuery({
    queryKey: queryKey('story-choices', classId),
    queryFn: () =>
      take(api.GET('/api/classes/{classId}/mats/story/choices', { params: { path: { classId: classId.value } } })),
    staleTime: Infinity,
  })
  return {
    kinds: computed(() => data.value?.kinds ?? []),
    themes: computed(() => data.value?.themes ?? []),
    usual: computed(() => ({ low: data.value?.low ?? 5, high: data.value?.high ?? 10 })),
  }
}
