<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, take, type Schemas } from '@/app/api/client'
import { queryKey } from '@/app/keys'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say } from '@/ui/notices'

/** A code of one's phone at sign-in, beside the password: put in, and taken out. */
const queries = useQueryClient()
const key = queryKey('second-step')
const { data: step } = useQuery({ queryKey: key, queryFn: () => take(api.GET('/api/account/second-step', {})) })

const password = ref('')
const code = ref('')
const begun = ref<Schemas['SecondStepBegun']>()
const spare = ref<string[]>([])
const side = computed(() => begun.value?.square.length ?? 0)
const square = computed(() =>
  begun.value?.square
    .flatMap((row, y) => [...row].flatMap((dark, x) => (dark === '1' ? `M${x} ${y}h1v1h-1z` : [])))
    .join(''),
)

async function begin() {
  begun.value = await take(api.POST('/api/account/second-step', { body: { password: password.value } }))
  password.value = ''
}
async function putIn() {
  const { ticket } = begun.value!
  const on = await take(api.PUT('/api/account/second-step', { body: { ticket, code: code.value } }))
  spare.value = on.spare
  begun.value = undefined
  code.value = ''
  say(t('Signing in asks for a code of your phone now. Other devices are signed out.'))
  await queries.invalidateQueries({ queryKey: key })
  await queries.invalidateQueries({ queryKey: queryKey('devices') })
}
async function takeOut() {
  await take(api.POST('/api/account/second-step/out', { body: { password: password.value } }))
  password.value = ''
  spare.value = []
  say(t('Your password alone comes in again.'))
  await queries.invalidateQueries({ queryKey: key })
}
</script>

<template>
  <h2>{{ $t('A second step at sign-in') }}</h2>
  <template v-if="spare.length">
    <p>
      {{
        $t('For when the phone is gone, each of these comes in once. Write them down now: they are shown this once.')
      }}
    </p>
    <ul class="spare" data-quoted>
      <li v-for="word in spare" :key="word">
        <code>{{ word }}</code>
      </li>
    </ul>
    <button type="button" class="button" @click="spare = []">{{ $t('They are written down') }}</button>
  </template>
  <template v-else-if="begun">
    <p>
      {{
        $t(
          'Look at the square with a program on your phone that makes sign-in codes, then write here the six digits that it shows.',
        )
      }}
    </p>
    <svg
      class="square"
      role="img"
      :aria-label="$t('A square for your phone; it says the same as the letters beneath.')"
      :viewBox="`0 0 ${side} ${side}`"
    >
      <path :d="square" />
    </svg>
    <p class="soft small">
      {{ $t('Or type it there:') }} <code data-quoted>{{ begun.secret.match(/.{1,4}/g)?.join(' ') }}</code>
    </p>
    <AskForm class="beside line" :send="putIn">
      <FaultyField name="code" :label="$t('The six digits')"
        ><input v-model="code" type="text" inputmode="numeric" autocomplete="one-time-code" maxlength="9" required
      /></FaultyField>
      <button class="button main">{{ $t('Put it in') }}</button>
      <button type="button" class="button plain" @click="begun = undefined">{{ $t('Not now') }}</button>
    </AskForm>
  </template>
  <template v-else-if="step">
    <p v-if="step.on">
      {{ $t('Signing in asks for a code of your phone. Spare codes left: {count}.', { count: step.spareLeft }) }}
    </p>
    <p v-else>
      {{ $t('Besides your password, a code that your phone shows: who finds out the one still lacks the other.') }}
    </p>
    <AskForm class="beside line" :send="step.on ? takeOut : begin">
      <FaultyField name="password" :label="$t('Your password')"
        ><input v-model="password" type="password" autocomplete="current-password" required
      /></FaultyField>
      <button class="button">{{ step.on ? $t('Take it out') : $t('Begin') }}</button>
    </AskForm>
    <p v-if="step.on" class="soft small">
      {{ $t('Another phone, or new spare codes: take it out and put it in again.') }}
    </p>
  </template>
</template>

<style scoped>
.square {
  display: block;
  width: 13rem;
  background: #fff;
}

.square path {
  fill: #000;
}

.spare {
  columns: 2;
  margin: 0.6rem 0 1rem;
  padding: 0;
  list-style: none;
}

.spare code {
  font-size: 1.05rem;
  line-height: 2;
}
</style>
