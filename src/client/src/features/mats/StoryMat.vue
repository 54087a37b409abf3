<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Schemas } from '@/app/api/client'
import PictureView from '@/mats/PictureView.vue'
import StepNumber from '@/ui/StepNumber.vue'
import MatFrame from './MatFrame.vue'
import MatStage from './MatStage.vue'
import { marksOf, toggled } from './marks'
import { distance, type At } from './touch'
import TouchPicture from './TouchPicture.vue'
import { freshSeed, useAddress, whole } from '@/ui/useAddress'
import { useAsked } from './useAsked'
import { useSteps } from './useSteps'
import { useStoryChoices } from '@/ui/useStoryChoices'
import { t } from '@/app/language'

/** A story: read line by line, drawn by the class and checked, or drawn by Fobble step by step. */
const { at, put } = useAddress({
  kind: 'TakeFromChange',
  low: '',
  high: '',
  theme: '',
  seed: '1',
  of: '',
  first: '',
  by: 'us',
  drawn: '',
  below: '',
  circled: '',
  crossed: '',
})
const { kinds, themes, usual } = useStoryChoices()
const told = computed(() => ({
  kind: at.value.kind as Schemas['StoryKind'],
  low: whole(at.value.low, 2, 20, usual.value.low),
  high: Math.max(whole(at.value.low, 2, 20, usual.value.low), whole(at.value.high, 2, 20, usual.value.high)),
  theme: at.value.theme,
  seed: whole(at.value.seed, 1, 999_999, 1),
  of: at.value.of || undefined,
  first: at.value.first ? whole(at.value.first, 1, 19, 1) : undefined,
}))
const { data: story, error } = useAsked('story', told, (params) =>
  api.GET('/api/classes/{classId}/mats/story', { params }),
)
const byUs = computed(() => at.value.by === 'us')
const lines = ref(1)
watch(
  () => JSON.stringify(told.value),
  () => (lines.value = 1),
)
const { at: place, last, step, on: stepOn, back: stepBack } = useSteps(computed(() => story.value?.steps ?? []))
const allRead = computed(() => lines.value >= (story.value?.lines.length ?? 1))

// Reading comes first; then the steps of the model answer, where Fobble draws.
const walk = computed(() => {
  const read = (story.value?.lines.length ?? 1) - 1
  return {
    at: Math.min(lines.value - 1, read) + (allRead.value && !byUs.value ? place.value : 0),
    last: read + (byUs.value ? 0 : last.value),
  }
})
function on() {
  if (!allRead.value) lines.value += 1
  else if (!byUs.value) stepOn()
}
function back() {
  if (!byUs.value && place.value > 0) stepBack()
  else lines.value = Math.max(1, lines.value - 1)
}

// The drawing that the class makes.
const drawn = computed(() => whole(at.value.drawn, 0, 20, 0))
const below = computed(() => whole(at.value.below, 0, 20, 0))
const drawing = computed(() => ({
  ...told.value,
  drawn: drawn.value,
  below: below.value,
  circled: at.value.circled,
  crossed: at.value.crossed,
}))
const { data: checked } = useAsked(
  'check',
  drawing,
  (params) => api.GET('/api/classes/{classId}/mats/story/check', { params }),
  byUs,
)
const mark = ref<'circled' | 'crossed'>('circled')
const asked = ref(false)
watch(
  () => JSON.stringify(drawing.value),
  () => {
    asked.value = false
  },
)
const picture = computed(() => (byUs.value ? checked.value?.picture : step.value?.picture))

function draw(change: { drawn?: number; below?: number }) {
  const now = { drawn: drawn.value, below: below.value, ...change }
  const stays = (list: string) =>
    marksOf(list)
      .filter((n) => n <= now.drawn + now.below)
      .join(',')
  put({
    drawn: `${now.drawn || ''}`,
    below: `${now.below || ''}`,
    circled: stays(at.value.circled),
    crossed: stays(at.value.crossed),
  })
}
const touch = (thing: number) => put({ [mark.value]: toggled(at.value[mark.value], thing) })
const tell = (changes: Partial<Record<'kind' | 'low' | 'high' | 'theme' | 'seed', string>>) =>
  put({ drawn: '', below: '', circled: '', crossed: '', of: '', first: '', ...changes })

const things = computed<At[]>(
  () =>
    checked.value?.picture.shapes
      .filter((s) => /^thing-\d+$/.test(s.key))
      .map((s, i) => ({ x: s.x, y: s.y, name: t('Thing {a}', { a: i + 1 }) })) ?? [],
)
function tapped(point: At) {
  const index = things.value.findIndex((thing) => distance(thing, point) < 0.65)
  if (index >= 0) touch(index + 1)
}
function key(pressed: string) {
  if (pressed === 'o') mark.value = 'circled'
  else if (pressed === 'x') mark.value = 'crossed'
  else if (pressed === '+') draw({ drawn: Math.min(20, drawn.value + 1) })
  else if (pressed === '-') draw({ drawn: Math.max(0, drawn.value - 1) })
  else if (pressed === 'k') asked.value = true
}

// What a child answered, and what a wrong answer points to.
const heard = ref<number>()
const verdict = computed(() => {
  const s = story.value
  if (!s || s.answer === null || heard.value === undefined) return ''
  if (heard.value === s.answer) return 'Right.'
  return (
    s.slips.find((slip) => slip.answer === heard.value)?.pointsTo ?? t('Not the answer; it points to no usual slip.')
  )
})
</script>

<template>
  <MatFrame :name="$t('Story')" :problem="error">
    <MatStage
      :steps="walk"
      :keys="
        byUs
          ? {
              o: $t('circle'),
              x: $t('cross out'),
              '+': $t('draw one more'),
              '-': $t('draw one fewer'),
              k: $t('check my picture'),
            }
          : {}
      "
      @on="on"
      @back="back"
      @key="key"
    >
      <div v-if="story" class="story">
        <p class="told" aria-live="polite">
          <span v-for="line in story.lines.slice(0, lines)" :key="line">{{ `${line} ` }}</span>
        </p>
        <div v-if="byUs" class="drawing">
          <TouchPicture
            v-if="checked && things.length > 0"
            :picture="checked.picture"
            :label="$t('The drawing.')"
            :spots="things"
            @tap="tapped"
            @spot="touch($event + 1)"
          />
          <span v-else class="soft empty">{{ $t('Draw what the story tells: how many?') }}</span>
        </div>
        <div v-else class="drawing"><PictureView v-if="allRead && picture" :picture="picture" fill /></div>
      </div>
      <template #under>
        <template v-if="story && allRead">
          <template v-if="byUs">
            <span v-if="asked && checked" role="status" :class="checked.agrees ? 'agrees' : 'off'">
              {{ checked.agrees ? $t('The picture tells the story.') : checked.off.join(' ') }}
            </span>
            <b v-else>{{ story.sentence }}</b>
          </template>
          <span v-else-if="step" aria-live="polite"
            >{{ step.says }} <b class="line">{{ step.line }}</b></span
          >
        </template>
      </template>
    </MatStage>

    <template #side>
      <section class="ruled">
        <h2>{{ $t('The story') }}</h2>
        <select
          class="box wide"
          :aria-label="$t('Kind of story')"
          :value="at.kind"
          @change="tell({ kind: ($event.target as HTMLSelectElement).value })"
        >
          <option v-for="k in kinds" :key="k.kind" :value="k.kind">{{ k.name }}</option>
        </select>
        <div class="beside choice">
          <StepNumber
            :model-value="told.low"
            :label="$t('Whole from')"
            :low="2"
            :high="20"
            @update:model-value="tell({ low: `${$event}` })"
          />
          <StepNumber
            :model-value="told.high"
            :label="$t('Whole to')"
            :low="2"
            :high="20"
            @update:model-value="tell({ high: `${$event}` })"
          />
        </div>
        <div class="beside choice">
          <select
            class="box"
            :aria-label="$t('Theme')"
            :value="at.theme"
            @change="tell({ theme: ($event.target as HTMLSelectElement).value })"
          >
            <option value="">{{ $t('any theme') }}</option>
            <option v-for="one in themes" :key="one.theme" :value="one.theme">{{ one.name }}</option>
          </select>
          <button type="button" class="button" @click="tell({ seed: freshSeed() })">{{ $t('Another story') }}</button>
        </div>
      </section>
      <section class="ruled">
        <h2>{{ $t('The drawing') }}</h2>
        <div class="beside choice" role="group" :aria-label="$t('Who draws')">
          <label class="check"
            ><input type="radio" name="by" :checked="byUs" @change="put({ by: 'us' })" /> {{ $t('we draw') }}</label
          >
          <label class="check"
            ><input type="radio" name="by" :checked="!byUs" @change="put({ by: 'fobble' })" />
            {{ $t('Fobble draws') }}</label
          >
        </div>
        <template v-if="byUs && story">
          <div class="beside choice">
            <StepNumber
              :model-value="drawn"
              :label="story.twoRows ? $t('Upper row') : $t('Draw')"
              :high="20"
              @update:model-value="draw({ drawn: $event })"
            />
            <StepNumber
              v-if="story.twoRows"
              :model-value="below"
              :label="$t('Lower row')"
              :high="20"
              @update:model-value="draw({ below: $event })"
            />
          </div>
          <div class="beside choice" role="group" :aria-label="$t('A tap')">
            <label class="check"
              ><input type="radio" name="mark" :checked="mark === 'circled'" @change="mark = 'circled'" />
              {{ $t('circles') }}</label
            >
            <label class="check"
              ><input type="radio" name="mark" :checked="mark === 'crossed'" @change="mark = 'crossed'" />
              {{ $t('crosses out') }}</label
            >
          </div>
          <button type="button" class="button main" @click="asked = true">{{ $t('Check my picture') }}</button>
          <p v-if="asked && checked" class="small" :class="{ warn: !checked.agrees }">
            {{ checked.agrees ? $t('It agrees with the story.') : checked.off.join(' ') }}
          </p>
        </template>
      </section>
      <section v-if="story && story.answer !== null" class="ruled">
        <h2>{{ $t('A child answers') }}</h2>
        <StepNumber
          :model-value="heard ?? 0"
          :label="$t('Answer heard')"
          :high="40"
          @update:model-value="heard = $event"
        />
        <p class="small">{{ verdict }}</p>
      </section>
      <section v-if="story" class="ruled bond">
        <h2>{{ $t('The bond') }}</h2>
        <PictureView :picture="place === last && !byUs ? story.bondFilled : story.bond" />
      </section>
    </template>
  </MatFrame>
</template>

<style scoped>
.story {
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 0.4rem;
}

.told {
  margin: 0;
  min-height: 3.6rem;
  font: 400 1.5rem/1.3 var(--child);
}

:global(.mat.board .told) {
  padding-inline: 5rem;
  font-size: clamp(1.9rem, 6vh, 4rem);
}

.drawing {
  min-height: 0;
  min-width: 0;
  display: grid;
}

.drawing > :deep(svg) {
  min-height: 0;
}

.empty {
  place-self: center;
  font-size: 1.2rem;
}

.off {
  color: var(--brick);
}

.agrees {
  font-weight: 700;
}

.line {
  margin-left: 0.5em;
  white-space: nowrap;
}

.choice {
  margin-block: 0.5rem;
}

.wide {
  width: 100%;
}

.bond {
  --unit: 1.5rem;
}
</style>
