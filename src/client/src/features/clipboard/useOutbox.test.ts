import 'fake-indexeddb/auto'
import { describe, expect, it, vi } from 'vitest'
import { Refused } from '@/app/api/client'
import { withToken } from './useOutbox'

const stale = new Refused('Reload', 400, {}, { type: 'urn:fobble:out-of-date' })

describe('a page whose token is old', () => {
  it('gets a new one and tries again, for the adult who tapped', async () => {
    const call = vi.fn().mockRejectedValueOnce(stale).mockResolvedValueOnce(undefined)
    await withToken(call, 1, async () => ({ data: { signedIn: { id: 1 } } }) as never)
    expect(call).toHaveBeenCalledTimes(2)
  })
  it('does not try again when somebody else has signed in since', async () => {
    const call = vi.fn().mockRejectedValue(stale)
    const again = withToken(call, 1, async () => ({ data: { signedIn: { id: 2 } } }) as never)
    await expect(again).rejects.toMatchObject({ status: 401 })
    expect(call).toHaveBeenCalledTimes(1)
  })
  it('passes any other refusal on', async () => {
    const refused = new Refused('Withdrawn.', 400)
    await expect(withToken(() => Promise.reject(refused), 1)).rejects.toBe(refused)
  })
})
