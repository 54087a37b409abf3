import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import { counterAt, placeAt, spotsOf } from './touch'

const circle = (key: string, x: number, y: number): Schemas['Shape'] => ({
  key,
  kind: 'Circle',
  role: 'CounterA',
  x,
  y,
  width: 0.74,
  height: 0.74,
  text: null,
  fromLeft: false,
  points: [],
})
const place = (zone: number, cell: number | null, x: number, width = 1) => ({
  zone,
  place: cell,
  name: `place ${x}`,
  x,
  y: 0,
  width,
  height: 1,
})
const mat = (
  places: Schemas['MatSpot'][],
  ...counters: [id: number, zone: number, cell: number | null, x: number][]
): Schemas['CounterMat'] => ({
  kind: 'FiveFrame',
  name: 'Five frame',
  state: '',
  refused: null,
  covered: [false],
  signsFirst: false,
  counters: counters.map(([id, zone, cell]) => ({
    id,
    key: `counter-${id}`,
    zone,
    place: cell,
    says: `Counter ${id}`,
  })),
  view: {
    picture: {
      width: 5,
      height: 1,
      description: '',
      shapes: counters.map(([id, , , x]) => circle(`counter-${id}`, x, 0.5)),
    },
    places,
    readings: [],
    sentence: '',
    flashSeconds: 1,
  },
})

describe('hands on a mat', () => {
  const frame = mat([place(0, 0, 0), place(0, 1, 1), place(0, 2, 2)], [1, 0, 0, 0.5], [2, 0, 2, 2.5])

  it('take the counter under the finger, and none where none is in reach', () => {
    expect(counterAt(frame, { x: 0.7, y: 0.4 })?.id).toBe(1)
    expect(counterAt(frame, { x: 1.5, y: 0.5 })).toBeUndefined()
  })

  it('find the place under the finger, and none beside the mat', () => {
    expect(placeAt(frame, { x: 1.5, y: 0.5 })?.place).toBe(1)
    expect(placeAt(frame, { x: 9, y: 0.5 })).toBeUndefined()
  })

  it('walk over cells, each either free or with its counter', () => {
    expect(spotsOf(frame).map((s) => s.counter ?? `free ${s.place}`)).toEqual([1, 'free 1', 2])
  })

  it('walk over a loose zone and then what lies in it', () => {
    const ring = mat([place(0, null, 0, 2), place(1, null, 2, 2)], [4, 0, null, 0.5], [7, 0, null, 1.5])
    expect(spotsOf(ring).map((s) => s.counter ?? `zone ${s.zone}`)).toEqual(['zone 0', 4, 7, 'zone 1'])
  })
})
