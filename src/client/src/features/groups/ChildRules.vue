<script setup lang="ts">
import { ref } from 'vue'
import { api, take, type Schemas } from '@/app/api/client'
import { clock, dayAndMonth, dayOfWeek, schoolDays } from '@/app/dates'
import ChildSelect from './ChildSelect.vue'
import DayField from '@/ui/DayField.vue'
import TimeField from '@/ui/TimeField.vue'
import NumberField from '@/ui/NumberField.vue'

/** Pairs, times out of class, adults a child wishes for, and who works best with an adult near. */
const props = defineProps<{
  classId: number
  wishes: Schemas['GroupWishesView']
  change: (deed: () => Promise<unknown>) => Promise<void>
}>()
const emit = defineEmits<{ most: [most: number | null] }>()
const at = () => ({ classId: props.classId })

const pair = ref<{ first?: number; second?: number; until: string }>({ until: '' })
const addPair = (together: boolean) =>
  props.change(async () => {
    const { first, second, until } = pair.value
    await take(
      api.POST('/api/classes/{classId}/pair-wishes', {
        params: { path: at() },
        body: { first: first!, second: second!, together, until: until || null },
      }),
    )
    pair.value = { until: '' }
  })
const removePair = (w: Schemas['PairWishView']) =>
  props.change(() =>
    take(
      api.DELETE('/api/classes/{classId}/pair-wishes/{first}/{second}', {
        params: { path: { ...at(), first: w.first, second: w.second } },
      }),
    ),
  )

const out = ref<{ childId?: number; weekday: (typeof schoolDays)[number]; from: string; until: string }>({
  weekday: 'Monday',
  from: '09:30',
  until: '10:00',
})
const addOut = () =>
  props.change(async () => {
    const { childId, weekday, from, until } = out.value
    await take(
      api.POST('/api/classes/{classId}/times-out', {
        params: { path: at() },
        body: { childId: childId!, weekday, from: `${from}:00`, until: `${until}:00` },
      }),
    )
    out.value = { ...out.value, childId: undefined }
  })
const removeOut = (id: number) =>
  props.change(() => take(api.DELETE('/api/classes/{classId}/times-out/{id}', { params: { path: { ...at(), id } } })))

const adult = ref<{ childId?: number; adultId?: number }>({})
const addAdult = (wanted: boolean) =>
  props.change(async () => {
    await take(
      api.POST('/api/classes/{classId}/adult-wishes', {
        params: { path: at() },
        body: { childId: adult.value.childId!, adultId: adult.value.adultId!, with: wanted },
      }),
    )
    adult.value = {}
  })
const removeAdult = (w: Schemas['AdultWishView']) =>
  props.change(() =>
    take(
      api.DELETE('/api/classes/{classId}/adult-wishes/{childId}/{adultId}', {
        params: { path: { ...at(), childId: w.childId, adultId: w.adultId } },
      }),
    ),
  )

const near = (childId: number, wanted: boolean) =>
  props.change(() =>
    take(
      api.PUT('/api/classes/{classId}/children/{childId}/near-adult', {
        params: { path: { ...at(), childId } },
        body: { near: wanted },
      }),
    ),
  )
const nameOf = (id: number) => props.wishes.children.find((c) => c.id === id)?.name ?? ''
const nextNear = ref<number>()
function addNear() {
  if (nextNear.value) void near(nextNear.value, true)
  nextNear.value = undefined
}
</script>

<template>
  <div>
    <h3>{{ $t('Apart and together') }}</h3>
    <p v-for="w in wishes.pairs" :key="`${w.first}-${w.second}`">
      <b class="said">{{ w.names }}</b> {{ w.together ? $t('together') : $t('apart')
      }}{{ w.until ? ' ' + $t('until {day}', { day: dayAndMonth(w.until) }) : '' }}
      <button type="button" class="button plain small" @click="removePair(w)">{{ $t('Let go') }}</button>
    </p>
    <div class="beside line">
      <ChildSelect v-model="pair.first" :label="$t('A child')" :none="$t('A child')" :of="wishes.children" />
      {{ $t('and') }}
      <ChildSelect v-model="pair.second" :label="$t('Another child')" :none="$t('another')" :of="wishes.children" />
      {{ $t('until') }} <DayField v-model="pair.until" :label="$t('Until when')" />
      <button
        v-for="together in [false, true]"
        :key="`${together}`"
        type="button"
        class="button small"
        :disabled="!pair.first || !pair.second || pair.first === pair.second"
        @click="addPair(together)"
      >
        {{ together ? $t('Keep together') : $t('Keep apart') }}
      </button>
    </div>

    <h3 class="after">{{ $t('With an adult, or not') }}</h3>
    <p v-for="w in wishes.adultWishes" :key="`${w.childId}-${w.adultId}`">
      <b class="said">{{ w.names }}</b>
      <button type="button" class="button plain small" @click="removeAdult(w)">{{ $t('Let go') }}</button>
    </p>
    <div class="beside line">
      <ChildSelect
        v-model="adult.childId"
        :label="$t('Child with a wish')"
        :none="$t('A child')"
        :of="wishes.children"
      />
      <ChildSelect v-model="adult.adultId" :label="$t('Adult')" :none="$t('an adult')" :of="wishes.adults" />
      <button type="button" class="button small" :disabled="!adult.childId || !adult.adultId" @click="addAdult(true)">
        {{ $t('Only with') }}
      </button>
      <button type="button" class="button small" :disabled="!adult.childId || !adult.adultId" @click="addAdult(false)">
        {{ $t('Not with') }}
      </button>
    </div>

    <h3 class="after">{{ $t('Out of class') }}</h3>
    <p v-for="t in wishes.timesOut" :key="t.id">
      <b class="said">{{ t.name }}</b> {{ dayOfWeek(t.weekday) }} {{ clock(t.from) }}–{{ clock(t.until) }}
      <button type="button" class="button plain small" @click="removeOut(t.id)">{{ $t('Let go') }}</button>
    </p>
    <div class="beside line">
      <ChildSelect
        v-model="out.childId"
        :label="$t('Child out of class')"
        :none="$t('A child')"
        :of="wishes.children"
      />
      <select v-model="out.weekday" class="box" :aria-label="$t('Weekday')">
        <option v-for="d in schoolDays" :key="d" :value="d">{{ dayOfWeek(d) }}</option>
      </select>
      <TimeField v-model="out.from" :label="$t('From')" />
      <TimeField v-model="out.until" :label="$t('Until')" />
      <button type="button" class="button small" :disabled="!out.childId" @click="addOut">{{ $t('Add') }}</button>
    </div>

    <h3 class="after">{{ $t('Works best with an adult near') }}</h3>
    <p class="small soft">
      {{
        $t(
          'A matter of where adults sit, for you alone to see; what a child needs beyond that is for those who know the child and your school’s own rules to say.',
        )
      }}
    </p>
    <div class="beside line">
      <label
        >{{ $t('At most') }}
        <NumberField
          :min="1"
          :max="6"
          placeholder="–"
          :model-value="wishes.mostNearAdult"
          @update:model-value="emit('most', $event || null)"
        />
        {{ $t('in a group') }}</label
      >
      <span v-for="id in wishes.nearAdult" :key="id"
        ><b class="said">{{ nameOf(id) }}</b>
        <button
          type="button"
          class="button plain small"
          :aria-label="$t('{nameOf} does not need an adult near', { nameOf: nameOf(id) })"
          @click="near(id, false)"
        >
          {{ $t('Let go') }}
        </button></span
      >
      <ChildSelect
        v-model="nextNear"
        :label="$t('Another child who works best with an adult near')"
        :none="$t('Another child')"
        :of="wishes.children.filter((x) => !wishes.nearAdult.includes(x.id))"
        @update:model-value="addNear"
      />
    </div>
  </div>
</template>

<style scoped>
input[type='number'] {
  width: 4.2rem;
}
</style>
