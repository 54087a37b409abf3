import type { Schemas } from '@/app/api/client'
import { t } from '@/app/language'

export interface Bead {
  skill: Schemas['PathSkill']
  x: number
  /** How it is drawn: seen right or wrong in this check, inferred either way, or put over by an adult. */
  look: 'right' | 'wrong' | 'likely' | 'unlikely' | 'known' | 'denied'
}
export interface Strand {
  id: string
  name: string
  sentence: string
  beads: Bead[]
  /** Where the path along this strand ends: behind the last held bead; 0 at the beginning. */
  end: number
}

export const STEP = 20

/** The check's result strand by strand, in teaching order. */
export function strandsOf(path: Schemas['PathSkill'][], reach: Schemas['ReachView'][]): Strand[] {
  return reach.map((r) => {
    const beads = path
      .filter((p) => p.strand === r.strand)
      .map((skill, i) => ({ skill, x: (i + 0.5) * STEP, look: lookOf(skill) }))
    const held = beads.filter((b) => b.skill.held)
    return { id: r.strand, name: r.name, sentence: r.sentence, beads, end: held.length ? held.at(-1)!.x : 0 }
  })
}

function lookOf(skill: Schemas['PathSkill']): Bead['look'] {
  if (skill.override !== null) return skill.override ? 'known' : 'denied'
  if (skill.asked) return skill.asked === 'Alone' ? 'right' : 'wrong'
  return skill.held ? 'likely' : 'unlikely'
}

const looks: Record<Bead['look'], string> = {
  right: t('shown alone'),
  wrong: t('asked, not alone yet'),
  likely: t('likely there, inferred'),
  unlikely: t('likely not yet, inferred'),
  known: t('there, as an adult knows'),
  denied: t('not yet, as an adult knows'),
}
export const beadSays = (bead: Bead) => `${bead.skill.short}: ${looks[bead.look]}`
