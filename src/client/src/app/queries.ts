import { QueryClient, type InvalidateQueryFilters } from '@tanstack/vue-query'
import { toValue } from 'vue'
import { Refused } from './api/client'

/**
 * What was answered, and reading it anew. An answer that was asked for before a change is not taken for one after it: the library has a first answer that is
 * still on its way stand for the new one, so it is called off here and asked for again.
 */
export class Queries extends QueryClient {
  constructor() {
    super({
      defaultOptions: {
        queries: {
          // Without a network the service worker answers from what it has kept.
          networkMode: 'always',
          staleTime: 10_000,
          // An answer is replaced whole, never changed in place: nothing watches its thousands of parts.
          shallow: true,
          retry: (count, error) => !(error instanceof Refused) && count < 2,
        },
      },
    })
  }

  override async invalidateQueries(...which: Parameters<QueryClient['invalidateQueries']>) {
    const filters = toValue(which[0]) as InvalidateQueryFilters | undefined
    if (filters?.refetchType !== 'none') {
      const onTheirWay = this.getQueryCache()
        .findAll({ ...filters, type: 'active', fetchStatus: 'fetching' })
        .filter((query) => query.state.data === undefined)
      await Promise.all(onTheirWay.map((query) => query.cancel({ revert: true })))
    }
    return super.invalidateQueries(...which)
  }
}
