<script setup lang="ts">
import { ref } from 'vue'
import { api, take } from '@/app/api/client'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'

/** Asks for a mail with a link to a new password. Whether anybody has the address is told to nobody. */
const email = ref('')
const asked = ref('')
async function ask() {
  await take(api.POST('/api/account/lost-password', { body: { email: email.value } }))
  asked.value = email.value
}
</script>

<template>
  <main class="page lost">
    <h1>{{ $t('Lost your password?') }}</h1>
    <div v-if="asked" class="ruled" role="status">
      <p>
        {{
          $t(
            'If {email} is the address of an account here, a mail is on its way. The link in it opens once, within a day.',
            {
              email: asked,
            },
          )
        }}
      </p>
      <p class="soft small">
        {{ $t('Nothing comes? Whoever leads the school can give you a link, too.') }}
      </p>
    </div>
    <AskForm v-else class="ruled" :send="ask">
      <FaultyField name="email" :label="$t('E-mail')"
        ><input v-model="email" type="email" autocomplete="username" required
      /></FaultyField>
      <button class="button main">{{ $t('Send me a link') }}</button>
    </AskForm>
    <p>
      <RouterLink to="/sign-in">{{ $t('Back to the door') }}</RouterLink>
    </p>
  </main>
</template>

<style scoped>
.lost {
  max-width: 26rem;
  margin: 4rem auto;
}
</style>
