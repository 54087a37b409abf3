<script setup lang="ts">
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, take, type Schemas } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import { t } from '@/app/language'
import { roles } from '@/app/roles'
import AskForm from '@/ui/AskForm.vue'
import DayField from '@/ui/DayField.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say, sayError } from '@/ui/notices'

/** Who belongs to a class, and as what: joined, changed, and taken out again. */
const { room } = defineProps<{ room: Schemas['ClassOfSchool'] }>()
const emit = defineEmits<{ invited: [invitation: Schemas['Invitation'] & { who: string }] }>()
const queries = useQueryClient()
const path = (adultId: number) => ({ classId: room.id, adultId })

const nobody = () => ({
  fullName: '',
  email: '',
  role: 'Assistant' as Schemas['ClassRole'],
  from: '',
  until: '',
  inPlaceOf: null as number | null,
})
// Cover is for some days, which are said when it is added.
const lasting = (Object.keys(roles) as Schemas['ClassRole'][]).filter((role) => role !== 'Cover')
const adult = ref(nobody())
async function add() {
  const who = adult.value.fullName || adult.value.email
  const invitation = await take(
    api.POST('/api/school/classes/{classId}/adults', {
      params: { path: { classId: room.id } },
      body: { ...adult.value, from: adult.value.from || null, until: adult.value.until || null },
    }),
  )
  emit('invited', { who, ...invitation })
  adult.value = nobody()
  await queries.invalidateQueries()
}

async function setRole(who: Schemas['AdultOfClass'], event: Event) {
  const select = event.target as HTMLSelectElement
  const role = select.value as Schemas['ClassRole']
  try {
    await take(
      api.PUT('/api/school/classes/{classId}/adults/{adultId}', { params: { path: path(who.id) }, body: { role } }),
    )
  } catch (problem) {
    sayError(problem)
    select.value = who.role
  }
  await queries.invalidateQueries()
}

// Who is about to be taken out, and who takes the lessons.
const leaving = ref<Schemas['AdultOfClass']>()
const takesOver = ref<number | null>(null)
const teaching = computed(() => room.adults.filter((a) => a.role !== 'Cover' && a.lessons > 0))
const others = computed(() =>
  room.adults.filter((a) => a.id !== leaving.value?.id && a.role !== 'MathsLead' && a.role !== 'Cover'),
)
async function end() {
  const { id, fullName } = leaving.value!
  await take(
    api.DELETE('/api/school/classes/{classId}/adults/{adultId}', {
      params: { path: path(id), query: { takesOver: takesOver.value ?? undefined } },
    }),
  )
  leaving.value = undefined
  say(t('{fullName} does not see {room} any more.', { fullName, room: room.name }))
  await queries.invalidateQueries()
}
function ask(who: Schemas['AdultOfClass']) {
  leaving.value = who
  takesOver.value = null
}
</script>

<template>
  <div>
    <DataTable :value="room.adults" data-key="id" class="adults">
      <Column field="fullName" :header="$t('Name')" sortable />
      <Column field="role" :header="$t('Role')" sortable>
        <template #body="{ data }">
          <span v-if="data.role === 'Cover'">{{
            data.inPlaceOf
              ? $t('Cover for {who}, {from} to {until}', {
                  who: data.inPlaceOf,
                  from: dayAndMonth(data.from),
                  until: dayAndMonth(data.until),
                })
              : $t('Cover, {from} to {until}', { from: dayAndMonth(data.from), until: dayAndMonth(data.until) })
          }}</span>
          <select
            v-else
            class="box"
            :value="data.role"
            :aria-label="$t('Role of {name} in {room}', { name: data.fullName, room: room.name })"
            @change="setRole(data, $event)"
          >
            <option v-for="role in lasting" :key="role" :value="role">{{ roles[role] }}</option>
          </select>
        </template>
      </Column>
      <Column>
        <template #body="{ data }">
          <button
            type="button"
            class="button plain small"
            :aria-label="$t('Take {name} out of {room}', { name: data.fullName, room: room.name })"
            @click="ask(data)"
          >
            {{ $t('Take out') }}
          </button>
        </template>
      </Column>
    </DataTable>
    <AskForm v-if="leaving" :key="leaving.id" class="told" :send="end">
      <p>
        {{
          $t('{name} will not see {room} any more, on no device, from now on. What was recorded stays.', {
            name: leaving.fullName,
            room: room.name,
          })
        }}
      </p>
      <FaultyField v-if="leaving.lessons" name="takesOver" :label="$t('Who takes the lessons in the timetable?')"
        ><select v-model="takesOver" class="box" required>
          <option :value="null" disabled>{{ $t('Who') }}</option>
          <option v-for="a in others" :key="a.id" :value="a.id">{{ a.fullName }}</option>
        </select></FaultyField
      >
      <div class="beside">
        <button class="button main">{{ $t('Take out {name}', { name: leaving.fullName }) }}</button>
        <button type="button" class="button plain" @click="leaving = undefined">{{ $t('Leave it') }}</button>
      </div>
    </AskForm>
    <AskForm class="beside line" :send="add">
      <FaultyField name="fullName"
        ><input v-model="adult.fullName" type="text" :placeholder="$t('Name')" :aria-label="$t('Name')"
      /></FaultyField>
      <FaultyField name="email"
        ><input
          v-model="adult.email"
          type="email"
          :placeholder="$t('E-mail')"
          :aria-label="$t('E-mail')"
          autocomplete="off"
          required
      /></FaultyField>
      <select v-model="adult.role" class="box" :aria-label="$t('Role')">
        <option v-for="(label, role) in roles" :key="role" :value="role">{{ label }}</option>
      </select>
      <template v-if="adult.role === 'Cover'">
        <FaultyField name="from"><DayField v-model="adult.from" :label="$t('First day')" required /></FaultyField>
        <FaultyField name="until"
          ><DayField v-model="adult.until" :label="$t('Last day')" :min="adult.from" required
        /></FaultyField>
        <FaultyField name="inPlaceOf"
          ><select v-model="adult.inPlaceOf" class="box" :aria-label="$t('Whose lessons')">
            <option :value="null">{{ $t('helps, takes nobody’s lessons') }}</option>
            <option v-for="a in teaching" :key="a.id" :value="a.id">
              {{ $t('takes the lessons of {name}', { name: a.fullName }) }}
            </option>
          </select></FaultyField
        >
      </template>
      <button class="button">{{ $t('Add') }}</button>
    </AskForm>
    <p class="soft small">
      {{
        $t(
          'They choose their password themselves, by a link that opens once. Whoever has an account here needs only the e-mail. Cover sees the class and records on its days only; added again, it gets other days. Where it takes somebody’s lessons, plan, groups and paper of these days name it.',
        )
      }}
    </p>
  </div>
</template>

<style scoped src="./school.css"></style>

<style scoped>
.adults {
  margin-bottom: 0.8rem;
}

.adults .button {
  white-space: nowrap;
}
</style>
