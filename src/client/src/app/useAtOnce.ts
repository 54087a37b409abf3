import { useQueryClient, type QueryKey } from '@tanstack/vue-query'
import { inOrder } from './inOrder'
import { sayError } from '@/ui/notices'

/**
 * A choice that is seen at once, though it goes to the server after those made before it. All is read anew after the
 * last of them only, so that no answer of in between is seen. Gives whether everything chosen is kept.
 */
export function useAtOnce() {
  const [queries, order] = [useQueryClient(), inOrder()]
  return async <T>(key: QueryKey, seen: (now: T) => T, send: () => Promise<unknown>): Promise<boolean> => {
    void queries.cancelQueries({ queryKey: key })
    queries.setQueryData<T>(key, (now) => now && seen(now))
    try {
      const last = await order(send)
      if (last) await queries.invalidateQueries()
      return last
    } catch (problem) {
      sayError(problem)
      await queries.invalidateQueries({ queryKey: key })
      return false
    }
  }
}
