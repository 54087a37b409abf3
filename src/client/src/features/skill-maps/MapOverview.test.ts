import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import { installPrime } from '@/app/prime'
import MapOverview from './MapOverview.vue'

type Skill = Schemas['MapSkill']
const skill = (id: string, strand: string, when: Skill['when'], has = 0) =>
  ({
    id,
    short: id,
    strand,
    when,
    has,
    strength: 0,
    ready: 0,
    needs: [],
    hidden: false,
    changed: false,
  }) as unknown as Skill
const map = {
  strands: [
    { id: 'count', name: 'Counting' },
    { id: 'see', name: 'Seeing' },
  ],
  skills: [
    skill('say', 'count', 'Autumn', 2),
    skill('glance', 'see', 'Autumn'),
    skill('touch', 'count', 'Spring'),
    skill('frame', 'see', 'Summer'),
  ],
} as unknown as Schemas['MapView']
const shown = () =>
  mount(MapOverview, {
    props: {
      map,
      seasons: { Autumn: 'autumn', Spring: 'spring', Summer: 'summer', Beyond: 'beyond' },
      says: (s: Skill) => `${s.short}.`,
      fill: (s: Skill) => s.has / 2,
    },
    global: { plugins: [{ install: installPrime }] },
    attachTo: document.body,
  })

it('has every skill once, in the row of its strand and the column of its season', () => {
  const wrapper = shown()
  const cells = wrapper.findAll('.cell').map((c) => c.findAll('button').map((b) => b.attributes('aria-label')))
  expect(cells).toEqual([['say.'], ['touch.'], [], [], ['glance.'], [], ['frame.'], []])
  expect(wrapper.findAll('button').filter((b) => b.attributes('tabindex') === '0')).toHaveLength(1)
  wrapper.unmount()
})

it('is walked with the arrows, along a strand and from strand to strand, and opened', async () => {
  const wrapper = shown()
  const bead = (id: string) => wrapper.get(`#bead-${id}`)
  await bead('say').trigger('keydown', { key: 'ArrowRight' })
  await new Promise((wait) => setTimeout(wait))
  expect(document.activeElement?.id).toBe('bead-touch')
  await bead('touch').trigger('keydown', { key: 'ArrowDown' })
  await new Promise((wait) => setTimeout(wait))
  expect(document.activeElement?.id).toBe('bead-glance')
  await bead('glance').trigger('click')
  expect(wrapper.emitted('go')).toEqual([['glance']])
  wrapper.unmount()
})
