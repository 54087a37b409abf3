<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { moment } from '@/app/dates'
import { queryKey } from '@/app/keys'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say, sayError } from '@/ui/notices'
import PageError from '@/ui/PageError.vue'
import CalendarAddress from './CalendarAddress.vue'
import SecondStep from './SecondStep.vue'

/** One's own account: a new password, and the devices on which one is signed in. */
const queries = useQueryClient()
const { account, current } = useAccount()
const key = queryKey('devices')
const { data: devices, error } = useQuery({
  queryKey: key,
  queryFn: () => take(api.GET('/api/account/devices', {})),
})

const empty = () => ({ current: '', next: '' })
const words = ref(empty())
async function change() {
  await take(api.PUT('/api/account/password', { body: words.value }))
  words.value = empty()
  say(t('Your password is changed. Other devices are signed out.'))
  await queries.invalidateQueries({ queryKey: key })
}

async function end(deed: Promise<unknown>) {
  await deed.catch(sayError)
  await queries.invalidateQueries({ queryKey: key })
}
const endOne = (id: string) => end(take(api.DELETE('/api/account/devices/{id}', { params: { path: { id } } })))
const endOthers = () => end(take(api.DELETE('/api/account/devices', {})))
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Your account') }}</h1>
      <span class="soft" data-quoted>{{ account?.signedIn?.fullName }}</span>
    </div>
    <PageError v-if="error" :error="error" />
    <div class="parts">
      <section class="ruled">
        <h2>{{ $t('Where you are signed in') }}</h2>
        <ul v-if="devices" class="devices">
          <li v-for="d in devices" :key="d.id">
            <b data-quoted>{{ d.what || $t('A device that does not say what it is') }}</b>
            <span class="soft small">
              {{ d.here ? $t('this one') : $t('last here {moment}', { moment: moment(d.seenAt) }) }},
              {{ $t('since {moment}', { moment: moment(d.since) }) }}
            </span>
            <button
              v-if="!d.here"
              type="button"
              class="button plain small"
              :aria-label="$t('Sign out {what}', { what: d.what })"
              @click="endOne(d.id)"
            >
              {{ $t('Sign it out') }}
            </button>
          </li>
        </ul>
        <button v-if="(devices?.length ?? 0) > 1" type="button" class="button" @click="endOthers">
          {{ $t('Sign out everywhere else') }}
        </button>
        <p class="soft small">
          {{
            $t(
              'A device that is signed out opens nothing any more, at once. What was tapped there and not yet sent waits for you there.',
            )
          }}
        </p>
      </section>
      <section class="ruled">
        <h2>{{ $t('Password') }}</h2>
        <AskForm :send="change">
          <FaultyField name="current" :label="$t('The one you have')"
            ><input v-model="words.current" type="password" autocomplete="current-password" required
          /></FaultyField>
          <FaultyField name="next" :label="$t('The new one')"
            ><input v-model="words.next" type="password" autocomplete="new-password" required
          /></FaultyField>
          <p class="soft small">
            {{
              $t('Ten letters or more. Three or four words that have nothing to do with each other are hard to guess.')
            }}
          </p>
          <button class="button main">{{ $t('Change it') }}</button>
        </AskForm>
      </section>
      <section class="ruled"><SecondStep /></section>
      <section v-if="!current?.archived" class="ruled"><CalendarAddress /></section>
    </div>
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(22rem, 1fr));
  gap: 1.6rem;
}

.devices {
  margin: 0 0 0.8rem;
  padding: 0;
  list-style: none;
}

.devices li {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  min-height: var(--target);
  border-bottom: 1px solid var(--line);
}

.devices span {
  grid-row: 2;
}

.devices button {
  grid-row: 1 / span 2;
  grid-column: 2;
}

input {
  max-width: 22rem;
}
</style>
