<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { api, take, type Schemas } from '@/app/api/client'
import { inOrder } from '@/app/inOrder'
import { sayError } from '@/ui/notices'
import AdultRules from './AdultRules.vue'
import ChildRules from './ChildRules.vue'
import WeightSliders from './WeightSliders.vue'
import PageError from '@/ui/PageError.vue'
import NumberField from '@/ui/NumberField.vue'

/** What groups have to keep to, and what counts how much: kept for the class until it is changed. */
const props = defineProps<{ classId: number }>()
const emit = defineEmits<{ changed: [] }>()
const queries = useQueryClient()
const key = computed(() => queryKey('group-wishes', props.classId))
const { data: wishes, error } = useQuery({
  queryKey: key,
  queryFn: () => take(api.GET('/api/classes/{classId}/group-wishes', { params: { path: { classId: props.classId } } })),
})
const open = ref(false)
type Turns = Schemas['TurnsAWeek']

const order = inOrder()
/** Does something that changes a wish, and reads them anew before the next, which is put together from what is kept then. */
async function change(deed: () => Promise<unknown>) {
  try {
    await order(() => deed().finally(() => queries.invalidateQueries({ queryKey: key.value })))
    emit('changed')
  } catch (problem) {
    sayError(problem)
  }
}

const settings = computed<Schemas['GroupSettingsChange']>(() => {
  const w = wishes.value!
  return {
    minSize: w.minSize,
    maxSize: w.maxSize,
    everyoneOnce: w.everyoneOnce,
    mostNearAdult: w.mostNearAdult,
    mostAtOnce: w.mostAtOnce,
    turnsAWeek: w.turnsAWeek,
    weights: Object.fromEntries(w.weights.map((x) => [x.key, x.percent])),
  }
})
const set = (part: Partial<Schemas['GroupSettingsChange']>) =>
  change(() =>
    take(
      api.PUT('/api/classes/{classId}/group-wishes', {
        params: { path: { classId: props.classId } },
        body: { ...settings.value, ...part },
      }),
    ),
  )
</script>

<template>
  <section class="ruled" aria-labelledby="wishes-head">
    <div class="head">
      <h2 id="wishes-head">{{ $t('Wishes for the next proposal') }}</h2>
      <button type="button" class="button plain small" :aria-expanded="open" @click="open = !open">
        {{ open ? $t('Fold away') : $t('Sizes, aims, pairs, adults') }}
      </button>
    </div>
    <PageError v-if="error" :error="error" />
    <template v-if="open && wishes">
      <div class="beside line weights">
        <label
          >{{ $t('From') }}
          <NumberField
            :model-value="wishes.minSize"
            :min="2"
            :max="6"
            @update:model-value="$event && set({ minSize: $event })"
        /></label>
        <label
          >{{ $t('to') }}
          <NumberField
            :model-value="wishes.maxSize"
            :min="2"
            :max="6"
            @update:model-value="$event && set({ maxSize: $event })"
          />
          {{ $t('children') }}</label
        >
        <label class="check"
          ><input
            type="checkbox"
            :checked="wishes.everyoneOnce"
            @change="set({ everyoneOnce: !wishes.everyoneOnce })"
          />
          {{ $t('Everyone at least once if it can be') }}</label
        >
        <label
          >{{ $t('Groups at one time') }}
          <NumberField
            :model-value="wishes.mostAtOnce"
            :min="1"
            :max="10"
            placeholder="–"
            @update:model-value="set({ mostAtOnce: $event || null })"
        /></label>
        <label
          >{{ $t('Turns a week') }}
          <select
            :value="wishes.turnsAWeek"
            class="box"
            aria-describedby="turns-mean"
            @change="set({ turnsAWeek: ($event.target as HTMLSelectElement).value as Turns })"
          >
            <option value="AsPlacesAllow">{{ $t('as places allow') }}</option>
            <option value="One">{{ $t('one each') }}</option>
            <option value="Two">{{ $t('up to two each') }}</option>
          </select></label
        >
      </div>
      <p id="turns-mean" class="small soft">
        {{
          $t(
            'With two turns the week falls into two parts by day, each with its own groups: the second follows what is seen in the first, nobody works on the same aim twice, and who had no turn comes first.',
          )
        }}
      </p>
      <div class="parts">
        <WeightSliders :weights="wishes.weights" :steps="wishes.steps" @set="(weights) => set({ weights })" />
        <ChildRules
          :class-id="classId"
          :wishes="wishes"
          :change="change"
          @most="(most) => set({ mostNearAdult: most })"
        />
        <AdultRules :class-id="classId" :wishes="wishes" :change="change" />
      </div>
    </template>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  align-items: baseline;
  gap: 0.8rem;
}

.weights {
  gap: 0.7rem 1.2rem;
}

.row input[type='number'] {
  width: 4.2rem;
}

.parts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 24rem), 1fr));
  gap: 1.4rem 2.4rem;
}
</style>
