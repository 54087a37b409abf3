import { describe, expect, it } from 'vitest'
import { Refused, take } from './client'

const answer = (status: number, error?: unknown, data?: unknown) =>
  Promise.resolve({ data, error, response: new Response(null, { status: status === 204 ? 204 : status }) })

describe('taking an answer', () => {
  it('gives the data', async () => expect(await take(answer(200, undefined, { a: 1 }))).toEqual({ a: 1 }))

  it('says the server’s own sentence and keeps the fields', async () => {
    const refused = await take(
      answer(400, { title: 'Bad', detail: 'The name is missing.', errors: { name: ['Missing.'] } }),
    ).catch((e: unknown) => e)
    expect(refused).toBeInstanceOf(Refused)
    expect(refused).toMatchObject({ message: 'The name is missing.', status: 400, fields: { name: ['Missing.'] } })
  })

  it.each([
    [401, 'signed out'],
    [403, 'lead teacher'],
    [404, 'not here any more'],
    [500, 'Nothing was changed'],
  ])('has a sentence of its own for a bare %i', async (status, words) => {
    await expect(take(answer(status))).rejects.toThrow(words)
  })

  it('takes the first field’s reason where there is no sentence', async () => {
    await expect(take(answer(400, { errors: { start: ['This adult has another lesson.'] } }))).rejects.toThrow(
      'another lesson',
    )
  })
})
