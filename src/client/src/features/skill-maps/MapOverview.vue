<script setup lang="ts">
import { nextTick, ref } from 'vue'
import { type Schemas } from '@/app/api/client'

/** The whole map on one page: a row for each strand, a column for each season, a bead for each skill. Any bead brings one closer. */
const props = defineProps<{
  map: Schemas['MapView']
  seasons: Record<string, string>
  says: (s: Skill) => string
  fill: (s: Skill) => number
}>()
const emit = defineEmits<{ go: [skill: string] }>()
type Skill = Schemas['MapSkill']

const of = (strand: string, season: string) => props.map.skills.filter((s) => s.strand === strand && s.when === season)
// In the order in which they are seen, so that the arrow keys go where the eye does.
const order = () =>
  props.map.strands.flatMap((strand) => Object.keys(props.seasons).flatMap((season) => of(strand.id, season)))
const inHand = ref(props.map.skills[0]?.id)
function walk(event: KeyboardEvent, skill: Skill) {
  const all = order()
  const at = all.indexOf(skill)
  const strands = props.map.strands.map((s) => s.id)
  const beside = (step: number) => all.find((s) => s.strand === strands[strands.indexOf(skill.strand) + step])
  const next = { ArrowRight: all[at + 1], ArrowLeft: all[at - 1], ArrowDown: beside(1), ArrowUp: beside(-1) }[event.key]
  if (!next) return
  event.preventDefault()
  inHand.value = next.id
  void nextTick(() => document.getElementById(`bead-${next.id}`)?.focus())
}
</script>

<template>
  <div class="overview">
    <span />
    <h2 v-for="(name, season) in seasons" :key="season" class="season">{{ name }}</h2>
    <template v-for="strand in map.strands" :key="strand.id">
      <h3>{{ strand.name }}</h3>
      <div v-for="season in Object.keys(seasons)" :key="season" class="cell">
        <button
          v-for="s in of(strand.id, season)"
          :id="`bead-${s.id}`"
          :key="s.id"
          v-tooltip.top="s.short"
          type="button"
          class="small-bead"
          :class="{ ready: s.ready > 0, hidden: s.hidden, changed: s.changed }"
          :style="{ '--fill': fill(s) }"
          :tabindex="s.id === inHand ? 0 : -1"
          :aria-label="says(s)"
          @click="emit('go', s.id)"
          @keydown="walk($event, s)"
        >
          <i />
        </button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.overview {
  display: grid;
  grid-template-columns: minmax(5.5rem, 11rem) repeat(4, minmax(0, auto));
  border-top: 1.5px solid var(--ink);
}

.season {
  padding: 0.3rem 0.5rem;
  color: var(--ink-soft);
  font-size: 0.9rem;
}

h3 {
  align-self: center;
  font-size: 0.95rem;
}

h3,
.cell {
  padding: 0.25rem 0;
}

.cell {
  display: flex;
  flex-wrap: wrap;
  align-content: center;
  padding-inline: 0.3rem;
  border-left: 1px solid var(--line);
  border-bottom: 1px solid var(--line);
}

h3 {
  height: 100%;
  display: grid;
  align-content: center;
  border-bottom: 1px solid var(--line);
}

/* A thumb's room for each, drawn small. */
.small-bead {
  width: 30px;
  height: 30px;
  padding: 0;
  border: 0;
  background: none;
  cursor: pointer;
}

.small-bead i {
  display: inline-block;
  width: 20px;
  height: 20px;
  border: 2px solid var(--line-strong);
  border-radius: 50%;
  background: linear-gradient(to top, var(--ink) calc(var(--fill) * 100%), var(--card) 0);
}

.small-bead.ready i {
  border-color: var(--spruce);
}

.small-bead.hidden i {
  border-style: dashed;
}

.small-bead.changed i {
  outline: 2px solid var(--ink);
  outline-offset: 1px;
}
</style>
