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
  fromLeft: false,
  points: [],
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
    shape('half', 'Outline', 'Card', {
      points: [
        { x: 0, y: 0 },
        { x: 1, y: 0.5 },
        { x: 0, y: 1 },
      ],
    }),
    shape('hop', 'Trail', 'Hop', {
      points: [
        { x: 2, y: 1 },
        { x: 3, y: 0 },
      ],
    }),
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
    expect(svg.get('polygon').attributes()).toMatchObject({ class: 'Card', points: '0,0 1,0.5 0,1' })
    expect(svg.get('polyline').attributes()).toMatchObject({ class: 'Hop', points: '2,1 3,0' })
  })
  it('starts a text at its place where the core says so, and centres it elsewhere', async () => {
    expect(svg.get('text').attributes('text-anchor')).toBe('middle')
    const said = mount(PictureView, {
      props: { picture: { ...picture, shapes: [shape('line', 'Text', 'Words', { text: 'Name', fromLeft: true })] } },
    })
    expect(said.get('text').attributes('text-anchor')).toBe('start')
  })
  it('fills its place when it stands on a mat', () => {
    expect(mount(PictureView, { props: { picture, fill: true } }).attributes('style')).toBeUndefined()
  })
  it('keeps the size of things from picture to picture', () => expect(svg.attributes('style')).toContain('* 10'))
})
