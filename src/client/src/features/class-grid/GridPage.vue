<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import MarkFrame from '@/ui/MarkFrame.vue'
import { markWords } from '@/ui/marks'
import CellDrawer from './CellDrawer.vue'
import { columnsOf, inNeed } from './columns'

const route = useRoute()
const router = useRouter()
const { classId, leads } = useAccount()
const { data: grid, error } = useQuery({
  queryKey: ['grid', classId],
  queryFn: () => take(api.GET('/api/classes/{classId}/grid', { params: { path: { classId: classId.value } } })),
})

const all = ref(false)
const byNeed = ref(false)
const columns = computed(() => (grid.value ? columnsOf(grid.value, all.value) : []))
const strands = computed(() =>
  (grid.value?.strands ?? [])
    .map((s) => ({ ...s, span: columns.value.filter((c) => c.skill.strand === s.id).length }))
    .filter((s) => s.span > 0),
)
const children = computed(() => {
  const rows = grid.value?.children ?? []
  return byNeed.value ? [...rows].sort((a, b) => inNeed(b) - inNeed(a)) : rows
})

const chosen = computed(() => {
  const { child, skill } = route.query
  return typeof child === 'string' && typeof skill === 'string' ? { childId: Number(child), skillId: skill } : null
})
const open = (child: Schemas['GridChild'], skill: Schemas['GridSkill']) =>
  router.push({ query: { child: child.id, skill: skill.id } })
const close = () => router.push({ query: {} })

// One cell of the grid is in the tab order; arrows move it.
const at = ref({ row: 0, column: 0 })
const table = ref<HTMLTableElement>()
function move(event: KeyboardEvent) {
  const step: Record<string, [number, number]> = {
    ArrowDown: [1, 0],
    ArrowUp: [-1, 0],
    ArrowRight: [0, 1],
    ArrowLeft: [0, -1],
  }
  const by = step[event.key]
  if (!by) return
  event.preventDefault()
  at.value = {
    row: Math.min(children.value.length - 1, Math.max(0, at.value.row + by[0])),
    column: Math.min(columns.value.length - 1, Math.max(0, at.value.column + by[1])),
  }
  void nextTick(() => table.value?.querySelector<HTMLElement>('td button[tabindex="0"]')?.focus())
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>The class</h1>
      <span class="soft">{{
        grid ? `${grid.children.length} children, ${columns.length} of ${grid.skills.length} skills` : ''
      }}</span>
      <div class="end">
        <label class="check"><input v-model="byNeed" type="checkbox" /> Most to look at first</label>
        <label class="check"><input v-model="all" type="checkbox" /> All skills</label>
      </div>
    </div>
    <p v-if="error" class="warn" role="alert">{{ error.message }}</p>

    <div v-if="grid && !grid.children.length" class="none">
      <p class="said">No children yet.</p>
      <RouterLink v-if="leads" class="button main" :to="{ name: 'class-list', params: { classId } }"
        >Import the class list</RouterLink
      >
    </div>

    <div v-else-if="grid" class="scroll">
      <table ref="table" role="grid" aria-label="Children by skills" @keydown="move">
        <thead>
          <tr class="strands">
            <td class="corner" />
            <th v-for="strand in strands" :key="strand.id" :colspan="strand.span" scope="colgroup">
              <span>{{ strand.name }}</span>
            </th>
          </tr>
          <tr>
            <td class="corner" />
            <th
              v-for="column in columns"
              :key="column.skill.id"
              scope="col"
              class="skill"
              :class="{ first: column.first }"
              :title="column.skill.iCan"
            >
              <span>{{ column.skill.short }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(child, row) in children" :key="child.id">
            <th scope="row" :class="{ away: child.away }">
              {{ child.name }}<span v-if="child.away" class="small soft"> away</span>
            </th>
            <td v-for="(column, index) in columns" :key="column.skill.id" :class="{ first: column.first }">
              <button
                type="button"
                :tabindex="at.row === row && at.column === index ? 0 : -1"
                :aria-label="`${child.name}, ${column.skill.short}: ${markWords(child.marks[column.index]!.strength, child.marks[column.index]!.lookAgain, child.marks[column.index]!.ready)}`"
                @focus="at = { row, column: index }"
                @click="open(child, column.skill)"
              >
                <span
                  class="mark"
                  :class="[
                    `s${child.marks[column.index]!.strength}`,
                    { again: child.marks[column.index]!.lookAgain, ready: child.marks[column.index]!.ready },
                  ]"
                />
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>

    <p v-if="grid?.children.length" class="legend small">
      <span v-for="n in 6" :key="n"><MarkFrame :strength="n - 1" silent /> {{ markWords(n - 1) }}</span>
      <span><MarkFrame :strength="3" look-again silent /> look again</span>
      <span><MarkFrame :strength="0" ready silent /> ready for it</span>
    </p>

    <CellDrawer v-if="chosen" :child-id="chosen.childId" :skill-id="chosen.skillId" @close="close" />
  </div>
</template>

<style scoped>
.none {
  padding: 2rem 0;
  font-size: 1.2rem;
}

.scroll {
  overflow: auto;
  max-height: calc(100vh - 215px);
  border-block: 1.5px solid var(--ink);
}

table {
  border-collapse: separate;
  border-spacing: 0;
}

thead {
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--card);
}

.strands th {
  padding: 0.25rem 0 0 0.5rem;
  border-left: 1px solid var(--line-strong);
  text-align: left;
  font-size: 0.9rem;
}

.strands span {
  position: sticky;
  left: 8.5rem;
  white-space: nowrap;
}

.skill {
  height: 8.2rem;
  padding: 0 0 0.4rem;
  vertical-align: bottom;
  border-bottom: 1px solid var(--line-strong);
  font-size: 0.85rem;
  font-weight: 400;
}

.skill span {
  display: inline-block;
  writing-mode: vertical-rl;
  transform: rotate(180deg);
  max-height: 8rem;
  line-height: 1.05;
}

.corner {
  position: sticky;
  left: 0;
  z-index: 1;
  min-width: 8rem;
  background: var(--card);
}

tbody th {
  position: sticky;
  left: 0;
  z-index: 1;
  padding: 0 0.6rem 0 0.1rem;
  background: var(--card);
  text-align: left;
  font-family: var(--child);
  font-weight: 400;
  white-space: nowrap;
}

th.away {
  color: var(--ink-soft);
}

tbody td {
  padding: 0;
  text-align: center;
}

tbody tr:nth-child(5n) > * {
  border-bottom: 1px solid var(--line);
}

.first {
  border-left: 1px solid var(--line-strong);
}

tbody tr:hover > * {
  background: var(--spruce-wash);
}

td button {
  display: grid;
  place-items: center;
  width: 50px;
  height: 26px;
  border: 0;
  background: none;
  cursor: pointer;
}

td button:focus-visible {
  outline-offset: -2px;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
  margin-top: 0.7rem;
  color: var(--ink-soft);
}
</style>
