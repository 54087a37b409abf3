<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import SelectButton from 'primevue/selectbutton'
import { computed, ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { queryKey } from '@/app/keys'
import { questions, type Choice } from '@/app/questions'

/** Three of the things on which good teachers differ; the others stay as is usual until someone changes them. */
const emit = defineEmits<{ keep: [] }>()
const queries = useQueryClient()
const { classId } = useAccount()
const { data: approach } = useQuery({
  queryKey: queryKey('approach', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/approach', { params: { path: { classId: classId.value } } })),
})
const three = questions.filter((q) => ['groups', 'sheets', 'symbols'].includes(q.name))
const said = ref<Partial<Choice>>({})
const choice = computed(() => approach.value && { ...approach.value.choice, ...said.value })
const busy = ref(false)

async function keep() {
  busy.value = true
  try {
    if (Object.keys(said.value).length) {
      await take(
        api.PATCH('/api/classes/{classId}/approach', {
          params: { path: { classId: classId.value } },
          body: said.value,
        }),
      )
      await queries.invalidateQueries({ queryKey: queryKey('approach') })
    }
    emit('keep')
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form v-if="choice" class="three" @submit.prevent="keep">
    <div v-for="question in three" :key="question.name">
      <p :id="`first-${question.name}`">{{ question.asks }}</p>
      <SelectButton
        :model-value="choice[question.name]"
        :options="question.of"
        option-label="label"
        option-value="value"
        :allow-empty="false"
        :aria-labelledby="`first-${question.name}`"
        @update:model-value="said = { ...said, [question.name]: $event }"
      />
      <p class="small soft">{{ question.of.find((o) => o.value === choice![question.name])?.means }}</p>
    </div>
    <div class="buttons">
      <button class="button main" :disabled="busy">{{ $t('Keep it so') }}</button>
      <RouterLink class="button plain" :to="{ name: 'approach', params: { classId } }">{{
        $t('All choices there are')
      }}</RouterLink>
    </div>
  </form>
</template>

<style scoped>
.three {
  display: grid;
  gap: 0.8rem;
}

p {
  margin: 0 0 0.3rem;
}

.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
</style>
