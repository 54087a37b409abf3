import type { Middleware } from 'openapi-fetch'

interface Kept {
  tag: string
  body: string
  since: number
}

/** As many as the pages that somebody goes to and fro between. */
const MOST = 40

/** In milliseconds; after that a whole answer comes again, for the service worker to keep. */
const AT_MOST = 60 * 60 * 1000

/**
 * Answers that the server gave a tag are asked for with it the next time: where nothing has changed it sends none, and what it sent before stands. The browser itself keeps nothing of
 * them; this is in the page's memory, and gone with it or with whoever signs in or out.
 */
export function unchanged(now = Date.now): Middleware {
  const kept = new Map<string, Kept>()
  const sent = new WeakMap<Request, Kept>()
  return {
    onRequest({ request }) {
      const has = kept.get(request.url)
      if (request.method !== 'GET' || !has || now() - has.since > AT_MOST) return undefined
      request.headers.set('If-None-Match', has.tag)
      sent.set(request, has)
      return request
    },
    async onResponse({ request, response, schemaPath }) {
      const had = sent.get(request)
      if (response.status === 304 && had)
        return new Response(had.body, { headers: { 'Content-Type': 'application/json' } })
      if (request.method !== 'GET' && schemaPath.startsWith('/api/account')) kept.clear()
      const tag = response.headers.get('ETag')
      if (request.method === 'GET' && response.ok && tag) {
        // Those that were asked for the longest ago go first.
        kept.delete(request.url)
        kept.set(request.url, { tag, body: await response.clone().text(), since: now() })
        if (kept.size > MOST) kept.delete(kept.keys().next().value!)
      }
      return undefined
    },
  }
}
