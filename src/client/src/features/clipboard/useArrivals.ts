import { useQueryClient } from '@tanstack/vue-query'
import { watch } from 'vue'
import { isOneOf } from '@/app/keys'
import { outbox } from './useOutbox'
import { tapping } from './useTaps'

/**
 * Whatever is open shows what the server has taken of the taps made here, however long that took: it is read anew after each arrival, and, so that a tap
 * costs nothing but itself, only once the clipboard is left where that is open.
 */
export function useArrivals() {
  const queries = useQueryClient()
  const readAnew = () =>
    queries.invalidateQueries({
      predicate: (query) => !isOneOf(query, 'account'),
      refetchType: tapping.value ? 'none' : 'active',
    })
  watch(outbox.arrived, readAnew)
  watch(tapping, (open) => void (!open && readAnew()))
}
