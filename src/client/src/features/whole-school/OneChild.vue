<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, take, type Schemas } from '@/app/api/client'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import DayField from '@/ui/DayField.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say } from '@/ui/notices'

/** A child that goes to another class today, leaves the school, or comes back. */
const { view } = defineProps<{ view: Schemas['ChildrenOfSchoolView'] }>()
const queries = useQueryClient()
const AWAY = 0
const child = ref<number | null>(null)
const to = ref<number | null>(null)
const keptUntil = ref(view.usuallyKeptUntil)
const name = computed(
  () => [...view.classes.flatMap((c) => c.children), ...view.left].find((c) => c.id === child.value)?.name ?? '',
)

async function go() {
  const [childId, classId] = [child.value ?? 0, to.value ?? 0]
  if (classId === AWAY)
    await take(
      api.POST('/api/school/children/{childId}/leave', {
        params: { path: { childId } },
        body: { keptUntil: keptUntil.value },
      }),
    )
  else await take(api.PUT('/api/school/children/{childId}/class/{classId}', { params: { path: { childId, classId } } }))
  const done =
    classId === AWAY
      ? t('{name} has left. The record is kept, and nobody’s page shows it.', { name: name.value })
      : t('{name} is in {room} now, with all that was seen.', {
          name: name.value,
          room: view.classes.find((c) => c.id === classId)?.name,
        })
  await queries.invalidateQueries()
  child.value = null
  say(done)
}
</script>

<template>
  <div>
    <h2>{{ $t('One child, today') }}</h2>
    <AskForm class="beside one" :send="go">
      <FaultyField name="child" :label="$t('Who')"
        ><select v-model="child" class="box" required>
          <option :value="null" disabled>{{ $t('Which child') }}</option>
          <optgroup v-for="room in view.classes" :key="room.id" :label="room.name">
            <option v-for="c in room.children" :key="c.id" :value="c.id">{{ c.name }}</option>
          </optgroup>
          <optgroup v-if="view.left.length" :label="$t('Has left')">
            <option v-for="c in view.left" :key="c.id" :value="c.id">{{ c.name }}</option>
          </optgroup>
        </select></FaultyField
      >
      <FaultyField name="classId" :label="$t('goes to')"
        ><select v-model="to" class="box" required>
          <option :value="null" disabled>{{ $t('Where') }}</option>
          <option v-for="room in view.classes" :key="room.id" :value="room.id">{{ room.name }}</option>
          <option :value="AWAY">{{ $t('away from the school') }}</option>
        </select></FaultyField
      >
      <FaultyField v-if="to === AWAY" name="keptUntil" :label="$t('Record kept until')"
        ><DayField v-model="keptUntil" :label="$t('Record kept until')"
      /></FaultyField>
      <button class="button">{{ $t('Write it down') }}</button>
    </AskForm>
    <p class="soft small">
      {{
        $t(
          'The class it comes to sees all of its record, the class it goes from no more of it. Who leaves takes a file along: its lead teacher has it on the child’s page, before.',
        )
      }}
    </p>
  </div>
</template>

<style scoped>
.one {
  align-items: end;
}
</style>
