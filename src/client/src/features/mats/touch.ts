import type { Schemas } from '@/app/api/client'

/** A point in the plane of a picture, perhaps with the name of what is there. */
export interface At {
  x: number
  y: number
  name?: string
}

export const distance = (a: At, b: At) => Math.hypot(a.x - b.x, a.y - b.y)

/** Somewhere a hand can act: a counter, or a free place. */
export interface Spot extends At {
  counter?: number
  zone: number
  place?: number | undefined
  name: string
}

const Reach = 0.5

/** The counter under a finger, the nearest within reach. */
export function counterAt(mat: Schemas['CounterMat'], point: At) {
  const far = (id: string) => {
    const shape = mat.view.picture.shapes.find((s) => s.key === id)
    return shape ? distance(shape, point) : Infinity
  }
  const [nearest] = mat.counters.map((c) => ({ c, d: far(c.key) })).sort((a, b) => a.d - b.d)
  return nearest && nearest.d <= Reach ? nearest.c : undefined
}

/** The place under a finger. */
export const placeAt = (mat: Schemas['CounterMat'], { x, y }: At) =>
  mat.view.places.find((p) => x >= p.x && x <= p.x + p.width && y >= p.y && y <= p.y + p.height)

/** Everything that arrow keys can walk to: places in their order, each with the counters that lie in it. */
export function spotsOf(mat: Schemas['CounterMat']): Spot[] {
  const lies = (c: Schemas['MatCounterView']): Spot => {
    const shape = mat.view.picture.shapes.find((s) => s.key === c.key)
    return {
      counter: c.id,
      zone: c.zone,
      place: c.place ?? undefined,
      x: shape?.x ?? 0,
      y: shape?.y ?? 0,
      name: c.says,
    }
  }
  return mat.view.places.flatMap((p) => {
    const here = mat.counters.filter((c) => c.zone === p.zone && (p.place === null || c.place === p.place)).map(lies)
    const free: Spot = {
      zone: p.zone,
      place: p.place ?? undefined,
      x: p.x + p.width / 2,
      y: p.y + p.height / 2,
      name: p.name,
    }
    return p.place === null ? [free, ...here] : here.length ? here : [free]
  })
}
