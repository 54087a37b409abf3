<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, take, type Schemas } from '@/app/api/client'
import { birthDay } from '@/app/dates'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say } from '@/ui/notices'

/** Whose record is still kept though they have left, and whose time it is to go. Nothing goes without somebody who looks. */
defineProps<{ left: Schemas['ChildThatLeft'][] }>()
const queries = useQueryClient()
const erasing = ref<number>()
const whole = ref('')
async function erase() {
  await take(
    api.POST('/api/school/children/{childId}/erase', {
      params: { path: { childId: erasing.value! } },
      body: { name: whole.value },
    }),
  )
  whole.value = ''
  erasing.value = undefined
  await queries.invalidateQueries()
  say(t('Everything about the child is gone.'))
}
</script>

<template>
  <div>
    <h2>{{ $t('Who has left') }}</h2>
    <ul class="plain-list">
      <li v-for="child in left" :key="child.id">
        <b data-quoted>{{ child.name }}</b>
        <span class="soft small">{{
          ' ' + $t('from {room}, on {day}', { room: child.from, day: birthDay(child.leftOn) })
        }}</span>
        <span class="small" :class="{ due: child.due }">{{
          child.due
            ? $t('Kept until {day}: is it still needed?', { day: birthDay(child.keptUntil) })
            : $t('Kept until {day}.', { day: birthDay(child.keptUntil) })
        }}</span>
        <button
          v-if="erasing !== child.id"
          type="button"
          class="button plain small"
          :aria-label="$t('Erase {name}', { name: child.name })"
          @click="erasing = child.id"
        >
          {{ $t('Erase') }}
        </button>
        <AskForm v-else class="beside" :send="erase">
          <FaultyField name="name" :label="$t('Its whole name, once more')"
            ><input v-model="whole" type="text" autocomplete="off" required
          /></FaultyField>
          <button class="button">{{ $t('Erase for good') }}</button>
          <button type="button" class="button plain" @click="erasing = undefined">{{ $t('Keep') }}</button>
        </AskForm>
      </li>
    </ul>
    <p class="soft small">
      {{
        $t(
          'How long a record is kept is for your school’s officer to say. Erasing can’t be brought back; nothing is erased by itself.',
        )
      }}
    </p>
  </div>
</template>

<style scoped>
.plain-list {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  padding: 0.45rem 0;
  border-top: 1px solid var(--line);
}

li > .small:not(button) {
  display: block;
}

.due {
  color: var(--brick);
  font-weight: 700;
}
</style>
