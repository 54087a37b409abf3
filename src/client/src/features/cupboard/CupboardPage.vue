<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { useAtOnce } from '@/app/useAtOnce'
import { api, Refused, take, type Schemas } from '@/app/api/client'
import CautionList from '@/ui/CautionList.vue'
import FaultList from '@/ui/FaultList.vue'
import { fileBody } from '@/ui/fileBody'
import { say, sayError } from '@/ui/notices'
import NewKind from './NewKind.vue'
import FileField from '@/ui/FileField.vue'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'
import NumberField from '@/ui/NumberField.vue'

/** What the class owns, shelf by shelf, with what to be careful of beside the thing that causes it. */
const queries = useQueryClient()
const { classId, leads, today } = useAccount()
const { data: cupboard, error } = useQuery({
  queryKey: queryKey('cupboard', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/cupboard', { params: { path: { classId: classId.value } } })),
})
const onlyOwned = ref(true)
const wanted = ref('')
const adding = ref(false)
const seen = ref<Schemas['StockPreview']>()
const chosen = ref<File>()
const shelves = computed(() =>
  (cupboard.value?.shelves ?? [])
    .map((shelf) => ({
      ...shelf,
      things: shelf.things.filter((t) =>
        wanted.value ? t.name.toLowerCase().includes(wanted.value.toLowerCase()) : !onlyOwned.value || t.count > 0,
      ),
    }))
    .filter((shelf) => shelf.things.length > 0),
)

async function change(call: Promise<unknown>, done?: string) {
  try {
    await call
    await queries.invalidateQueries()
    if (done) say(done)
  } catch (problem) {
    sayError(problem)
    await queries.invalidateQueries({ queryKey: queryKey('cupboard') })
  }
}
const at = (item: string) => ({ path: { classId: classId.value, item } })
const count = (item: string, value: string) =>
  change(
    take(
      api.PUT('/api/classes/{classId}/cupboard/things/{item}', {
        params: at(item),
        body: { count: Number.parseInt(value, 10) || 0 },
      }),
    ),
  )
const remove = (item: string, name: string) =>
  change(
    take(api.DELETE('/api/classes/{classId}/cupboard/things/{item}', { params: at(item) })),
    t('{name}: out of the cupboard.', { name }),
  )
const atOnce = useAtOnce()
const care = (own: Partial<Schemas['CaresView']>) =>
  atOnce<Schemas['CupboardView']>(
    queryKey('cupboard', classId.value),
    (now) => ({ ...now, cares: { ...now.cares, ...own } }),
    () => take(api.PATCH('/api/classes/{classId}/cares', { params: { path: { classId: classId.value } }, body: own })),
  )
const allergic = (allergen: Schemas['Allergen'], on: boolean) =>
  care({
    allergies: [...(cupboard.value?.cares.allergies ?? []).filter((a) => a !== allergen), ...(on ? [allergen] : [])],
  })

async function look(file: File) {
  chosen.value = file
  try {
    seen.value = await take(
      api.POST('/api/classes/{classId}/cupboard/file/preview', fileBody(classId.value, file, 'text/csv')),
    )
  } catch (problem) {
    sayError(problem)
  }
}
async function takeIt() {
  if (!chosen.value) return
  try {
    const taken = await take(
      api.POST('/api/classes/{classId}/cupboard/file', fileBody(classId.value, chosen.value, 'text/csv')),
    )
    seen.value = undefined
    await queries.invalidateQueries()
    say(t('{kinds} kinds counted anew.', { kinds: taken.kinds }))
  } catch (problem) {
    if (problem instanceof Refused && problem.status === 422) seen.value = problem.body as Schemas['StockPreview']
    else sayError(problem)
  }
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Cupboard') }}</h1>
      <RouterLink :to="{ name: 'set-out', params: { classId, day: today } }">{{
        $t('What to set out today')
      }}</RouterLink>
      <RouterLink :to="{ name: 'set-out', params: { classId, day: today }, query: { week: '1' } }">{{
        $t('What this week takes')
      }}</RouterLink>
      <div class="end">
        <a class="button" :href="`/api/classes/${classId}/cupboard/file`" download>{{ $t('As a CSV file') }}</a>
        <FileField v-if="leads" :label="$t('Take counts from a file')" accept=".csv" @file="look" />
        <button v-if="leads" type="button" class="button" @click="adding = !adding">
          {{ $t('Add a kind of our own') }}
        </button>
      </div>
    </div>
    <PageError v-if="error" :error="error" />
    <div v-if="seen" class="ruled taken">
      <FaultList :faults="seen.faults" />
      <p v-for="note in seen.notes" :key="note" class="soft">{{ note }}</p>
      <template v-if="seen.canBeTaken">
        <p>
          {{
            $t(
              '{kinds} kinds, {new} of them of your own. Counts in the file replace those here; what it does not name stays.',
              { kinds: seen.kinds, new: seen.new },
            )
          }}
        </p>
        <button type="button" class="button main" @click="takeIt">{{ $t('Take it') }}</button>
      </template>
      <button type="button" class="button plain" @click="seen = undefined">{{ $t('Leave it') }}</button>
    </div>
    <NewKind v-if="adding && cupboard" :cupboard="cupboard" @done="adding = false" />

    <div v-if="cupboard" class="columns">
      <div>
        <div class="tools">
          <input v-model="wanted" type="text" :placeholder="$t('Find a thing')" :aria-label="$t('Find a thing')" />
          <label class="check"><input v-model="onlyOwned" type="checkbox" /> {{ $t('only what we own') }}</label>
        </div>
        <section v-for="shelf in shelves" :key="shelf.purpose" class="shelf">
          <h2>{{ shelf.name }}</h2>
          <ul>
            <li v-for="thing in shelf.things" :key="thing.id">
              <NumberField
                :min="0"
                :max="5000"
                :model-value="thing.count"
                :disabled="!leads"
                :label="$t('How many: {name}', { name: thing.name })"
                @update:model-value="count(thing.id, `${$event ?? ''}`)"
              />
              <span>
                <b>{{ thing.name }}</b>
                <span class="soft small">
                  {{ [thing.colour, thing.material, thing.size].filter(Boolean).join(', ')
                  }}{{ thing.own ? ' ' + $t('· our own') : '' }}</span
                >
                <span v-if="thing.risks.length" class="risk small">{{ thing.risks.join(', ') }}</span>
              </span>
              <button
                v-if="thing.own && leads"
                type="button"
                class="button plain small"
                :aria-label="$t('Take out {name}', { name: thing.name })"
                @click="remove(thing.id, thing.name)"
              >
                {{ $t('Take out') }}
              </button>
            </li>
          </ul>
        </section>
        <p v-if="!shelves.length" class="none">
          {{
            wanted
              ? $t('There is no such thing here.')
              : $t('Nothing is counted yet. Untick “only what we own” and begin.')
          }}
        </p>
      </div>
      <section class="ruled cares" aria-labelledby="care-head">
        <h2 id="care-head">{{ $t('Take care of') }}</h2>
        <p class="soft small">
          {{
            $t(
              'For the class as a whole; no child’s name is kept. Cautions then stand beside whatever brings the risk, here, on cards and on the list of what to set out.',
            )
          }}
        </p>
        <label class="check">
          <input
            type="checkbox"
            :checked="cupboard.cares.mouths"
            :disabled="!leads"
            @change="care({ mouths: ($event.target as HTMLInputElement).checked })"
          />
          {{ $t('Someone puts things in their mouth') }}
        </label>
        <h3>{{ $t('Someone has to keep away from') }}</h3>
        <label v-for="a in cupboard.allergens" :key="a.allergen" class="check">
          <input
            type="checkbox"
            :checked="cupboard.cares.allergies.includes(a.allergen)"
            :disabled="!leads"
            @change="allergic(a.allergen, ($event.target as HTMLInputElement).checked)"
          />
          {{ a.name }}
        </label>
        <CautionList :cautions="cupboard.cautions" :standing="cupboard.standing" />
      </section>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 17rem;
  gap: 0 2.2rem;
  align-items: start;
}

.tools {
  display: flex;
  gap: 1rem;
}

.taken {
  margin-bottom: 1rem;
}

/* A shelf: what stands on it, and the board under it. */
.shelf {
  border-bottom: 5px solid var(--paper-deep);
  padding: 0.7rem 0 0.2rem;
}

.shelf ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.3rem 1.4rem;
  margin: 0.4rem 0;
  padding: 0;
  list-style: none;
}

.shelf li {
  display: flex;
  gap: 0.7rem;
  align-items: start;
}

.shelf li input {
  width: 4.6rem;
  flex: none;
}

.shelf .button {
  margin-left: auto;
  white-space: nowrap;
}

.shelf li b,
.shelf li .soft {
  display: block;
}

.risk {
  display: block;
  border-left: 4px solid var(--brick);
  padding-left: 0.4rem;
  color: var(--brick);
  font-weight: 700;
}

.cares .check {
  display: flex;
  min-height: 32px;
}

.cares h3 {
  margin-top: 0.5rem;
  font-size: 0.9rem;
}

.none {
  padding: 2rem 0;
  font-size: 1.1rem;
}

@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
