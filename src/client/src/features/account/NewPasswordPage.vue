<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, take } from '@/app/api/client'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say } from '@/ui/notices'

/** Come to by a link: another password in place of one that is lost. What the link carries stands behind its #, which browsers send to nobody. */
const route = useRoute()
const router = useRouter()
const [, id, token] = /^#(\d+)\.(.+)$/.exec(route.hash) ?? []
const password = ref('')
async function choose() {
  await take(
    api.POST('/api/account/new-password', {
      body: { adultId: Number(id ?? 0), token: decodeURIComponent(token ?? ''), password: password.value },
    }),
  )
  say(t('Your password is changed. Sign in with it.'))
  await router.replace('/sign-in')
}
</script>

<template>
  <main class="page new">
    <h1>{{ $t('A new password') }}</h1>
    <AskForm class="ruled" :send="choose">
      <FaultyField name="password" :label="$t('Password (ten letters or more)')"
        ><input v-model="password" type="password" autocomplete="new-password" required
      /></FaultyField>
      <p class="soft small">
        {{ $t('Three or four words that have nothing to do with each other are hard to guess.') }}
      </p>
      <button class="button main">{{ $t('Take it') }}</button>
    </AskForm>
  </main>
</template>

<style scoped>
.new {
  max-width: 26rem;
  margin: 4rem auto;
}
</style>
