import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/app/api/client'
import TouchPicture from './TouchPicture.vue'

const picture: Schemas['Picture'] = { width: 10, height: 2, shapes: [], description: 'Three cells' }
const spots = [
  { x: 1, y: 1, name: 'cell 1' },
  { x: 3, y: 1, name: 'cell 2' },
  { x: 5, y: 1, name: 'cell 3' },
]

// A page on which a unit of the picture is ten dots.
class Dot {
  constructor(
    readonly x: number,
    readonly y: number,
  ) {}

  matrixTransform() {
    return { x: this.x / 10, y: this.y / 10 }
  }
}

function hands(props: Partial<InstanceType<typeof TouchPicture>['$props']> = {}) {
  const wrapper = mount(TouchPicture, { props: { picture, label: 'Ten frame.', spots, ...props } })
  const svg = wrapper.get('svg')
  Object.assign(svg.element, { getScreenCTM: () => ({ inverse: () => ({}) }), setPointerCapture: () => undefined })
  const point = (type: string, x: number, y: number) =>
    svg.trigger(type, { clientX: x * 10, clientY: y * 10, pointerId: 1 })
  return { wrapper, point }
}

describe('hands on a picture', () => {
  beforeEach(() => void vi.stubGlobal('DOMPoint', Dot))
  afterEach(() => void vi.unstubAllGlobals())

  it('tap where the finger came down, even if it trembles', async () => {
    const { wrapper, point } = hands({ grab: () => true })
    await point('pointerdown', 3, 1)
    await point('pointermove', 3.1, 1.1)
    await point('pointerup', 3.1, 1.1)
    expect(wrapper.emitted('tap')).toEqual([[{ x: 3, y: 1 }]])
    expect(wrapper.emitted('drop')).toBeUndefined()
  })

  it('drag what can be grabbed and show it on its way', async () => {
    const { wrapper, point } = hands({ grab: ({ x }) => x < 2 })
    await point('pointerdown', 1, 1)
    await point('pointermove', 4, 1)
    expect(wrapper.get('.dragged').attributes('cx')).toBe('4')
    await point('pointerup', 5, 1)
    expect(wrapper.emitted('drop')).toEqual([
      [
        { x: 1, y: 1 },
        { x: 5, y: 1 },
      ],
    ])
    expect(wrapper.find('.dragged').exists()).toBe(false)
  })

  it('do not drag what lies fast, and let go when the pointer is lost', async () => {
    const { wrapper, point } = hands({ grab: ({ x }) => x < 2 })
    await point('pointerdown', 6, 1)
    await point('pointerup', 9, 1)
    expect(wrapper.emitted('tap')).toHaveLength(1)
    await point('pointerdown', 1, 1)
    await point('pointercancel', 1, 1)
    await point('pointerup', 5, 1)
    expect(wrapper.emitted('drop')).toBeUndefined()
    expect(wrapper.emitted('tap')).toHaveLength(1)
  })

  it('walk from spot to spot round and round, say where they are, and act with Enter', async () => {
    const { wrapper } = hands()
    const mat = wrapper.get('[role=application]')
    await mat.trigger('focus')
    expect(mat.attributes('aria-label')).toContain('cell 1')
    await mat.trigger('keydown', { key: 'ArrowLeft' })
    expect(mat.attributes('aria-label')).toContain('cell 3')
    expect(wrapper.get('.cursor').attributes('cx')).toBe('5')
    await mat.trigger('keydown', { key: 'ArrowRight' })
    await mat.trigger('keydown', { key: 'ArrowDown' })
    await mat.trigger('keydown', { key: 'Enter' })
    expect(wrapper.emitted('spot')).toEqual([[1]])
    await mat.trigger('blur')
    expect(wrapper.find('.cursor').exists()).toBe(false)
  })

  it('leave all other keys to the page, and do nothing where there is no spot', async () => {
    const { wrapper } = hands({ spots: [] })
    const mat = wrapper.get('[role=application]')
    for (const key of ['Enter', 'ArrowRight', 'f']) await mat.trigger('keydown', { key })
    expect(wrapper.emitted('spot')).toBeUndefined()
  })
})
