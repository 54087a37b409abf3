import { effectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useFlash } from './useFlash'

const flashOf = (seconds: number) => effectScope().run(() => useFlash(() => seconds))!

describe('a flash', () => {
  beforeEach(() => void vi.useFakeTimers())
  afterEach(() => void vi.useRealTimers())

  it('calls for eyes, shows the picture for just its time, and closes again', () => {
    const { curtain, flash } = flashOf(1.5)
    flash()
    expect(curtain.value).toBe('ready')
    vi.advanceTimersByTime(900)
    expect(curtain.value).toBe('flash')
    vi.advanceTimersByTime(1499)
    expect(curtain.value).toBe('flash')
    vi.advanceTimersByTime(1)
    expect(curtain.value).toBe('closed')
  })

  it('can be shown again, and lifted at any moment for good', () => {
    const { curtain, flash, lift } = flashOf(1)
    flash()
    vi.advanceTimersByTime(1000)
    flash()
    expect(curtain.value).toBe('ready')
    lift()
    vi.advanceTimersByTime(5000)
    expect(curtain.value).toBe('open')
  })

  it('leaves no timer behind when its mat is put away', () => {
    const scope = effectScope()
    const { curtain, flash } = scope.run(() => useFlash(() => 1))!
    flash()
    scope.stop()
    vi.advanceTimersByTime(5000)
    expect(curtain.value).toBe('ready')
  })
})
