<script setup lang="ts">
import { ref } from 'vue'
import { api, take, type Schemas } from '@/app/api/client'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say } from '@/ui/notices'

/** All that is kept, as a file: of one child, for a family that asks to see it, or of the school. */
const { view } = defineProps<{ view: Schemas['ChildrenOfSchoolView'] }>()
const child = ref<number | null>(null)
const password = ref('')

// The browser takes it to its downloads, with the session's cookie; the page stays.
function fetchIt(address: string) {
  location.assign(address)
  say(t('The file is on its way to your downloads.'))
}
const ofChild = () => Promise.resolve(fetchIt(`/api/school/children/${child.value}/everything`))
async function ofSchool() {
  const { address } = await take(api.POST('/api/school/everything', { body: { password: password.value } }))
  password.value = ''
  fetchIt(address)
}
</script>

<template>
  <div>
    <h2>{{ $t('All that is kept, as a file') }}</h2>
    <AskForm class="beside one" :send="ofChild">
      <FaultyField name="childId" :label="$t('Of one child')"
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
      <button class="button">{{ $t('Take it out') }}</button>
    </AskForm>
    <p class="soft small">
      {{
        $t(
          'For a family that asks what is kept: a page to read, observations as a table, photos. It names no other child. Look through it before you hand it over: a note may speak of somebody else.',
        )
      }}
    </p>
    <AskForm class="beside one" :send="ofSchool">
      <FaultyField name="password" :label="$t('Of the whole school: your password, once more')"
        ><input v-model="password" type="password" autocomplete="current-password" required
      /></FaultyField>
      <button class="button">{{ $t('Take the school out') }}</button>
    </AskForm>
    <p class="soft small">
      {{
        $t(
          'Every table, every observation and photo, of every class: names of children and all. It is no backup, and leaves a trace.',
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
