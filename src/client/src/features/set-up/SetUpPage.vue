<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { clock, dayAndMonth, dayOfWeek, schoolDays } from '@/app/dates'
import CalendarFiles from './CalendarFiles.vue'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say, sayError } from '@/ui/notices'
import SchoolPlace from './SchoolPlace.vue'
import DayField from '@/ui/DayField.vue'
import TimeField from '@/ui/TimeField.vue'
import { t } from '@/app/language'
import { roles } from '@/app/roles'
import PageError from '@/ui/PageError.vue'
import NumberField from '@/ui/NumberField.vue'

const queries = useQueryClient()
const { classId, current, leadsSchool, today } = useAccount()
const { data: table, error } = useQuery({
  queryKey: queryKey('timetable', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/timetable', { params: { path: { classId: classId.value } } })),
})

const kinds: Record<Schemas['SlotKind'], string> = {
  Carpet: t('Carpet'),
  Group: t('Small group'),
  Choice: t('Choice time'),
}
const noClosure = () => ({
  name: '',
  first: '',
  last: '',
  kind: 'Closed' as Schemas['ClosureKind'],
  openFrom: '',
  openUntil: '',
  ofClass: false,
})
const closure = ref(noClosure())
const dayKinds: Record<Schemas['ClosureKind'], string> = {
  Closed: t('Closed'),
  HalfDay: t('Half day'),
  NoLessons: t('Trip, no lessons'),
}
const hours = ref({
  adultId: null as number | null,
  weekday: 'Monday' as Schemas['DayOfWeek'],
  from: '09:30',
  until: '11:00',
})
const slot = ref({
  kind: 'Group' as Schemas['SlotKind'],
  weekday: 'Monday' as Schemas['DayOfWeek'],
  start: '10:00',
  minutes: 15,
  adultId: null as number | null,
  where: '',
})
const terms = ref<Schemas['TermView'][]>([])
watch(table, (t) => t && (terms.value = t.terms.map((term) => ({ ...term }))), { immediate: true })

async function change(call: Promise<unknown>, done: string, then: () => void = () => undefined) {
  await call
  then()
  await queries.invalidateQueries()
  say(done)
}

const path = () => ({ path: { classId: classId.value } })
const saveTerms = () =>
  change(take(api.PUT('/api/classes/{classId}/terms', { params: path(), body: terms.value })), t('The terms are kept.'))
const addClosure = () =>
  change(
    take(
      api.POST('/api/classes/{classId}/closures', {
        params: path(),
        body: {
          ...closure.value,
          ofClass: closure.value.ofClass || !leadsSchool.value,
          last: closure.value.last || closure.value.first,
          openFrom: closure.value.openFrom ? `${closure.value.openFrom}:00` : null,
          openUntil: closure.value.openUntil ? `${closure.value.openUntil}:00` : null,
        },
      }),
    ),
    t('It is in the calendar.'),
    () => {
      closure.value = noClosure()
    },
  )
const addHours = () =>
  change(
    take(
      api.POST('/api/classes/{classId}/hours', {
        params: path(),
        body: {
          ...hours.value,
          adultId: hours.value.adultId ?? 0,
          from: `${hours.value.from}:00`,
          until: `${hours.value.until}:00`,
        },
      }),
    ),
    t('The hours are kept.'),
  )
const removeHours = (id: number) =>
  change(
    take(api.DELETE('/api/classes/{classId}/hours/{id}', { params: { path: { classId: classId.value, id } } })),
    t('The hours are gone.'),
  )
const removeClosure = (id: number) =>
  change(
    take(api.DELETE('/api/classes/{classId}/closures/{id}', { params: { path: { classId: classId.value, id } } })),
    t('It is out of the calendar.'),
  )
const addSlot = () =>
  change(
    take(
      api.POST('/api/classes/{classId}/slots', {
        params: path(),
        body: { ...slot.value, adultId: slot.value.adultId ?? 0, start: `${slot.value.start}:00` },
      }),
    ),
    t('The lesson is in the timetable.'),
  )
const savePlace = (place: Schemas['SchoolPlace']) =>
  change(
    take(api.PUT('/api/classes/{classId}/school', { params: path(), body: place })),
    t('Days and dates follow the school now.'),
  )
const removeSlot = (slotId: number) =>
  change(
    take(api.DELETE('/api/classes/{classId}/slots/{slotId}', { params: { path: { classId: classId.value, slotId } } })),
    t('The lesson is out of the timetable.'),
  )
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Set-up of {name}', { name: current?.name }) }}</h1>
      <div class="end">
        <RouterLink class="button main" :to="{ name: 'class-list', params: { classId } }">{{
          $t('Import a class list')
        }}</RouterLink>
      </div>
    </div>
    <PageError v-if="error" :error="error" />
    <div v-if="table" class="parts">
      <section class="ruled wide">
        <h2>{{ $t('How this class works') }}</h2>
        <p>
          <RouterLink :to="{ name: 'approach', params: { classId } }">{{
            $t('Frames, signs, sizes of numbers, words, groups, sheets')
          }}</RouterLink>
          {{ ' ' }}<span class="soft">{{ $t('· where practitioners disagree, and this class has its way.') }}</span>
        </p>
      </section>
      <section class="ruled wide">
        <h2>{{ $t('Where the school is') }}</h2>
        <p class="soft small">
          {{ $t('What is recorded belongs to the day that it is there, whatever a tablet’s clock is set to.') }}
        </p>
        <SchoolPlace v-if="leadsSchool" :table="table" @save="savePlace($event).catch(sayError)" />
        <p v-else>{{ table.timeZone }}, {{ dayAndMonth(today) }}</p>
      </section>
      <section class="ruled wide">
        <h2>{{ $t('Timetable') }}</h2>
        <p class="soft small">{{ $t('Small groups are formed for these places: who takes them, when and where.') }}</p>
        <div class="week">
          <div v-for="weekday in schoolDays" :key="weekday">
            <h3>{{ dayOfWeek(weekday) }}</h3>
            <p v-for="s in table.slots.filter((x) => x.weekday === weekday)" :key="s.id" class="slot">
              <span class="what"
                ><b>{{ clock(s.start) }}</b>
                {{ $t('{kinds}, {minutes} min', { kinds: kinds[s.kind], minutes: s.minutes }) }}</span
              >
              <span class="soft small">{{ s.adult }}, {{ s.where.toLowerCase() }}</span>
              <button
                type="button"
                class="button plain small"
                :aria-label="
                  $t('Take out {kinds} on {weekday} at {time}', { kinds: kinds[s.kind], weekday, time: clock(s.start) })
                "
                @click="removeSlot(s.id).catch(sayError)"
              >
                {{ $t('Take out') }}
              </button>
            </p>
          </div>
        </div>
        <AskForm class="beside line" :send="addSlot">
          <select v-model="slot.weekday" class="box" :aria-label="$t('Weekday')">
            <option v-for="w in schoolDays" :key="w" :value="w">{{ dayOfWeek(w) }}</option>
          </select>
          <FaultyField name="start"><TimeField v-model="slot.start" :label="$t('Start')" required /></FaultyField>
          <FaultyField name="minutes"
            ><label
              ><NumberField v-model="slot.minutes" :min="5" :max="120" :label="$t('Minutes')" required />
              {{ $t('min') }}</label
            ></FaultyField
          >
          <select v-model="slot.kind" class="box" :aria-label="$t('Kind of lesson')">
            <option v-for="(label, kind) in kinds" :key="kind" :value="kind">{{ label }}</option>
          </select>
          <FaultyField name="adultId"
            ><select v-model="slot.adultId" class="box" :aria-label="$t('Adult')" required>
              <option :value="null" disabled>{{ $t('Who') }}</option>
              <option v-for="a in table.adults" :key="a.id" :value="a.id">{{ a.fullName }}</option>
            </select></FaultyField
          >
          <FaultyField name="where"
            ><input v-model="slot.where" type="text" :placeholder="$t('Where')" :aria-label="$t('Where')" required
          /></FaultyField>
          <button class="button">{{ $t('Add the lesson') }}</button>
        </AskForm>
      </section>

      <section class="ruled">
        <h2>{{ $t('Terms') }}</h2>
        <template v-if="!leadsSchool">
          <p v-for="term in table.terms" :key="term.first">
            <b>{{ term.name }}</b> {{ dayAndMonth(term.first) }} {{ $t('to {day}', { day: dayAndMonth(term.last) }) }}
          </p>
          <p class="soft small">
            {{
              $t('Terms, days on which the school is closed, and the map are the school’s: {names} can change them.', {
                names: table.schoolLeads.join(', '),
              })
            }}
          </p>
        </template>
        <AskForm v-else :send="saveTerms">
          <div v-for="(term, i) in terms" :key="i" class="beside line">
            <FaultyField :name="`${i}.name`"
              ><input v-model="term.name" type="text" :aria-label="$t('Name of the term')" class="short" required
            /></FaultyField>
            <FaultyField :name="`${i}.first`"
              ><DayField v-model="term.first" :label="$t('First day of {name}', { name: term.name })" required
            /></FaultyField>
            <FaultyField :name="`${i}.last`"
              ><DayField v-model="term.last" :label="$t('Last day of {name}', { name: term.name })" required
            /></FaultyField>
          </div>
          <button class="button">{{ $t('Keep the terms') }}</button>
        </AskForm>
      </section>

      <section class="ruled">
        <h2>{{ $t('Days that are not as usual') }}</h2>
        <p v-for="c in table.closures.filter((x) => x.last >= (table!.terms[0]?.first ?? ''))" :key="c.id">
          <b>{{ c.name }}</b> {{ dayAndMonth(c.first)
          }}{{ c.last !== c.first ? ' ' + $t('to {day}', { day: dayAndMonth(c.last) }) : '' }}
          <span class="soft small"
            >{{ dayKinds[c.kind].toLowerCase()
            }}{{ c.openFrom ? ' ' + $t('from {time}', { time: clock(c.openFrom) }) : ''
            }}{{ c.openUntil ? ' ' + $t('until {time}', { time: clock(c.openUntil) }) : ''
            }}{{ c.ofClass ? $t(', this class') : '' }}</span
          >
          <button
            v-if="c.ofClass || leadsSchool"
            type="button"
            class="button plain small"
            :aria-label="$t('Take out {name}', { name: c.name })"
            @click="removeClosure(c.id).catch(sayError)"
          >
            {{ $t('Take out') }}
          </button>
        </p>
        <AskForm class="beside line" :send="addClosure">
          <FaultyField name="name"
            ><input
              v-model="closure.name"
              type="text"
              :placeholder="$t('What for')"
              :aria-label="$t('What for')"
              class="short"
              required
          /></FaultyField>
          <FaultyField name="first"><DayField v-model="closure.first" :label="$t('First day')" required /></FaultyField>
          <FaultyField name="last"><DayField v-model="closure.last" :label="$t('Last day')" /></FaultyField>
          <select v-model="closure.kind" class="box" :aria-label="$t('Kind of day')">
            <option v-for="(label, kind) in dayKinds" :key="kind" :value="kind">{{ label }}</option>
          </select>
          <template v-if="closure.kind === 'HalfDay'">
            <FaultyField name="openFrom"
              ><TimeField v-model="closure.openFrom" :label="$t('School from')"
            /></FaultyField>
            <FaultyField name="openUntil"
              ><TimeField v-model="closure.openUntil" :label="$t('School until')"
            /></FaultyField>
          </template>
          <label v-if="leadsSchool" class="check"
            ><input v-model="closure.ofClass" type="checkbox" /> {{ $t('this class only') }}</label
          >
          <button class="button">{{ $t('Add') }}</button>
        </AskForm>
        <CalendarFiles />
      </section>

      <section class="ruled">
        <h2>{{ $t('Hours for small groups') }}</h2>
        <p class="soft small">{{ $t('Where an adult has hours here, small groups are put nowhere else.') }}</p>
        <p v-for="h in table.hours" :key="h.id">
          <b>{{ h.adult }}</b>
          {{
            $t('{weekday} {time} to {time2}', {
              weekday: dayOfWeek(h.weekday),
              time: clock(h.from),
              time2: clock(h.until),
            })
          }}
          <span class="soft small">{{ $t('{used} minutes of it in groups', { used: h.used }) }}</span>
          <button
            type="button"
            class="button plain small"
            :aria-label="
              $t('Take out the hours of {adult} on {weekday}', { adult: h.adult, weekday: dayOfWeek(h.weekday) })
            "
            @click="removeHours(h.id).catch(sayError)"
          >
            {{ $t('Take out') }}
          </button>
        </p>
        <AskForm class="beside line" :send="addHours">
          <FaultyField name="adultId"
            ><select v-model="hours.adultId" class="box" :aria-label="$t('Whose hours')" required>
              <option :value="null" disabled>{{ $t('Who') }}</option>
              <option v-for="a in table.adults" :key="a.id" :value="a.id">{{ a.fullName }}</option>
            </select></FaultyField
          >
          <select v-model="hours.weekday" class="box" :aria-label="$t('Weekday of the hours')">
            <option v-for="w in schoolDays" :key="w" :value="w">{{ dayOfWeek(w) }}</option>
          </select>
          <FaultyField name="from"><TimeField v-model="hours.from" :label="$t('Hours from')" required /></FaultyField>
          <FaultyField name="until"
            ><TimeField v-model="hours.until" :label="$t('Hours until')" required
          /></FaultyField>
          <button class="button">{{ $t('Add the hours') }}</button>
        </AskForm>
      </section>

      <section class="ruled">
        <h2>{{ $t('Adults of this class') }}</h2>
        <p v-for="a in table.adults" :key="a.id">
          <b>{{ a.fullName }}</b> <span class="soft small">{{ ' ' + roles[a.role] }}</span>
        </p>
        <RouterLink v-if="leadsSchool" class="button" :to="{ name: 'school', params: { classId } }">{{
          $t('Classes and adults of the school')
        }}</RouterLink>
        <p v-else class="soft small">
          {{ $t('{names} can say who belongs to a class.', { names: table.schoolLeads.join(', ') }) }}
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(24rem, 1fr));
  gap: 1.6rem;
}

.wide {
  grid-column: 1 / -1;
}

.week {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(11rem, 1fr));
  gap: 0 1.2rem;
}

.slot {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  padding-bottom: 0.2rem;
  border-bottom: 1px solid var(--line);
}

.what {
  grid-column: 1 / -1;
}

.line input[type='number'] {
  width: 4.4rem;
}

.short {
  width: 9rem;
}
</style>
