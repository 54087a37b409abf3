<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { useAddress, whole, freshSeed } from '@/ui/useAddress'
import { useStoryChoices } from '@/ui/useStoryChoices'
import StepNumber from '@/ui/StepNumber.vue'
import ForWhom from './ForWhom.vue'
import { addressOf } from './sheetAddress'
import SheetPreview from './SheetPreview.vue'
import DayField from '@/ui/DayField.vue'
import PageError from '@/ui/PageError.vue'

/** What is printed: choose, see the page as it will print, take the file. The choice stands in the address, seed and all. */
const { classId, current } = useAccount()
const { at, put } = useAddress({
  kind: 'TenFrames',
  variant: '',
  paper: '',
  low: '',
  high: '',
  count: '',
  children: '',
  fill: '',
  ink: 'Saving',
  seed: '1',
  on: '',
  theme: '',
  stories: '',
})
const { data: shelf, error } = useQuery({
  queryKey: queryKey('sheets', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/sheets', { params: { path: { classId: classId.value } } })),
  staleTime: 60_000,
})

const paper = computed(() => (at.value.paper || current.value?.paper || 'A4') as NonNullable<Schemas['PaperSize']>)
const { themes, kinds } = useStoryChoices()
const stories = computed(() => at.value.stories.split(',').filter(Boolean))
function pickStories(kind: string, on: boolean) {
  const chosen = kinds.value
    .map((k) => k.kind)
    .filter((k) => (k === kind ? on : !stories.value.length || stories.value.includes(k)))
  put({ stories: chosen.length && chosen.length < kinds.value.length ? chosen.join(',') : '' })
}
const offer = computed(() => shelf.value?.offers.find((o) => o.kind === at.value.kind))
const asked = computed(() => {
  const o = offer.value
  if (!o) return undefined
  const low = whole(at.value.low, o.lowest, o.highest, o.low)
  return {
    kind: o.kind,
    variant: (o.variants.find((v) => v.id === at.value.variant) ?? o.variants[0]!).id,
    paper: paper.value,
    low,
    high: Math.max(low, whole(at.value.high, o.lowest, o.highest, o.high)),
    count: o.mostCount > 0 ? whole(at.value.count, 1, o.mostCount, o.count) : undefined,
    children: o.eachChild ? at.value.children : '',
    fill: (at.value.fill || undefined) as NonNullable<Schemas['FrameFill']> | undefined,
    ink: at.value.ink as NonNullable<Schemas['Ink']>,
    seed: whole(at.value.seed, 1, 4_000_000_000, 1),
    on: at.value.on || undefined,
    theme: at.value.theme || undefined,
    stories: o.hasStories ? at.value.stories || undefined : undefined,
  }
})
const { data: made, error: refused } = useQuery({
  queryKey: queryKey('sheet', classId, asked),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/sheets/made', {
        params: { path: { classId: classId.value }, query: asked.value! },
      }),
    ),
  enabled: computed(() => asked.value !== undefined),
  placeholderData: keepPreviousData,
  retry: false,
})
const page = ref(1)
watch(made, (m) => m && (page.value = Math.min(page.value, m.pages)))
watch(
  () => at.value.kind,
  () => (page.value = 1),
)
const way = (rest: string) => `/api/classes/${classId.value}/sheets/${rest}?${addressOf(asked.value ?? {})}`
const pick = (kind: string) => put({ kind, variant: '', low: '', high: '', count: '' })
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Sheets') }}</h1>
      <div v-if="made && asked" class="end">
        <a class="button" :href="`${way(`pages/${page}/svg`)}&download=true`" download>{{ $t('This page as SVG') }}</a>
        <a class="button main" :href="way('pdf')" download>{{
          $t('Download PDF, {pages} {a}', { pages: made.pages, a: made.pages === 1 ? $t('page') : $t('pages') })
        }}</a>
      </div>
    </div>
    <PageError v-if="error" :error="error" />
    <div v-if="shelf" class="desk">
      <nav :aria-label="$t('Kinds of sheet')">
        <button
          v-for="o in shelf.offers"
          :key="o.kind"
          type="button"
          :aria-pressed="o.kind === at.kind"
          @click="pick(o.kind)"
        >
          {{ o.name }}
        </button>
      </nav>

      <section v-if="offer && asked" class="choices" :aria-label="$t('Choices')">
        <p class="soft">{{ offer.purpose }}</p>
        <div v-if="offer.variants.length > 1" class="field" role="radiogroup" :aria-label="$t('As')">
          <label v-for="v in offer.variants" :key="v.id" class="check"
            ><input type="radio" name="variant" :checked="v.id === asked.variant" @change="put({ variant: v.id })" />
            {{ v.name }}</label
          >
        </div>
        <div v-if="offer.hasNumbers" class="field">
          <span>{{ $t('Numbers') }}</span>
          <div class="beside">
            <StepNumber
              :model-value="asked.low"
              :label="$t('From')"
              :low="offer.lowest"
              :high="offer.highest"
              @update:model-value="put({ low: `${$event}` })"
            />
            <StepNumber
              :model-value="asked.high"
              :label="$t('To')"
              :low="offer.lowest"
              :high="offer.highest"
              @update:model-value="put({ high: `${$event}` })"
            />
          </div>
        </div>
        <div v-if="asked.count !== undefined" class="field">
          <span>{{ $t('How many{a}', { a: offer.eachChild ? ' ' + $t('each') : '' }) }}</span>
          <StepNumber
            :model-value="asked.count"
            :label="$t('How many')"
            :low="1"
            :high="offer.mostCount"
            @update:model-value="put({ count: `${$event}` })"
          />
        </div>
        <label v-if="offer.hasStories" class="field">
          <span>{{ $t('Theme') }}</span>
          <select class="box" :value="at.theme" @change="put({ theme: ($event.target as HTMLSelectElement).value })">
            <option value="">{{ $t('any') }}</option>
            <option v-for="t in themes" :key="t.theme" :value="t.theme">{{ t.name }}</option>
          </select>
        </label>
        <details v-if="offer.hasStories" class="field">
          <summary>
            {{
              $t('Kinds of stories: {a}', {
                a: stories.length
                  ? $t('{count} of {count2}', { count: stories.length, count2: kinds.length })
                  : $t('all'),
              })
            }}
          </summary>
          <label v-for="k in kinds" :key="k.kind" class="check">
            <input
              type="checkbox"
              :checked="!stories.length || stories.includes(k.kind)"
              @change="pickStories(k.kind, ($event.target as HTMLInputElement).checked)"
            />
            {{ k.name }}</label
          >
        </details>
        <label v-if="offer.hasFrames" class="field">
          <span>{{ $t('Frames filled') }}</span>
          <select class="box" :value="at.fill" @change="put({ fill: ($event.target as HTMLSelectElement).value })">
            <option value="">
              {{ $t('as the class does: {a}', { a: shelf.fill === 'ByFives' ? $t('by fives') : $t('by pairs') }) }}
            </option>
            <option value="ByFives">{{ $t('by fives') }}</option>
            <option value="ByPairs">{{ $t('by pairs') }}</option>
          </select>
        </label>
        <div class="beside">
          <label class="field"
            ><span>{{ $t('Paper') }}</span>
            <select class="box" :value="paper" @change="put({ paper: ($event.target as HTMLSelectElement).value })">
              <option value="A4">{{ $t('A4') }}</option>
              <option value="Letter">{{ $t('Letter') }}</option>
            </select></label
          >
          <label class="field"
            ><span>{{ $t('Ink') }}</span>
            <select class="box" :value="at.ink" @change="put({ ink: ($event.target as HTMLSelectElement).value })">
              <option value="Saving">{{ $t('outlines only') }}</option>
              <option value="Full">{{ $t('filled colours') }}</option>
            </select></label
          >
        </div>
        <div class="field">
          <span>{{ $t('Seed') }}</span>
          <div class="beside">
            <input
              type="text"
              inputmode="numeric"
              class="seed"
              :aria-label="$t('Seed')"
              :value="asked.seed"
              @change="put({ seed: ($event.target as HTMLInputElement).value })"
            />
            <button type="button" class="button" @click="put({ seed: freshSeed() })">{{ $t('Other numbers') }}</button>
          </div>
        </div>
        <div class="field">
          <span>{{ $t('As it was on') }}</span>
          <DayField
            :label="$t('As it was on')"
            :max="shelf.today"
            :model-value="at.on || shelf.today"
            @update:model-value="put({ on: $event })"
          />
        </div>
        <p class="small soft">
          {{ $t('Seed and day stand at the foot of each page: with both, the same sheet can be made again.') }}
        </p>
        <ForWhom
          v-if="offer.eachChild"
          :children="shelf.children"
          :groups="shelf.groups"
          :chosen="at.children"
          @choose="put({ children: $event })"
        />
      </section>

      <SheetPreview v-model="page" :made="made" :refused="refused?.message" :picture="way(`pages/${page}/svg`)" />
    </div>
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: 11.5rem 19rem minmax(0, 1fr);
  gap: 1rem 1.6rem;
  align-items: start;
}

nav {
  display: grid;
}

nav button {
  min-height: var(--target);
  padding: 0.2rem 0.7rem;
  border: 0;
  border-left: 5px solid transparent;
  border-bottom: 1px solid var(--line);
  background: transparent;
  color: var(--ink);
  font: 700 0.98rem/1.2 var(--body);
  text-align: left;
  cursor: pointer;
}

nav button:hover,
nav button[aria-pressed='true'] {
  background: var(--spruce-wash);
}

nav button[aria-pressed='true'] {
  border-left-color: var(--spruce);
}

.choices > p:first-child {
  margin-top: 0.4rem;
}

.choices .field {
  margin-block: 0.5rem;
}

.seed {
  width: 7rem;
}

@media (max-width: 1000px) {
  .desk {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }

  nav {
    grid-column: 1 / -1;
    grid-template-columns: repeat(auto-fill, minmax(10.5rem, 1fr));
  }
}

@media (max-width: 640px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
