<script setup lang="ts">
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, Refused, take, type Schemas } from '@/app/api/client'
import { addDays, fullDay, mondayOf, shortDay } from '@/app/dates'
import { decide } from '@/ui/changed'
import { say, sayError } from '@/ui/notices'
import { nameOf } from './layout'
import PlanString from './PlanString.vue'
import PlanTabs from '@/ui/PlanTabs.vue'
import SuggestionList from './SuggestionList.vue'
import { usePlan } from './usePlan'
import AskForm from '@/ui/AskForm.vue'
import DayField from '@/ui/DayField.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { t } from '@/app/language'
import LongSelect from '@/ui/LongSelect.vue'
import PageError from '@/ui/PageError.vue'

type Revise = Schemas['RevisePlan']

/** Life intervenes: what happened, what would move and why, before and after; nothing is kept until it is taken. */
const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const { leads, today } = useAccount()
const { classId, plan, error, refresh } = usePlan()

const wanted = ref<Revise>({ lostDays: [], why: '', changes: [], held: [], aim: 'MoveLeast' })
const first = ref('')
const last = ref('')
const reason = ref('')
const skill = ref('')

const fromAddress = () => {
  const { skill: id, lessons } = route.query
  if (typeof id === 'string' && Number(lessons)) wanted.value.changes = [{ skill: id, lessons: Number(lessons) }]
}
watch(() => route.query, fromAddress, { immediate: true })

const schoolDays = computed(
  () => new Set(plan.value?.weeks.flatMap((w) => w.days.filter((d) => d.school).map((d) => d.day))),
)
async function lose() {
  const days: string[] = []
  for (let day = first.value; day && day <= (last.value || first.value) && days.length < 60; day = addDays(day, 1))
    if (schoolDays.value.has(day)) days.push(day)
  const none = t('There is no school on these days.')
  if (!days.length) throw new Refused(none, 400, { first: [none] })
  wanted.value.lostDays = [...new Set([...wanted.value.lostDays, ...days])].sort()
  wanted.value.why = reason.value || wanted.value.why
  first.value = last.value = ''
}
const names = computed(() => new Map(plan.value?.lessons.map((l) => [l.skill, l.short])))
const coming = computed(() =>
  [
    ...new Map(
      plan.value?.lessons
        .filter((l) => plan.value?.version && l.day >= addDays(today.value, -28))
        .map((l) => [l.skill, l.short]),
    ),
  ].sort((a, b) => a[1].localeCompare(b[1])),
)
function more(id: string, by: number) {
  const known = wanted.value.changes.find((c) => c.skill === id)
  wanted.value.changes = [
    ...wanted.value.changes.filter((c) => c.skill !== id),
    ...((known?.lessons ?? 0) + by ? [{ skill: id, lessons: (known?.lessons ?? 0) + by }] : []),
  ]
}
const key = nameOf
const held = computed(() => new Set(wanted.value.held.map(key)))
function hold(lesson: { skill: string; number: number }) {
  const { skill: id, number } = lesson
  wanted.value.held = held.value.has(key(lesson))
    ? wanted.value.held.filter((h) => key(h) !== key(lesson))
    : [...wanted.value.held, { skill: id, number }]
}

const hasLost = computed(() => plan.value?.suggestions.some((s) => s.kind === 'LostDays'))
const asks = computed(() => wanted.value.lostDays.length > 0 || wanted.value.changes.length > 0 || !!hasLost.value)
const {
  data: revision,
  error: refused,
  isFetching,
  refetch,
} = useQuery({
  queryKey: queryKey('revision', classId, wanted),
  // A new question breaks the old one off, on the server too.
  queryFn: ({ signal }) =>
    take(
      api.POST('/api/classes/{classId}/plan/revision', {
        signal,
        params: { path: { classId: classId.value } },
        body: { ...wanted.value, why: wanted.value.why || 'Lost' },
      }),
    ),
  enabled: computed(() => asks.value && leads.value && !!plan.value?.version),
  placeholderData: keepPreviousData,
  retry: false,
})
const moved = computed(
  () => new Set(revision.value?.moves.flatMap((m) => [m.was, m.is].map((day) => `${m.skill}/${day}`))),
)

// Only the weeks in which something changes, with one on each side.
const weeks = computed(() => {
  const days =
    revision.value?.moves
      .flatMap((m) => [m.was, m.is])
      .filter((d): d is string => !!d)
      .sort() ?? []
  if (!days.length) return []
  const [from, until] = [addDays(mondayOf(days[0]!), -7), addDays(mondayOf(days[days.length - 1]!), 7)]
  return plan.value?.weeks.filter((w) => w.monday >= from && w.monday <= until) ?? []
})
const accept = useMutation({
  mutationFn: () =>
    decide(
      () =>
        take(
          api.POST('/api/classes/{classId}/plan/revision/accept', {
            params: { path: { classId: classId.value } },
            body: { version: revision.value!.version, revision: { ...wanted.value, why: wanted.value.why || 'Lost' } },
          }),
        ).then(() => true),
      () => Promise.all([refresh(), refetch()]),
    ),
  onSuccess: async (done) => {
    if (!done) return
    wanted.value = { lostDays: [], why: '', changes: [], held: [], aim: wanted.value.aim }
    await router.replace({ query: {} })
    await refresh()
    say(t('The plan is revised. Today and the weeks follow it.'))
  },
  onError: sayError,
})
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Re-plan') }}</h1>
    </div>
    <PlanTabs />
    <PageError v-if="error" :error="error" />
    <p v-if="plan && !plan.version">
      {{ $t('There is no plan for this year yet.') }}
      <RouterLink v-if="leads" :to="{ name: 'make-plan', params: { classId } }">{{ $t('Plan the year') }}</RouterLink>
    </p>
    <p v-else-if="plan && !leads" class="soft">{{ $t('The lead teacher revises the plan.') }}</p>
    <div v-else-if="plan" class="two">
      <section class="ruled">
        <h2>{{ $t('What has happened') }}</h2>
        <SuggestionList :suggestions="plan.suggestions" here />
        <AskForm class="lines" :send="lose">
          <h3>{{ $t('Days without a lesson') }}</h3>
          <div class="beside">
            <FaultyField name="first"><DayField v-model="first" :label="$t('First lost day')" required /></FaultyField>
            <DayField v-model="last" :label="$t('Last lost day')" />
          </div>
          <div class="beside">
            <FaultyField name="why"
              ><input
                v-model="reason"
                type="text"
                :placeholder="$t('What for')"
                :aria-label="$t('What the days were lost to')"
                maxlength="60"
                required
            /></FaultyField>
            <button class="button">{{ $t('Lose them') }}</button>
          </div>
          <p v-if="wanted.lostDays.length" class="small">
            <b>{{ wanted.why }}:</b>{{ ' ' }}
            <span v-for="day in wanted.lostDays" :key="day" class="lost"
              >{{ shortDay(day) }}
              <button
                type="button"
                class="button plain small"
                :aria-label="$t('{day} is not lost', { day: fullDay(day) })"
                @click="wanted.lostDays = wanted.lostDays.filter((d) => d !== day)"
              >
                ×
              </button></span
            >
          </p>
        </AskForm>
        <form class="lines" @submit.prevent="skill && more(skill, 1)">
          <h3>{{ $t('A skill that needs longer, or less') }}</h3>
          <div class="beside">
            <LongSelect
              v-model="skill"
              :label="$t('Skill')"
              :none="$t('Which')"
              :options="coming.map(([id, short]) => ({ value: id, label: short }))"
            />
            <button class="button" :disabled="!skill">{{ $t('One more') }}</button>
            <button type="button" class="button" :disabled="!skill" @click="more(skill, -1)">
              {{ $t('One less') }}
            </button>
          </div>
          <p v-for="c in wanted.changes" :key="c.skill" class="small">
            <b>{{ names.get(c.skill) ?? c.skill }}</b> {{ c.lessons > 0 ? `+${c.lessons}` : c.lessons }}
            <button type="button" class="button plain small" @click="more(c.skill, -c.lessons)">
              {{ $t('Take back') }}
            </button>
          </p>
        </form>
        <h3>{{ $t('What matters more') }}</h3>
        <label class="check"
          ><input v-model="wanted.aim" type="radio" value="MoveLeast" />
          {{ $t('that as little as possible moves') }}</label
        >
        <label class="check"
          ><input v-model="wanted.aim" type="radio" value="KeepTheAims" />
          {{ $t('that lessons lie near the days they were meant for') }}</label
        >
      </section>

      <section class="ruled" aria-live="polite" :aria-busy="isFetching">
        <h2>{{ $t('What would move') }}</h2>
        <p v-if="wanted.held.length" class="small">
          {{ $t('Kept where they are:') }}
          <button v-for="h in wanted.held" :key="key(h)" type="button" class="button plain small" @click="hold(h)">
            {{ names.get(h.skill) ?? h.skill }} {{ h.number }} ×
          </button>
        </p>
        <p v-if="!asks" class="soft">
          {{ $t('Nothing has happened yet that asks for it. Say on the left what has.') }}
        </p>
        <p v-else-if="refused" class="warn">{{ refused.message }}</p>
        <template v-else-if="revision">
          <p class="sum">{{ revision.sentence }}</p>
          <p v-for="line in revision.room" :key="line" class="warn small">
            {{ $t('{line}: no room any more.', { line }) }}
          </p>
          <table v-if="revision.moves.length" class="moves">
            <thead>
              <tr class="small">
                <th>{{ $t('lesson') }}</th>
                <th>{{ $t('was') }}</th>
                <th>{{ $t('is') }}</th>
                <th>{{ $t('why') }}</th>
                <th>{{ $t('keep it there') }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="m in revision.moves" :key="key(m)">
                <td>
                  <b>{{ m.short }}</b> <span class="small soft">{{ m.number }}</span>
                </td>
                <td class="day">{{ m.was ? shortDay(m.was) : '–' }}</td>
                <td class="day">{{ m.is ? shortDay(m.is) : $t('out') }}</td>
                <td class="small">{{ m.why }}</td>
                <td>
                  <input
                    v-if="m.was && m.is"
                    type="checkbox"
                    :checked="held.has(key(m))"
                    :aria-label="
                      $t('Keep {short}, lesson {number}, where it was', { short: m.short, number: m.number })
                    "
                    @change="hold(m)"
                  />
                </td>
              </tr>
            </tbody>
          </table>

          <button
            type="button"
            class="button main"
            :disabled="accept.isPending.value || isFetching"
            @click="accept.mutate()"
          >
            {{ accept.isPending.value ? $t('Revising …') : $t('Take it') }}
          </button>
        </template>
        <p v-else-if="isFetching" class="soft">
          {{ $t('Working it out, which takes a few seconds …') }}
          <button type="button" class="button small" @click="queries.cancelQueries({ queryKey: queryKey('revision') })">
            {{ $t('Stop') }}
          </button>
        </p>
        <p v-else>
          {{ $t('Stopped; nothing was changed.') }}
          <button type="button" class="button small" @click="refetch()">{{ $t('Work it out') }}</button>
        </p>
      </section>

      <section v-if="revision && weeks.length" class="wide">
        <h2>{{ $t('Before') }}</h2>
        <PlanString
          :weeks="weeks"
          :strands="plan.strands"
          :lessons="revision.before"
          :today="today"
          :moved="moved"
          :label="$t('Before')"
        />
        <h2>{{ $t('After') }}</h2>
        <PlanString
          :weeks="weeks"
          :strands="plan.strands"
          :lessons="revision.after"
          :today="today"
          :moved="moved"
          :label="$t('After')"
        />
        <p class="small soft">{{ $t('What moves is marked.') }}</p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(19rem, 2fr) minmax(0, 3fr);
  gap: 1rem 2rem;
}

.wide {
  grid-column: 1 / -1;
}

.lines {
  margin-bottom: 0.8rem;
}

h3 {
  margin: 0.6rem 0 0.3rem;
}

.beside {
  margin-bottom: 0.4rem;
}

.lost {
  margin-right: 0.3rem;
  white-space: nowrap;
}

.sum {
  margin-top: 0;
  font-size: 1.1rem;
}

.moves {
  width: 100%;
  margin-bottom: 0.8rem;
  border-collapse: collapse;
}

.moves th {
  color: var(--ink-soft);
  font-weight: 400;
  text-align: left;
}

.moves td {
  padding: 0.25rem 0.6rem 0.25rem 0;
  border-top: 1px solid var(--line);
  vertical-align: baseline;
}

.moves .day {
  white-space: nowrap;
}

.moves input {
  width: 20px;
  height: 20px;
  accent-color: var(--spruce);
}

.check {
  display: flex;
}

@media (max-width: 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
