<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { isOneOf, queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { clock, dayAndMonth, shortWeekday } from '@/app/dates'
import { useWeek } from '@/app/week'
import { decide } from '@/ui/changed'
import { say, sayError } from '@/ui/notices'
import { chosenOf } from './board'
import GroupTabs from './GroupTabs.vue'
import { t } from '@/app/language'

/** Several weeks of groups, so that over a half term every child has its turns and works with many others. */
const queries = useQueryClient()
const { classId, leads } = useAccount()
const { monday, path } = useWeek()
const weeks = ref(6)
const id = ref('')
const taken = ref<string[]>([])

const begin = useMutation({
  mutationFn: () =>
    take(
      api.POST('/api/classes/{classId}/weeks/{day}/groups/ahead', {
        params: { path: path.value },
        body: { weeks: weeks.value },
      }),
    ),
  onSuccess: (begun) => {
    taken.value = []
    id.value = begun.id
  },
  onError: sayError,
})
const { data: ahead } = useQuery({
  queryKey: queryKey('groups-ahead', classId, id),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/groups/ahead/{id}', {
        params: { path: { classId: classId.value, id: id.value } },
      }),
    ),
  enabled: computed(() => id.value !== ''),
  refetchInterval: (query) => (query.state.data?.state === 'Working' || !query.state.data ? 500 : false),
})
watch([classId, monday], () => (id.value = ''))
const working = computed(() => begin.isPending.value || ahead.value?.state === 'Working')
const stop = () =>
  take(
    api.DELETE('/api/classes/{classId}/groups/ahead/{id}', {
      params: { path: { classId: classId.value, id: id.value } },
    }),
  ).catch(sayError)

/** The parts of a week stand together and are accepted together. */
const byWeek = computed(() => {
  const found = new Map<string, Schemas['GroupsView'][]>()
  for (const part of ahead.value?.weeks ?? []) found.set(part.monday, [...(found.get(part.monday) ?? []), part])
  return [...found].map(([monday, parts]) => ({ monday, parts, version: parts[0]!.version }))
})
const turns = [t('First turn'), t('Second turn')]
const nameOf = (part: Schemas['GroupsView']) =>
  part.parts.length > 1 ? `${turns[part.part! - 1]}, ${part.parts.find((p) => p.number === part.part)?.name}` : ''

async function accept(week: (typeof byWeek.value)[number]) {
  try {
    const path = { classId: classId.value, day: week.monday }
    let { version } = week
    const view = await decide(
      () =>
        take(
          api.POST('/api/classes/{classId}/weeks/{day}/groups/accept', {
            params: { path },
            body: { version, groups: week.parts.flatMap(chosenOf) },
          }),
        ),
      async () =>
        ({ version } = await take(api.GET('/api/classes/{classId}/weeks/{day}/groups', { params: { path } }))),
    )
    if (!view) return
    queries.setQueryData(queryKey('groups', classId.value, week.monday), view)
    await queries.invalidateQueries({ predicate: (q) => isOneOf(q, 'week', 'today') })
    taken.value = [...taken.value, week.monday]
    say(t('The groups of the week of {day} are accepted.', { day: dayAndMonth(week.monday) }))
  } catch (problem) {
    sayError(problem)
  }
}

const most = computed(() => Math.max(1, ...(ahead.value?.children.map((c) => c.others) ?? [])))
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Groups for weeks ahead') }}</h1>
      <div v-if="leads" class="end">
        <label
          >{{ $t('From the week of {day}, for', { day: dayAndMonth(monday) }) }}
          <select v-model="weeks" class="box">
            <option v-for="n in [2, 3, 4, 5, 6, 7, 8]" :key="n" :value="n">{{ $t('{n} weeks', { n }) }}</option>
          </select></label
        >
        <button type="button" class="button main" :disabled="working" @click="begin.mutate()">
          {{ working ? $t('Working it out…') : ahead?.weeks.length ? $t('Work it out again') : $t('Work it out') }}
        </button>
      </div>
    </div>
    <GroupTabs />
    <p v-if="!id" class="intro">
      {{
        $t(
          'Turns and company are spread over the weeks: who waits comes first, and who sat together lately is put with others. What each child knows is taken as it is today, so look at each week again when it comes.',
        )
      }}
      <template v-if="!leads">{{ $t('The class’s lead teacher plans the groups.') }}</template>
    </p>
    <p v-if="working" role="status" class="working">
      <progress :value="ahead?.progress ?? 0" max="1" :aria-label="$t('How much is done')" />
      {{ $t('Forming groups week by week, then each once more among the others.') }}
      <button v-if="id" type="button" class="button plain small" @click="stop">{{ $t('Stop') }}</button>
    </p>
    <p v-if="ahead?.state === 'Cancelled'" role="status">{{ $t('Stopped; nothing was changed.') }}</p>
    <p v-if="ahead?.state === 'Failed'" class="warn" role="alert">
      {{ $t('This could not be worked out; nothing was changed.') }}
    </p>
    <template v-if="ahead?.weeks.length && ahead.state === 'Done'">
      <p role="status">
        <b>{{ ahead.sentence }}</b>
      </p>
      <div class="weeks">
        <section
          v-for="week in byWeek"
          :key="week.monday"
          class="ruled"
          :aria-label="$t('Week of {day}', { day: dayAndMonth(week.monday) })"
        >
          <div class="head">
            <h2>{{ $t('Week of {day}', { day: dayAndMonth(week.monday) }) }}</h2>
            <span v-if="taken.includes(week.monday)" class="soft">{{ $t('Accepted') }}</span>
            <button v-else-if="leads" type="button" class="button small" @click="accept(week)">
              {{ $t('Accept') }}
            </button>
          </div>
          <template v-for="part in week.parts" :key="part.part ?? 0">
            <h3 v-if="nameOf(part)">{{ nameOf(part) }}</h3>
            <div v-for="group in part.groups" :key="`${group.slot.day}${group.slot.slotId}`" class="group">
              <span class="small soft">{{ shortWeekday(group.slot.day) }} {{ clock(group.slot.start) }}</span>
              <span
                ><b>{{ group.short }}</b
                ><br /><span class="said">{{ group.children.map((c) => c.name).join(', ') }}</span></span
              >
            </div>
            <p v-if="part.unplaced.length" class="small">
              {{ $t('No turn: {list}', { list: part.unplaced.map((c) => c.name).join(', ') }) }}
            </p>
          </template>
        </section>
      </div>
      <section class="ruled" aria-labelledby="each-head">
        <h2 id="each-head">{{ $t('What it gives each child') }}</h2>
        <ul class="each">
          <li v-for="child in ahead.children" :key="child.id">
            <b class="said">{{ child.name }}</b>
            <span>{{ $t('{turns} turns', { turns: child.turns }) }}</span>
            <span class="thread" aria-hidden="true"><i :style="{ width: `${(100 * child.others) / most}%` }" /></span>
            <span class="small">{{ $t('{others} others', { others: child.others }) }}</span>
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.intro {
  max-width: 44rem;
}

.working {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.7rem;
}

progress {
  width: 10rem;
  accent-color: var(--spruce);
}

.weeks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(20rem, 1fr));
  gap: 1.2rem 1.6rem;
  margin: 0.8rem 0 1.4rem;
}

.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 40px;
}

.group {
  display: grid;
  grid-template-columns: 4.6rem 1fr;
  padding: 0.3rem 0;
  border-top: 1px solid var(--line);
  line-height: 1.3;
}

.each {
  columns: 20rem auto;
  column-gap: 2rem;
  padding: 0;
  list-style: none;
}

.each li {
  display: grid;
  grid-template-columns: 6.5rem 4.2rem 1fr 5rem;
  gap: 0.5rem;
  align-items: center;
  padding: 0.15rem 0;
  break-inside: avoid;
}

.thread {
  height: 3px;
  background: var(--line);
}

.thread i {
  display: block;
  height: 100%;
  background: var(--ink);
}
</style>
