import { watch } from 'vue'
import { api, Refused, take } from '@/app/api/client'
import { say } from '@/ui/notices'
import { makeOutbox, type Entry } from './outbox'
import { openStore } from './store'
import { t } from '@/app/language'

const SENT_AGAIN_MS = 1000
let adult: number | undefined

/** Who is signed in now; taps of others stay here until they are. */
export const tapsAreOf = (adultId: number | undefined) => (adult = adultId)

function post(entry: Entry) {
  const path = { classId: entry.classId }
  if (entry.kind === 'tap')
    return take(
      api.POST('/api/classes/{classId}/observations', {
        params: { path, header: { 'X-Tapped-By': entry.adultId } },
        body: entry.body,
      }),
    )
  if (entry.kind === 'withdrawal')
    return take(
      api.POST('/api/classes/{classId}/observations/{id}/withdraw', {
        params: { path: { ...path, id: entry.of } },
        body: { why: entry.why },
      }),
    )
  return take(
    api.PUT('/api/classes/{classId}/observations/{id}/photo', {
      params: { path: { ...path, id: entry.of } },
      body: entry.photo as never,
      bodySerializer: (photo: unknown) => photo as Blob,
      headers: { 'Content-Type': entry.photo.type || 'image/jpeg' },
    }),
  )
}

/** After signing in anew the page still has the old token: gets the new one, looks again at who is signed in, and tries once more. */
export async function withToken(call: () => Promise<unknown>, whose: number, ask = () => api.GET('/api/account', {})) {
  try {
    await call()
  } catch (error) {
    const stale = error instanceof Refused && (error.body as { type?: string })?.type === 'urn:fobble:out-of-date'
    if (!stale) throw error
    const { data } = await ask()
    if (data?.signedIn?.id !== whose) throw new Refused(t('You are signed out.'), 401)
    await call()
  }
}

const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('fobble-taps')

/** The one outbox of this page: tried every second, and when the network comes back. */
export const outbox = makeOutbox({
  send: (entry) => withToken(() => post(entry), entry.adultId),
  store: openStore(),
  me: () => adult,
  alone: async (run) => (navigator.locks ? await navigator.locks.request('fobble-taps', run) : await run()),
  changed: () => channel?.postMessage('changed'),
})
void outbox.load()
if (channel) channel.onmessage = () => void outbox.load()

// Wherever the adult is by then: what the server will not take is said aloud, and waits for a decision.
watch(
  () => outbox.aside.value.length,
  (now, before) => now > before && say(t('A tap could not be recorded. It is kept on the clipboard.'), true),
)
setInterval(() => outbox.waiting.value > 0 && void outbox.flush(), SENT_AGAIN_MS)
window.addEventListener('online', () => void outbox.flush())
document.addEventListener('visibilitychange', () => document.hidden && void outbox.flush('hidden'))
