<script setup lang="ts">
import { keepPreviousData, useMutation, useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { dayAndMonth, dayOfWeek, schoolDays } from '@/app/dates'
import { useFirstHour } from '@/app/useFirstHour'
import { decide } from '@/ui/changed'
import { say, sayError } from '@/ui/notices'
import PlanString from './PlanString.vue'
import { usePlan } from './usePlan'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

type Ask = Schemas['PlanAsk']

/** What shall be taught, whether it fits, what can be done where it does not, and the plan to look at before it is taken. */
const { goOn } = useFirstHour()
const { classId, current, today } = useAccount()
const { plan, refresh } = usePlan()
const path = () => ({ path: { classId: classId.value } })
const { data: scope, error } = useQuery({
  queryKey: queryKey('plan-scope', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/plan/scope', { params: path() })),
})
const ask = ref<Ask>()
watch(scope, (s) => s && !ask.value && (ask.value = { ...s.usual, skills: [...s.usual.skills] }), { immediate: true })

// What waits belongs to what was offered: another choice begins with all of its own.
watch(
  () => ask.value?.source,
  (source, before) =>
    before && ask.value && (ask.value.dropped = source === 'Seasons' ? [...scope.value!.usual.dropped] : []),
)

const seasons: Record<Schemas['Season'], string> = {
  Autumn: t('autumn'),
  Spring: t('spring'),
  Summer: t('summer'),
  Beyond: t('beyond the year'),
}
const changed = computed(() => scope.value?.skills.filter((s) => s.why && s.lessons !== s.usual) ?? [])
const byStrand = computed(
  () =>
    scope.value?.strands.map((strand) => ({
      ...strand,
      skills: scope.value!.skills.filter((s) => s.strand === strand.id),
    })) ?? [],
)
// What its days do not hold waits; taken in again, a skill brings what it needs along.
const waiting = computed(() => scope.value?.skills.filter((s) => scope.value!.usual.dropped.includes(s.id)) ?? [])
function takeIn(skill: Schemas['ScopeSkill']) {
  const dropped = ask.value!.dropped
  ask.value!.dropped = dropped.includes(skill.id)
    ? dropped.filter((d) => d !== skill.id && !skill.needs.includes(d))
    : [...dropped, ...waiting.value.filter((w) => w.id === skill.id || w.needs.includes(skill.id)).map((w) => w.id)]
}
// Counted anew with each choice, so that what does not fit is known before anything is worked out.
const { data: fit } = useQuery({
  queryKey: queryKey('plan-fit', classId, ask),
  queryFn: () => take(api.POST('/api/classes/{classId}/plan/fit', { params: path(), body: ask.value! })),
  enabled: computed(() => !!ask.value),
  placeholderData: keepPreviousData,
})
const toggle = <T,>(list: T[], item: T) => (list.includes(item) ? list.filter((x) => x !== item) : [...list, item])

// Worked out in the background; asked after every half second until it is there.
const draftId = ref('')
const begin = useMutation({
  mutationFn: (wanted: Ask) => take(api.POST('/api/classes/{classId}/plan/drafts', { params: path(), body: wanted })),
  onSuccess: (begun) => {
    ask.value = begun.ask
    draftId.value = begun.id
    window.scrollTo({ top: 0 })
  },
  onError: sayError,
})
// From the first hour: what is offered is worked out at once.
const route = useRoute()
watch(
  () => route.query.offered !== undefined && ask.value,
  (wanted) => wanted && begin.isIdle.value && begin.mutate(wanted),
  { immediate: true },
)
const { data: draft } = useQuery({
  queryKey: queryKey('plan-draft', classId, draftId),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/plan/drafts/{id}', {
        params: { path: { classId: classId.value, id: draftId.value } },
      }),
    ),
  enabled: computed(() => draftId.value !== ''),
  refetchInterval: (query) => (query.state.data && query.state.data.state !== 'Working' ? false : 400),
})
const shown = computed(() => (draftId.value ? draft.value : undefined))
// The version of the plan that would give way: the one that was there when the draft was begun, until somebody is told of another.
const now = ref(0)
watch(draftId, () => (now.value = 0))
watch(draft, (seen) => seen && !now.value && (now.value = seen.version))
const cancel = () =>
  take(
    api.DELETE('/api/classes/{classId}/plan/drafts/{id}', {
      params: { path: { classId: classId.value, id: draftId.value } },
    }),
  ).catch(sayError)
const accept = useMutation({
  mutationFn: () =>
    decide(
      () =>
        take(
          api.POST('/api/classes/{classId}/plan/drafts/{id}/accept', {
            params: { path: { classId: classId.value, id: draftId.value } },
            body: { version: now.value },
          }),
        ).then(() => true),
      async () => {
        await refresh()
        now.value = plan.value?.version?.version ?? 0
      },
    ),
  onSuccess: async (done) => {
    if (!done) return
    await refresh()
    say(t('The plan is in force. Days that were worked out follow it.'))
    await goOn('year')
  },
  onError: sayError,
})
const back = () => (draftId.value = '')
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Plan the year') }}</h1>
      <span v-if="scope" class="soft">{{
        $t('{name}, from {day} to {day2}: {teachingDays} days with a whole-class lesson', {
          name: current?.name,
          day: dayAndMonth(scope.from),
          day2: dayAndMonth(scope.until),
          teachingDays: scope.teachingDays,
        })
      }}</span>
      <div class="end">
        <RouterLink class="button plain" :to="{ name: 'year', params: { classId } }">{{
          $t('Back to the year')
        }}</RouterLink>
      </div>
    </div>
    <PageError v-if="error" :error="error" />

    <section v-if="shown" aria-live="polite">
      <div v-if="shown.state === 'Working'" class="working">
        <p>
          <b>{{ shown.doing }} …</b> <template v-if="shown.fit">{{ shown.fit.sentence }}</template>
        </p>
        <progress :value="shown.progress" max="1" :aria-label="shown.doing" />
        <button type="button" class="button" @click="cancel">{{ $t('Stop') }}</button>
      </div>
      <p v-else-if="shown.state !== 'Done'">
        {{
          shown.state === 'Cancelled'
            ? $t('Stopped. Nothing was changed.')
            : $t('That went wrong; nothing was changed.')
        }}
        <button type="button" class="button" @click="back">{{ $t('Choose again') }}</button>
      </p>

      <template v-if="shown.fit && shown.state !== 'Cancelled' && (shown.fit.over || shown.fit.reviewsOver)">
        <h2 class="over">
          <span class="count said">{{ shown.fit.over || shown.fit.reviewsOver }}</span>
          {{ shown.fit.over ? $t('lessons too many') : $t('starters too many') }}
        </h2>
        <p class="soft">{{ shown.fit.sentence }}</p>
        <h3>{{ $t('Ways out, each worked through') }}</h3>
        <ul class="ways">
          <li v-for="way in shown.ways" :key="way.kind" class="ruled">
            <h4>{{ way.title }}</h4>
            <p>
              <span class="small soft">{{ $t('gives') }}</span> {{ way.gains }}
            </p>
            <p>
              <span class="small soft">{{ $t('costs') }}</span> {{ way.loses || $t('nothing else') }}
            </p>
            <details v-if="way.dropped.length" class="small">
              <summary>{{ $t('{count} skills for another year', { count: way.dropped.length }) }}</summary>
              {{ way.dropped.join(' · ') }}
            </details>
            <button
              type="button"
              class="button"
              :disabled="!way.fits || begin.isPending.value"
              @click="begin.mutate(way.ask)"
            >
              {{ $t('Take this way') }}
            </button>
          </li>
        </ul>
        <button type="button" class="button plain" @click="back">{{ $t('Choose again') }}</button>
      </template>

      <template v-if="shown.plan && plan">
        <h2>{{ $t('It fits') }}</h2>
        <p>{{ shown.fit?.sentence }} {{ shown.plan.sentence }}</p>
        <PlanString
          :weeks="plan.weeks"
          :strands="plan.strands"
          :lessons="[...plan.lessons.filter((l) => l.past), ...shown.plan.lessons]"
          :today="today"
          :label="$t('The plan to look at')"
        />
        <ul v-if="shown.plan.unplaced.length" class="warn small">
          <li v-for="u in shown.plan.unplaced" :key="u">{{ u }}</li>
        </ul>
        <div class="buttons">
          <button type="button" class="button main" :disabled="accept.isPending.value" @click="accept.mutate()">
            {{ accept.isPending.value ? $t('Putting it in force …') : $t('Take this plan') }}
          </button>
          <button type="button" class="button" @click="begin.mutate({ ...shown.ask, seed: shown.ask.seed + 1 })">
            {{ $t('Another one') }}
          </button>
          <button
            v-if="!shown.ask.thorough"
            type="button"
            class="button"
            @click="begin.mutate({ ...shown.ask, thorough: true })"
          >
            {{ $t('Look ten times as long') }}
          </button>
          <button type="button" class="button plain" @click="back">{{ $t('Choose again') }}</button>
        </div>
        <details v-if="shown.changed.length || shown.leftOut.length || shown.plan.missed.length" class="small">
          <summary>{{ $t('What the class’s own showing changed, and what was left out') }}</summary>
          <ul>
            <li v-for="line in [...shown.changed, ...shown.leftOut, ...shown.plan.missed]" :key="line">{{ line }}</li>
          </ul>
        </details>
      </template>
    </section>

    <p v-if="scope?.offered && !shown" class="offered">{{ scope.offered }}</p>
    <form v-if="!shown && scope && ask" class="parts" @submit.prevent="begin.mutate(ask)">
      <fieldset class="ruled">
        <legend class="said">{{ $t('What shall be taught') }}</legend>
        <label class="check"
          ><input v-model="ask.source" type="radio" value="Seasons" /> {{ $t('Everything up to') }}
          <select v-model="ask.upTo" class="box" :aria-label="$t('Up to which season')" @focus="ask.source = 'Seasons'">
            <option v-for="s in scope.seasons" :key="s.season" :value="s.season">
              {{
                $t('{seasons} ({skills} skills, {lessons} lessons)', {
                  seasons: seasons[s.season],
                  skills: s.skills,
                  lessons: s.lessons,
                })
              }}
            </option>
          </select>
        </label>
        <div>
          <label class="check"
            ><input v-model="ask.source" type="radio" value="Standards" /> {{ $t('What these standards ask') }}</label
          >
          <div v-if="ask.source === 'Standards'" class="inner">
            <label v-for="f in scope.frameworks" :key="f.name" class="check"
              ><input
                type="checkbox"
                :checked="ask.frameworks.includes(f.name)"
                @change="ask.frameworks = toggle(ask.frameworks, f.name)"
              />
              {{ f.name }}
              <span class="soft small">{{
                $t('{skills} skills, {lessons} lessons with what they need', { skills: f.skills, lessons: f.lessons })
              }}</span></label
            >
          </div>
        </div>
        <div v-if="scope.plans.length">
          <label class="check"
            ><input v-model="ask.source" type="radio" value="Before" /> {{ $t('As in') }}
            <select
              v-model="ask.planId"
              class="box"
              :aria-label="$t('Which earlier plan')"
              @focus="ask.source = 'Before'"
            >
              <option :value="null" disabled>{{ $t('an earlier plan') }}</option>
              <option v-for="p in scope.plans" :key="p.id" :value="p.id">
                {{
                  $t('{class}, {slice} ({skills} skills)', {
                    class: p.class,
                    slice: p.year.slice(0, 4),
                    skills: p.skills,
                  })
                }}
              </option>
            </select></label
          >
        </div>
        <div>
          <label class="check"
            ><input v-model="ask.source" type="radio" value="Own" /> {{ $t('Chosen one by one') }}</label
          >
          <div v-if="ask.source === 'Own'" class="inner strands">
            <details v-for="strand in byStrand" :key="strand.id">
              <summary>
                {{ strand.name }}
                <span class="soft small">{{
                  $t('{count} of {count2}', {
                    count: strand.skills.filter((s) => ask!.skills.includes(s.id)).length,
                    count2: strand.skills.length,
                  })
                }}</span>
              </summary>
              <label v-for="s in strand.skills" :key="s.id" class="check small"
                ><input
                  type="checkbox"
                  :checked="ask.skills.includes(s.id)"
                  @change="ask.skills = toggle(ask.skills, s.id)"
                />
                {{ s.short }} <span class="soft">{{ s.lessons }}</span></label
              >
            </details>
          </div>
        </div>
        <details v-if="waiting.length" class="waiting">
          <summary>
            {{
              $t('{count} of {count2} skills wait for another year; take in what you will', {
                count: ask.dropped.length,
                count2: waiting.length,
              })
            }}
          </summary>
          <div class="inner strands">
            <label v-for="s in waiting" :key="s.id" class="check small"
              ><input type="checkbox" :checked="!ask.dropped.includes(s.id)" @change="takeIn(s)" /> {{ s.short }}
              <span class="soft">{{ s.lessons }}</span></label
            >
          </div>
        </details>
        <p v-else-if="ask.dropped.length" class="small">
          {{ $t('{count} skills are left for another year.', { count: ask.dropped.length }) }}
          <button type="button" class="button plain small" @click="ask.dropped = []">
            {{ $t('Take them in again') }}
          </button>
        </p>
      </fieldset>

      <fieldset class="ruled">
        <legend class="said">{{ $t('How') }}</legend>
        <label class="beside setting"
          ><span>{{ $t('Keep free for what comes in between') }}</span>
          <select v-model.number="ask.bufferOneIn" class="box">
            <option :value="5">{{ $t('one place in five') }}</option>
            <option :value="10">{{ $t('one place in ten') }}</option>
            <option :value="20">{{ $t('one place in twenty') }}</option>
            <option :value="0">{{ $t('nothing') }}</option>
          </select></label
        >
        <label class="beside setting"
          ><span>{{ $t('Bring each skill back') }}</span>
          <select v-model.number="ask.rounds" class="box">
            <option :value="1">{{ $t('once, after 3 days') }}</option>
            <option :value="2">{{ $t('twice, after 3 and 10 days') }}</option>
            <option :value="3">{{ $t('three times, after 3, 10 and 30 days') }}</option>
          </select></label
        >
        <label class="beside setting"
          ><span>{{ $t('Starters a day') }}</span>
          <select v-model.number="ask.startersADay" class="box">
            <option v-for="n in [0, 1, 2, 3, 4]" :key="n" :value="n">{{ n }}</option>
          </select></label
        >
        <div class="beside setting">
          <span>{{ $t('A lesson more on') }}</span>
          <span>
            <label v-for="w in schoolDays" :key="w" class="check"
              ><input type="checkbox" :checked="ask.moreOn.includes(w)" @change="ask.moreOn = toggle(ask.moreOn, w)" />
              {{ dayOfWeek(w).slice(0, 3) }}</label
            >
          </span>
        </div>
        <label class="check"
          ><input v-model="ask.shorter" type="checkbox" />
          {{ $t('One lesson less where a skill has three or more') }}</label
        >
        <p class="small soft">
          {{ $t('Order, signs and sizes of numbers follow') }}
          <RouterLink :to="{ name: 'approach', params: { classId } }">{{ $t('how this class works') }}</RouterLink>.
        </p>
        <p v-if="fit" class="small" :class="{ warn: fit.over || fit.reviewsOver }" aria-live="polite">
          {{ fit.sentence }}
        </p>
        <button class="button main" :disabled="begin.isPending.value">
          {{ fit?.over || fit?.reviewsOver ? $t('Work out what could give way') : $t('Work it out') }}
        </button>
      </fieldset>

      <section v-if="changed.length" class="ruled wide">
        <h2>{{ $t('What this class has shown') }}</h2>
        <ul class="small shown">
          <li v-for="s in changed" :key="s.id">
            <b>{{ s.short }}</b>
            {{
              s.lessons === 0 ? $t('no lesson') : $t('{lessons} for {usual}', { lessons: s.lessons, usual: s.usual })
            }}
            <span class="soft">{{ s.why }}</span>
          </li>
        </ul>
      </section>
    </form>
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(25rem, 1fr));
  gap: 1.4rem 2rem;
}

fieldset {
  margin: 0;
  padding: 0.2rem 0 0;
  border-right: 0;
  border-bottom: 0;
  border-left: 0;
}

legend {
  padding-right: 0.8rem;
  font-size: 1.15rem;
}

.wide {
  grid-column: 1 / -1;
}

.inner {
  display: grid;
  padding-left: 1.6rem;
}

.strands {
  grid-template-columns: repeat(auto-fit, minmax(13rem, 1fr));
  align-items: start;
  gap: 0.3rem 1rem;
}

.strands .check {
  display: flex;
  min-height: 30px;
}

.offered {
  max-width: 46rem;
  font-size: 1.1rem;
}

.waiting summary {
  min-height: var(--target);
  padding-block: 0.5rem;
  cursor: pointer;
}

.setting {
  align-items: center;
  justify-content: space-between;
  gap: 0.2rem 1rem;
  margin-block: 0.35rem;
}

.setting .check {
  margin-left: 0.6rem;
}

.shown {
  columns: 22rem;
  padding-left: 1rem;
}

.working {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 1rem;
}

.working p {
  flex-basis: 100%;
  margin: 0;
}

progress {
  flex: 1 1 20rem;
  height: 12px;
  accent-color: var(--spruce);
}

.over {
  display: flex;
  align-items: baseline;
  gap: 0.6rem;
  margin: 0.2rem 0;
  color: var(--brick);
}

.count {
  font-size: 3.2rem;
  line-height: 1;
}

.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(16rem, 1fr));
  gap: 1.2rem;
  padding: 0;
  list-style: none;
}

.ways li {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.3rem;
}

.ways h4 {
  margin: 0;
  font-size: 1.05rem;
}

.ways p {
  margin: 0;
}

.ways .button {
  margin-top: auto;
}

.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  margin-block: 0.9rem;
}
</style>
