import { beforeEach, describe, expect, it, vi } from 'vitest'
import { notices, putAway, say, sayError } from './notices'

beforeEach(() => {
  vi.useFakeTimers()
  notices.value = []
})

describe('notices', () => {
  it('leave by themselves when they are good news', () => {
    say('Planned.')
    expect(notices.value).toHaveLength(1)
    vi.advanceTimersByTime(5000)
    expect(notices.value).toHaveLength(0)
  })
  it('stay until they are put away when something was refused', () => {
    sayError(new Error('The name is missing.'))
    vi.advanceTimersByTime(60_000)
    expect(notices.value[0]).toMatchObject({ text: 'The name is missing.', bad: true })
    putAway(notices.value[0]!.id)
    expect(notices.value).toHaveLength(0)
  })
})
