<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import Drawer from 'primevue/drawer'
import { computed, ref, shallowRef } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { t } from '@/app/language'
import { api, take, type Schemas } from '@/app/api/client'
import { addDays, moment } from '@/app/dates'
import { useClassNames } from '@/app/useClassNames'
import ClassTabs from '@/ui/ClassTabs.vue'
import { representationLabel, supportLabel } from '@/ui/marks'
import SeenOnce from '@/ui/SeenOnce.vue'
import DayField from '@/ui/DayField.vue'
import LongSelect from '@/ui/LongSelect.vue'
import PageError from '@/ui/PageError.vue'

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
// A row is as high as a thumb: rows that are not looked at are not there.
const ROW = 46
const moreOf = ({ seen }: Schemas['TrailEntry']) =>
  seen.withdrawnWhy
    ? t('withdrawn: {why}', { why: seen.withdrawnWhy })
    : seen.note
      ? `“${seen.note}”`
      : seen.slip || seen.strategy || (seen.hasPhoto ? t('photo') : t('all of it'))
const open = shallowRef<Schemas['TrailEntry']>()
// Withdrawn meanwhile: the drawer shows it as it is now.
const shown = computed(() => trail.value?.entries.find((e) => e.seen.id === open.value?.seen.id))
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
    <PageError v-if="error" :error="error" />
    <template v-if="trail">
      <p class="soft">
        {{
          $t('Seen {count} times{a}. Nothing is ever taken out of the trail.', {
            count: trail.entries.length,
            a: trail.more ? ' ' + $t('and more; ask for fewer days') : '',
          })
        }}
      </p>
      <DataTable
        :value="trail.entries"
        data-key="seen.id"
        class="trail"
        sort-field="seen.at"
        :sort-order="-1"
        scrollable
        scroll-height="max(16rem, calc(100vh - 23rem))"
        :virtual-scroller-options="{ itemSize: ROW, numToleratedItems: 3 }"
      >
        <Column field="seen.at" :header="$t('When')" sortable>
          <template #body="{ data }">{{ moment(data.seen.at) }}</template>
        </Column>
        <Column field="child" :header="$t('Child')" sortable>
          <template #body="{ data }"
            ><span class="said">{{ data.child }}</span></template
          >
        </Column>
        <Column field="seen.short" :header="$t('Skill')" sortable>
          <template #body="{ data }"
            ><span class="said">{{ data.seen.short }}</span></template
          >
        </Column>
        <Column field="seen.support" :header="$t('Seen')" sortable>
          <template #body="{ data }">
            <s v-if="data.seen.withdrawnWhy">{{ supportLabel(data.seen.support) }}</s>
            <template v-else
              ><b>{{ supportLabel(data.seen.support) }}</b
              >, {{ representationLabel(data.seen.representation) }}</template
            >
          </template>
        </Column>
        <Column field="seen.by" :header="$t('By')" sortable />
        <Column :header="$t('More')">
          <template #body="{ data }">
            <button type="button" class="more" @click="open = data">
              {{ moreOf(data) }}
            </button>
          </template>
        </Column>
      </DataTable>
      <p v-if="!trail.entries.length" class="soft">
        {{ $t('Nothing was seen in these days. Ask for others, or record on the clipboard.') }}
      </p>
      <Drawer
        :visible="shown !== undefined"
        position="right"
        :style="{ width: 'min(27rem, 100vw)' }"
        :header="shown ? `${shown.child} · ${shown.seen.short}` : ' '"
        @update:visible="open = undefined"
      >
        <SeenOnce v-if="shown" :once="shown.seen" />
      </Drawer>
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

/* As wide before the names are there as after. */
.asks select,
.asks :deep(.long-select) {
  width: 13rem;
}

.trail :deep(td) {
  height: 46px;
  max-width: 17rem;
  padding-block: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

/* On a tablet all columns at once. */
@media (width < 60rem) {
  .trail :deep(:is(th, td)) {
    padding-inline: 0.3rem;
  }

  .trail :deep(td) {
    max-width: 9rem;
  }
}

.more {
  max-width: 100%;
  min-height: var(--target);
  padding: 0;
  border: 0;
  overflow: hidden;
  background: none;
  color: var(--spruce);
  font: inherit;
  text-overflow: ellipsis;
  text-decoration: underline;
  cursor: pointer;
}
</style>
