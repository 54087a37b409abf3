<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { addDays, fullDay, moment } from '@/app/dates'
import { decide } from '@/ui/changed'
import { say, sayError } from '@/ui/notices'
import { keyOf, termsOf, verdictOf } from './layout'
import LessonPanel from './LessonPanel.vue'
import PlanString from './PlanString.vue'
import PlanTabs from '@/ui/PlanTabs.vue'
import SuggestionList from './SuggestionList.vue'
import { usePlan } from './usePlan'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

type Lesson = Schemas['LessonView']

/** The year, or one term of it, as a string of lessons. */
const route = useRoute()
const { leads, today } = useAccount()
const { classId, plan, error, refresh } = usePlan()

const isTerm = computed(() => route.name === 'term')
const terms = computed(() => termsOf(plan.value?.weeks ?? []))
const term = computed(() => {
  const weeks = plan.value?.weeks ?? []
  const day = (typeof route.params.day === 'string' && route.params.day) || today.value
  const at = weeks.findIndex((w) => addDays(w.monday, 6) >= day)
  return terms.value.findIndex((t) => at >= t.first && at < t.first + t.count)
})
const weeks = computed(() => {
  const all = plan.value?.weeks ?? []
  const one = terms.value[Math.max(0, term.value)]
  return isTerm.value && one ? all.slice(one.first, one.first + one.count) : all
})
const neighbour = (by: number) => {
  const one = terms.value[term.value + by]
  return one ? plan.value?.weeks[one.first] : undefined
}

const key = ref('')
const chosen = computed(() => plan.value?.lessons.find((l) => keyOf(l) === key.value))
const prices = ref<Schemas['DayPriceView'][]>()
const priced = computed(() => prices.value && new Map(prices.value.map((p) => [p.day, p])))
const over = ref<string>()
const asking = ref<{ lesson: Lesson; day: string; words: string }>()

function pick(lesson: Lesson) {
  const next = keyOf(lesson)
  if (next === key.value) return
  key.value = next
  prices.value = undefined
}

async function ask(lesson: Lesson) {
  if (lesson.past || prices.value) return
  try {
    prices.value = await take(
      api.GET('/api/classes/{classId}/plan/lessons/{skill}/{number}/days', {
        params: { path: { classId: classId.value, skill: lesson.skill, number: lesson.number } },
      }),
    )
  } catch (problem) {
    sayError(problem)
  }
}

const change = useMutation({
  mutationFn: (call: () => Promise<unknown>) => decide(() => call().then(() => true), refresh),
  onSuccess: async () => {
    prices.value = undefined
    asking.value = undefined
    await refresh()
  },
  onError: sayError,
})
const path = () => ({ path: { classId: classId.value } })
const version = () => plan.value?.version?.version ?? 0

async function drop(lesson: Lesson, day: string) {
  await ask(lesson)
  const verdict = verdictOf(prices.value?.find((p) => p.day === day))
  if (verdict.kind === 'refused')
    return say(t('{short} stays where it is. {words}', { short: lesson.short, words: verdict.words }), true)
  if (verdict.kind === 'advice') asking.value = { lesson, day, words: verdict.words }
  else move(lesson, day, false)
}

const move = (lesson: Lesson, day: string, anyway: boolean) =>
  change.mutate(
    () =>
      take(
        api.POST('/api/classes/{classId}/plan/moves', {
          params: path(),
          body: { version: version(), skill: lesson.skill, number: lesson.number, day, anyway },
        }),
      ),
    { onSuccess: (done) => done && say(t('{short} is on {day} now.', { short: lesson.short, day: fullDay(day) })) },
  )
/** Only what is changed is sent: what another adult did to the same lesson stays. */
const keep = (lesson: Lesson, { pinned = null, note = null }: { pinned?: boolean | null; note?: string | null }) =>
  change.mutate(() =>
    take(
      api.PUT('/api/classes/{classId}/plan/lessons', {
        params: path(),
        body: { version: version(), skill: lesson.skill, number: lesson.number, pinned, note },
      }),
    ),
  )
const undo = () =>
  change.mutate(
    () => take(api.POST('/api/classes/{classId}/plan/undo', { params: path(), body: { version: version() } })),
    {
      onSuccess: (done) => done && say(t('The plan is as it was before.')),
    },
  )
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ isTerm ? (terms[term]?.name ?? (plan ? $t('No term') : $t('Term'))) : $t('The year') }}</h1>
      <span v-if="plan" class="soft margin">{{ plan.margin }}</span>
      <div class="end">
        <template v-if="isTerm">
          <RouterLink
            v-if="neighbour(-1)"
            class="button plain"
            :to="{ name: 'term', params: { classId, day: neighbour(-1)!.monday } }"
            >‹ {{ neighbour(-1)!.term }}</RouterLink
          >
          <RouterLink
            v-if="neighbour(1)"
            class="button plain"
            :to="{ name: 'term', params: { classId, day: neighbour(1)!.monday } }"
            >{{ neighbour(1)!.term }} ›</RouterLink
          >
          <a
            v-if="weeks.length"
            class="button"
            :href="`/api/classes/${classId}/plan/term/${weeks[0]?.monday}/page`"
            target="_blank"
            >{{ $t('On paper') }}</a
          >
        </template>
        <button v-if="leads && plan?.canUndo" type="button" class="button" @click="undo">{{ $t('Undo') }}</button>
        <RouterLink
          v-if="leads && plan"
          class="button"
          :class="{ main: !plan.version }"
          :to="{ name: 'make-plan', params: { classId } }"
          >{{ plan.version ? $t('Plan anew') : $t('Plan the year') }}</RouterLink
        >
      </div>
    </div>
    <PlanTabs />
    <PageError v-if="error" :error="error" />
    <template v-if="plan">
      <p v-if="!plan.version" class="nothing">
        {{
          $t('There is no plan for this year yet. What was taught so far is on the string; Fobble lays out the rest.')
        }}
      </p>
      <p v-else class="small soft">
        {{
          $t('{what} {by}, {moment}. Version {version}.', {
            what: plan.version.what,
            by: plan.version.by,
            moment: moment(plan.version.at),
            version: plan.version.version,
          })
        }}
        <a v-if="plan.suggestions.length" href="#thoughts">{{
          plan.suggestions.length === 1
            ? $t('One thing to think about')
            : $t('{count} things to think about', { count: plan.suggestions.length })
        }}</a>
      </p>
      <PlanString
        :weeks="weeks"
        :strands="plan.strands"
        :lessons="plan.lessons"
        :reviews="plan.reviews"
        :today="today"
        :chosen="chosen"
        :prices="priced"
        :draggable="leads"
        :label="isTerm ? $t('Lessons of the term') : $t('Lessons of the year')"
        @pick="pick"
        @lift="ask"
        @over="over = $event"
        @drop="drop"
      />
      <p class="small legend" :class="{ speaking: over }" aria-live="polite">
        <template v-if="over"
          ><b>{{ fullDay(over) }}:</b> {{ priced ? verdictOf(priced.get(over)).words : '…' }}</template
        >
        <template v-else>
          <i class="dot given" /> {{ $t('given') }} <i class="dot" /> {{ $t('to come') }} <i class="dot looks" />
          {{ $t('to see who has it') }} <i class="dot missed" /> {{ $t('not given') }} <i class="dot star" />
          {{ $t('starter of the chosen skill') }}
          <template v-if="leads">{{ ' ' + $t('· drag a bead to move a lesson') }}</template>
        </template>
      </p>
      <div v-if="asking" class="ruled ask" role="alertdialog" :aria-label="$t('Move it anyway?')">
        <p>
          <b>{{ asking.lesson.short }}</b>
          {{ $t('on {day}: {words}', { day: fullDay(asking.day), words: asking.words }) }}
        </p>
        <button type="button" class="button main" @click="move(asking.lesson, asking.day, true)">
          {{ $t('Move it anyway') }}
        </button>
        <button type="button" class="button" @click="asking = undefined">{{ $t('Leave it') }}</button>
      </div>
      <LessonPanel
        v-if="chosen"
        :lesson="chosen"
        :lessons="plan.lessons"
        :reviews="plan.reviews"
        :prices="prices"
        :can-change="leads"
        @ask="ask(chosen)"
        @move="move(chosen, $event, true)"
        @change="keep(chosen, $event)"
      />
      <section v-if="plan.suggestions.length" id="thoughts" class="ruled thoughts">
        <h2>{{ $t('Worth a thought') }}</h2>
        <SuggestionList :suggestions="plan.suggestions" />
      </section>
      <details v-if="plan.missed.length || plan.versions.length > 1" class="more">
        <summary>
          {{
            $t('{a}how it came about', {
              a: plan.missed.length
                ? $t('{count} starters without a place, and', { count: plan.missed.length }) + ' '
                : '',
            })
          }}
        </summary>
        <ul v-if="plan.missed.length" class="small">
          <li v-for="m in plan.missed" :key="m">{{ m }}</li>
        </ul>
        <ol class="small" :start="1" reversed>
          <li v-for="v in plan.versions" :key="v.version">
            {{ v.what }} <span class="soft">{{ v.by }}, {{ moment(v.at) }}</span>
          </li>
        </ol>
      </details>
    </template>
  </div>
</template>

<style scoped>
.margin {
  font-weight: 700;
}

.nothing {
  max-width: 46rem;
}

.legend {
  min-height: 2.6em;
  margin: 0.4rem 0 0 7.4rem;
  color: var(--ink-soft);
}

.legend.speaking {
  color: var(--ink);
}

.dot {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin: 0 0.1rem 0 0.7rem;
  border: 2px solid var(--spruce);
  border-radius: 50%;
}

.dot.given {
  margin-left: 0;
  border-color: var(--ink-soft);
  background: var(--ink-soft);
}

.dot.looks {
  border-radius: 2px;
}

.dot.missed {
  border: 2px dashed var(--brick);
}

.dot.star {
  width: 7px;
  height: 7px;
  border: 0;
  border-radius: 0;
  background: var(--ink);
  transform: rotate(45deg);
}

.ask {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.6rem;
  margin-top: 0.6rem;
}

.ask p {
  flex: 1 1 24rem;
  margin: 0;
}

.thoughts {
  margin-top: 1.2rem;
}

.thoughts h2 {
  margin: 0 0 0.4rem;
}

.more {
  margin-top: 1rem;
}
</style>
