<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { addDays, dayOf, fullDay } from '@/app/dates'
import { useClassNames } from '@/app/useClassNames'
import ClassTabs from '@/ui/ClassTabs.vue'
import SeenOnce from '@/ui/SeenOnce.vue'
import DayField from '@/ui/DayField.vue'
import LongSelect from '@/ui/LongSelect.vue'

/** Who recorded what, who withdrew it, when and why. */
const { classId, today } = useAccount()
const names = useClassNames()
const from = ref('')
const to = ref('')
const child = ref('')
const by = ref('')
const onlyWithdrawn = ref(false)
const query = computed(() => ({
  from: from.value || addDays(today.value, -7) || undefined,
  to: to.value || today.value || undefined,
  child: child.value ? Number(child.value) : undefined,
  by: by.value ? Number(by.value) : undefined,
  onlyWithdrawn: onlyWithdrawn.value || undefined,
}))
const { data: trail, error } = useQuery({
  queryKey: queryKey('trail', classId, query),
  queryFn: () =>
    take(api.GET('/api/classes/{classId}/trail', { params: { path: { classId: classId.value }, query: query.value } })),
  enabled: computed(() => today.value !== ''),
  placeholderData: keepPreviousData,
})
// A day at a time: the latest open, those before it a tap away.
const days = computed(() => {
  const found = new Map<string, Schemas['TrailEntry'][]>()
  for (const entry of trail.value?.entries ?? [])
    found.set(dayOf(entry.seen.at), [...(found.get(dayOf(entry.seen.at)) ?? []), entry])
  return [...found].map(([day, entries]) => ({ day, entries }))
})
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Trail') }}</h1>
    </div>
    <ClassTabs />
    <form class="asks" @submit.prevent>
      <DayField v-model="from" :label="$t('From')" />
      <DayField v-model="to" :label="$t('To')" />
      <LongSelect
        v-model="child"
        :label="$t('Child')"
        :none="$t('every child')"
        :options="names.map((n) => ({ value: `${n.id}`, label: n.name }))"
      />
      <select v-model="by" class="box" :aria-label="$t('Adult')">
        <option value="">{{ $t('every adult') }}</option>
        <option v-for="a in trail?.adults" :key="a.id" :value="a.id">{{ a.name }}</option>
      </select>
      <label class="check"><input v-model="onlyWithdrawn" type="checkbox" /> {{ $t('withdrawn only') }}</label>
    </form>
    <p v-if="error" class="warn" role="alert">{{ error.message }}</p>
    <template v-if="trail">
      <p class="soft">
        {{
          $t('{count}{a}. Nothing is ever taken out of the trail.', {
            count: trail.entries.length,
            a: trail.more ? ' ' + $t('and more; ask for fewer days') : '',
          })
        }}
      </p>
      <details v-for="(day, i) in days" :key="day.day" class="day" :open="i === 0">
        <summary>
          <b>{{ fullDay(day.day) }}</b>
          <span class="soft">{{ $t('{count} seen', { count: day.entries.length }) }}</span>
        </summary>
        <SeenOnce v-for="e in day.entries" :key="e.seen.id" :once="e.seen" :who="e.child" skill />
      </details>
    </template>
  </div>
</template>

<style scoped>
.asks {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 0.9rem;
}

.day {
  max-width: 60rem;
  border-top: 1.5px solid var(--ink);
}

.day summary {
  min-height: var(--target);
  padding-block: 0.6rem;
  cursor: pointer;
}
</style>
