<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import PlanTabs from '@/ui/PlanTabs.vue'

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
    <p v-if="error" class="warn" role="alert">{{ error.message }}</p>
    <template v-if="classes">
      <div class="heads">
        <p v-for="c in classes" :key="c.classId">
          <b>{{ c.class }}</b> {{ c.pace ?? $t('No plan for the year yet.') }}
        </p>
      </div>
      <table class="cover">
        <thead>
          <tr>
            <th scope="col">{{ framework || $t('strand') }}</th>
            <template v-for="c in classes" :key="c.classId">
              <th scope="col" class="first">{{ $t('{class}: skills planned', { class: c.class }) }}</th>
              <th scope="col">{{ $t('taught') }}</th>
              <th scope="col">{{ $t('seen') }}</th>
              <th scope="col">{{ $t('secure') }}</th>
            </template>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.code">
            <th scope="row">
              <span v-if="framework" class="small soft">{{ row.code }}</span> {{ row.name }}
            </th>
            <template v-for="line in row.lines" :key="line.classId">
              <td class="first">
                <span
                  v-if="line.skills"
                  class="beads"
                  role="img"
                  :aria-label="
                    $t('{planned} of {skills} planned, {taught} taught', {
                      planned: line.planned,
                      skills: line.skills,
                      taught: line.taught,
                    })
                  "
                  ><i
                    v-for="n in line.skills"
                    :key="n"
                    :class="{ taught: n <= (line.taught ?? 0), planned: n <= (line.planned ?? 0) }"
                /></span>
                <span v-else class="small warn">{{ $t('no skill reaches it') }}</span>
              </td>
              <td class="number">
                {{ line.taught }}<span class="soft small"> {{ $t('of {planned}', { planned: line.planned }) }}</span>
              </td>
              <td class="number">{{ percent(line.observed ?? 0) }}</td>
              <td class="number">
                <span class="bar"><i :style="{ width: `${(line.secure ?? 0) * 100}%` }" /></span
                >{{ percent(line.secure ?? 0) }}
              </td>
            </template>
          </tr>
        </tbody>
      </table>
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

.heads p {
  margin: 0 0 0.2rem;
}

.cover {
  width: 100%;
  margin-top: 0.8rem;
  border-collapse: collapse;
}

.cover th,
.cover td {
  padding: 0.35rem 0.6rem 0.35rem 0;
  border-bottom: 1px solid var(--line);
  text-align: left;
  vertical-align: middle;
}

.cover thead th {
  color: var(--ink-soft);
  font-weight: 400;
  font-size: 0.875rem;
}

.cover tbody th {
  max-width: 18rem;
}

.cover .first {
  padding-left: 0.8rem;
  border-left: 1px solid var(--line);
}

.number {
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
