<script setup lang="ts">
import { computed, ref } from 'vue'
import { useAccount } from '@/app/account'
import type { Schemas } from '@/app/api/client'
import ThreeChoices from './ThreeChoices.vue'
import { useFirstHour } from '@/app/useFirstHour'
import UsualHolidays from './UsualHolidays.vue'

type Step = Schemas['FirstStep']

/** From an empty class to its first session card: one thing at a time, what for, and how long. Gone for good once it is over. */
const { classId, current } = useAccount()
const { view, settle, takeHolidays, end } = useFirstHour()
const opened = ref<Step>()
const next = computed(() => view.value?.steps.find((s) => s.state === 'Open')?.step)
const shown = computed(() => opened.value ?? next.value)
const minutes = computed(() =>
  (view.value?.steps ?? []).filter((s) => s.state !== 'Done').reduce((sum, s) => sum + s.minutes, 0),
)

// A step that was opened by hand is closed once it is dealt with.
const done = (call: Promise<unknown>) => call.then(() => (opened.value = undefined))
</script>

<template>
  <section v-if="view && !view.over" class="first" aria-labelledby="first-head">
    <div class="head">
      <h2 id="first-head" class="said">{{ $t('{name}’s first hour', { name: current?.name }) }}</h2>
      <span class="soft">{{
        $t('about {minutes} minutes to the first session card; each step can wait', { minutes })
      }}</span>
    </div>
    <ol>
      <li v-for="s in view.steps" :key="s.step" :class="[s.state.toLowerCase(), { shown: shown === s.step }]">
        <button
          type="button"
          class="row"
          :aria-expanded="shown === s.step"
          :disabled="s.state === 'Done' && s.step !== 'Known'"
          @click="opened = shown === s.step ? undefined : s.step"
        >
          <span class="bead" aria-hidden="true" />
          <b>{{ s.title }}</b>
          <span class="soft small">{{
            s.state === 'Done'
              ? s.now
              : s.state === 'Later'
                ? $t('Left for later.')
                : $t('{minutes} min', { minutes: s.minutes })
          }}</span>
        </button>
        <div v-if="shown === s.step" class="body">
          <p>{{ s.why }}</p>
          <RouterLink
            v-if="s.step === 'ClassList'"
            class="button main"
            :to="{ name: 'class-list', params: { classId } }"
            >{{ $t('Bring in the list') }}</RouterLink
          >
          <ThreeChoices v-else-if="s.step === 'Approach'" @keep="done(settle('Approach', false))" />
          <UsualHolidays
            v-else-if="s.step === 'Timetable'"
            :week="view.week"
            :holidays="view.holidays"
            @keep="done(takeHolidays($event))"
          />
          <div v-else-if="s.step === 'Known'" class="buttons">
            <button type="button" class="button main" @click="done(settle('Known', false))">
              {{ $t('Begin as new') }}
            </button>
            <RouterLink class="button" :to="{ name: 'baseline', params: { classId } }">{{
              $t('Check a few children, five minutes each')
            }}</RouterLink>
            <RouterLink class="button" :to="{ name: 'records', params: { classId } }">{{
              $t('Bring in last year’s record')
            }}</RouterLink>
          </div>
          <template v-else-if="s.step === 'Plan'">
            <p v-if="view.plan">{{ view.plan }}</p>
            <div class="buttons">
              <RouterLink
                class="button main"
                :to="{ name: 'make-plan', params: { classId }, query: { offered: '' } }"
                >{{ $t('Work it out') }}</RouterLink
              >
              <RouterLink class="button plain" :to="{ name: 'make-plan', params: { classId } }">{{
                $t('Choose what is in it')
              }}</RouterLink>
            </div>
          </template>
          <template v-else-if="s.step === 'Groups'">
            <RouterLink
              v-if="view.groupsOn"
              class="button main"
              :to="{ name: 'groups', params: { classId, day: view.groupsOn }, query: { ask: '' } }"
              >{{ $t('Ask for groups') }}</RouterLink
            >
            <p v-else class="warn">{{ $t('The timetable has no place for a small group: put one into Set-up.') }}</p>
          </template>
          <template v-else>
            <RouterLink
              v-if="view.firstSession"
              class="button main"
              :to="{ name: 'session', params: { classId, sessionId: view.firstSession } }"
              >{{ $t('Open the card') }}</RouterLink
            >
            <p v-else class="soft">{{ $t('There is no group yet whose card could be opened.') }}</p>
          </template>
          <button
            v-if="s.state === 'Open' && s.step !== 'Card'"
            type="button"
            class="button plain wait"
            @click="done(settle(s.step, true))"
          >
            {{ $t('Leave it for later') }}
          </button>
        </div>
      </li>
    </ol>
    <button type="button" class="button plain small" @click="end">{{ $t('I know my way: no more of this') }}</button>
  </section>
</template>

<style scoped>
.first {
  max-width: 52rem;
  margin-bottom: 1.4rem;
}

.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.2rem 1rem;
}

.head h2 {
  margin: 0;
  font-size: 1.5rem;
}

ol {
  margin: 0.6rem 0 0.4rem;
  padding: 0;
  list-style: none;
}

/* One thread through all beads. */
li {
  position: relative;
  padding-left: 2.6rem;
}

li:not(:last-child)::before {
  content: '';
  position: absolute;
  top: 22px;
  bottom: -22px;
  left: 0.7rem;
  width: 2px;
  background: var(--line-strong);
}

.row {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 0.8rem;
  width: 100%;
  min-height: var(--target);
  padding: 0.5rem 0;
  border: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.row:disabled {
  cursor: default;
}

.row b {
  font-size: 1.08rem;
}

.bead {
  position: absolute;
  top: 13px;
  left: 0.7rem;
  width: 20px;
  height: 20px;
  margin-left: -9px;
  border: 2px solid var(--spruce);
  border-radius: 50%;
  background: var(--paper);
}

.done .bead {
  background: var(--spruce);
}

.later .bead {
  border-style: dashed;
}

.shown .bead {
  top: 9px;
  width: 28px;
  height: 28px;
  margin-left: -13px;
  background: var(--spruce-wash);
}

.done .row b {
  font-weight: 400;
}

.body {
  padding: 0 0 1rem;
}

.body > p {
  margin: 0 0 0.6rem;
}

.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}

.wait {
  margin-top: 0.4rem;
}
</style>
