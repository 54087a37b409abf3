<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { moment } from '@/app/dates'
import { representationLabel, settingLabel, supportLabel } from './marks'
import { say } from './notices'
import { t } from '@/app/language'
import AskForm from './AskForm.vue'
import FaultyField from './FaultyField.vue'

/** One observation with who and when; what was wrong can be withdrawn, and says why for good. */
const props = defineProps<{ once: Schemas['SeenOnce']; skill?: boolean; who?: string }>()
const { classId, records } = useAccount()
const queries = useQueryClient()
const asking = ref(false)
const why = ref('')
async function withdraw() {
  await take(
    api.POST('/api/classes/{classId}/observations/{id}/withdraw', {
      params: { path: { classId: classId.value, id: props.once.id } },
      body: { why: why.value },
    }),
  )
  asking.value = false
  await queries.invalidateQueries()
  say(t('Withdrawn. It stays on record and no longer counts.'))
}
</script>

<template>
  <div class="once" :class="{ gone: once.withdrawnWhy }">
    <span v-if="who" class="said">{{ who }}</span>
    <span v-if="skill" class="said">{{ once.short }}</span>
    <b>{{ supportLabel(once.support) }}</b>, {{ representationLabel(once.representation) }},
    {{ settingLabel(once.setting) }}
    <span v-if="once.numbers" class="said numbers">{{ once.numbers }}</span>
    <div v-if="once.slip || once.strategy" class="small">
      {{ [once.slip, once.strategy].filter(Boolean).join(' · ') }}
    </div>
    <div v-if="once.note" class="small said">“{{ once.note }}”</div>
    <a
      v-if="once.hasPhoto && !once.withdrawnWhy"
      :href="`/api/classes/${classId}/observations/${once.id}/photo`"
      target="_blank"
      class="small"
      ><img
        :src="`/api/classes/${classId}/observations/${once.id}/photo`"
        :alt="$t('What the child made')"
        loading="lazy"
    /></a>
    <div class="small soft">
      {{ moment(once.at) }}, {{ once.by }}
      <template v-if="once.broughtBy">{{ $t('(brought in by {broughtBy})', { broughtBy: once.broughtBy }) }}</template>
      <template v-if="once.withdrawnWhy">
        {{ ' '
        }}{{
          $t('· withdrawn by {withdrawnBy}, {moment}: {withdrawnWhy}', {
            withdrawnBy: once.withdrawnBy,
            moment: moment(once.withdrawnAt!),
            withdrawnWhy: once.withdrawnWhy,
          })
        }}
      </template>
      <button v-else-if="records && !asking" type="button" class="button plain small" @click="asking = true">
        {{ $t('Withdraw') }}
      </button>
    </div>
    <AskForm v-if="asking" class="why" :send="withdraw">
      <FaultyField name="why"
        ><input
          v-model="why"
          type="text"
          maxlength="200"
          :placeholder="$t('Why?')"
          :aria-label="$t('Why is it withdrawn?')"
          required
      /></FaultyField>
      <button class="button small">{{ $t('Withdraw') }}</button>
      <button type="button" class="button plain small" @click="asking = false">{{ $t('Leave it') }}</button>
    </AskForm>
  </div>
</template>

<style scoped>
.once {
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--line);
}

.once > .said {
  margin-right: 0.6rem;
}

.gone {
  color: var(--ink-soft);
}

.gone b {
  text-decoration: line-through;
}

.numbers {
  padding-left: 0.3rem;
}

img {
  display: block;
  max-width: 9rem;
  max-height: 7rem;
  border: 1px solid var(--line-strong);
}

.why {
  display: flex;
  gap: 0.4rem;
  margin-top: 0.3rem;
}

.why input {
  flex: 1;
  min-width: 0;
}
</style>
