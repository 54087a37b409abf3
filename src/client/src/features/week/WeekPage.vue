<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { addDays, clock, dayAndMonth, mondayOf, weekday } from '@/app/dates'
import { useWeek } from '@/app/week'
import ChildMarks from '@/ui/ChildMarks.vue'
import PlanTabs from '@/ui/PlanTabs.vue'
import WhyFold from '@/ui/WhyFold.vue'
import { say, sayError } from '@/ui/notices'
import ActivityLine from './ActivityLine.vue'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

const queries = useQueryClient()
const { classId, today, leads } = useAccount()
const { monday, path, week, error } = useWeek()

const plan = useMutation({
  mutationFn: () => take(api.POST('/api/classes/{classId}/weeks/{day}/plan', { params: { path: path.value } })),
  onSuccess: async (planned) => {
    queries.setQueryData(queryKey('week', classId.value, monday.value), planned)
    await queries.invalidateQueries({ queryKey: queryKey('today') })
    say(t('The week is planned.'))
  },
  onError: sayError,
})

const groupSlots = (day: Schemas['WeekDay']) => day.slots.filter((s) => s.kind === 'Group')
const canSwap = (day: Schemas['WeekDay']) => leads.value && day.day >= today.value
const laterTime = (day: Schemas['WeekDay'], i: number) => {
  const slot = day.slots.filter((s) => s.kind === 'Carpet')[i + 1]
  return slot ? t('{time} carpet', { time: clock(slot.start) }) : t('second carpet time, not in the timetable yet')
}
const whyCarpet = (focus: Schemas['WeekFocus'], more: Schemas['WeekFocus'][]) =>
  [focus, ...more].flatMap((f) => [
    { of: more.length ? f.short : undefined, why: f.reason },
    { of: f.activity.name, why: f.activityReason },
  ])
const carpetTime = (day: Schemas['WeekDay']) => day.slots.find((s) => s.kind === 'Carpet')
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Week of {day}', { day: dayAndMonth(monday) }) }}</h1>
      <RouterLink
        v-if="monday !== addDays(mondayOf(today || monday), 7)"
        class="button plain"
        :to="{ name: 'week', params: { classId, day: addDays(mondayOf(today || monday), 7) } }"
        >{{ $t('Go to next week') }}</RouterLink
      >
      <span v-if="week" class="soft">{{ week.term ?? $t('outside the terms') }}</span>
      <div class="end">
        <RouterLink v-if="week?.planned" class="button" :to="{ name: 'groups', params: { classId, day: monday } }">{{
          $t('Groups of this week')
        }}</RouterLink>
        <a v-if="week" class="button" :href="`/api/classes/${classId}/weeks/${monday}/page`" target="_blank">{{
          $t('On paper')
        }}</a>
        <RouterLink
          v-if="week?.planned"
          class="button"
          :to="{ name: 'set-out', params: { classId, day: monday }, query: { week: '1' } }"
          >{{ $t('Pack to print') }}</RouterLink
        >
        <button
          v-if="leads && week"
          type="button"
          class="button"
          :class="{ main: !week.planned }"
          :disabled="plan.isPending.value"
          @click="plan.mutate()"
        >
          {{
            plan.isPending.value ? $t('Planning…') : week.planned ? $t('Plan it anew') : $t('Let Fobble plan this week')
          }}
        </button>
      </div>
    </div>
    <PlanTabs />
    <PageError v-if="error" :error="error" />

    <p v-if="week" class="small jar">
      <RouterLink :to="{ name: 'jar', params: { classId } }">{{ $t('The guess jar') }}</RouterLink> {{ week.jar }}
    </p>
    <div v-if="week" class="week">
      <section v-for="day in week.days" :key="day.day" class="day" :class="{ now: day.day === today }">
        <h2>
          {{ weekday(day.day) }}
          <span v-if="day.day === today" class="small soft">{{ $t('today') }}</span>
        </h2>
        <p v-if="day.state === 'Closed'" class="soft">{{ day.closed ?? $t('No school.') }}</p>
        <div v-else-if="!day.focus" class="soft empty">
          <p v-if="day.closed">
            <b>{{ day.closed }}</b>
          </p>
          <p v-for="coming in day.coming" :key="coming">
            {{ $t('The year’s plan:') }} <b class="said">{{ coming }}</b>
          </p>
          <p v-if="!day.closed || day.coming.length">{{ $t('Not worked out yet.') }}</p>
        </div>
        <template v-else>
          <div class="focus">
            <span class="small soft">{{
              $t('{a} carpet{b}', {
                a: carpetTime(day) ? clock(carpetTime(day)!.start) : '',
                b: day.closed ? ` · ${day.closed}` : '',
              })
            }}</span>
            <h3 class="said">{{ day.focus.short }}</h3>
            <span
              class="pips"
              :aria-label="$t('lesson {number} of {of}', { number: day.focus.number, of: day.focus.of })"
              role="img"
            >
              <i v-for="n in day.focus.of" :key="n" :class="{ on: n <= day.focus.number }" />
            </span>
            <span class="small">{{ day.focus.how }}</span>
            <ActivityLine
              :day="day.day"
              place="Carpet"
              :skill="day.focus.skill"
              :activity="day.focus.activity"
              :pinned="day.focus.pinned"
              :can-swap="canSwap(day)"
            />
            <template v-for="(more, i) in day.more" :key="more.skill">
              <hr />
              <span class="small soft">{{ laterTime(day, i) }}</span>
              <h3 class="said">{{ more.short }}</h3>
              <span class="small">{{
                $t('{how}, lesson {number} of {of}', { how: more.how, number: more.number, of: more.of })
              }}</span>
              <ActivityLine
                :day="day.day"
                place="Carpet"
                :skill="more.skill"
                :activity="more.activity"
                :pinned="false"
                :can-swap="canSwap(day)"
              />
            </template>
            <WhyFold :reasons="whyCarpet(day.focus, day.more)" />
          </div>
          <div class="part">
            <h3 class="small">{{ $t('First, to bring back') }}</h3>
            <p v-if="!day.starters.length" class="small soft">{{ $t('Nothing is due yet.') }}</p>
            <div v-for="starter in day.starters" :key="starter.skill" class="small starter">
              <b>{{ starter.short }}</b>
              <ActivityLine
                :day="day.day"
                place="Starter"
                :skill="starter.skill"
                :activity="starter.activity"
                :pinned="starter.pinned"
                :can-swap="canSwap(day)"
              />
            </div>
            <WhyFold
              v-if="day.starters.length"
              :reasons="[
                ...day.starters.map((s) => ({ of: s.short, why: s.reason })),
                { why: day.tooLong ? '' : (day.minutes ?? '') },
              ]"
            />
            <p v-if="day.tooLong" class="small warn">{{ day.minutes }}</p>
            <p v-for="note in day.notes" :key="note" class="small note">{{ note }}</p>
          </div>
          <div class="part">
            <h3 class="small">{{ $t('Small groups') }}</h3>
            <div v-for="slot in groupSlots(day)" :key="slot.slotId" class="small slot">
              <RouterLink
                v-if="slot.sessionId"
                class="aim said"
                :to="{ name: 'session', params: { classId, sessionId: slot.sessionId } }"
                >{{ slot.skill }}</RouterLink
              >
              <span v-else class="soft aim">{{ $t('free') }}</span>
              <span class="soft">{{ clock(slot.start) }} {{ slot.adult }}</span>
              <ChildMarks :children="slot.children" />
            </div>
          </div>
          <div class="small part">
            <h3 class="small">{{ $t('Choice and change-over') }}</h3>
            <ActivityLine
              v-if="day.choice"
              :day="day.day"
              place="Choice"
              :activity="day.choice"
              :pinned="day.choicePinned"
              :can-swap="canSwap(day)"
            />
            <p v-else class="soft">{{ $t('Nothing taught in a group to build a centre on yet.') }}</p>
            <ActivityLine
              v-if="day.transition"
              :day="day.day"
              place="Transition"
              :activity="day.transition"
              :pinned="day.transitionPinned"
              :can-swap="canSwap(day)"
            />
          </div>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
.jar {
  margin: 0 0 0.5rem;
}

.week {
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  grid-template-rows: repeat(5, auto);
}

/* The parts of a day stand level with those of its neighbours. */
.day {
  display: grid;
  grid-row: span 5;
  grid-template-rows: subgrid;
  align-content: start;
  padding: 0.3rem 0.8rem 1rem;
  border-left: 1px solid var(--line);
}

.day:first-child {
  border-left: 0;
  padding-left: 0;
}

.day.now {
  background: var(--paper);
}

.empty {
  padding: 2rem 0;
}

.focus {
  display: grid;
  align-content: start;
  gap: 0.2rem;
  margin: 0.4rem 0 0.6rem;
  padding: 0.6rem 0.7rem 0.5rem;
  border: 1.5px solid var(--ink);
  border-radius: var(--corner);
  background: var(--paper);
}

.focus h3 {
  font-size: 1.2rem;
}

.pips {
  display: flex;
  gap: 4px;
}

.pips i {
  width: 11px;
  height: 11px;
  border: 1.5px solid var(--spruce);
  border-radius: 50%;
}

.pips i.on {
  background: var(--spruce);
}

.focus hr {
  width: 100%;
  margin: 0.4rem 0;
  border: 0;
  border-top: 1px solid var(--line);
}

.starter {
  margin-bottom: 0.3rem;
}

.note {
  padding-left: 0.5rem;
  border-left: 3px solid var(--marigold);
}

.part {
  padding-top: 0.35rem;
  margin-top: 0.5rem;
  border-top: 1px solid var(--line);
}

.slot {
  margin-bottom: 0.5rem;
}

.slot .aim {
  display: block;
  font-size: 1rem;
}

.slot :deep([role='listitem']) {
  font-size: 1rem;
}

@media (max-width: 1000px) {
  .week {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: none;
  }

  .day {
    grid-row: auto;
    grid-template-rows: none;
    border-left: 0;
    border-top: 1px solid var(--line);
    padding-left: 0;
  }
}
</style>
