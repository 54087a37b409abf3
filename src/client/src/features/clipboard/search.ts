import type { Schemas } from '@/app/api/client'
import { t } from '@/app/language'

const plain = (text: string) => text.toLowerCase().normalize('NFKD').replace(/\p{M}/gu, '')

/** Skills in whose name every word of the search begins a word, those that begin with the search first. */
export function searchSkills(skills: Schemas['CardSkill'][], text: string, most = 12): Schemas['CardSkill'][] {
  const words = plain(text).split(/\s+/).filter(Boolean)
  if (!words.length) return []
  const hit = (skill: Schemas['CardSkill']) => {
    const all = plain(`${skill.short} ${skill.iCan}`).split(/[^\p{L}\p{N}]+/u)
    return words.every((w) => all.some((part) => part.startsWith(w)))
  }
  const first = (skill: Schemas['CardSkill']) => Number(plain(skill.short).startsWith(words[0]!))
  return skills
    .filter(hit)
    .sort((a, b) => first(b) - first(a))
    .slice(0, most)
}

/** What stands under a child, without anything twice: what was just recorded here, what is due for the child, what is being played. */
export function offered(
  due: Schemas['AnyoneSkill'][],
  playing: string[],
  lately: string[],
): { skill: string; why: string }[] {
  const all = [
    ...lately.slice(0, 2).map((skill) => ({ skill, why: t('just now') })),
    ...playing.slice(0, 3).map((skill) => ({ skill, why: t('at choice time') })),
    ...due,
    ...playing.slice(3).map((skill) => ({ skill, why: t('at choice time') })),
  ]
  const why = (skill: string) => due.find((d) => d.skill === skill)?.why
  const seen = new Set<string>()
  return all
    .filter(({ skill }) => !seen.has(skill) && seen.add(skill))
    .map((o) => ({ ...o, why: [o.why, why(o.skill)].filter((w, i, a) => w && a.indexOf(w) === i).join(', ') }))
}
