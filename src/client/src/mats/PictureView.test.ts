import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import PictureView from './PictureView.vue'

const shape = (
  key: string,
  kind: Schemas['ShapeKind'],
  role: Schemas['ShapeRole'],
  more: Partial<Schemas['Shape']> = {},
): Schemas['Shape'] => ({
  key,
  kind,
  role,
  x: 1,
  y: 2,
  width: 3,
  height: 4,
  text: null,
  ...more,
})
const picture: Schemas['Picture'] = {
  width: 10,
  height: 5,
  description: 'Five frame with four counters',
  shapes: [
    shape('cell', 'Box', 'Cell'),
    shape('counter', 'Circle', 'CounterA'),
    shape('link', 'Line', 'Link'),
    shape('numeral', 'Text', 'Numeral', { text: '6' }),
  ],
}

describe('a picture', () => {
  const svg = mount(PictureView, { props: { picture } })
  it('is named by what it shows', () => expect(svg.attributes('aria-label')).toBe('Five frame with four counters'))
  it('draws each kind of shape where the core put it', () => {
    expect(svg.get('rect').attributes()).toMatchObject({ class: 'Cell', x: '1', y: '2', width: '3', height: '4' })
    expect(svg.get('circle').attributes()).toMatchObject({ class: 'CounterA', cx: '1', cy: '2', r: '1.5' })
    expect(svg.get('line').attributes()).toMatchObject({ x1: '1', y1: '2', x2: '4', y2: '6' })
    expect(svg.get('text').text()).toBe('6')
  })
  it('keeps the size of things from picture to picture', () => expect(svg.attributes('style')).toContain('* 10'))
})
