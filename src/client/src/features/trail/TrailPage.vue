<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { addDays } from '@/app/dates'
import { useClassNames } from '@/app/useClassNames'
import ClassTabs from '@/ui/ClassTabs.vue'
import SeenOnce from '@/ui/SeenOnce.vue'
import DayField from '@/ui/DayField.vue'

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
</script>

<template>
  <div class="page">
    <div class="page-head"><h1>Trail</h1></div>
    <ClassTabs />
    <form class="asks" @submit.prevent>
      <DayField v-model="from" label="From" />
      <DayField v-model="to" label="To" />
      <select v-model="child" class="box" aria-label="Child">
        <option value="">every child</option>
        <option v-for="n in names" :key="n.id" :value="n.id">{{ n.name }}</option>
      </select>
      <select v-model="by" class="box" aria-label="Adult">
        <option value="">every adult</option>
        <option v-for="a in trail?.adults" :key="a.id" :value="a.id">{{ a.name }}</option>
      </select>
      <label class="check"><input v-model="onlyWithdrawn" type="checkbox" /> withdrawn only</label>
    </form>
    <p v-if="error" class="warn" role="alert">{{ error.message }}</p>
    <template v-if="trail">
      <p class="soft">
        {{ trail.entries.length }}{{ trail.more ? ' and more; ask for fewer days' : '' }}. Nothing is ever taken out of
        the trail.
      </p>
      <div class="list">
        <SeenOnce v-for="e in trail.entries" :key="e.seen.id" :once="e.seen" :who="e.child" skill />
      </div>
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

.list {
  max-width: 60rem;
  border-top: 1.5px solid var(--ink);
}
</style>
