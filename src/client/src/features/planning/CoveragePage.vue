<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { shortDay } from '@/app/dates'
import PlanTabs from '@/ui/PlanTabs.vue'
import PageError from '@/ui/PageError.vue'
import EmptyPlace from '@/ui/EmptyPlace.vue'

/** Planned, taught, observed, secure: by strand and by standard, this class beside the school's others. */
const { classId } = useAccount()
const { data: classes, error } = useQuery({
  queryKey: queryKey('coverage', classId),
  queryFn: () =>
    take(api.GET('/api/classes/{classId}/plan/coverage', { params: { path: { classId: classId.value } } })),
})
const framework = ref('')
const own = computed(() => classes.value?.[0])
const rowsOf = (of: Schemas['ClassCoverage']) =>
  of.frameworks.find((f) => f.name === framework.value)?.standards ?? of.strands
const rows = computed(() =>
  (own.value ? rowsOf(own.value) : []).map((row) => ({
    ...row,
    lines: (classes.value ?? []).map((c) => ({
      classId: c.classId,
      ...rowsOf(c).find((r) => r.code === row.code)?.line,
    })),
  })),
)
const percent = (share: number) => `${Math.round(share * 100)} %`
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Coverage') }}</h1>
      <div class="end">
        <select v-if="own" v-model="framework" class="box" :aria-label="$t('By strand or by standard')">
          <option value="">{{ $t('by strand') }}</option>
          <option v-for="f in own.frameworks" :key="f.name">{{ f.name }}</option>
        </select>
      </div>
    </div>
    <PlanTabs />
    <PageError v-if="error" :error="error" />
    <template v-if="classes">
      <EmptyPlace
        v-if="own && !own.pace"
        :what="$t('There is no plan to compare with yet.')"
        :why="$t('With one, each strand and each standard shows what is planned, taught, seen and secure.')"
        :to="{ name: 'make-plan', params: { classId } }"
        :action="$t('Make a plan of the year')"
      />
      <div class="heads">
        <section v-for="c in classes" :key="c.classId" class="ruled">
          <h2>{{ c.class }}</h2>
          <p>{{ c.pace ?? $t('No plan for the year yet.') }}</p>
          <p>{{ c.turns }}</p>
          <p v-if="c.next.length" class="soft small">{{ $t('Taught next') }}</p>
          <ul v-if="c.next.length">
            <li v-for="lesson in c.next" :key="lesson.day">
              <span class="soft small">{{ shortDay(lesson.day) }}</span> <b>{{ lesson.skill }}</b>
            </li>
          </ul>
        </section>
      </div>
      <DataTable :value="rows" data-key="code" class="cover" removable-sort>
        <Column field="name" :header="framework || $t('strand')" :pt="{ bodyCell: { role: 'rowheader' } }">
          <template #body="{ data }">
            <span v-if="framework" class="small soft">{{ data.code }}</span> {{ data.name }}
          </template>
        </Column>
        <template v-for="(c, i) in classes" :key="c.classId">
          <Column
            :header="$t('{class}: skills planned', { class: c.class })"
            class="first"
            sortable
            :sort-field="(row) => row.lines[i].planned ?? 0"
          >
            <template #body="{ data: { lines } }">
              <span
                v-if="lines[i].skills"
                class="beads"
                role="img"
                :aria-label="
                  $t('{planned} of {skills} planned, {taught} taught', {
                    planned: lines[i].planned,
                    skills: lines[i].skills,
                    taught: lines[i].taught,
                  })
                "
                ><i
                  v-for="n in lines[i].skills"
                  :key="n"
                  :class="{ taught: n <= (lines[i].taught ?? 0), planned: n <= (lines[i].planned ?? 0) }"
              /></span>
              <span v-else class="small warn">{{ $t('no skill reaches it') }}</span>
            </template>
          </Column>
          <Column :header="$t('taught')" class="number" sortable :sort-field="(row) => row.lines[i].taught ?? 0">
            <template #body="{ data: { lines } }">
              {{ lines[i].taught }}
              <span class="soft small">{{ $t('of {planned}', { planned: lines[i].planned }) }}</span>
            </template>
          </Column>
          <Column :header="$t('seen')" class="number" sortable :sort-field="(row) => row.lines[i].observed ?? 0">
            <template #body="{ data: { lines } }">{{ percent(lines[i].observed ?? 0) }}</template>
          </Column>
          <Column :header="$t('secure')" class="number" sortable :sort-field="(row) => row.lines[i].secure ?? 0">
            <template #body="{ data: { lines } }">
              <span class="bar"><i :style="{ width: `${(lines[i].secure ?? 0) * 100}%` }" /></span
              >{{ percent(lines[i].secure ?? 0) }}
            </template>
          </Column>
        </template>
      </DataTable>
      <p class="small soft">
        {{
          $t(
            'A bead is a skill: filled where all its lessons were given, ringed where lessons are planned, faint where none are. Seen and secure: the share of all pairs of a child and one of these skills.',
          )
        }}
      </p>
      <section v-for="c in classes.filter((x) => x.neverTaught.length)" :key="c.classId" class="ruled">
        <h2>{{ $t('{class}: planned and never taught', { class: c.class }) }}</h2>
        <ul>
          <li v-for="line in c.neverTaught" :key="line">{{ line }}</li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.box {
  max-width: 22rem;
}

.heads {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(18rem, 1fr));
  gap: 0 2rem;
}

.heads p {
  margin: 0 0 0.2rem;
}

.heads ul {
  margin: 0 0 0.6rem;
  padding: 0;
  list-style: none;
}

.cover :deep(td.first) {
  border-left: 1px solid var(--line);
}

.cover :deep(.number) {
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
}

.beads {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  max-width: 12rem;
}

.beads i {
  width: 10px;
  height: 10px;
  border: 1.5px solid var(--line-strong);
  border-radius: 50%;
}

.beads i.planned {
  border-color: var(--spruce);
}

.beads i.taught {
  background: var(--spruce);
}

.bar {
  display: inline-block;
  width: 60px;
  height: 8px;
  margin-right: 0.4rem;
  border: 1px solid var(--line-strong);
}

.bar i {
  display: block;
  height: 100%;
  background: var(--ink);
}
</style>
