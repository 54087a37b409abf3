import { useIsFetching } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'

/** What is felt as waiting, in milliseconds. */
const FELT = 400

/** Whether a page has been waiting for something it has nothing of yet for long enough to say so. */
export function useSlow() {
  const coming = useIsFetching({ predicate: (query) => query.state.data === undefined })
  const waits = computed(() => coming.value > 0)
  const slow = ref(false)
  watch(
    waits,
    (now, _, onCleanup) => {
      slow.value = false
      if (!now) return
      const timer = setTimeout(() => (slow.value = true), FELT)
      onCleanup(() => clearTimeout(timer))
    },
    { immediate: true },
  )
  return slow
}
