import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import { beadSays, strandsOf } from './path'
import PathStrings from './PathStrings.vue'

const skill = (id: string, more: Partial<Schemas['PathSkill']> = {}): Schemas['PathSkill'] => ({
  id,
  short: id,
  strand: id.split('.')[0]!,
  held: false,
  surePercent: 80,
  asked: null,
  override: null,
  strength: 0,
  ...more,
})
const reach = (strand: string): Schemas['ReachView'] => ({
  strand,
  name: strand,
  held: 1,
  of: 2,
  sure: 0.9,
  sentence: 'Likely up to …',
})
const path = [
  skill('count.a', { held: true, asked: 'Alone' }),
  skill('count.b', { held: true }),
  skill('count.c', { asked: 'Prompted' }),
  skill('see.d', { override: true, held: true }),
  skill('see.e', { override: false }),
  skill('see.f'),
]

describe('the path of a check', () => {
  it('is drawn strand by strand, and ends behind the last skill that is likely held', () => {
    const [count, see] = strandsOf(path, [reach('count'), reach('see')])
    expect(count!.beads.map((b) => b.look)).toEqual(['right', 'likely', 'wrong'])
    expect(see!.beads.map((b) => b.look)).toEqual(['known', 'denied', 'unlikely'])
    expect(count!.end).toBe(count!.beads[1]!.x)
    expect(strandsOf([skill('see.x')], [reach('see')])[0]!.end).toBe(0)
  })
  it('says what is inferred and what was seen', () => {
    const beads = strandsOf(path, [reach('count')])[0]!.beads
    expect(beads.map(beadSays)).toEqual([
      'count.a: shown alone',
      'count.b: likely there, inferred',
      'count.c: asked, not alone yet',
    ])
  })
  it('lets a bead be chosen', async () => {
    const wrapper = mount(PathStrings, { props: { path, reach: [reach('count'), reach('see')] } })
    await wrapper.get('[aria-label="count.b: likely there, inferred"]').trigger('click')
    expect(wrapper.emitted('choose')).toEqual([['count.b']])
  })
})
