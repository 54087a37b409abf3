import createClient from 'openapi-fetch'
import { beforeEach, expect, it } from 'vitest'
import type { paths } from './schema'
import { unchanged } from './unchanged'

let time = 0
let asked: (string | null)[] = []
let answer: () => Response
const client = () => {
  const api = createClient<paths>({
    baseUrl: 'http://fobble.test/',
    fetch: async (request) => {
      asked.push(request.headers.get('If-None-Match'))
      return answer()
    },
  })
  api.use(unchanged(() => time))
  return {
    get: (address: string): Promise<{ data?: unknown; response: Response }> => api.GET(address as '/api/account', {}),
    signOut: () => api.POST('/api/account/sign-out', {}),
  }
}
const says = (words: string, tag?: string) => () =>
  new Response(JSON.stringify({ words }), { headers: { 'Content-Type': 'application/json', ...(tag ? { ETag: tag } : {}) } }) // prettier-ignore
const nothingNew = () => new Response(null, { status: 304 })

beforeEach(() => {
  time = 0
  asked = []
})

it('asks with the tag it has, and what it has stands where nothing is new', async () => {
  const api = client()
  answer = says('one', '"1"')
  await api.get('/api/grid')
  answer = nothingNew
  const again = await api.get('/api/grid')
  expect(again.response.status).toBe(200)
  expect(again.data).toEqual({ words: 'one' })
  answer = says('two', '"2"')
  expect((await api.get('/api/grid')).data).toEqual({ words: 'two' })
  answer = nothingNew
  expect((await api.get('/api/grid')).data).toEqual({ words: 'two' })
  expect(asked).toEqual([null, '"1"', '"1"', '"2"'])
})

it('keeps nothing that has no tag, nothing that is a fault, and no page for another', async () => {
  const api = client()
  answer = says('one')
  await api.get('/api/plain')
  answer = () => new Response('{}', { status: 503, headers: { ETag: '"x"', 'Content-Type': 'application/json' } })
  await api.get('/api/fault')
  answer = says('two', '"2"')
  await api.get('/api/grid?day=1')
  answer = says('three')
  for (const address of ['/api/plain', '/api/fault', '/api/grid']) await api.get(address)
  expect(asked).toEqual([null, null, null, null, null, null])
})

it('lets go of all with whoever signs in or out, and of each after an hour; what is on its way meanwhile still comes', async () => {
  const api = client()
  answer = says('one', '"1"')
  await api.get('/api/grid')
  time = 61 * 60 * 1000
  await api.get('/api/grid')
  expect(asked).toEqual([null, null])

  // Asked with the tag, and answered once it has been let go of.
  let tell: (answer: Response) => void = () => undefined
  const slow = new Promise<Response>((told) => (tell = told))
  answer = () => slow as unknown as Response
  const late = api.get('/api/grid')
  await new Promise((soon) => setTimeout(soon))
  answer = () => new Response(null, { status: 204 })
  await api.signOut()
  tell(nothingNew())
  expect((await late).data).toEqual({ words: 'one' })
  answer = says('two', '"2"')
  await api.get('/api/grid')
  expect(asked.at(-1)).toBeNull()
})

it('holds so many and no more', async () => {
  const api = client()
  for (let i = 0; i < 60; i++) {
    answer = says(`${i}`, `"${i}"`)
    await api.get(`/api/page/${i}`)
  }
  asked = []
  answer = nothingNew
  expect((await api.get('/api/page/59')).data).toEqual({ words: '59' })
  answer = says('again', '"0"')
  await api.get('/api/page/0')
  expect(asked).toEqual(['"59"', null])
})
