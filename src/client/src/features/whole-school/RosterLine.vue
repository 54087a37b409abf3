<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { queryKey } from '@/app/keys'
import { t } from '@/app/language'

/** Leads to the office's list, and says whether it waits for somebody. */
const { classId } = useAccount()
const { data: view } = useQuery({
  queryKey: queryKey('roster'),
  queryFn: () => take(api.GET('/api/school/roster', {})),
})
const says = computed(() => {
  if (!view.value) return ''
  if (view.value.refused) return t('The newest file could not be read.')
  const count = view.value.proposals.length
  if (!count) return view.value.taken ? t('Nothing to decide.') : ''
  return count === 1 ? t('One thing to decide.') : t('{count} things to decide.', { count })
})
const waits = computed(() => !!view.value && (!!view.value.refused || view.value.proposals.length > 0))
</script>

<template>
  <p>
    <RouterLink
      class="button"
      :to="classId ? { name: 'school-roster', params: { classId } } : { name: 'school-door-roster' }"
      >{{ $t('The office’s list') }}</RouterLink
    >
    <span class="small" :class="waits ? 'waits' : 'soft'">{{ ' ' + says }}</span>
  </p>
</template>

<style scoped>
.waits {
  font-weight: 700;
}
</style>
