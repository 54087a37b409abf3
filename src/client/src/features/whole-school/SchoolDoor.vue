<script setup lang="ts">
import { useRouter } from 'vue-router'
import { useAccount, useForget } from '@/app/account'
import { api, take } from '@/app/api/client'
import { sayError } from '@/ui/notices'
import SchoolPage from './SchoolPage.vue'

/** The school's page for whoever leads it without belonging to a class. */
const router = useRouter()
const { account } = useAccount()
const forget = useForget()
async function leave() {
  await take(api.POST('/api/account/sign-out', {})).catch(sayError)
  await forget()
  await router.push('/sign-in')
}
</script>

<template>
  <main>
    <p class="who">
      <b>{{ account?.signedIn?.fullName }}</b>
      <button type="button" class="button plain small" @click="leave">{{ $t('Sign out') }}</button>
    </p>
    <SchoolPage />
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
