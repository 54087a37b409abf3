<script setup lang="ts">
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { fullDay } from '@/app/dates'
import ClassTabs from '@/ui/ClassTabs.vue'
import { supportLabel, supports } from '@/ui/marks'
import { t } from '@/app/language'
import EmptyPlace from '@/ui/EmptyPlace.vue'
import PageError from '@/ui/PageError.vue'

/** Do two adults mean the same by "with a prompt"? Their codes of one session, side by side. */
const { classId } = useAccount()
const route = useRoute()
const { data: sessions, error } = useQuery({
  queryKey: queryKey('agreement', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/agreement', { params: { path: { classId: classId.value } } })),
})
const sessionId = computed(() => Number(route.params.sessionId) || sessions.value?.[0]?.sessionId)
const { data: result } = useQuery({
  queryKey: queryKey('agreement', classId, sessionId),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/agreement/{sessionId}', {
        params: { path: { classId: classId.value, sessionId: sessionId.value! } },
      }),
    ),
  enabled: computed(() => sessionId.value !== undefined),
})
const two = (n: number) => n.toFixed(2)
const between = (i: Schemas['IntervalView']) =>
  t('{two} ({two2} to {two3})', { two: two(i.value), two2: two(i.low), two3: two(i.high) })
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Two adults') }}</h1>
      <span class="soft">{{
        $t('Their codes of the same session compared, so that a team comes to mean the same.')
      }}</span>
    </div>
    <ClassTabs />
    <PageError v-if="error" :error="error" />
    <EmptyPlace
      v-if="sessions && !sessions.length"
      :what="$t('No session was recorded by two adults yet.')"
      :why="
        $t(
          'Here the codes of two adults who watched the same group stand side by side, so that “with a prompt” comes to mean the same to both. Let both open one group on the clipboard, tick “On my own”, and record what each sees.',
        )
      "
      :to="{ name: 'clipboard', params: { classId } }"
      :action="$t('To the clipboard')"
    />
    <div v-if="sessions?.length" class="two">
      <ul class="sessions">
        <li v-for="s in sessions" :key="s.sessionId">
          <RouterLink
            :to="{ name: 'agreement', params: { classId, sessionId: s.sessionId } }"
            :aria-current="s.sessionId === sessionId ? 'page' : undefined"
          >
            <b class="said">{{ s.short }}</b>
            <span class="small"
              >{{ fullDay(s.day) }}: {{ s.adults.map((a) => `${a.name} ${a.moments}`).join(', ') }}</span
            >
          </RouterLink>
        </li>
      </ul>
      <section v-if="result" aria-live="polite">
        <p class="verdict">{{ result.sentence }}</p>
        <div v-if="result.pairs" class="figures">
          <table>
            <caption class="small soft">
              {{
                $t('Rows: {first}; columns: {second}', { first: result.first, second: result.second })
              }}
            </caption>
            <thead>
              <tr>
                <td />
                <th v-for="s in supports" :key="s.value" scope="col">{{ s.label }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(row, i) in result.table" :key="i">
                <th scope="row">{{ supports[i]!.label }}</th>
                <td v-for="(n, j) in row" :key="j" :class="{ same: i === j }">{{ n || '·' }}</td>
              </tr>
            </tbody>
          </table>
          <dl>
            <dt>{{ $t('The same') }}</dt>
            <dd>{{ result.percent ? between(result.percent) : '–' }}</dd>
            <dt>{{ $t('κ') }}</dt>
            <dd>{{ result.kappa ? between(result.kappa) : $t('not defined: one level only') }}</dd>
            <dt>{{ $t('κ, near misses in part') }}</dt>
            <dd>{{ result.weighted ? between(result.weighted) : $t('not defined') }}</dd>
            <dt>{{ $t('Noted by one only') }}</dt>
            <dd>{{ result.unpaired }}</dd>
          </dl>
        </div>
        <p class="small soft">{{ $t('In brackets the interval in which it lies with 95 % confidence.') }}</p>
        <template v-if="result.apart.length">
          <h2>{{ $t('Where they differ') }}</h2>
          <DataTable :value="result.apart" class="apart">
            <Column field="child" :header="$t('Child')" sortable
              ><template #body="{ data }"
                ><span class="said">{{ data.child }}</span></template
              ></Column
            >
            <Column field="numbers" :header="$t('Numbers')" sortable />
            <Column field="first" :header="result.first" sortable
              ><template #body="{ data }">{{ supportLabel(data.first) }}</template></Column
            >
            <Column field="second" :header="result.second" sortable
              ><template #body="{ data }">{{ supportLabel(data.second) }}</template></Column
            >
          </DataTable>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 20rem 1fr;
  gap: 2rem;
}

.sessions {
  margin: 0;
  padding: 0;
  border-top: 1.5px solid var(--ink);
  list-style: none;
}

.sessions a {
  display: grid;
  padding: 0.5rem 0.6rem;
  border-bottom: 1px solid var(--line);
  color: var(--ink);
  text-decoration: none;
}

.sessions a[aria-current] {
  background: var(--spruce-wash);
  box-shadow: inset 4px 0 0 var(--spruce);
}

.verdict {
  max-width: 44rem;
  font-size: 1.15rem;
}

.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem 3rem;
}

caption {
  text-align: left;
}

th,
td {
  padding: 0.25rem 0.7rem;
}

tbody th {
  text-align: left;
}

tbody td {
  border: 1px solid var(--line-strong);
  text-align: center;
}

td.same {
  background: var(--spruce-wash);
  font-weight: 700;
}

dl {
  display: grid;
  grid-template-columns: auto auto;
  gap: 0.2rem 1rem;
  align-content: start;
}

dd {
  margin: 0;
  font-weight: 700;
}

@media (max-width: 860px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
