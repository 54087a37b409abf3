<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/app/api/client'
import { fullDay, shortDay } from '@/app/dates'
import { useAccount } from '@/app/account'
import { verdictOf } from './layout'
import { t } from '@/app/language'

/** The lesson in hand: why it is there, what comes before and after, where it could go, a note. */
const props = defineProps<{
  lesson: Schemas['LessonView']
  lessons: Schemas['LessonView'][]
  reviews: Schemas['ReviewView'][]
  prices?: Schemas['DayPriceView'][]
  canChange: boolean
}>()
const emit = defineEmits<{ move: [string]; change: [{ pinned?: boolean; note?: string }]; ask: [] }>()
const { classId } = useAccount()
const note = ref('')
const to = ref('')
// The plan is read anew when anybody changes it; what is being written here stays, unless the lesson in hand is another one or its note has changed.
watch(
  [() => props.lesson.skill, () => props.lesson.number, () => props.lesson.note],
  ([, , kept]) => (note.value = kept),
  { immediate: true },
)
watch(
  () => props.lesson,
  () => (to.value = ''),
)
const own = computed(() => props.lessons.filter((l) => l.skill === props.lesson.skill))
const starters = computed(() => props.reviews.filter((r) => r.skill === props.lesson.skill))
const price = computed(() => props.prices?.find((p) => p.day === to.value))
const mark = { open: '', advice: ' ' + t('– think again'), refused: ' – no' }
</script>

<template>
  <aside class="panel ruled" :aria-label="$t('The lesson')">
    <div>
      <h2 class="said">{{ lesson.short }}</h2>
      <p>
        {{ $t('Lesson {number} of {of}', { number: lesson.number, of: lesson.of })
        }}<template v-if="lesson.how">: {{ lesson.how }}</template
        >. {{ fullDay(lesson.day) }}.
        <RouterLink :to="{ name: 'week', params: { classId, day: lesson.day } }">{{ $t('Its week') }}</RouterLink>
      </p>
      <p class="soft">{{ lesson.reason }}</p>
    </div>
    <div>
      <h3 class="small">{{ $t('Its days') }}</h3>
      <p class="small">
        <template v-for="(l, i) in own" :key="l.day"
          >{{ i ? ' · ' : '' }}{{ shortDay(l.day) }}{{ l.given ? ' ' + $t('(given)') : '' }}</template
        >
      </p>
      <h3 class="small">{{ $t('Brought back in starters') }}</h3>
      <p class="small">
        <template v-for="(r, i) in starters" :key="r.day + r.round">{{ i ? ' · ' : '' }}{{ shortDay(r.day) }}</template>
        <span v-if="!starters.length" class="soft">{{ $t('not planned') }}</span>
      </p>
    </div>
    <form v-if="canChange && !lesson.past" @submit.prevent="emit('change', { note })">
      <label class="field"
        ><span>{{ $t('Move it to') }}</span>
        <select v-model="to" class="box" @focus="emit('ask')">
          <option value="">{{ prices ? $t('Choose a day') : $t('Choose a day …') }}</option>
          <option v-for="p in prices" :key="p.day" :value="p.day" :disabled="!!p.refused">
            {{ shortDay(p.day) }}{{ mark[verdictOf(p).kind] }}
          </option>
        </select>
      </label>
      <p v-if="price" class="small" :class="{ warn: verdictOf(price).kind === 'advice' }">
        {{ verdictOf(price).words }}
        <button type="button" class="button small" @click="emit('move', to)">
          {{ price.advice.length ? $t('Move it anyway') : $t('Move it') }}
        </button>
      </p>
      <label class="field"
        ><span>{{ $t('Note') }}</span
        ><textarea v-model="note" rows="2" maxlength="300" />
      </label>
      <div class="buttons">
        <button class="button small" :disabled="note === lesson.note">{{ $t('Keep the note') }}</button>
        <button
          type="button"
          class="button small"
          @click="emit('change', { pinned: !lesson.pinned, ...(note !== lesson.note && { note }) })"
        >
          {{ lesson.pinned ? $t('Let go of the pin') : $t('Pin it to its day') }}
        </button>
        <RouterLink
          class="button small plain"
          :to="{ name: 'revise-plan', params: { classId }, query: { skill: lesson.skill, lessons: 1 } }"
          >{{ $t('Needs longer') }}</RouterLink
        >
        <RouterLink
          class="button small plain"
          :to="{ name: 'revise-plan', params: { classId }, query: { skill: lesson.skill, lessons: -1 } }"
          >{{ $t('One less') }}</RouterLink
        >
      </div>
    </form>
  </aside>
</template>

<style scoped>
.panel {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr));
  gap: 0 1.6rem;
  margin-top: 1rem;
}

.panel h2 {
  margin: 0 0 0.2rem;
}

.panel h3 {
  margin: 0.3rem 0 0;
}

.panel p {
  margin: 0.1rem 0 0.4rem;
}

textarea {
  padding: 0.3rem 0.6rem;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font: inherit;
}

.field {
  margin-block: 0 0.5rem;
}

.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
</style>
