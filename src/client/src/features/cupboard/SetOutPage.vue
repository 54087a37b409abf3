<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { addDays, clock, dayAndMonth, fullDay, shortWeekday } from '@/app/dates'
import CautionList from '@/ui/CautionList.vue'
import PageError from '@/ui/PageError.vue'

/** What to fetch for a day or a week: where, how many, what is short and what may stand in; and all that has to be printed, as one file. */
const route = useRoute()
const router = useRouter()
const { classId, today } = useAccount()
const day = computed(() => (route.params.day as string) || today.value)
const week = computed(() => route.query.week === '1')
const params = computed(() => ({ path: { classId: classId.value, day: day.value } }))
const { data: list, error } = useQuery({
  queryKey: queryKey('set-out', classId, day, week),
  enabled: computed(() => day.value !== ''),
  queryFn: () =>
    week.value
      ? take(api.GET('/api/classes/{classId}/weeks/{day}/set-out', { params: params.value }))
      : take(api.GET('/api/classes/{classId}/days/{day}/set-out', { params: params.value })),
})
const pack = computed(() => `/api/classes/${classId.value}/${week.value ? 'weeks' : 'days'}/${day.value}/pack`)
const turn = (days: number) => {
  let to = addDays(day.value, days)
  while (!week.value && ['Sat', 'Sun'].includes(shortWeekday(to))) to = addDays(to, Math.sign(days))
  void router.replace({ name: 'set-out', params: { classId: classId.value, day: to }, query: route.query })
}
const see = (asWeek: boolean) =>
  router.replace({
    name: 'set-out',
    params: { classId: classId.value, day: day.value },
    query: asWeek ? { week: '1' } : {},
  })
const short = computed(() => (list.value?.things ?? []).filter((t) => t.short))

// Where it goes: shares of one place and time together, and only what they take.
const byPlace = computed(() => {
  const places = new Map<string, { share: Schemas['SetOutShare']; things: { name: string; amount: number }[] }>()
  for (const thing of list.value?.things ?? [])
    for (const share of thing.shares) {
      const key = `${share.day} ${share.start} ${share.where} ${share.activity}`
      const place = places.get(key) ?? { share, things: [] }
      place.things.push({ name: thing.name, amount: share.amount })
      places.set(key, place)
    }
  return [...places.entries()].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, place]) => place)
})
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Set out') }}</h1>
      <span>{{ week ? $t('week of {day}', { day: dayAndMonth(list?.from ?? day) }) : fullDay(day) }}</span>
      <span class="turn">
        <button
          type="button"
          class="button small"
          :aria-label="week ? $t('Week before') : $t('Day before')"
          @click="turn(week ? -7 : -1)"
        >
          ‹
        </button>
        <button
          type="button"
          class="button small"
          :aria-label="week ? $t('Week after') : $t('Day after')"
          @click="turn(week ? 7 : 1)"
        >
          ›
        </button>
        <button type="button" class="button small" @click="see(!week)">
          {{ week ? $t('One day') : $t('The whole week') }}
        </button>
      </span>
      <div class="end">
        <a v-if="list && list.pages > 0" class="button main" :href="pack" download>
          {{ $t('Print the pack: {pages} {a}', { pages: list.pages, a: list.pages === 1 ? $t('page') : $t('pages') }) }}
        </a>
        <span v-else-if="list" class="soft">{{ $t('Nothing to print.') }}</span>
      </div>
    </div>
    <PageError v-if="error" :error="error" />
    <template v-if="list">
      <p v-if="list.nextSchoolDay" class="none">
        {{ week ? $t('No school this week.') : $t('No school on this day.') }}
        <RouterLink :to="{ name: 'set-out', params: { classId, day: list.nextSchoolDay }, query: route.query }">{{
          $t('Set out for {day}', { day: fullDay(list.nextSchoolDay) })
        }}</RouterLink>
      </p>
      <p v-else-if="!list.things.length" class="none">
        {{ $t('Nothing is planned for {a}.', { a: week ? $t('this week') : $t('this day') }) }}
        <RouterLink :to="{ name: 'week', params: { classId, day } }">{{ $t('Plan it') }}</RouterLink>
      </p>
      <div v-else class="columns">
        <div>
          <section class="ruled">
            <h2>{{ $t('To fetch') }}</h2>
            <table>
              <thead>
                <tr>
                  <th scope="col">{{ $t('What') }}</th>
                  <th scope="col">{{ $t('At once') }}</th>
                  <th scope="col">{{ $t('Where') }}</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="t in list.things" :key="t.id">
                  <th scope="row">
                    {{ t.name }}
                    <span v-if="t.short" class="small note" :class="{ warn: t.stillShort > 0 }">{{ t.short }}</span>
                  </th>
                  <td class="many">{{ t.atOnce }}</td>
                  <td class="small">
                    <span v-for="(s, i) in t.shares" :key="i" class="share">
                      {{ week ? `${shortWeekday(s.day)} ` : '' }}{{ clock(s.start) }} {{ s.where.toLowerCase() }}:
                      <b>{{ s.amount }}</b>, <span class="soft">{{ s.activity }}</span>
                    </span>
                  </td>
                </tr>
              </tbody>
            </table>
          </section>
        </div>
        <div>
          <section class="ruled">
            <h2>{{ $t('In short') }}</h2>
            <p>
              <b>{{ list.things.length }}</b> {{ $t('kinds of things,') }} <b>{{ list.prepareMinutes }}</b>
              {{ $t('minutes to get ready.') }}
              <template v-if="short.length"
                ><b>{{ short.length }}</b> {{ $t('short.') }}</template
              >
              <template v-else>{{ $t('Nothing is short.') }}</template>
            </p>
            <CautionList :cautions="list.cautions" :standing="list.standing" />
          </section>
          <section v-if="list.prints.length" class="ruled">
            <h2>{{ $t('In the pack') }}</h2>
            <ul class="plain">
              <li v-for="(p, i) in list.prints" :key="i">
                <b>{{ p.sheet }}</b> {{ p.numbers }}, {{ p.pages }} {{ p.pages === 1 ? $t('page') : $t('pages') }}
                <span class="soft small"
                  >{{ p.activity }}<template v-if="week">, {{ shortWeekday(p.day) }}</template
                  >, {{ p.for }}</span
                >
              </li>
            </ul>
          </section>
          <section v-if="list.together.length" class="ruled">
            <h2>{{ $t('At the same time') }}</h2>
            <p v-for="(t, i) in list.together" :key="i" class="small">
              <b>{{ week ? `${shortWeekday(t.day)} ` : '' }}{{ clock(t.start) }}</b>
              {{ t.what.join(' · ') }}
            </p>
          </section>
          <section v-if="!week" class="ruled">
            <h2>{{ $t('By place') }}</h2>
            <div v-for="(place, i) in byPlace" :key="i" class="place">
              <h3>
                {{ clock(place.share.start) }} {{ place.share.where }}
                <span class="soft">{{ place.share.activity }}</span>
              </h3>
              <p class="small">{{ place.things.map((t) => `${t.name.toLowerCase()} ${t.amount}`).join(', ') }}</p>
            </div>
          </section>
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.turn {
  display: inline-flex;
  gap: 0.3rem;
}

.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(0, 1fr);
  gap: 0 2.2rem;
  align-items: start;
}

section {
  margin-bottom: 1rem;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  padding: 0.4rem 0.8rem 0.4rem 0;
  border-top: 1px solid var(--line);
  text-align: left;
  vertical-align: top;
  font-weight: 400;
}

thead th {
  border: 0;
  color: var(--ink-soft);
  font-size: 0.875rem;
}

tbody th {
  font-weight: 700;
  width: 45%;
}

.note,
.share {
  display: block;
  font-weight: 400;
}

.note.warn {
  font-weight: 700;
}

.many {
  font: 700 1.25rem/1.2 var(--child);
  width: 5rem;
}

.plain {
  margin: 0;
  padding: 0;
  list-style: none;
}

.plain .soft {
  display: block;
}

h3 {
  font-size: 0.95rem;
}

.none {
  padding: 2rem 0;
  font-size: 1.1rem;
}

@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
