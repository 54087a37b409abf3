<script setup lang="ts">
import { useQueries, useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { shortWeekday } from '@/app/dates'
import ClassTabs from '@/ui/ClassTabs.vue'
import MarkFrame from '@/ui/MarkFrame.vue'
import { markWords } from '@/ui/marks'
import CellDrawer from '@/ui/CellDrawer.vue'
import ColumnDrawer from './ColumnDrawer.vue'
import { columnsOf, fitOnPaper, inOrderOf, rowsOf, type Row } from './columns'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

const route = useRoute()
const router = useRouter()
const { account, classId, leads } = useAccount()
const gridQuery = (id: number) => ({
  queryKey: queryKey('grid', id),
  queryFn: () => take(api.GET('/api/classes/{classId}/grid', { params: { path: { classId: id } } })),
})
const { data: grid, error } = useQuery(computed(() => gridQuery(classId.value)))

// Who looks over several classes can have them below each other.
const together = ref(false)
const others = computed(() => (account.value?.signedIn?.classes ?? []).filter((c) => c.id !== classId.value))
const more = useQueries({ queries: computed(() => (together.value ? others.value.map((c) => gridQuery(c.id)) : [])) })

const all = ref(false)
const byNeed = ref(false)
const present = ref(false)
const season = ref('')
const groupId = ref('')
const folded = ref(new Set<string>())
function fold(strand: string) {
  const now = new Set(folded.value)
  if (!now.delete(strand)) now.add(strand)
  folded.value = now
}
const whole = computed(() => {
  if (!grid.value) return undefined
  const rest = more.value.flatMap((m, i) =>
    m.data ? [{ classId: others.value[i]!.id, grid: inOrderOf(grid.value!.skills, m.data) }] : [],
  )
  return [{ classId: classId.value, grid: grid.value }, ...rest]
})
const columns = computed(() =>
  grid.value && whole.value
    ? columnsOf(
        { ...grid.value, children: whole.value.flatMap((w) => w.grid.children) },
        { all: all.value, season: season.value, folded: folded.value },
      )
    : [],
)
const strands = computed(() =>
  (grid.value?.strands ?? [])
    .map((s) => ({ ...s, span: columns.value.filter((c) => c.skill.strand === s.id).length }))
    .filter((s) => s.span > 0),
)
const group = computed(() => grid.value?.groups.find((g) => String(g.sessionId) === groupId.value))
const children = computed(() =>
  rowsOf(whole.value ?? [], { byNeed: byNeed.value, group: group.value, present: present.value }),
)
const several = computed(() => (whole.value?.length ?? 0) > 1)
const startsClass = (row: Row, i: number) => several.value && children.value[i - 1]?.classId !== row.classId

const chosen = computed(() => {
  const { child, skill } = route.query
  return typeof child === 'string' && typeof skill === 'string' ? { childId: Number(child), skillId: skill } : null
})
const column = computed(() =>
  typeof route.query.skill === 'string' && !route.query.child ? route.query.skill : undefined,
)
const open = (child: Row, skillId: string) =>
  child.classId === classId.value
    ? router.push({ query: { child: child.id, skill: skillId } })
    : router.push({ name: 'class', params: { classId: child.classId }, query: { child: child.id, skill: skillId } })
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
    PageDown: [10, 0],
    PageUp: [-10, 0],
    Home: [0, -1000],
    End: [0, 1000],
  }
  const by = step[event.key]
  if (!by || !(event.target as HTMLElement).closest('td')) return
  event.preventDefault()
  const to = (n: number, last: number) => Math.min(last, Math.max(0, n))
  let next = to(at.value.column + by[1], columns.value.length - 1)
  // A folded strand has no cells to stand on.
  const way = Math.sign(by[1]) || 1
  while (columns.value[next] && columns.value[next]!.index < 0) next += way
  if (!columns.value[next]) next = at.value.column
  at.value = { row: to(at.value.row + by[0], children.value.length - 1), column: next }
  void nextTick(() => table.value?.querySelector<HTMLElement>('td button[tabindex="0"]')?.focus())
}
const print = () => window.print()
const seasons = { Autumn: t('autumn'), Spring: t('spring'), Summer: t('summer'), Beyond: t('beyond') }
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('The class') }}</h1>
      <span class="soft">{{
        grid
          ? $t('{count} children, {count2} of {count3} skills', {
              count: children.length,
              count2: columns.filter((c) => c.index >= 0).length,
              count3: grid.skills.length,
            })
          : ''
      }}</span>
      <div class="end tools">
        <select v-if="grid?.groups.length" v-model="groupId" class="box" :aria-label="$t('Group')">
          <option value="">{{ $t('whole class') }}</option>
          <option v-for="g in grid.groups" :key="g.sessionId" :value="String(g.sessionId)">
            {{ shortWeekday(g.day) }}: {{ g.short }}
          </option>
        </select>
        <select v-model="season" class="box" :aria-label="$t('Season')">
          <option value="">{{ $t('any season') }}</option>
          <option v-for="(name, s) in seasons" :key="s" :value="s">
            {{ name }}{{ s === grid?.season ? $t(', now') : '' }}
          </option>
        </select>
        <label class="check"><input v-model="byNeed" type="checkbox" /> {{ $t('To look at first') }}</label>
        <label class="check"><input v-model="present" type="checkbox" /> {{ $t('Here') }}</label>
        <label class="check"><input v-model="all" type="checkbox" /> {{ $t('All skills') }}</label>
        <label v-if="others.length" class="check"
          ><input v-model="together" type="checkbox" /> {{ $t('All my classes') }}</label
        >
        <button type="button" class="button plain small" @click="print">{{ $t('Print') }}</button>
      </div>
    </div>
    <ClassTabs />
    <PageError v-if="error" :error="error" />

    <div v-if="grid && !grid.children.length" class="none">
      <p class="said">{{ $t('No children yet.') }}</p>
      <RouterLink v-if="leads" class="button main" :to="{ name: 'class-list', params: { classId } }">{{
        $t('Import the class list')
      }}</RouterLink>
    </div>

    <div v-else-if="grid" class="scroll">
      <table
        ref="table"
        role="grid"
        tabindex="-1"
        :aria-label="$t('Children by skills')"
        :style="{ '--fit': fitOnPaper(columns.length) }"
        @keydown="move"
      >
        <thead>
          <tr class="strands">
            <td class="corner" />
            <th v-for="strand in strands" :key="strand.id" :colspan="strand.span" scope="colgroup">
              <button
                v-tooltip.bottom="
                  folded.has(strand.id)
                    ? $t('Unfold {name}', { name: strand.name })
                    : $t('Fold {name} away', { name: strand.name })
                "
                type="button"
                class="fold"
                :aria-expanded="!folded.has(strand.id)"
                @click="fold(strand.id)"
              >
                <i aria-hidden="true">{{ folded.has(strand.id) ? '+' : '–' }}</i><span v-if="!folded.has(strand.id)">{{
                  strand.name
                }}</span
                ><span v-else class="hidden-words">{{ strand.name }}</span>
              </button>
            </th>
          </tr>
          <tr>
            <td class="corner" />
            <th
              v-for="c in columns"
              :key="c.skill.id"
              scope="col"
              class="skill"
              :class="{ first: c.first, folded: c.index < 0 }"
            >
              <span v-if="c.index < 0">{{ strands.find((s) => s.id === c.skill.strand)?.name }}</span>
              <button
                v-else
                v-tooltip.bottom="c.skill.iCan"
                type="button"
                @click="router.push({ query: { skill: c.skill.id } })"
              >
                <span>{{ c.skill.short }}</span>
              </button>
            </th>
          </tr>
        </thead>
        <tbody>
          <template v-for="(child, row) in children" :key="child.id">
            <tr v-if="startsClass(child, row)" class="class-head">
              <th scope="rowgroup" :colspan="columns.length + 1">{{ child.className }}</th>
            </tr>
            <tr class="child">
              <th scope="row" :class="{ away: child.away }">
                <RouterLink :to="{ name: 'child', params: { classId: child.classId, childId: child.id } }">{{
                  child.name
                }}</RouterLink>
                <span v-if="child.away" class="small soft">{{ ' ' + $t('away') }}</span>
              </th>
              <td v-for="(c, index) in columns" :key="c.skill.id" :class="{ first: c.first, folded: c.index < 0 }">
                <button
                  v-if="c.index >= 0"
                  type="button"
                  :tabindex="at.row === row && at.column === index ? 0 : -1"
                  :aria-label="`${child.name}, ${c.skill.short}: ${markWords(child.marks[c.index]!.strength, child.marks[c.index]!.lookAgain, child.marks[c.index]!.ready, child.marks[c.index]!.inferred)}`"
                  @focus="at = { row, column: index }"
                  @click="open(child, c.skill.id)"
                >
                  <span
                    class="mark"
                    :class="[
                      `s${child.marks[c.index]!.strength}`,
                      {
                        again: child.marks[c.index]!.lookAgain,
                        ready: child.marks[c.index]!.ready,
                        inferred: child.marks[c.index]!.inferred,
                      },
                    ]"
                  />
                </button>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>

    <p v-if="grid?.children.length" class="legend small">
      <span v-for="n in 6" :key="n"><MarkFrame :strength="n - 1" silent /> {{ markWords(n - 1) }}</span>
      <span><MarkFrame :strength="3" look-again silent /> {{ $t('look again') }}</span>
      <span><MarkFrame :strength="0" ready silent /> {{ $t('ready for it') }}</span>
      <span><MarkFrame :strength="0" inferred silent /> {{ $t('likely there, not seen yet') }}</span>
    </p>

    <CellDrawer v-if="chosen" :child-id="chosen.childId" :skill-id="chosen.skillId" @close="close" />
    <ColumnDrawer v-else-if="column" :skill-id="column" @close="close" />
  </div>
</template>

<style scoped>
.none {
  padding: 2rem 0;
  font-size: 1.2rem;
}

.scroll {
  overflow: auto;
  max-height: calc(100vh - 290px);
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

.fold {
  position: sticky;
  left: 8.5rem;
  padding: 0;
  border: 0;
  background: none;
  color: var(--ink);
  font: 700 0.9rem var(--body);
  white-space: nowrap;
  cursor: pointer;
}

.fold i {
  display: inline-grid;
  place-items: center;
  width: 18px;
  height: 18px;
  margin-right: 0.3rem;
  border: 1.5px solid var(--line-strong);
  border-radius: 50%;
  font-style: normal;
  line-height: 1;
}

.skill {
  height: 8.2rem;
  padding: 0 0 0.4rem;
  vertical-align: bottom;
  border-bottom: 1px solid var(--line-strong);
  font-size: 0.85rem;
  font-weight: 400;
}

.skill button {
  height: 8rem;
  padding: 0;
  border: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}

.skill button:hover {
  text-decoration: underline;
}

.skill.folded {
  color: var(--ink-soft);
}

td.folded {
  background: var(--paper-deep);
}

.tools {
  gap: 0 0.7rem;
}

.tools select {
  max-width: 9.5rem;
}

.class-head th {
  padding: 0.5rem 0 0.2rem;
  border-bottom: 1.5px solid var(--ink);
  font: 700 1rem var(--body);
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

tbody th a {
  color: inherit;
  text-decoration: none;
}

tbody th a:hover {
  text-decoration: underline;
}

th.away {
  color: var(--ink-soft);
}

tbody td {
  padding: 0;
  text-align: center;
}

tbody tr.child:nth-child(5n) > * {
  border-bottom: 1px solid var(--line);
}

.first {
  border-left: 1px solid var(--line-strong);
}

tbody tr.child:hover > * {
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

@media print {
  @page {
    size: A4 landscape;
    margin: 9mm;
  }

  .scroll {
    max-height: none;
    overflow: visible;
  }

  .tools {
    display: none;
  }

  .mark {
    print-color-adjust: exact;
  }

  table {
    zoom: var(--fit);
  }

  .corner {
    min-width: 0;
  }

  /* A strand of one skill is no wider than its column. */
  .strands th {
    max-width: 0;
    overflow: hidden;
  }

  .fold {
    position: static;
  }

  td button,
  .skill {
    width: 20px;
    min-width: 20px;
    height: 20px;
  }

  .skill {
    height: 8.2rem;
  }

  td .mark {
    width: 19px;
    height: 10px;
    border-width: 1px;
  }
}
</style>
