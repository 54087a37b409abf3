import { api, take } from '@/app/api/client'
import { makeOutbox } from './outbox'

/** The one outbox of this page: tried every second, and when the network comes back. */
export const outbox = makeOutbox(
  (tap) =>
    take(
      api.POST('/api/classes/{classId}/observations', { params: { path: { classId: tap.classId } }, body: tap.body }),
    ).then(() => undefined),
  window.localStorage,
)
setInterval(() => void outbox.flush(), 1000)
window.addEventListener('online', () => void outbox.flush())
window.addEventListener('pagehide', () => void outbox.flush(true))
