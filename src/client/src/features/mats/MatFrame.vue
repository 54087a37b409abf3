<script setup lang="ts">
import { useAccount } from '@/app/account'

/** What every mat has around it: its name, the way back to the shelf, the mat, and what to do with it beside it. */
defineProps<{ name: string; problem?: Error | null }>()
const { classId } = useAccount()
</script>

<template>
  <div class="page">
    <div class="page-head">
      <RouterLink class="small" :to="{ name: 'mats', params: { classId } }">{{ $t('All mats') }}</RouterLink>
      <h1>{{ name || '…' }}</h1>
    </div>
    <p v-if="problem" class="warn" role="alert">{{ problem.message }}</p>
    <div class="frame">
      <div class="main"><slot /></div>
      <aside class="side" :aria-label="$t('What to do with it')"><slot name="side" /></aside>
    </div>
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 20rem;
  gap: 1rem 1.6rem;
  align-items: start;
}

.main {
  display: grid;
  gap: 1rem;
}

.side {
  display: grid;
  gap: 1rem;
}

@media (max-width: 1000px) {
  .frame {
    grid-template-columns: minmax(0, 1fr);
  }

  .side {
    grid-template-columns: repeat(auto-fit, minmax(16rem, 1fr));
  }
}
</style>
