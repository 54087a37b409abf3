<script setup lang="ts">
import { computed } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { useAccount } from '@/app/account'
import { Refused } from '@/app/api/client'

/** Instead of a page that could not be had: why, and the way on. */
const props = defineProps<{ error: Error }>()
const queries = useQueryClient()
const { classId } = useAccount()
const gone = computed(() => props.error instanceof Refused && props.error.status === 404)
const again = () => queries.refetchQueries({ type: 'active', predicate: (query) => query.state.status === 'error' })
</script>

<template>
  <div class="page-error" role="alert">
    <p class="warn">{{ error.message }}</p>
    <p>
      <template v-if="gone">
        <RouterLink class="button" :to="{ name: 'today', params: { classId } }">{{ $t('To today') }}</RouterLink>
        <span class="soft">{{ $t('or press / and look for it by its name.') }}</span>
      </template>
      <button v-else type="button" class="button" @click="again">{{ $t('Try again') }}</button>
    </p>
  </div>
</template>

<style scoped>
.page-error > p:last-child {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: center;
}
</style>
