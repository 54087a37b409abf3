<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import Drawer from 'primevue/drawer'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import MarkFrame from './MarkFrame.vue'
import { strengthName } from './marks'
import { newId } from './newId'
import SeenOnce from './SeenOnce.vue'

/** Why a cell is as it is: the clauses, and every observation behind it. */
const props = defineProps<{ childId: number; skillId: string }>()
const emit = defineEmits<{ close: [] }>()
const { classId, records } = useAccount()
const queries = useQueryClient()
const { data: cell, error } = useQuery({
  queryKey: queryKey(
    'cell',
    classId,
    () => props.childId,
    () => props.skillId,
  ),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/children/{childId}/skills/{skillId}', {
        params: { path: { classId: classId.value, childId: props.childId, skillId: props.skillId } },
      }),
    ),
})

// What is only inferred can be settled at once, by whoever has just seen it.
const settle = useMutation({
  mutationFn: (support: 'Alone' | 'NotYet') =>
    take(
      api.POST('/api/classes/{classId}/observations', {
        params: { path: { classId: classId.value } },
        body: {
          id: newId(),
          childId: props.childId,
          skill: props.skillId,
          at: new Date().toISOString(),
          setting: 'OneToOne',
          support,
          representation: cell.value!.shownIn,
          numbers: null,
          slip: null,
          strategy: null,
          note: null,
          sessionId: null,
        },
      }),
    ),
  onSuccess: () => queries.invalidateQueries(),
})
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
    <p v-else-if="!cell" class="soft">{{ $t('Fetching what was seen…') }}</p>
    <template v-else>
      <RouterLink class="small" :to="{ name: 'child', params: { classId, childId } }">{{
        $t('Everything about {child}', { child: cell.child })
      }}</RouterLink>
      <p class="said can">{{ cell.iCan }}</p>
      <p class="state">
        <MarkFrame
          :strength="cell.strength"
          :look-again="cell.lookAgain"
          :inferred="cell.inferred"
          silent
          class="large"
        />
        {{ cell.inferred ? $t('inferred, not seen yet') : strengthName(cell.strength)
        }}{{ cell.lookAgain ? $t(', look again') : '' }}
      </p>
      <p>{{ cell.sentence }}</p>
      <p v-if="cell.inferred && records" class="settle" role="group" :aria-label="$t('Settle it')">
        {{ $t('Have you just seen it?') }}
        <button type="button" class="button" :disabled="settle.isPending.value" @click="settle.mutate('Alone')">
          {{ $t('Yes, alone') }}
        </button>
        <button type="button" class="button" :disabled="settle.isPending.value" @click="settle.mutate('NotYet')">
          {{ $t('No, not yet') }}
        </button>
        <span v-if="settle.error.value" class="warn" role="alert">{{ settle.error.value.message }}</span>
      </p>
      <p class="soft">{{ cell.ready }}</p>

      <h3>{{ $t('Secure asks for') }}</h3>
      <ul class="clauses">
        <li v-for="clause in cell.clauses" :key="clause.asks" :class="{ holds: clause.holds }">
          <span class="hidden-words">{{ clause.holds ? $t('There:') + ' ' : $t('Missing:') + ' ' }}</span>{{
            clause.asks
          }}
          <span v-if="!clause.holds" class="soft">{{
            $t('– still to come: {stillToCome}', { stillToCome: clause.stillToCome })
          }}</span>
        </li>
      </ul>

      <template v-if="cell.steps.length">
        <h3>{{ $t('How it came') }}</h3>
        <ol class="steps">
          <li v-for="step in cell.steps" :key="step.day + step.strength">
            <MarkFrame :strength="step.strength" silent />
            {{
              $t('{strengthName} since {day}', {
                strengthName: strengthName(step.strength),
                day: dayAndMonth(step.day),
              })
            }}
          </li>
        </ol>
      </template>

      <h3>{{ $t('Seen {a}', { a: cell.seen.length ? '' : $t('– nothing yet') }) }}</h3>
      <ul class="seen">
        <li v-for="once in cell.seen" :key="once.id"><SeenOnce :once="once" /></li>
      </ul>

      <h3>{{ $t('Look for') }}</h3>
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

.settle {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.7rem;
  align-items: center;
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

.steps {
  padding: 0;
  list-style: none;
}

.seen {
  list-style: none;
  padding: 0;
}
</style>
