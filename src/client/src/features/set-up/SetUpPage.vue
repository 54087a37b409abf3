<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { clock, dayAndMonth } from '@/app/dates'
import CalendarFiles from './CalendarFiles.vue'
import { say, sayError } from '@/ui/notices'
import SchoolPlace from './SchoolPlace.vue'
import DayField from '@/ui/DayField.vue'
import TimeField from '@/ui/TimeField.vue'

const queries = useQueryClient()
const { classId, current } = useAccount()
const { data: table, error } = useQuery({
  queryKey: queryKey('timetable', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/timetable', { params: { path: { classId: classId.value } } })),
})

const weekdays = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday'] as const
const kinds: Record<Schemas['SlotKind'], string> = { Carpet: 'Carpet', Group: 'Small group', Choice: 'Choice time' }
const roles: Record<Schemas['ClassRole'], string> = {
  LeadTeacher: 'Lead teacher',
  Assistant: 'Assistant',
  MathsLead: 'Maths lead',
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
  Closed: 'Closed',
  HalfDay: 'Half day',
  NoLessons: 'Trip, no lessons',
}
const hours = ref({ adultId: 0, weekday: 'Monday' as Schemas['DayOfWeek'], from: '09:30', until: '11:00' })
const slot = ref({
  kind: 'Group' as Schemas['SlotKind'],
  weekday: 'Monday' as Schemas['DayOfWeek'],
  start: '10:00',
  minutes: 15,
  adultId: 0,
  where: '',
})
const adult = ref({ fullName: '', email: '', password: '', role: 'Assistant' as Schemas['ClassRole'] })
const terms = ref<Schemas['TermView'][]>([])
watch(table, (t) => t && (terms.value = t.terms.map((term) => ({ ...term }))), { immediate: true })

async function change(call: Promise<unknown>, done: string, then: () => void = () => undefined) {
  try {
    await call
    then()
    await queries.invalidateQueries()
    say(done)
  } catch (problem) {
    sayError(problem)
  }
}

const path = () => ({ path: { classId: classId.value } })
const saveTerms = () =>
  change(take(api.PUT('/api/classes/{classId}/terms', { params: path(), body: terms.value })), 'The terms are kept.')
const addClosure = () =>
  change(
    take(
      api.POST('/api/classes/{classId}/closures', {
        params: path(),
        body: {
          ...closure.value,
          last: closure.value.last || closure.value.first,
          openFrom: closure.value.openFrom ? `${closure.value.openFrom}:00` : null,
          openUntil: closure.value.openUntil ? `${closure.value.openUntil}:00` : null,
        },
      }),
    ),
    'It is in the calendar.',
    () => {
      closure.value = noClosure()
    },
  )
const addHours = () =>
  change(
    take(
      api.POST('/api/classes/{classId}/hours', {
        params: path(),
        body: { ...hours.value, from: `${hours.value.from}:00`, until: `${hours.value.until}:00` },
      }),
    ),
    'The hours are kept.',
  )
const removeHours = (id: number) =>
  change(
    take(api.DELETE('/api/classes/{classId}/hours/{id}', { params: { path: { classId: classId.value, id } } })),
    'The hours are gone.',
  )
const removeClosure = (id: number) =>
  change(
    take(api.DELETE('/api/classes/{classId}/closures/{id}', { params: { path: { classId: classId.value, id } } })),
    'It is out of the calendar.',
  )
const addSlot = () =>
  change(
    take(
      api.POST('/api/classes/{classId}/slots', {
        params: path(),
        body: { ...slot.value, start: `${slot.value.start}:00` },
      }),
    ),
    'The lesson is in the timetable.',
  )
const savePlace = (place: Schemas['SchoolPlace']) =>
  change(
    take(api.PUT('/api/classes/{classId}/school', { params: path(), body: place })),
    'Days and dates follow the school now.',
  )
const removeSlot = (slotId: number) =>
  change(
    take(api.DELETE('/api/classes/{classId}/slots/{slotId}', { params: { path: { classId: classId.value, slotId } } })),
    'The lesson is out of the timetable.',
  )
const addAdult = () =>
  change(
    take(api.POST('/api/classes/{classId}/adults', { params: path(), body: adult.value })),
    `${adult.value.fullName} can sign in now.`,
    () => {
      adult.value = { fullName: '', email: '', password: '', role: 'Assistant' }
    },
  )
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Set-up of {{ current?.name }}</h1>
      <div class="end">
        <RouterLink class="button main" :to="{ name: 'class-list', params: { classId } }"
          >Import a class list</RouterLink
        >
      </div>
    </div>
    <p v-if="error" class="warn" role="alert">{{ error.message }}</p>
    <div v-if="table" class="parts">
      <section class="ruled wide">
        <h2>How this class works</h2>
        <p>
          <RouterLink :to="{ name: 'approach', params: { classId } }"
            >Frames, signs, sizes of numbers, words, groups, sheets</RouterLink
          >
          <span class="soft"> · where practitioners disagree, and this class has its way.</span>
        </p>
      </section>
      <section class="ruled wide">
        <h2>Where the school is</h2>
        <p class="soft small">
          What is recorded belongs to the day that it is there, whatever a tablet’s clock is set to.
        </p>
        <SchoolPlace :table="table" @save="savePlace" />
      </section>
      <section class="ruled wide">
        <h2>Timetable</h2>
        <p class="soft small">Small groups are formed for these places: who takes them, when and where.</p>
        <div class="week">
          <div v-for="weekday in weekdays" :key="weekday">
            <h3>{{ weekday }}</h3>
            <p v-for="s in table.slots.filter((x) => x.weekday === weekday)" :key="s.id" class="slot">
              <span class="what"
                ><b>{{ clock(s.start) }}</b> {{ kinds[s.kind] }}, {{ s.minutes }} min</span
              >
              <span class="soft small">{{ s.adult }}, {{ s.where.toLowerCase() }}</span>
              <button
                type="button"
                class="button plain small"
                :aria-label="`Take out ${kinds[s.kind]} on ${weekday} at ${clock(s.start)}`"
                @click="removeSlot(s.id)"
              >
                Take out
              </button>
            </p>
          </div>
        </div>
        <form class="beside line" @submit.prevent="addSlot">
          <select v-model="slot.weekday" class="box" aria-label="Weekday">
            <option v-for="w in weekdays" :key="w">{{ w }}</option>
          </select>
          <TimeField v-model="slot.start" label="Start" required />
          <label
            ><input v-model.number="slot.minutes" type="number" min="5" max="120" aria-label="Minutes" /> min</label
          >
          <select v-model="slot.kind" class="box" aria-label="Kind of lesson">
            <option v-for="(label, kind) in kinds" :key="kind" :value="kind">{{ label }}</option>
          </select>
          <select v-model="slot.adultId" class="box" aria-label="Adult" required>
            <option :value="0" disabled>Who</option>
            <option v-for="a in table.adults" :key="a.id" :value="a.id">{{ a.fullName }}</option>
          </select>
          <input v-model="slot.where" type="text" placeholder="Where" aria-label="Where" required />
          <button class="button">Add the lesson</button>
        </form>
      </section>

      <section class="ruled">
        <h2>Terms</h2>
        <form @submit.prevent="saveTerms">
          <div v-for="(term, i) in terms" :key="i" class="beside line">
            <input v-model="term.name" type="text" aria-label="Name of the term" class="short" required />
            <DayField v-model="term.first" :label="`First day of ${term.name}`" required />
            <DayField v-model="term.last" :label="`Last day of ${term.name}`" required />
          </div>
          <button class="button">Keep the terms</button>
        </form>
      </section>

      <section class="ruled">
        <h2>Days that are not as usual</h2>
        <p v-for="c in table.closures" :key="c.id">
          <b>{{ c.name }}</b> {{ dayAndMonth(c.first) }}{{ c.last !== c.first ? ` to ${dayAndMonth(c.last)}` : '' }}
          <span class="soft small"
            >{{ dayKinds[c.kind].toLowerCase() }}<template v-if="c.openFrom"> from {{ clock(c.openFrom) }}</template
            ><template v-if="c.openUntil"> until {{ clock(c.openUntil) }}</template
            >{{ c.ofClass ? ', this class' : '' }}</span
          >
          <button
            type="button"
            class="button plain small"
            :aria-label="`Take out ${c.name}`"
            @click="removeClosure(c.id)"
          >
            Take out
          </button>
        </p>
        <form class="beside line" @submit.prevent="addClosure">
          <input
            v-model="closure.name"
            type="text"
            placeholder="What for"
            aria-label="What for"
            class="short"
            required
          />
          <DayField v-model="closure.first" label="First day" required />
          <DayField v-model="closure.last" label="Last day" />
          <select v-model="closure.kind" class="box" aria-label="Kind of day">
            <option v-for="(label, kind) in dayKinds" :key="kind" :value="kind">{{ label }}</option>
          </select>
          <template v-if="closure.kind === 'HalfDay'">
            <TimeField v-model="closure.openFrom" label="School from" />
            <TimeField v-model="closure.openUntil" label="School until" />
          </template>
          <label class="check"><input v-model="closure.ofClass" type="checkbox" /> this class only</label>
          <button class="button">Add</button>
        </form>
        <CalendarFiles />
      </section>

      <section class="ruled">
        <h2>Hours for small groups</h2>
        <p class="soft small">Where an adult has hours here, small groups are put nowhere else.</p>
        <p v-for="h in table.hours" :key="h.id">
          <b>{{ h.adult }}</b> {{ h.weekday }} {{ clock(h.from) }} to {{ clock(h.until) }}
          <span class="soft small">{{ h.used }} minutes of it in groups</span>
          <button
            type="button"
            class="button plain small"
            :aria-label="`Take out the hours of ${h.adult} on ${h.weekday}`"
            @click="removeHours(h.id)"
          >
            Take out
          </button>
        </p>
        <form class="beside line" @submit.prevent="addHours">
          <select v-model="hours.adultId" class="box" aria-label="Whose hours" required>
            <option :value="0" disabled>Who</option>
            <option v-for="a in table.adults" :key="a.id" :value="a.id">{{ a.fullName }}</option>
          </select>
          <select v-model="hours.weekday" class="box" aria-label="Weekday of the hours">
            <option v-for="w in weekdays" :key="w">{{ w }}</option>
          </select>
          <TimeField v-model="hours.from" label="Hours from" required />
          <TimeField v-model="hours.until" label="Hours until" required />
          <button class="button">Add the hours</button>
        </form>
      </section>

      <section class="ruled">
        <h2>Adults of this class</h2>
        <p v-for="a in table.adults" :key="a.id">
          <b>{{ a.fullName }}</b> <span class="soft">{{ roles[a.role].toLowerCase() }}</span>
        </p>
        <form class="beside line" @submit.prevent="addAdult">
          <input v-model="adult.fullName" type="text" placeholder="Name" aria-label="Name" required />
          <input
            v-model="adult.email"
            type="email"
            placeholder="E-mail"
            aria-label="E-mail"
            autocomplete="off"
            required
          />
          <input
            v-model="adult.password"
            type="password"
            placeholder="First password"
            aria-label="First password"
            autocomplete="new-password"
            required
          />
          <select v-model="adult.role" class="box" aria-label="Role">
            <option v-for="(label, role) in roles" :key="role" :value="role">{{ label }}</option>
          </select>
          <button class="button">Add</button>
        </form>
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
