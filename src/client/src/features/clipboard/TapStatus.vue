<script setup lang="ts">
import { ref } from 'vue'
import { useAccount } from '@/app/account'
import { moment } from '@/app/dates'
import { outbox } from './useOutbox'
import { t } from '@/app/language'

/** What waits to be sent, said calmly; and what needs an adult's decision, until it has one. */
const { classId } = useAccount()
const waits = (n: number) => (n === 1 ? t('1 waits') : t('{n} wait', { n }))

function without(id: string) {
  void outbox.retry(id, { sessionId: null })
}
// Asked once more at the same place: what is put away is gone.
const dropping = ref('')
function drop(id: string) {
  if (dropping.value === id) void outbox.drop(id)
  dropping.value = dropping.value === id ? '' : id
}
</script>

<template>
  <span v-if="outbox.trouble.value && outbox.waiting.value">
    {{
      $t('· {trouble} {waits} to be sent; keep going.', {
        trouble: outbox.trouble.value,
        waits: waits(outbox.waiting.value),
      })
    }}
    <RouterLink v-if="outbox.signedOut.value" :to="{ name: 'sign-in' }">{{ $t('Sign in') }}</RouterLink>
  </span>
  <span v-else-if="outbox.others.value">
    {{ $t('· {waits} for the adult who tapped to sign in on this device.', { waits: waits(outbox.others.value) }) }}
  </span>
  <ul v-if="outbox.aside.value.length" class="aside" :aria-label="$t('Could not be recorded')">
    <li v-for="kept in outbox.aside.value" :key="kept.entry.id">
      <span
        ><b>{{ kept.entry.what }}</b
        >, {{ moment(new Date(kept.entry.made).toISOString()) }}: {{ kept.why }}</span
      >
      <button
        v-if="kept.fields.includes('sessionId')"
        type="button"
        class="button small main"
        @click="without(kept.entry.id)"
      >
        {{ $t('Record it without the session') }}
      </button>
      <button type="button" class="button small" @click="outbox.retry(kept.entry.id)">{{ $t('Try again') }}</button>
      <button type="button" class="button plain small" @click="drop(kept.entry.id)">
        {{ dropping === kept.entry.id ? $t('Put it away for good?') : $t('Put away') }}
      </button>
      <span v-if="kept.entry.classId !== classId" class="small soft">{{ $t('of another class') }}</span>
    </li>
  </ul>
</template>

<style scoped>
.aside {
  list-style: none;
  margin: 0.5rem 0;
  padding: 0.2rem 0.8rem;
  border: 1.5px solid var(--brick);
  border-radius: var(--corner);
}

.aside li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 0.6rem;
  padding: 0.35rem 0;
}

.aside span:first-child {
  flex: 1 1 18rem;
}
</style>
