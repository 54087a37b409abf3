<script setup lang="ts">
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { fullDay } from '@/app/dates'
import PictureView from '@/mats/PictureView.vue'
import { placeSheets } from '@/ui/sheetLink'
import CautionList from '@/ui/CautionList.vue'
import StepNumber from '@/ui/StepNumber.vue'
import { say, sayError } from '@/ui/notices'
import { placeLabel, span } from './places'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

/** One activity, complete: an adult who has never seen it can run it from this page. */
const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const { classId, leads } = useAccount()
const id = computed(() => String(route.params.id))
const skill = computed(() => (route.query.skill as string) || undefined)
const children = computed(() => (route.query.children ? Number(route.query.children) : undefined))
const { data: activity, error } = useQuery({
  queryKey: queryKey('activities', classId, 'one', id, skill, children),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/activities/{activityId}', {
        params: {
          path: { classId: classId.value, activityId: id.value },
          query: { skill: skill.value, children: children.value },
        },
      }),
    ),
  placeholderData: keepPreviousData,
})
const chosen = computed(() => activity.value?.skills.find((s) => s.id === activity.value?.skillId))
const set = (change: Record<string, string | number>) =>
  router.replace({ name: 'activity', params: route.params, query: { ...route.query, ...change } })

const day = ref('')
const place = ref<Schemas['Place'] | ''>('')
const puts = computed(() => (activity.value?.places ?? []).filter((p) => p !== 'Group'))
async function putIn() {
  if (!activity.value) return
  const to = day.value || activity.value.open[0]
  const where = place.value || puts.value[0]
  if (!to || !where) return
  try {
    await take(
      api.PUT('/api/classes/{classId}/days/{day}/plan/activity', {
        params: { path: { classId: classId.value, day: to } },
        body: { activityId: activity.value.id, skillId: activity.value.skillId, place: where },
      }),
    )
    await queries.invalidateQueries()
    say(t('{name} is planned for {day}.', { name: activity.value.name, day: fullDay(to) }))
    await router.push({ name: 'set-out', params: { classId: classId.value, day: to } })
  } catch (problem) {
    sayError(problem)
  }
}

async function takeBack() {
  if (!activity.value) return
  try {
    await take(
      api.DELETE('/api/classes/{classId}/activities/{activityId}', {
        params: { path: { classId: classId.value, activityId: id.value } },
      }),
    )
    await queries.invalidateQueries()
    say(t('It is as it came.'))
    await router.push({ name: 'activities', params: { classId: classId.value } })
  } catch (problem) {
    sayError(problem)
  }
}
</script>

<template>
  <div class="page">
    <PageError v-if="error" :error="error" />
    <h1 v-if="!activity && !error">…</h1>
    <template v-if="activity">
      <div class="page-head">
        <h1>{{ activity.name }}</h1>
        <span class="soft">
          {{
            $t('{list} · {minutes} minutes{a} · {span} children', {
              list: activity.places.map(placeLabel).join(', '),
              minutes: activity.minutes,
              a: activity.byChance ? ' ' + $t('(by the dice: four games of five are over)') : '',
              span: span(activity.least, activity.most),
            })
          }}
        </span>
        <div class="end">
          <a class="button" :href="`/api/classes/${classId}/activities/${activity.id}/file`" download>{{
            $t('Hand on')
          }}</a>
          <RouterLink
            v-if="leads"
            class="button"
            :to="{ name: 'activity-edit', params: { classId, id: activity.id } }"
            >{{ $t('Change it') }}</RouterLink
          >
          <button v-if="leads && activity.own" type="button" class="button plain" @click="takeBack">
            {{ $t('Take back') }}
          </button>
        </div>
      </div>
      <p class="purpose">{{ activity.purpose }}</p>
      <div class="settings">
        <label class="field">
          <span>{{ $t('Set for') }}</span>
          <select
            class="box"
            :value="activity.skillId"
            @change="set({ skill: ($event.target as HTMLSelectElement).value })"
          >
            <option v-for="s in activity.skills" :key="s.id" :value="s.id">{{ s.short }} ({{ s.numbers }})</option>
          </select>
        </label>
        <div class="field">
          <span>{{ $t('Children') }}</span>
          <StepNumber
            :label="$t('Children')"
            :model-value="activity.children"
            :low="1"
            :high="30"
            @update:model-value="(n: number) => set({ children: n })"
          />
        </div>
        <form v-if="leads && puts.length && activity.open.length" class="into" @submit.prevent="putIn">
          <label class="field">
            <span>{{ $t('Put it into the plan') }}</span>
            <span class="beside">
              <select v-model="day" class="box" :aria-label="$t('Day')">
                <option value="">{{ fullDay(activity.open[0] ?? '') }}</option>
                <option v-for="d in activity.open.slice(1)" :key="d" :value="d">{{ fullDay(d) }}</option>
              </select>
              <select v-model="place" class="box" :aria-label="$t('When in the day')">
                <option value="">{{ placeLabel(puts[0]!) }}</option>
                <option v-for="p in puts.slice(1)" :key="p" :value="p">{{ placeLabel(p) }}</option>
              </select>
              <button class="button main">{{ $t('Put it in') }}</button>
            </span>
          </label>
        </form>
      </div>

      <div class="columns">
        <div>
          <section class="ruled">
            <h2>{{ $t('What to do') }}</h2>
            <p v-if="activity.prepare.length" class="soft">
              {{ $t('Before: {list}.', { list: activity.prepare.join('. ') }) }}
            </p>
            <ol class="steps">
              <li v-for="step in activity.steps" :key="step">{{ step }}</li>
            </ol>
          </section>
          <section class="ruled">
            <h2>{{ $t('What to say') }}</h2>
            <p v-if="activity.quiet" class="soft small">{{ $t('The point is to see: say no counting word.') }}</p>
            <p v-for="line in activity.say" :key="line" class="said line">“{{ line }}”</p>
          </section>
          <section class="ruled pairs">
            <div>
              <h2>{{ $t('Easier') }}</h2>
              <p>{{ activity.easier }}</p>
            </div>
            <div>
              <h2>{{ $t('Harder') }}</h2>
              <p>{{ activity.harder }}</p>
            </div>
            <div>
              <h2>{{ $t('On paper') }}</h2>
              <p>{{ activity.sheet }}</p>
              <RouterLink :to="placeSheets(classId, activity.print)">{{ activity.print.name }}</RouterLink>
            </div>
          </section>
          <section class="ruled">
            <h2>{{ $t('Look for') }}</h2>
            <ul>
              <li v-for="look in activity.lookFor" :key="look">{{ look }}</li>
            </ul>
            <template v-if="chosen?.slips.length">
              <h3>{{ $t('Slips it shows') }}</h3>
              <ul>
                <li v-for="slip in chosen.slips" :key="slip">{{ slip }}</li>
              </ul>
            </template>
          </section>
        </div>
        <div>
          <section class="ruled">
            <h2>{{ $t('Set out for {children}', { children: activity.children }) }}</h2>
            <p v-if="!activity.things.length" class="soft">{{ $t('Nothing to fetch.') }}</p>
            <ul class="things">
              <li v-for="thing in activity.things" :key="thing.id">
                <b>{{ thing.amount }}</b> {{ thing.name }}
                <span v-if="thing.short" class="small" :class="{ warn: !thing.printed }">{{ thing.short }}</span>
              </li>
            </ul>
            <p v-if="activity.prepareMinutes" class="soft small">
              {{ $t('{prepareMinutes} minutes to get things ready.', { prepareMinutes: activity.prepareMinutes }) }}
            </p>
            <CautionList :cautions="activity.cautions" :standing="activity.standing" />
          </section>
          <section class="ruled">
            <h2>{{ $t('Numbers for it') }}</h2>
            <ul class="sample">
              <li v-for="item in activity.sample" :key="item.key">
                <span v-if="item.picture" class="small-picture" aria-hidden="true"
                  ><PictureView :picture="item.picture" fill
                /></span>
                <span
                  >{{ item.ask }} <span class="soft small">{{ item.answer }}</span></span
                >
              </li>
            </ul>
            <RouterLink class="button" :to="`/c/${classId}/mats/${activity.mat}`">{{
              $t('Show it on the mat')
            }}</RouterLink>
          </section>
          <section class="ruled">
            <h2>{{ $t('Serves') }}</h2>
            <ul class="links">
              <li v-for="s in activity.skills" :key="s.id">
                <RouterLink :to="{ name: 'map', params: { classId }, query: { skill: s.id } }">{{
                  s.short
                }}</RouterLink>
                <span class="soft small">{{ ' ' + s.numbers }}</span>
              </li>
            </ul>
          </section>
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.purpose {
  font-size: 1.15rem;
  max-width: 60ch;
}

.settings {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0 1.6rem;
  margin-bottom: 0.6rem;
}

.into {
  margin-left: auto;
}

.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
  gap: 0 2.2rem;
}

section {
  margin-bottom: 1rem;
}

.steps {
  padding-left: 1.6rem;
  font-size: 1.1rem;
}

.steps li {
  margin-bottom: 0.45rem;
}

.line {
  font-size: 1.1rem;
}

.pairs {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 1.2rem;
}

.things,
.sample,
.links {
  margin: 0;
  padding: 0;
  list-style: none;
}

.things b {
  display: inline-block;
  min-width: 2.4rem;
}

.things .small {
  display: block;
  margin-left: 2.4rem;
}

.sample li {
  display: flex;
  align-items: center;
  gap: 0.7rem;
  min-height: 2.6rem;
}

.small-picture {
  flex: none;
  display: grid;
  width: 5rem;
  height: 2.4rem;
}

.small-picture > * {
  min-height: 0;
}

h3 {
  margin-top: 0.5rem;
  font-size: 0.9rem;
}

@media (max-width: 1000px) {
  .columns,
  .pairs {
    grid-template-columns: 1fr;
  }
}
</style>
