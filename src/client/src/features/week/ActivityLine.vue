<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { decide } from '@/ui/changed'
import { sayError } from '@/ui/notices'

/** What is done in a part of a day, and what could be done instead, the best first, each with what speaks for it. */
const props = defineProps<{
  day: string
  place: Schemas['Place']
  skill?: string
  activity: Schemas['NamedActivity']
  pinned: boolean
  canSwap: boolean
}>()
const queries = useQueryClient()
const { classId } = useAccount()
const others = ref<Schemas['Alternative'][]>()
const path = () => ({ classId: classId.value, day: props.day })

const ask = useMutation({
  mutationFn: () =>
    take(
      api.GET('/api/classes/{classId}/days/{day}/alternatives', {
        params: { path: path(), query: { place: props.place, ...(props.skill ? { skill: props.skill } : {}) } },
      }),
    ),
  onSuccess: (found) => (others.value = found),
  onError: sayError,
})
const swap = useMutation({
  mutationFn: (activity: string | null) =>
    decide(
      () =>
        take(
          api.PUT('/api/classes/{classId}/days/{day}/activity', {
            params: { path: path() },
            body: { place: props.place, skill: props.skill ?? null, was: props.activity.id, activity },
          }),
        ),
      () => queries.invalidateQueries(),
    ),
  onSuccess: async () => {
    others.value = undefined
    await queries.invalidateQueries()
  },
  onError: sayError,
})
</script>

<template>
  <div class="line">
    <RouterLink :to="{ name: 'activity', params: { classId, id: activity.id } }">{{ activity.name }}</RouterLink>
    <button
      v-if="canSwap"
      type="button"
      class="button plain small"
      :aria-expanded="!!others"
      :aria-label="$t('Another instead of {name}', { name: activity.name })"
      @click="others ? (others = undefined) : ask.mutate()"
    >
      {{ others ? $t('Close') : $t('Other') }}
    </button>
    <button
      v-if="pinned && canSwap"
      type="button"
      class="button plain small"
      :aria-label="$t('Let go of the pin on {name}', { name: activity.name })"
      @click="swap.mutate(null)"
    >
      {{ $t('Pinned ×') }}
    </button>
    <span v-else-if="pinned" class="small soft">{{ $t('pinned') }}</span>
    <ol v-if="others" class="others">
      <li v-for="other in others.slice(0, 8)" :key="other.activity.id">
        <button
          type="button"
          class="button small"
          :disabled="swap.isPending.value"
          @click="swap.mutate(other.activity.id)"
        >
          {{ other.activity.name }}{{ other.chosen ? ' ' + $t('(now)') : '' }}
        </button>
        <span class="soft">{{ other.reason }}</span>
      </li>
      <li v-if="others.length < 2" class="soft">{{ $t('There is no other for it.') }}</li>
    </ol>
  </div>
</template>

<style scoped>
.line {
  font-size: 0.875rem;
}

.line .plain {
  min-height: 26px;
  padding-block: 0;
}

.others {
  margin: 0.2rem 0 0.4rem;
  padding: 0.4rem;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  list-style: none;
}

.others li {
  margin-bottom: 0.4rem;
  line-height: 1.25;
}
</style>
