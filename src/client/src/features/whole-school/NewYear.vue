<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, take, type Schemas } from '@/app/api/client'
import { birthDay, dayAndMonth } from '@/app/dates'
import { queryKey } from '@/app/keys'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import DayField from '@/ui/DayField.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say } from '@/ui/notices'

/** The school goes into a new year: which classes end, which there are then, and where each child goes. */
const { view } = defineProps<{ view: Schemas['ChildrenOfSchoolView'] }>()
const queries = useQueryClient()
const { data: school } = useQuery({
  queryKey: queryKey('school'),
  queryFn: () => take(api.GET('/api/school', {})),
})

/** A new class; its key stays when one before it is left out. */
type Made = Schemas['ClassOfNewYear'] & { key: number }
const AWAY = -1
let keys = 0
const ends = ref(view.classes.map((c) => c.id))
const made = ref<Made[]>(
  view.classes.map((c) => ({ key: keys++, name: c.name, leadId: c.leadId, like: c.id, along: true })),
)
// Where most of a class go, and who goes elsewhere: keys of new classes.
const most = ref<Record<number, number>>(Object.fromEntries(view.classes.map((c, i) => [c.id, made.value[i]!.key])))
const elsewhere = ref<Record<number, number>>({})
const notesOfBefore = ref(true)
const keptUntil = ref(view.usuallyKeptUntil)

const ending = computed(() => view.classes.filter((c) => ends.value.includes(c.id)))
const goesTo = (room: Schemas['ClassWithChildren'], child: number) => {
  const key = elsewhere.value[child] ?? most.value[room.id]
  return made.value.some((m) => m.key === key) ? key! : AWAY
}
const all = computed(() => ending.value.flatMap((c) => c.children.map((x) => ({ id: x.id, to: goesTo(c, x.id) }))))
const going = (key: number) => all.value.filter((x) => x.to === key).length
const others = (room: Schemas['ClassWithChildren']) => room.children.filter((x) => elsewhere.value[x.id] !== undefined)

function send(child: number, room: Schemas['ClassWithChildren'], event: Event) {
  const key = Number((event.target as HTMLSelectElement).value)
  if (key === most.value[room.id]) delete elsewhere.value[child]
  else elsewhere.value[child] = key
}
const oneMore = () =>
  made.value.push({ key: keys++, name: '', leadId: view.classes[0]?.leadId ?? 0, like: null, along: false })
const leaveOut = (key: number) => (made.value = made.value.filter((m) => m.key !== key))

async function begin() {
  const place = (key: number) => (key === AWAY ? null : made.value.findIndex((m) => m.key === key))
  await take(
    api.POST('/api/school/new-year', {
      body: {
        beginsOn: view.next.beginsOn,
        ends: ends.value,
        classes: made.value.map(({ name, leadId, like, along }) => ({
          name,
          leadId,
          like,
          along: along && like !== null,
        })),
        places: all.value.map(({ id, to }) => ({ child: id, to: place(to) })),
        notesOfBefore: notesOfBefore.value,
        keptUntil: keptUntil.value,
      },
    }),
  )
  await queries.invalidateQueries()
  say(t('The new year has begun. The classes of before are in the archive, to be read.'))
}
const howMany = (count: number) =>
  count === 0 ? t('no children yet') : count === 1 ? t('one child') : t('{count} children', { count })
</script>

<template>
  <h2>{{ $t('A new school year, from {day}', { day: birthDay(view.next.beginsOn) }) }}</h2>
  <p v-if="view.next.terms.length" class="soft small">
    {{
      $t('The calendar has no terms of that year yet. The usual ones go in, and are put right on Set-up: {terms}.', {
        terms: view.next.terms.map((x) => `${x.name} ${dayAndMonth(x.first)} – ${dayAndMonth(x.last)}`).join(', '),
      })
    }}
  </p>
  <AskForm v-if="school" class="year" :send="begin">
    <fieldset>
      <legend>{{ $t('Which classes end') }}</legend>
      <label v-for="room in view.classes" :key="room.id" class="check">
        <input v-model="ends" type="checkbox" :value="room.id" /> {{ room.name }}
        <span class="soft small">{{ howMany(room.children.length) }}</span>
      </label>
    </fieldset>

    <fieldset>
      <legend>{{ $t('Classes of the new year') }}</legend>
      <div v-for="(room, i) in made" :key="room.key" class="beside made">
        <FaultyField :name="`${i}.name`" :label="$t('Name')"
          ><input v-model="room.name" type="text" maxlength="60" size="12" required
        /></FaultyField>
        <FaultyField :name="`${i}.leadId`" :label="$t('Lead teacher')"
          ><select v-model="room.leadId" class="box" required>
            <option v-for="a in school.adults" :key="a.id" :value="a.id">{{ a.fullName }}</option>
          </select></FaultyField
        >
        <FaultyField :name="`${i}.like`" :label="$t('Begins like')"
          ><select v-model="room.like" class="box">
            <option :value="null">{{ $t('as is usual') }}</option>
            <option v-for="c in school.classes" :key="c.id" :value="c.id">{{ c.name }}</option>
          </select></FaultyField
        >
        <p class="under">
          <b>{{ howMany(going(room.key)) }}</b>
          <label v-if="room.like !== null" class="check"
            ><input v-model="room.along" type="checkbox" /> {{ $t('its helpers, too') }}</label
          >
          <button
            v-if="made.length > 1"
            type="button"
            class="button plain small"
            :aria-label="$t('Leave out {name}', { name: room.name })"
            @click="leaveOut(room.key)"
          >
            {{ $t('Leave out') }}
          </button>
        </p>
      </div>
      <p>
        <button type="button" class="button plain" @click="oneMore">{{ $t('One more class') }}</button>
        <span class="soft small">{{
          ' ' +
          $t(
            'Like another: its ways, timetable and, where it ends, its cupboard. Children new to the school come in by a class list.',
          )
        }}</span>
      </p>
    </fieldset>

    <fieldset>
      <legend>{{ $t('Who goes where') }}</legend>
      <div v-for="room in ending" :key="room.id" class="from">
        <label
          ><b>{{ room.name }}</b
          >:
          {{ $t('all go to') }}
          <select v-model="most[room.id]" class="box">
            <option v-for="m in made" :key="m.key" :value="m.key">{{ m.name || $t('a class without a name') }}</option>
            <option :value="AWAY">{{ $t('away from the school') }}</option>
          </select></label
        >
        <p v-if="others(room).length" class="small" data-quoted>
          {{
            $t('But: {children}', {
              children: others(room)
                .map((x) => `${x.name} → ${made.find((m) => m.key === goesTo(room, x.id))?.name ?? t('away')}`)
                .join(', '),
            })
          }}
        </p>
        <details>
          <summary>{{ $t('Some go elsewhere, repeat or leave') }}</summary>
          <label v-for="child in room.children" :key="child.id" class="child">
            <span data-quoted>{{ child.name }}</span>
            <select class="box" :value="goesTo(room, child.id)" @change="send(child.id, room, $event)">
              <option v-for="m in made" :key="m.key" :value="m.key">
                {{ m.name || $t('a class without a name') }}
              </option>
              <option :value="AWAY">{{ $t('away from the school') }}</option>
            </select>
          </label>
        </details>
      </div>
    </fieldset>

    <label class="check"
      ><input v-model="notesOfBefore" type="checkbox" />
      {{ $t('Notes and photos of before are seen in the new classes, too') }}</label
    >
    <p class="soft small">{{ $t('What a child was seen to do counts and shows in any case.') }}</p>
    <FaultyField v-if="going(AWAY)" name="keptUntil" :label="$t('Records of those who leave are kept until')"
      ><DayField v-model="keptUntil" :label="$t('Records of those who leave are kept until')"
    /></FaultyField>
    <p>
      <button class="button main">{{ $t('Begin the new year') }}</button>
      <span class="soft small">{{
        ' ' +
        $t('{stay} stay, {away} leave. It can be taken back for a day.', {
          stay: all.length - going(AWAY),
          away: going(AWAY),
        })
      }}</span>
    </p>
  </AskForm>
</template>

<style scoped src="./school.css"></style>

<style scoped>
.check {
  margin-right: 1.2rem;
}

.made {
  margin-bottom: 0.6rem;
}

.under {
  display: flex;
  flex-basis: 100%;
  gap: 1.2rem;
  align-items: center;
  margin: 0;
}

.from {
  margin-bottom: 0.8rem;
}

.from details {
  margin-top: 0.3rem;
}

.child {
  display: grid;
  grid-template-columns: minmax(0, 14rem) auto;
  gap: 0.8rem;
  justify-content: start;
  align-items: center;
  padding: 0.2rem 0;
}
</style>
