<script setup lang="ts">
import { computed } from 'vue'
import { api, type Schemas } from '@/app/api/client'
import PictureView from '@/mats/PictureView.vue'
import StepNumber from '@/ui/StepNumber.vue'
import MatFrame from './MatFrame.vue'
import MatStage from './MatStage.vue'
import ShareBars from './ShareBars.vue'
import { freshSeed, useAddress, whole } from '@/ui/useAddress'
import { useAsked } from './useAsked'
import { t } from '@/app/language'

/** Dice before they are handed out: what they can show, what can go wrong, how long a game takes; and a throw for the board. */
const { at, put } = useAddress({
  dice: '5-10;0-5',
  op: 'TakeAway',
  low: '0',
  high: '10',
  target: '20',
  exact: '',
  players: '4',
  seed: '1',
})
const dice = computed(() => at.value.dice.split(';'))
const sorts: Record<string, string> = {
  '1-6': t('1 to 6'),
  '0-5': t('0 to 5'),
  '5-10': t('5 to 10'),
  '1-3,1-3': t('1 to 3, twice'),
  '0,1,1,2,2,3': '0, 1, 1, 2, 2, 3',
  '1-10': t('1 to 10'),
  '0-9': t('0 to 9'),
}
const asked = computed(() => ({
  dice: at.value.dice,
  operation: at.value.op as Schemas['DiceOperation'],
  low: whole(at.value.low, 0, 999, 0),
  high: Math.max(whole(at.value.low, 0, 999, 0), whole(at.value.high, 0, 999, 10)),
  target: whole(at.value.target, 1, 100, 20),
  exact: at.value.exact === '1',
  players: whole(at.value.players, 1, 6, 4),
  seed: whole(at.value.seed, 1, 999_999, 1),
}))
const { data: desk, error } = useAsked('dice', asked, (params) =>
  api.GET('/api/classes/{classId}/mats/dice', { params }),
)
const bars = computed(() =>
  (desk.value?.results ?? []).map(({ result, share }) => {
    const facts = desk.value!.facts.filter((f) => f.result === result).map((f) => f.fact)
    return {
      label: String(result).replace('-', '−'),
      share,
      note: facts.length <= 4 ? facts.join(', ') : t('{count} facts', { count: facts.length }),
    }
  }),
)
const setDie = (index: number, die: string) =>
  put({ dice: dice.value.map((d, i) => (i === index ? die : d)).join(';') })
const roll = () => put({ seed: freshSeed() })
</script>

<template>
  <MatFrame :name="$t('Dice desk')" :problem="error">
    <MatStage :keys="{ n: $t('roll') }" :corner="{ key: 'n', label: $t('Roll') }" low @key="roll">
      <PictureView v-if="desk" :picture="desk.thrown" fill />
      <template #under
        ><b v-if="desk" aria-live="polite">{{ desk.thrownSays }}</b></template
      >
      <template #run
        ><button type="button" class="button main" @click="roll">{{ $t('Roll') }}</button></template
      >
    </MatStage>
    <section v-if="desk" class="ruled">
      <h2>{{ $t('What can come up') }}</h2>
      <p v-for="warning in desk.warnings" :key="warning" class="warn">{{ warning }}</p>
      <p v-if="desk.warnings.length === 0">
        {{ $t('Every throw stays from {low} to {high}.', { low: asked.low, high: asked.high }) }}
      </p>
      <ShareBars :rows="bars" :caption="$t('Results and their shares')" />
      <h2 class="after">{{ $t('How long a game takes') }}</h2>
      <p>{{ desk.length }}</p>
    </section>

    <template #side>
      <section class="ruled">
        <h2>{{ $t('Dice') }}</h2>
        <p v-for="(die, i) in dice" :key="i" class="die">
          <select
            class="box"
            :aria-label="$t('Die {a}', { a: i + 1 })"
            :value="die in sorts ? die : ''"
            @change="setDie(i, ($event.target as HTMLSelectElement).value)"
          >
            <option v-for="(name, faces) in sorts" :key="faces" :value="faces">{{ name }}</option>
            <option v-if="!(die in sorts)" value="">{{ $t('own faces') }}</option>
          </select>
          <input
            type="text"
            :aria-label="$t('Faces of die {a}', { a: i + 1 })"
            :value="die"
            @change="setDie(i, ($event.target as HTMLInputElement).value)"
          />
        </p>
        <button v-if="dice.length < 3" type="button" class="button small" @click="put({ dice: `${at.dice};1-6` })">
          {{ $t('One more die') }}
        </button>
        <button
          v-if="dice.length > 1"
          type="button"
          class="button plain small"
          @click="put({ dice: dice.slice(0, -1).join(';') })"
        >
          {{ $t('One fewer') }}
        </button>
        <select
          class="box wide"
          :aria-label="$t('What is done with them')"
          :value="dice.length === 1 && at.op === 'TakeAway' ? 'Add' : at.op"
          @change="put({ op: ($event.target as HTMLSelectElement).value })"
        >
          <option value="Add">{{ dice.length > 1 ? $t('put together') : $t('as it falls') }}</option>
          <option v-if="dice.length > 1" value="TakeAway">{{ $t('the others from the first') }}</option>
          <option value="PlusOrMinus">{{ $t('a further die says + or −') }}</option>
        </select>
      </section>
      <section class="ruled">
        <h2>{{ $t('The children work with') }}</h2>
        <div class="beside">
          <StepNumber
            :model-value="asked.low"
            :label="$t('Range from')"
            @update:model-value="put({ low: `${$event}` })"
          />
          <StepNumber
            :model-value="asked.high"
            :label="$t('Range to')"
            @update:model-value="put({ high: `${$event}` })"
          />
        </div>
      </section>
      <section class="ruled">
        <h2>{{ $t('The game') }}</h2>
        <label class="field"
          ><span>{{ $t('Places to the end') }}</span
          ><StepNumber
            :model-value="asked.target"
            :label="$t('Places to the end')"
            :low="1"
            :high="100"
            @update:model-value="put({ target: `${$event}` })"
        /></label>
        <label class="field"
          ><span>{{ $t('Players') }}</span
          ><StepNumber
            :model-value="asked.players"
            :label="$t('Players')"
            :low="1"
            :high="6"
            @update:model-value="put({ players: `${$event}` })"
        /></label>
        <label class="check"
          ><input type="checkbox" :checked="asked.exact" @change="put({ exact: asked.exact ? '' : '1' })" />
          {{ $t('the end must be hit exactly') }}</label
        >
      </section>
    </template>
  </MatFrame>
</template>

<style scoped>
.die {
  display: flex;
  gap: 0.5rem;
}

.die .box {
  flex: 1 1 9rem;
  min-width: 0;
}

.die input {
  width: 8rem;
}

.wide {
  width: 100%;
  margin-top: 0.5rem;
}
</style>
