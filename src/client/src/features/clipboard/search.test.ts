import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import { offered, searchSkills } from './search'

const skill = (id: string, short: string, iCan = '') => ({ id, short, iCan }) as Schemas['CardSkill']
const skills = [
  skill('bond.hidden-5', 'Hidden part to five', 'I can say how many are hiding.'),
  skill('count.back-5', 'Back from five'),
  skill('see.five', 'Five frame'),
]

describe('the search for a skill', () => {
  it('finds by the first letters of any word, those that begin with it first', () =>
    expect(searchSkills(skills, 'fiv').map((s) => s.id)).toEqual(['see.five', 'bond.hidden-5', 'count.back-5']))
  it('wants every word', () => expect(searchSkills(skills, 'hid fi').map((s) => s.id)).toEqual(['bond.hidden-5']))
  it('finds nothing for nothing', () => expect(searchSkills(skills, ' ')).toEqual([]))
})

describe('what is offered for a child', () => {
  const due = [
    { skill: 'b', why: 'look again' },
    { skill: 'c', why: 'ready' },
  ]
  it('begins with what was just recorded and what is being played, then what is due, each once', () =>
    expect(offered(due, ['p', 'b'], ['l']).map((o) => o.skill)).toEqual(['l', 'p', 'b', 'c']))
  it('says both reasons', () =>
    expect(offered(due, ['b'], [])[0]).toEqual({ skill: 'b', why: 'at choice time, look again' }))
})
