<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import GroupTabs from './GroupTabs.vue'
import MetPicture from './MetPicture.vue'
import DayField from '@/ui/DayField.vue'

/** Who has had turns and who has met whom, over the term: whether the small groups are shared out fairly. */
const { classId } = useAccount()
const since = ref('')
const { data: view, error } = useQuery({
  queryKey: queryKey('groups-company', classId, since),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/groups/company', {
        params: { path: { classId: classId.value }, query: since.value ? { since: since.value } : {} },
      }),
    ),
  placeholderData: keepPreviousData,
})
const inOrder = computed(() =>
  [...(view.value?.children ?? [])].sort((a, b) => a.turns - b.turns || a.name.localeCompare(b.name)),
)
const most = computed(() => Math.max(1, ...(view.value?.children.map((c) => c.turns) ?? [])))
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Turns and company') }}</h1>
      <span v-if="view" class="soft">{{
        $t('{term}, {day} to {day2}', { term: view.term, day: dayAndMonth(view.from), day2: dayAndMonth(view.until) })
      }}</span>
      <div class="end">{{ $t('Since') }} <DayField v-model="since" :label="$t('Since')" :max="view?.until" /></div>
    </div>
    <GroupTabs />
    <p v-if="error" class="warn" role="alert">{{ error.message }}</p>
    <template v-if="view">
      <ul v-if="view.warnings.length" class="warnings" role="status">
        <li v-for="warning in view.warnings" :key="warning">{{ warning }}</li>
      </ul>
      <p v-else role="status">{{ $t('Everyone has had turns, and nobody always sits with the same children.') }}</p>
      <div class="two">
        <section class="ruled" aria-labelledby="turns-head">
          <h2 id="turns-head">{{ $t('Turns, the fewest first') }}</h2>
          <table>
            <thead>
              <tr>
                <th scope="col">{{ $t('Child') }}</th>
                <th scope="col" colspan="2">{{ $t('Turns') }}</th>
                <th scope="col">{{ $t('Worked with') }}</th>
                <th scope="col">{{ $t('Last turn') }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="child in inOrder" :key="child.id">
                <th scope="row" class="said">{{ child.name }}</th>
                <td class="number">{{ child.turns }}</td>
                <td class="beads" aria-hidden="true">
                  <span class="thread" :style="{ width: `${(100 * child.turns) / most}%` }"
                    ><i v-for="n in child.turns" :key="n"
                  /></span>
                </td>
                <td>{{ $t('{others} others', { others: child.others }) }}</td>
                <td class="small">{{ child.last ? dayAndMonth(child.last) : $t('none yet') }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section class="ruled" aria-labelledby="met-head">
          <h2 id="met-head">{{ $t('Who has sat with whom') }}</h2>
          <MetPicture :children="view.children" :met="view.met" />
        </section>
      </div>
    </template>
  </div>
</template>

<style scoped>
.warnings {
  max-width: 60rem;
  padding: 0.5rem 0.9rem 0.5rem 2rem;
  border: 1.5px solid var(--marigold);
  border-radius: var(--corner);
  background: var(--card);
}

.two {
  display: grid;
  grid-template-columns: minmax(24rem, 1fr) minmax(0, 1.4fr);
  gap: 2rem;
  margin-top: 0.9rem;
}

@media (max-width: 64rem) {
  .two {
    grid-template-columns: 1fr;
  }
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  padding: 0.18rem 0.5rem 0.18rem 0;
  border-top: 1px solid var(--line);
  text-align: left;
  white-space: nowrap;
}

thead th {
  border: 0;
  font-size: 0.875rem;
  color: var(--ink-soft);
}

th[scope='row'] {
  font-weight: 400;
}

.number {
  width: 1.6rem;
  text-align: right;
}

.beads {
  width: 30%;
}

/* A turn is a bead on a thread. */
.thread {
  display: flex;
  justify-content: space-around;
  align-items: center;
  height: 10px;
  background: linear-gradient(var(--line-strong), var(--line-strong)) center / 100% 1.5px no-repeat;
}

.thread i {
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: var(--ink);
}
</style>
