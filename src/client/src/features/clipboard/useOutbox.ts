import { watch } from 'vue'
import { api, take } from '@/app/api/client'
import { say } from '@/ui/notices'
import { makeOutbox } from './outbox'

/** The one outbox of this page: tried every second, and when the network comes back. */
export const outbox = makeOutbox(
  (tap) =>
    take(
      api.POST('/api/classes/{classId}/observations', { params: { path: { classId: tap.classId } }, body: tap.body }),
    ).then(() => undefined),
  window.localStorage,
)
// Wherever the adult is by then: what the server will never take is said aloud.
watch(
  () => outbox.refused.value.at(-1),
  (lost) => lost && say(`A tap could not be recorded. ${lost.why}`, true),
)
setInterval(() => void outbox.flush(), 1000)
window.addEventListener('online', () => void outbox.flush())
window.addEventListener('pagehide', () => void outbox.flush(true))
