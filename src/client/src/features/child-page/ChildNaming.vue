<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { api, take, type Schemas } from '@/app/api/client'
import { queryKey } from '@/app/keys'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import DayField from '@/ui/DayField.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say } from '@/ui/notices'
import PageError from '@/ui/PageError.vue'

/** A name or a birthday that was wrong, or has changed. What was seen of the child stays with it. */
const { classId, childId, sharesName } = defineProps<{ classId: number; childId: number; sharesName: boolean }>()
const queries = useQueryClient()
const path = () => ({ path: { classId, childId } })
const { data: kept, error } = useQuery({
  queryKey: queryKey('child-name', classId, childId),
  queryFn: () => take(api.GET('/api/classes/{classId}/children/{childId}/name', { params: path() })),
})
const naming = ref<Schemas['Naming']>()
watch(kept, (now) => now && (naming.value = { ...now, born: now.born ?? '', mark: now.mark ?? '' }), {
  immediate: true,
})

async function keep() {
  const { born, mark, ...names } = naming.value!
  await take(
    api.PUT('/api/classes/{classId}/children/{childId}/name', {
      params: path(),
      body: { ...names, born: born || null, mark: mark || null },
    }),
  )
  await queries.invalidateQueries()
  say(t('It is put right, here and in everything that was recorded.'))
}
</script>

<template>
  <PageError v-if="error" :error="error" />
  <AskForm v-if="naming" class="beside naming" :send="keep">
    <FaultyField name="givenName" :label="$t('First name')"
      ><input v-model="naming.givenName" type="text" maxlength="80" autocomplete="off" required
    /></FaultyField>
    <FaultyField name="familyName" :label="$t('Last name')"
      ><input v-model="naming.familyName" type="text" maxlength="80" autocomplete="off"
    /></FaultyField>
    <FaultyField name="born" :label="$t('Born')"><DayField v-model="naming.born!" :label="$t('Born')" /></FaultyField>
    <FaultyField name="mark" :label="$t('Told apart by')"
      ><input v-model="naming.mark" type="text" maxlength="12" size="6"
    /></FaultyField>
    <button class="button">{{ $t('Keep') }}</button>
  </AskForm>
  <p class="small soft">
    {{
      sharesName
        ? $t(
            'Two have this name: a letter or two tells them apart, nothing that says what a child is like. Without it, the birthday does.',
          )
        : $t('The last name is shown by its first letter only; a mark is needed where two have one name.')
    }}
  </p>
</template>

<style scoped>
.naming {
  align-items: end;
}
</style>
