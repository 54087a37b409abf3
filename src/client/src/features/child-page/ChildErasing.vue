<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, take } from '@/app/api/client'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say } from '@/ui/notices'

/** A child has left, and its time here is over: everything about it goes, for good. */
const { classId, childId, name } = defineProps<{ classId: number; childId: number; name: string }>()
const queries = useQueryClient()
const router = useRouter()
const whole = ref('')
async function erase() {
  const { observations, mentions, onDisk } = await take(
    api.POST('/api/classes/{classId}/children/{childId}/erase', {
      params: { path: { classId, childId } },
      body: { name: whole.value },
    }),
  )
  await router.push({ name: 'class', params: { classId } })
  await queries.invalidateQueries()
  say(t('Erased, with {observations} observations.', { observations }))
  if (mentions) say(t('Notes about other children name the child still: {mentions}.', { mentions }))
  if (!onDisk) say(t('Others were reading: the last bytes of it go when the server is started next.'))
}
</script>

<template>
  <p>
    {{
      $t(
        'Everything about {name} goes and can’t be brought back: what was seen, photos, checks, guesses, wishes, its places in groups. Only that a child was erased, and when, is kept.',
        { name },
      )
    }}
  </p>
  <p>
    <a class="button" :href="`/api/classes/${classId}/children/${childId}/file`" download>{{
      $t('First take out its file')
    }}</a>
    <span class="small soft">{{ ' ' + $t('for the family, or the school it goes to') }}</span>
  </p>
  <AskForm class="beside erasing" :send="erase">
    <FaultyField name="name" :label="$t('Its whole name, once more')"
      ><input v-model="whole" type="text" autocomplete="off" required
    /></FaultyField>
    <button class="button">{{ $t('Erase for good') }}</button>
  </AskForm>
  <p class="small soft">
    {{
      $t(
        'A backup of before holds the child until it is overwritten; put back, Fobble erases the child again. Paper and files that were taken out are yours to destroy. How long a record is kept is for your school’s officer to say.',
      )
    }}
  </p>
</template>

<style scoped>
.erasing {
  align-items: end;
}
</style>
