<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import ClassTabs from '@/ui/ClassTabs.vue'
import { sayError } from '@/ui/notices'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

/** Whom to check: begin with one child, come back to one that was paused, look at one that has ended. */
const { classId, records } = useAccount()
const router = useRouter()
const queries = useQueryClient()
const { data: view, error } = useQuery({
  queryKey: queryKey('baseline', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/baseline', { params: { path: { classId: classId.value } } })),
})
const picked = ref<number[]>([])
const strand = ref('')
const under = (c: Schemas['BaselineChild']) => c.checkId && !c.endedAt
const counts = computed(() => {
  const all = view.value?.children ?? []
  return { under: all.filter(under).length, done: all.filter((c) => c.endedAt).length }
})
const strandName = (id: string | null) => view.value?.strands.find((s) => s.id === id)?.name

function stateOf(c: Schemas['BaselineChild']) {
  const about = c.strand ? `${strandName(c.strand)}: ` : ''
  if (under(c))
    return t('{about}under way since {day}, {asked} asked', {
      about,
      day: dayAndMonth(c.startedAt!.slice(0, 10)),
      asked: c.asked,
    })
  if (c.endedAt)
    return t('{about}ended {day} after {asked}', { about, day: dayAndMonth(c.endedAt.slice(0, 10)), asked: c.asked })
  return c.seen ? t('no check; {seen} skills seen', { seen: c.seen }) : t('not seen yet')
}

async function begin() {
  try {
    const started = await take(
      api.POST('/api/classes/{classId}/baseline', {
        params: { path: { classId: classId.value } },
        body: { childIds: picked.value, strand: strand.value || null },
      }),
    )
    await queries.invalidateQueries({ queryKey: queryKey('baseline') })
    picked.value = []
    await router.push({
      name: 'check',
      params: { classId: classId.value, checkId: started[0]!.checkId },
      query:
        started.length > 1
          ? {
              then: started
                .slice(1)
                .map((s) => s.checkId)
                .join(','),
            }
          : {},
    })
  } catch (problem) {
    sayError(problem)
  }
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Baseline check') }}</h1>
      <span v-if="view" class="soft">{{
        $t('{done} ended, {under} under way', { done: counts.done, under: counts.under })
      }}</span>
    </div>
    <ClassTabs />
    <PageError v-if="error" :error="error" />
    <p class="lead">
      {{
        $t(
          'About twenty questions, one to one, ten minutes or several short sittings. Each next question is the one that tells most about the whole map; it stops when it is sure enough. What was not asked is inferred, and marked so.',
        )
      }}
    </p>
    <div v-if="view" class="two">
      <ul class="children">
        <li v-for="c in view.children" :key="c.id">
          <label class="check">
            <input
              v-if="records"
              v-model="picked"
              type="checkbox"
              :value="c.id"
              :aria-label="$t('Check {name}', { name: c.name })"
            />
            <span class="said name" :class="{ away: c.away }">{{ c.name }}</span>
          </label>
          <span class="small soft">{{ stateOf(c) }}</span>
          <RouterLink v-if="c.checkId" class="small" :to="{ name: 'check', params: { classId, checkId: c.checkId } }">{{
            under(c) && records ? $t('Go on') : $t('Look')
          }}</RouterLink>
        </li>
      </ul>
      <form v-if="records" class="begin" @submit.prevent="begin">
        <p v-if="!picked.length" class="soft">{{ $t('Tick the children you will sit with.') }}</p>
        <p v-else>
          <b>{{ picked.length === 1 ? $t('One child') : $t('{count} children', { count: picked.length }) }}</b>{{
            $t(', one after the other. Other adults can check others at the same time.')
          }}
        </p>
        <label class="field">
          <span>{{ $t('What to look at') }}</span>
          <select v-model="strand" class="box">
            <option value="">{{ $t('the whole map (baseline)') }}</option>
            <option v-for="s in view.strands" :key="s.id" :value="s.id">
              {{ $t('{name} only (look again)', { name: s.name }) }}
            </option>
          </select>
        </label>
        <button class="button main" :disabled="!picked.length">{{ $t('Begin') }}</button>
        <p class="small soft">
          {{
            $t(
              'A check says where to start teaching. It is no test of a child and finds no difficulty: if something worries you, talk to the family and to the people your school has for it.',
            )
          }}
        </p>
      </form>
    </div>
  </div>
</template>

<style scoped>
.lead {
  max-width: 50rem;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 20rem;
  gap: 2rem;
  align-items: start;
}

.children {
  margin: 0;
  padding: 0;
  border-top: 1.5px solid var(--ink);
  list-style: none;
  columns: 2;
  column-gap: 2rem;
}

.children li {
  display: grid;
  grid-template-columns: auto 1fr auto;
  align-items: center;
  gap: 0 0.6rem;
  padding: 0.1rem 0;
  border-bottom: 1px solid var(--line);
  break-inside: avoid;
}

.name {
  min-width: 6.4rem;
  font-size: 1.1rem;
}

.away {
  color: var(--ink-soft);
  text-decoration: underline dotted;
}

.begin {
  position: sticky;
  top: 0.5rem;
  padding: 0.4rem 1rem 0.8rem;
  border: 1.5px solid var(--ink);
  border-radius: var(--corner);
}

.begin select {
  width: 100%;
}

@media (max-width: 1000px) {
  .two {
    grid-template-columns: 1fr;
  }

  .begin {
    order: -1;
    position: static;
  }
}

@media (max-width: 700px) {
  .children {
    columns: 1;
  }
}
</style>
