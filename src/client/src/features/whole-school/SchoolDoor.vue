<script setup lang="ts">
import { useAccount, useLeave } from '@/app/account'

/** The school's page for whoever leads it without belonging to a class. */
const { account } = useAccount()
const leave = useLeave()
</script>

<template>
  <main>
    <p class="who">
      <b>{{ account?.signedIn?.fullName }}</b>
      <button type="button" class="button plain small" @click="leave">{{ $t('Sign out') }}</button>
    </p>
    <RouterView />
  </main>
</template>

<style scoped>
.who {
  display: flex;
  gap: 1rem;
  justify-content: flex-end;
  margin: 0;
  padding: 0.6rem 1.5rem 0;
}
</style>
