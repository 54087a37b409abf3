<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import Drawer from 'primevue/drawer'
import { ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { moment } from '@/app/dates'
import MarkFrame from '@/ui/MarkFrame.vue'
import { representationLabel, settingLabel, strengthName, supportLabel } from '@/ui/marks'
import { say, sayError } from '@/ui/notices'

/** Why a cell is as it is: the clauses, and every observation behind it. */
const props = defineProps<{ childId: number; skillId: string }>()
const emit = defineEmits<{ close: [] }>()
const { classId, records } = useAccount()
const queries = useQueryClient()
const { data: cell, error } = useQuery({
  queryKey: ['cell', classId, () => props.childId, () => props.skillId],
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/children/{childId}/skills/{skillId}', {
        params: { path: { classId: classId.value, childId: props.childId, skillId: props.skillId } },
      }),
    ),
})

const withdrawing = ref<string>()
const why = ref('')
async function withdraw(id: string) {
  try {
    await take(
      api.POST('/api/classes/{classId}/observations/{id}/withdraw', {
        params: { path: { classId: classId.value, id } },
        body: { why: why.value },
      }),
    )
    withdrawing.value = undefined
    why.value = ''
    await queries.invalidateQueries()
    say('Withdrawn. It stays on record and no longer counts.')
  } catch (problem) {
    sayError(problem)
  }
}
</script>

<template>
  <Drawer
    visible
    position="right"
    :style="{ width: 'min(27rem, 100vw)' }"
    :header="cell ? `${cell.child} · ${cell.skill}` : ' '"
    @update:visible="emit('close')"
  >
    <p v-if="error" class="warn">{{ error.message }}</p>
    <p v-else-if="!cell" class="soft">Fetching what was seen…</p>
    <template v-else>
      <p class="said can">{{ cell.iCan }}</p>
      <p class="state">
        <MarkFrame :strength="cell.strength" :look-again="cell.lookAgain" silent class="large" />
        {{ strengthName(cell.strength) }}{{ cell.lookAgain ? ', look again' : '' }}
      </p>
      <p>{{ cell.sentence }}</p>
      <p class="soft">{{ cell.ready }}</p>

      <h3>Secure asks for</h3>
      <ul class="clauses">
        <li v-for="clause in cell.clauses" :key="clause.asks" :class="{ holds: clause.holds }">
          <span class="hidden-words">{{ clause.holds ? 'There: ' : 'Missing: ' }}</span>{{ clause.asks
          }}<span v-if="!clause.holds" class="soft"> – still to come: {{ clause.stillToCome }}</span>
        </li>
      </ul>

      <h3>Seen {{ cell.seen.length ? '' : '– nothing yet' }}</h3>
      <ul class="seen">
        <li v-for="once in cell.seen" :key="once.id" :class="{ gone: once.withdrawnWhy }">
          <b>{{ supportLabel(once.support) }}</b>, {{ representationLabel(once.representation) }},
          {{ settingLabel(once.setting) }}
          <span v-if="once.numbers" class="numbers">{{ once.numbers }}</span>
          <div v-if="once.slip || once.strategy" class="small">
            {{ [once.slip, once.strategy].filter(Boolean).join(' · ') }}
          </div>
          <div v-if="once.note" class="small said">“{{ once.note }}”</div>
          <div class="small soft">
            {{ moment(once.at) }}, {{ once.by }}
            <span v-if="once.withdrawnWhy">· withdrawn: {{ once.withdrawnWhy }}</span>
            <button
              v-else-if="records && withdrawing !== once.id"
              type="button"
              class="button plain small"
              @click="withdrawing = once.id"
            >
              Withdraw
            </button>
          </div>
          <form v-if="withdrawing === once.id" class="why" @submit.prevent="withdraw(once.id)">
            <input
              v-model="why"
              type="text"
              maxlength="200"
              placeholder="Why?"
              aria-label="Why is it withdrawn?"
              required
            />
            <button class="button small">Withdraw</button>
          </form>
        </li>
      </ul>

      <h3>Look for</h3>
      <ul>
        <li v-for="sign in cell.lookFor" :key="sign">{{ sign }}</li>
      </ul>
    </template>
  </Drawer>
</template>

<style scoped>
.can {
  font-size: 1.25rem;
}

.state {
  font-weight: 700;
}

.large {
  width: 84px;
  height: 18px;
}

h3 {
  margin-top: 1.1rem;
  border-top: 1px solid var(--line);
  padding-top: 0.5rem;
}

.clauses {
  list-style: none;
  padding: 0;
}

.clauses li {
  padding: 0.2rem 0 0.2rem 1.6rem;
  position: relative;
}

.clauses li::before {
  content: '';
  position: absolute;
  left: 0.1rem;
  top: 0.5rem;
  width: 13px;
  height: 13px;
  border: 2px solid var(--spruce);
  border-radius: 50%;
}

.clauses li.holds::before {
  background: var(--spruce);
}

.seen {
  list-style: none;
  padding: 0;
}

.seen li {
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--line);
}

.seen li.gone {
  color: var(--ink-soft);
}

.seen li.gone b {
  text-decoration: line-through;
}

.numbers {
  font-family: var(--child);
  padding-left: 0.3rem;
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
