<script setup lang="ts">
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { fileBody } from '@/ui/fileBody'
import { say, sayError } from '@/ui/notices'
import { placeLabel, places, span } from './places'
import FileField from '@/ui/FileField.vue'
import LongSelect from '@/ui/LongSelect.vue'
import PageError from '@/ui/PageError.vue'
import NumberField from '@/ui/NumberField.vue'

/** A teacher's question, and what answers it. The question stands in the address, so it can be gone back to. */
const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const { classId, leads } = useAccount()
const asked = computed(() => {
  const q = route.query
  const number = (value: unknown) => (value ? Number(value) : undefined)
  return {
    text: (q.text as string) || undefined,
    minutes: number(q.minutes),
    children: number(q.children),
    place: (q.place as Schemas['Place']) || undefined,
    skill: (q.skill as string) || undefined,
    part: number(q.part),
    nothingToPrint: q.nothingToPrint === '1' || undefined,
    onlyOwned: q.onlyOwned === '1' || undefined,
    without: (q.without as string) || undefined,
  }
})
const { data: library, error } = useQuery({
  queryKey: queryKey('activities', classId, asked),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/activities', {
        params: { path: { classId: classId.value }, query: asked.value },
      }),
    ),
  placeholderData: keepPreviousData,
})

// What answers best first; the rest a tap away.
const FIRST = 12
const showing = ref(FIRST)
watch(asked, () => (showing.value = FIRST))

// All that were found are sorted, not only those that are shown.
type SortedBy = 'name' | 'skill' | 'minutes' | 'most'
const sortedBy = ref<SortedBy>()
const direction = ref<number>()
const ordered = computed(() => {
  const [found, by] = [library.value?.found ?? [], sortedBy.value]
  if (!by) return found
  const order = (a: string | number, b: string | number) =>
    typeof a === 'number' ? a - Number(b) : a.localeCompare(`${b}`)
  return found.toSorted((a, b) => (direction.value ?? 1) * order(a[by], b[by]))
})

function ask(name: string, value: string | boolean) {
  const query = { ...route.query, [name]: value === true ? '1' : value || undefined }
  void router.replace({ name: 'activities', params: { classId: classId.value }, query })
}
const text = (event: Event) => (event.target as HTMLInputElement).value
const ticked = (event: Event) => (event.target as HTMLInputElement).checked

const askWords = useDebounceFn((words: string) => ask('text', words), 200)

async function takeFile(file: File) {
  try {
    const { names } = await take(
      api.POST('/api/classes/{classId}/activities/file', fileBody(classId.value, file, 'application/yaml')),
    )
    await queries.invalidateQueries()
    say(`${names.join(', ')}: taken into the library.`)
  } catch (problem) {
    sayError(problem)
  }
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Activities') }}</h1>
      <div v-if="leads" class="end">
        <RouterLink class="button" :to="{ name: 'activity-edit', params: { classId, id: 'new' } }">{{
          $t('Write one of our own')
        }}</RouterLink>
        <FileField :label="$t('Take one from a file')" accept=".yaml,.yml" @file="takeFile" />
      </div>
    </div>
    <form class="question" role="search" @submit.prevent>
      <input
        type="text"
        class="words"
        :placeholder="$t('hidden part to 7')"
        :aria-label="$t('What for: words and numbers')"
        :value="asked.text"
        @input="askWords(text($event))"
      />
      <label>
        <NumberField
          :min="1"
          :max="60"
          :placeholder="$t('any')"
          :model-value="asked.minutes"
          :label="$t('At most this many minutes')"
          @update:model-value="ask('minutes', `${$event ?? ''}`)"
        />
        {{ $t('minutes') }}
      </label>
      <label>
        <NumberField
          :min="1"
          :max="30"
          :placeholder="$t('any')"
          :model-value="asked.children"
          :label="$t('Number of children')"
          @update:model-value="ask('children', `${$event ?? ''}`)"
        />
        {{ $t('children') }}
      </label>
      <select
        class="box"
        :aria-label="$t('When in the day')"
        :value="asked.place ?? ''"
        @change="ask('place', text($event))"
      >
        <option value="">{{ $t('any time of day') }}</option>
        <option v-for="p in places" :key="p.value" :value="p.value">{{ p.label }}</option>
      </select>
      <LongSelect
        class="skill"
        :label="$t('Skill')"
        :none="$t('any skill')"
        :model-value="asked.skill ?? ''"
        :options="(library?.skills ?? []).map((k) => ({ value: k.id, label: k.short }))"
        @update:model-value="ask('skill', $event ?? '')"
      />
      <LongSelect
        :label="$t('Without')"
        :none="$t('without … (nothing)')"
        :model-value="asked.without ?? ''"
        :options="
          (library?.items ?? []).map((i) => ({
            value: i.id,
            label: $t('without {thing}', { thing: i.name.toLowerCase() }),
          }))
        "
        @update:model-value="ask('without', $event ?? '')"
      />
      <label class="check"
        ><input type="checkbox" :checked="asked.nothingToPrint" @change="ask('nothingToPrint', ticked($event))" />
        {{ $t('nothing to print') }}</label
      >
      <label class="check"
        ><input type="checkbox" :checked="asked.onlyOwned" @change="ask('onlyOwned', ticked($event))" />
        {{ $t('with what we own') }}</label
      >
    </form>
    <PageError v-if="error" :error="error" />
    <template v-if="library">
      <p class="soft" aria-live="polite">
        {{ $t('{count} of {all} activities.', { count: library.found.length, all: library.all }) }}
        <RouterLink v-if="library.found.length < library.all" :to="{ name: 'activities', params: { classId } }">{{
          $t('Ask anew')
        }}</RouterLink>
      </p>
      <p v-if="!library.found.length" class="none">
        {{ $t('Nothing answers all of that. Leave out the minutes first, then what you own.') }}
      </p>
      <!-- What answers best stands first until it is sorted by something else; once more brings that back. -->
      <DataTable
        v-model:sort-field="sortedBy"
        v-model:sort-order="direction"
        :value="ordered.slice(0, showing)"
        data-key="id"
        class="found"
        lazy
        removable-sort
      >
        <Column field="name" :header="$t('Activity')" sortable>
          <template #body="{ data: a }">
            <RouterLink
              :to="{
                name: 'activity',
                params: { classId, id: a.id },
                query: { skill: a.skillId, children: asked.children },
              }"
            >
              <b>{{ a.name }}</b>
              <span class="purpose">{{ a.purpose }}</span>
            </RouterLink>
          </template>
        </Column>
        <Column field="skill" :header="$t('For')" sortable>
          <template #body="{ data: a }">
            {{ a.skill }} <span class="soft small numbers">{{ $t('numbers {numbers}', { numbers: a.numbers }) }}</span>
          </template>
        </Column>
        <Column :header="$t('When')" class="wide-only">
          <template #body="{ data: a }"
            ><span class="small">{{ a.places.map(placeLabel).join(', ') }}</span></template
          >
        </Column>
        <Column field="minutes" :header="$t('Minutes')" sortable class="number" />
        <Column field="most" :header="$t('Children')" sortable class="number">
          <template #body="{ data: a }">{{ span(a.least, a.most) }}</template>
        </Column>
        <Column :header="$t('To know')" class="wide-only">
          <template #body="{ data: a }">
            <span class="small">
              <template v-if="a.own">{{ $t('our own') + ' ' }}</template>
              <template v-if="a.prints">{{ $t('has pages to print') + ' ' }}</template>
              <span v-else-if="a.short" class="warn">{{ a.short }}</span>
            </span>
          </template>
        </Column>
      </DataTable>
      <button v-if="library.found.length > showing" type="button" class="button" @click="showing = Infinity">
        {{ $t('Show the other {a}', { a: library.found.length - showing }) }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.question {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 0.9rem;
  padding: 0.7rem 0.9rem;
  background: var(--paper-deep);
  border-radius: var(--corner);
}

.words {
  flex: 1 1 14rem;
}

.question input[type='number'] {
  width: 4.6rem;
}

.skill {
  max-width: 13rem;
}

.found a {
  color: var(--ink);
  text-decoration: none;
}

.found a b {
  color: var(--spruce);
  text-decoration: underline;
  text-underline-offset: 3px;
}

.purpose,
.numbers {
  display: block;
}

.found :deep(td) {
  vertical-align: top;
}

.found :deep(.number) {
  width: 6.5rem;
  white-space: nowrap;
}

.none {
  padding: 2rem 0;
  font-size: 1.1rem;
}

@media (max-width: 1000px) {
  .found :deep(.wide-only) {
    display: none;
  }
}
</style>
