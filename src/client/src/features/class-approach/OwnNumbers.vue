<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref, toRef } from 'vue'
import { queryKey } from '@/app/keys'
import { api, take } from '@/app/api/client'
import { say, sayError } from '@/ui/notices'
import { t } from '@/app/language'

/** Whether other numbers than the usual ones judge this class better: worked out from its record when asked, taken or taken back by hand. */
const { classId } = defineProps<{ classId: number }>()
const queries = useQueryClient()
const asked = ref(false)
const path = () => ({ params: { path: { classId } } })
const { data: found, error } = useQuery({
  queryKey: queryKey(
    'own-numbers',
    toRef(() => classId),
  ),
  queryFn: () => take(api.GET('/api/classes/{classId}/own-numbers', path())),
  enabled: asked,
})
const keep = useMutation({
  mutationFn: (own: boolean) =>
    own
      ? take(api.PUT('/api/classes/{classId}/own-numbers', path()))
      : take(api.DELETE('/api/classes/{classId}/own-numbers', path())),
  onSuccess: async (_, own) => {
    await queries.invalidateQueries()
    say(
      own
        ? t('The class is judged by its own numbers from now on.')
        : t('The class is judged by the usual numbers again.'),
    )
  },
  onError: sayError,
})
</script>

<template>
  <section class="ruled" aria-labelledby="own-head">
    <h2 id="own-head">{{ $t('Numbers of the class’s own') }}</h2>
    <p class="soft">
      {{
        $t(
          'A mark rests on how often children in general show what they have, seem to have what they lack, and learn what they are taught. Once enough was seen, this class’s own record, with that of the school’s other classes behind it, can say whether it is different here.',
        )
      }}
    </p>
    <button v-if="!asked" type="button" class="button" @click="asked = true">{{ $t('Look at the record') }}</button>
    <p v-else-if="error" class="warn" role="alert">{{ error.message }}</p>
    <p v-else-if="!found" role="status">{{ $t('Going through the record…') }}</p>
    <template v-else>
      <p v-if="found.inUse">
        <b>{{ $t('This class is judged by its own numbers.') }}</b>
      </p>
      <ul>
        <li v-for="sentence in found.sentences" :key="sentence">{{ sentence }}</li>
      </ul>
      <div class="beside">
        <button
          v-if="found.better"
          type="button"
          class="button main"
          :disabled="keep.isPending.value"
          @click="keep.mutate(true)"
        >
          {{ found.inUse ? $t('Take today’s numbers') : $t('Judge by these numbers') }}
        </button>
        <button
          v-if="found.inUse"
          type="button"
          class="button"
          :disabled="keep.isPending.value"
          @click="keep.mutate(false)"
        >
          {{ $t('Back to the usual numbers') }}
        </button>
      </div>
    </template>
  </section>
</template>

<style scoped>
section {
  margin-top: 1.4rem;
}
</style>
