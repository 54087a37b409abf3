<script setup lang="ts">
import { computed, watch } from 'vue'
import { useAccount, useLeave } from '@/app/account'
import { schoolIsAt } from '@/app/dates'

/** The school's page for whoever leads it without belonging to a class. */
const { account } = useAccount()
const leave = useLeave()
const led = computed(() => account.value?.signedIn?.leads)
watch(led, (school) => school && schoolIsAt(school.locale, school.timeZone), { immediate: true })
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
