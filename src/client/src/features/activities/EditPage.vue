<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { say } from '@/ui/notices'
import { places } from './places'
import { t } from '@/app/language'
import LongSelect from '@/ui/LongSelect.vue'
import NumberField from '@/ui/NumberField.vue'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'

/** An activity in the form in which it is written: a new one begins as a copy of one that is there. */
type Entry = Schemas['ActivityEntry']
const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const { classId } = useAccount()
const isNew = computed(() => route.params.id === 'new')
const from = ref('under-the-lid')
const source = computed(() => (isNew.value ? from.value : String(route.params.id)))

const { data: library } = useQuery({
  queryKey: queryKey('activities', classId, {}),
  queryFn: () =>
    take(api.GET('/api/classes/{classId}/activities', { params: { path: { classId: classId.value }, query: {} } })),
})
const { data: written } = useQuery({
  queryKey: queryKey('activities', classId, 'written', source),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/activities/{activityId}/written', {
        params: { path: { classId: classId.value, activityId: source.value } },
      }),
    ),
})
const { data: cupboard } = useQuery({
  queryKey: queryKey('cupboard', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/cupboard', { params: { path: { classId: classId.value } } })),
})
const entry = ref<Entry>()
const things = computed(() =>
  (cupboard.value?.shelves ?? []).flatMap((shelf) =>
    shelf.things.filter((thing) => !thing.own).map((thing) => ({ value: thing.id, label: thing.name })),
  ),
)
const lists = ['prepare', 'steps', 'say', 'lookFor'] as const
const lines = ref<Record<(typeof lists)[number], string>>({ prepare: '', steps: '', say: '', lookFor: '' })
watch(
  written,
  (w) => {
    if (!w) return
    entry.value = JSON.parse(JSON.stringify(w)) as Entry
    if (isNew.value) entry.value = { ...entry.value, name: '', minutes: w.minutes || 10, game: null }
    for (const list of lists) lines.value[list] = w[list].join('\n')
  },
  { immediate: true },
)
const labels = { prepare: t('To prepare'), steps: t('Steps'), say: t('What to say'), lookFor: t('What to look for') }
const slug = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')

async function keep() {
  if (!entry.value) return
  const id = isNew.value ? `own-${slug(entry.value.name)}` : source.value
  const body: Entry = { ...entry.value, id }
  for (const list of lists)
    body[list] = lines.value[list]
      .split('\n')
      .map((l) => l.trim())
      .filter(Boolean)
  await take(
    api.PUT('/api/classes/{classId}/activities/{activityId}', {
      params: { path: { classId: classId.value, activityId: id } },
      body,
    }),
  )
  await queries.invalidateQueries()
  say(t('{name} is in the library.', { name: entry.value.name }))
  await router.push({ name: 'activity', params: { classId: classId.value, id } })
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ isNew ? $t('An activity of our own') : $t('Change {name}', { name: written?.name ?? '' }) }}</h1>
      <div v-if="isNew" class="end">
        {{ $t('Begin from') }}
        <LongSelect
          v-model="from"
          :label="$t('Begin from')"
          :options="(library?.found ?? []).map((a) => ({ value: a.id, label: a.name }))"
        />
      </div>
    </div>
    <AskForm v-if="entry" class="form" :send="keep">
      <div>
        <FaultyField name="name" :label="$t('Name')"
          ><input v-model="entry.name" type="text" required maxlength="80"
        /></FaultyField>
        <FaultyField name="purpose" :label="$t('Purpose')"
          ><input v-model="entry.purpose" type="text" required
        /></FaultyField>
        <label v-for="list in lists" :key="list" class="field">
          <span>{{ $t('{labels}, a line each', { labels: labels[list] }) }}</span>
          <textarea v-model="lines[list]" :rows="list === 'steps' ? 5 : 3" />
        </label>
        <FaultyField name="easier" :label="$t('Easier')"
          ><input v-model="entry.easier" type="text" required
        /></FaultyField>
        <FaultyField name="harder" :label="$t('Harder')"
          ><input v-model="entry.harder" type="text" required
        /></FaultyField>
        <FaultyField name="sheet" :label="$t('On paper')"
          ><input v-model="entry.sheet" type="text" required
        /></FaultyField>
      </div>
      <div>
        <fieldset class="field">
          <legend>{{ $t('When in the day') }}</legend>
          <label v-for="p in places" :key="p.value" class="check">
            <input v-model="entry.places" type="checkbox" :value="p.value.toLowerCase()" /> {{ p.label }}
          </label>
        </fieldset>
        <div class="beside">
          <FaultyField name="minutes" :label="$t('Minutes')"
            ><NumberField v-model="entry.minutes" :min="0" :max="60" required :disabled="!!entry.game"
          /></FaultyField>
          <FaultyField name="groupSize" :label="$t('Children, such as 2-5')"
            ><input v-model="entry.groupSize" type="text" required size="6"
          /></FaultyField>
        </div>
        <label class="check"
          ><input v-model="entry.quiet" type="checkbox" /> {{ $t('The point is to see: no counting word') }}</label
        >
        <h2 class="after">{{ $t('Skills and their numbers') }}</h2>
        <div v-for="(s, i) in entry.skills" :key="i" class="beside part">
          <LongSelect
            v-model="s.id"
            :label="$t('Skill {a}', { a: i + 1 })"
            :options="(library?.skills ?? []).map((k) => ({ value: k.id, label: k.short }))"
            @update:model-value="Object.assign(s, { items: null, range: null })"
          />
          <input
            v-model="s.range"
            type="text"
            size="6"
            :placeholder="$t('usual')"
            :aria-label="$t('Numbers of skill {a}', { a: i + 1 })"
          />
          <button type="button" class="button plain small" @click="entry.skills.splice(i, 1)">
            {{ $t('Take out') }}
          </button>
        </div>
        <button
          type="button"
          class="button small"
          @click="entry.skills.push({ id: 'count.how-many-5', range: null, items: null })"
        >
          {{ $t('Another skill') }}
        </button>
        <h2 class="after">{{ $t('Things and how many') }}</h2>
        <p class="soft small">
          {{
            $t(
              'n is the largest number, and there are children, pairs and groups: for instance children * n, or n * (n + 1) / 2.',
            )
          }}
        </p>
        <div v-for="(m, i) in entry.materials" :key="i" class="beside part">
          <LongSelect v-model="m.item" :label="$t('Thing {a}', { a: i + 1 })" :options="things" />
          <input v-model="m.amount" type="text" size="12" :aria-label="$t('How many of thing {a}', { a: i + 1 })" />
          <button type="button" class="button plain small" @click="entry.materials.splice(i, 1)">
            {{ $t('Take out') }}
          </button>
        </div>
        <button
          type="button"
          class="button small"
          @click="entry.materials.push({ item: 'counters-marigold', amount: 'n', alike: false, print: null })"
        >
          {{ $t('Another thing') }}
        </button>
        <p v-if="JSON.stringify(lines).includes('{')" class="soft small">
          {{ $t('A word in braces stands for the class’s own, such as fewer or less.') }}
        </p>
        <div class="beside keep">
          <button class="button main">{{ $t('Keep it') }}</button>
          <button type="button" class="button" @click="router.back()">{{ $t('Leave it') }}</button>
        </div>
      </div>
    </AskForm>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 0 2.2rem;
}

textarea {
  padding: 0.4rem 0.6rem;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font: inherit;
}

fieldset {
  border: 0;
  padding: 0;
}

legend {
  font-weight: 700;
  font-size: 0.9rem;
}

.check {
  margin-right: 0.8rem;
}

.part {
  margin-bottom: 0.3rem;
}

.part select {
  flex: 1 1 10rem;
  min-width: 0;
}

.keep {
  margin-top: 1.2rem;
}

@media (max-width: 1000px) {
  .form {
    grid-template-columns: 1fr;
  }
}
</style>
