<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { dayAndMonth, shortDay } from '@/app/dates'
import GroupTabs from './GroupTabs.vue'
import MetPicture from './MetPicture.vue'
import DayField from '@/ui/DayField.vue'
import PageError from '@/ui/PageError.vue'

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
const byName = computed(() => [...(view.value?.children ?? [])].sort((a, b) => a.name.localeCompare(b.name)))
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
    <PageError v-if="error" :error="error" />
    <template v-if="view">
      <ul v-if="view.warnings.length" class="warnings" role="status">
        <li v-for="warning in view.warnings" :key="warning">{{ warning }}</li>
      </ul>
      <p v-else role="status">{{ $t('Everyone has had turns, and nobody always sits with the same children.') }}</p>
      <div class="two">
        <section class="ruled" aria-labelledby="turns-head">
          <h2 id="turns-head">{{ $t('Turns, the fewest first') }}</h2>
          <DataTable :value="byName" data-key="id" class="turns" size="small" sort-field="turns" :sort-order="1">
            <Column field="name" :header="$t('Child')" sortable :pt="{ bodyCell: { role: 'rowheader' } }">
              <template #body="{ data }"
                ><span class="said">{{ data.name }}</span></template
              >
            </Column>
            <Column field="turns" :header="$t('Turns')" sortable class="count">
              <template #body="{ data }">
                <span class="bar">
                  {{ data.turns }}
                  <span class="thread" aria-hidden="true" :style="{ width: `${(7 * data.turns) / most}rem` }"
                    ><i v-for="n in data.turns" :key="n"
                  /></span>
                </span>
              </template>
            </Column>
            <Column field="others" :header="$t('Worked with')" sortable />
            <Column field="last" :header="$t('Last turn')" sortable>
              <template #body="{ data }">{{ data.last ? shortDay(data.last) : $t('none yet') }}</template>
            </Column>
          </DataTable>
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
  grid-template-columns: minmax(30rem, 1fr) minmax(0, 1.2fr);
  gap: 2rem;
  margin-top: 0.9rem;
}

@media (max-width: 64rem) {
  .two {
    grid-template-columns: 1fr;
  }
}

.turns :deep(td) {
  padding-block: 0.15rem;
  white-space: nowrap;
}

.bar {
  display: flex;
  gap: 0.5rem;
  align-items: center;
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
  width: 6px;
  height: 6px;
  border-radius: 50%;
  background: var(--ink);
}
</style>
