import { nextTick, ref } from 'vue'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import { useSteps } from './useSteps'

const picture: Schemas['Picture'] = { width: 1, height: 1, shapes: [], description: '' }
const made = (...lines: string[]) => lines.map((line, i) => ({ says: `${line} ${i}`, line, picture }))

describe('steps', () => {
  it('go on and back between the first and the last', () => {
    const { at, on, back } = useSteps(ref(made('8 + 7', '8 + 2 + 5')))
    back()
    expect(at.value).toBe(0)
    on()
    on()
    expect(at.value).toBe(1)
    back()
    expect(at.value).toBe(0)
  })

  it('let the sum grow, a line that stays the same only once', () => {
    const { lines, on } = useSteps(ref(made('8 + 7', '8 + 7', '8 + 2 + 5', '10 + 5', '15')))
    expect(lines.value).toEqual(['8 + 7'])
    on()
    on()
    expect(lines.value).toEqual(['8 + 7', '8 + 2 + 5'])
    on()
    on()
    expect(lines.value).toEqual(['8 + 7', '8 + 2 + 5', '10 + 5', '15'])
  })

  it('begin anew for another sum, and stay where they are for the same one', async () => {
    const steps = ref(made('8 + 7', '15'))
    const { at, on } = useSteps(steps)
    on()
    steps.value = made('8 + 7', '15')
    await nextTick()
    expect(at.value).toBe(1)
    steps.value = made('9 + 7', '16')
    await nextTick()
    expect(at.value).toBe(0)
  })
})
