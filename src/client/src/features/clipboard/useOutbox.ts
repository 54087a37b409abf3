import { watch } from 'vue'
import { api, Refused, take } from '@/app/api/client'
import { say } from '@/ui/notices'
import { makeOutbox, type Tap } from './outbox'
import { openShelf } from './shelf'

const SENT_AGAIN_MS = 1000
let adult: number | undefined

/** Who is signed in now; taps of others stay here until they are. */
export const tapsAreOf = (adultId: number | undefined) => (adult = adultId)

const post = (tap: Tap) =>
  take(
    api.POST('/api/classes/{classId}/observations', {
      params: { path: { classId: tap.classId }, header: { 'X-Tapped-By': tap.adultId } },
      body: tap.body,
    }),
  ).then(() => undefined)

const putPhoto = (tap: Tap) =>
  tap.photo
    ? take(
        api.PUT('/api/classes/{classId}/observations/{id}/photo', {
          params: { path: { classId: tap.classId, id: tap.body.id } },
          body: tap.photo as never,
          bodySerializer: (photo: unknown) => photo as Blob,
          headers: { 'Content-Type': tap.photo.type || 'image/jpeg' },
        }),
      ).then(() => undefined)
    : Promise.resolve()

// After signing in anew the page still has the old token: get the new one and try once more.
async function withToken(call: () => Promise<void>) {
  try {
    await call()
  } catch (error) {
    const stale = error instanceof Refused && (error.body as { type?: string })?.type === 'urn:fobble:out-of-date'
    if (!stale) throw error
    const { data } = await api.GET('/api/account', {})
    if (data?.signedIn?.id !== adult) throw new Refused('You are signed out.', 401)
    await call()
  }
}

const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('fobble-taps')

/** The one outbox of this page: tried every second, and when the network comes back. */
export const outbox = makeOutbox({
  send: async (tap) => {
    await withToken(() => post(tap))
    await withToken(() => putPhoto(tap))
  },
  shelf: openShelf(),
  me: () => adult,
  alone: async (run) => (navigator.locks ? await navigator.locks.request('fobble-taps', run) : await run()),
  changed: () => channel?.postMessage('changed'),
})
void outbox.load()
if (channel) channel.onmessage = () => void outbox.load()

// Wherever the adult is by then: what the server will not take is said aloud, and waits for a decision.
watch(
  () => outbox.aside.value.length,
  (now, before) => now > before && say('A tap could not be recorded. It is kept on the clipboard.', true),
)
setInterval(() => outbox.waiting.value > 0 && void outbox.flush(), SENT_AGAIN_MS)
window.addEventListener('online', () => void outbox.flush())
document.addEventListener('visibilitychange', () => document.hidden && void outbox.flush(true))
