<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { clock, fullDay } from '@/app/dates'
import { useFirstHour } from '@/app/useFirstHour'
import { placeSheets } from '@/ui/sheetLink'
import PictureView from '@/mats/PictureView.vue'
import MarkFrame from '@/ui/MarkFrame.vue'
import CautionList from '@/ui/CautionList.vue'
import PageError from '@/ui/PageError.vue'

/** A session on one page: for a group, or for the whole class on the carpet. */
const route = useRoute()
const { classId, records } = useAccount()
const sessionId = computed(() => (route.params.sessionId ? Number(route.params.sessionId) : undefined))
const day = computed(() => String(route.params.day ?? ''))
/** Which of the day's whole-class lessons, from 0. */
const lesson = computed(() => Number(route.query.lesson ?? 0))
const { data: card, error } = useQuery({
  queryKey: queryKey(
    'card',
    classId,
    computed(() => sessionId.value ?? `${day.value}/${lesson.value}`),
  ),
  queryFn: () =>
    sessionId.value
      ? take(
          api.GET('/api/classes/{classId}/sessions/{sessionId}', {
            params: { path: { classId: classId.value, sessionId: sessionId.value } },
          }),
        )
      : take(
          api.GET('/api/classes/{classId}/days/{day}/carpet', {
            params: {
              path: { classId: classId.value, day: day.value },
              ...(lesson.value ? { query: { lesson: lesson.value } } : {}),
            },
          }),
        ),
})

// The first card of a group that is opened ends the class's first hour.
const { firstCardOpened } = useFirstHour()
watch(card, (there) => there && sessionId.value && firstCardOpened(), { immediate: true })
</script>

<template>
  <div class="page">
    <PageError v-if="error" :error="error" />
    <h1 v-if="!card && !error">…</h1>
    <template v-if="card">
      <div class="page-head">
        <div>
          <span class="soft">{{
            $t('{day}, {time} · {adult} · {toLowerCase} · {minutes} minutes', {
              day: fullDay(card.day),
              time: clock(card.start),
              adult: card.adult,
              toLowerCase: card.where.toLowerCase(),
              minutes: card.activity.minutes,
            })
          }}</span>
          <h1>
            <RouterLink
              class="name"
              :to="{ name: 'activity', params: { classId, id: card.activity.id }, query: { skill: card.skill.id } }"
              >{{ card.activity.name }}</RouterLink
            >
          </h1>
        </div>
        <div class="end">
          <RouterLink
            v-if="sessionId && records"
            class="button main"
            :to="{ name: 'record', params: { classId, sessionId } }"
            >{{ $t('Record on the clipboard') }}</RouterLink
          >
        </div>
      </div>

      <div class="card">
        <section class="aim">
          <p class="said can">{{ card.skill.iCan }}</p>
          <p>{{ card.activity.purpose }}</p>
          <p class="small soft">{{ card.reason }}</p>
        </section>

        <section class="ruled numbers" aria-labelledby="numbers">
          <h2 id="numbers">{{ $t('Numbers to use, in this order') }}</h2>
          <ol>
            <li v-for="(item, i) in card.items" :key="i">
              <div v-if="item.picture" class="pic"><PictureView :picture="item.picture" /></div>
              <div>
                <b>{{ item.ask }}</b>
                <div class="said answer">{{ item.answer }}</div>
                <div v-if="item.distractors.length" class="small soft">
                  {{ $t('Offer also {list}', { list: item.distractors.join(' and ') }) }}
                </div>
                <RouterLink v-if="card.mats[i]" class="small" :to="`/c/${classId}/mats/${card.mats[i]}`">{{
                  $t('On its mat')
                }}</RouterLink>
              </div>
            </li>
          </ol>
        </section>

        <section class="ruled" aria-labelledby="do">
          <h2 id="do">{{ $t('What to do') }}</h2>
          <ol class="steps">
            <li v-for="step in [...card.activity.prepare, ...card.activity.steps]" :key="step">{{ step }}</li>
          </ol>
          <h2 class="gap">{{ $t('What to say') }}</h2>
          <p v-if="card.activity.quiet" class="warn small">{{ $t('The point is to see: no counting aloud.') }}</p>
          <ul class="say said">
            <li v-for="line in card.activity.say" :key="line">{{ line }}</li>
          </ul>
          <p class="small">
            <b>{{ $t('Words:') }}</b> {{ card.skill.words.join(', ') }}
          </p>
          <p class="small">
            <b>{{ $t('Easier:') }}</b> {{ card.activity.easier }}
          </p>
          <p class="small">
            <b>{{ $t('Harder:') }}</b> {{ card.activity.harder }}
          </p>
          <p v-if="card.signs" class="small">
            <b>{{ $t('Signs:') }}</b> {{ card.signs }}
          </p>
          <p v-if="card.sheet" class="small">
            <b>{{ $t('On paper:') }}</b> {{ card.sheet.text }}
            <RouterLink :to="placeSheets(classId, card.sheet)">{{ $t('The sheet') }}</RouterLink>
          </p>
        </section>

        <section class="ruled" aria-labelledby="fetch">
          <h2 id="fetch">{{ $t('Set out') }}</h2>
          <ul class="things">
            <li v-for="thing in card.setOut" :key="thing.item">
              <b>{{ thing.amount }}</b> {{ thing.item }}
            </li>
          </ul>
          <CautionList :cautions="card.cautions" />
          <h2 class="gap">{{ $t('What to look for') }}</h2>
          <ul>
            <li v-for="sign in card.lookFor" :key="sign">{{ sign }}</li>
          </ul>
          <h3 class="small gap">{{ $t('Slips that tell something') }}</h3>
          <ul>
            <li v-for="slip in card.skill.slips" :key="slip.id">{{ slip.text }}</li>
          </ul>
        </section>

        <section v-if="sessionId" class="ruled wide" aria-labelledby="children">
          <h2 id="children">{{ $t('The children, and why each is here') }}</h2>
          <ul class="in-columns">
            <li v-for="child in card.children" :key="child.id">
              <b class="said">{{ child.name }}</b> <MarkFrame :strength="child.strength" />
              <span v-if="child.away" class="warn">{{ $t('away') }}</span>
              <span class="soft">{{ child.reason }}</span>
            </li>
          </ul>
        </section>
      </div>
    </template>
  </div>
</template>

<style scoped>
.card {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr) minmax(0, 0.9fr);
  gap: 1.1rem 1.8rem;
  align-items: start;
}

.aim,
.wide {
  grid-column: 1 / -1;
}

.name {
  color: inherit;
}

.can {
  margin: 0;
  font-size: 1.6rem;
  line-height: 1.2;
}

.numbers ol {
  list-style: none;
  margin: 0;
  padding: 0;
}

.numbers li {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.9rem;
  align-items: center;
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--line);
}

.pic {
  --unit: 1rem;

  width: 8.4rem;
  min-height: 3.4rem;
  display: grid;
  place-items: center;
}

.answer {
  font-size: 1.05rem;
}

.steps li {
  padding: 0.12rem 0;
}

.gap {
  margin-top: 0.9rem;
}

.say {
  list-style: none;
  padding: 0;
}

.say li {
  padding: 0.12rem 0 0.12rem 0.8rem;
  border-left: 4px solid var(--line);
  font-size: 1.1rem;
}

.things {
  list-style: none;
  padding: 0;
}

.things b {
  display: inline-block;
  min-width: 2rem;
  font-size: 1.1rem;
}

@media (max-width: 1000px) {
  .card {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }

  .numbers {
    grid-column: 1 / -1;
  }

  .numbers ol {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 1.4rem;
  }
}

@media (max-width: 640px) {
  .card,
  .numbers ol {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
