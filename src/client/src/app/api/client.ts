import createClient from 'openapi-fetch'
import type { components, paths } from './schema'
import { unchanged } from './unchanged'
import { t } from '@/app/language'

export type Schemas = components['schemas']

/** What the server says when it refuses: a sentence, and reasons by field. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly fields: Record<string, string[]> = {},
    readonly body?: unknown,
  ) {
    super(message)
  }
}

/** Refused because somebody else was faster: what has changed since it was looked at, each in a sentence. */
export class Changed extends Refused {
  constructor(
    message: string,
    readonly changes: string[],
    body?: unknown,
  ) {
    super(message, 409, {}, body)
  }
}

export const api = createClient<paths>({ baseUrl: '/', credentials: 'same-origin' })

// The server hands every page a token in a cookie; requests that change something send it back.
api.use({
  onRequest({ request }) {
    const token = /(?:^|; )XSRF-TOKEN=([^;]*)/.exec(document.cookie)?.[1]
    if (token) request.headers.set('X-XSRF-TOKEN', decodeURIComponent(token))
    return request
  },
})

api.use(unchanged())

interface Problem {
  type?: string
  changes?: string[]
  detail?: string | null
  title?: string | null
  errors?: Record<string, string[]>
}

/** The data of an answer, or a Refused with the server's own sentence. */
export async function take<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call
  if (response.ok) return data as T
  const problem = (typeof error === 'object' && error !== null ? error : {}) as Problem
  const fields = problem.errors ?? {}
  const sentence = problem.detail ?? Object.values(fields)[0]?.[0] ?? problem.title ?? usual(response.status)
  if (problem.type === 'urn:fobble:changed') throw new Changed(sentence, problem.changes ?? [], error)
  throw new Refused(sentence, response.status, fields, error)
}

function usual(status: number): string {
  if (status === 401) return t('You are signed out. Sign in again; nothing is lost.')
  if (status === 403) return t('This is for the class’s lead teacher.')
  if (status === 404) return t('This is not here any more.')
  return t('That did not work. Nothing was changed; try again.')
}
