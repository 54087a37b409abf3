<script setup lang="ts">
import { computed } from 'vue'
import { differences, type View } from './board'

/** The sets of groups that lie beside each other: choose one to look at, or compare two, child by child. */
const props = defineProps<{ sets: { name: string; view: View }[]; busy: boolean; canAsk: boolean }>()
const current = defineModel<number>({ required: true })
const compared = defineModel<number | undefined>('compared')
const emit = defineEmits<{ others: [] }>()

const one = computed(() => props.sets[current.value])
const other = computed(() => (compared.value === undefined ? undefined : props.sets[compared.value]))
const differing = computed(() => (one.value && other.value ? differences(one.value.view, other.value.view) : []))

function choose(place: number) {
  current.value = place
  if (compared.value === place) compared.value = undefined
}
</script>

<template>
  <div class="bar">
    <div v-if="sets.length > 1" role="group" :aria-label="$t('Sets of groups')" class="sets">
      <button
        v-for="(set, i) in sets"
        :key="set.name"
        type="button"
        class="set"
        :aria-pressed="i === current"
        @click="choose(i)"
      >
        {{ set.name }} <span class="small">{{ $t('{score} points', { score: set.view.score }) }}</span>
      </button>
    </div>
    <button v-if="canAsk" type="button" class="button plain small" :disabled="busy" @click="emit('others')">
      {{ busy ? $t('Looking for others…') : $t('Other good sets') }}
    </button>
    <label v-if="sets.length > 1" class="compare"
      >{{ $t('Compare with') }}
      <select v-model="compared" class="box">
        <option :value="undefined">–</option>
        <template v-for="(set, i) in sets" :key="set.name">
          <option v-if="i !== current" :value="i">{{ set.name }}</option>
        </template>
      </select>
    </label>
  </div>
  <table v-if="one && other" class="differing">
    <caption>
      {{
        differing.length
          ? $t('{count} children have another aim; {name} has {score} points, {name2} {score2}.', {
              count: differing.length,
              name: one.name,
              score: one.view.score,
              name2: other.name,
              score2: other.view.score,
            })
          : $t('Every child has the same aim in both.')
      }}
    </caption>
    <thead v-if="differing.length">
      <tr>
        <th scope="col">{{ $t('Child') }}</th>
        <th scope="col">{{ one.name }}</th>
        <th scope="col">{{ other.name }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="d in differing" :key="d.id">
        <th scope="row" class="said">{{ d.name }}</th>
        <td :class="{ soft: !d.one }">{{ d.one ?? $t('no turn') }}</td>
        <td :class="{ soft: !d.other }">{{ d.other ?? $t('no turn') }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.bar,
.sets {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 0.6rem;
}

.set {
  min-height: 40px;
  padding: 0 0.8rem;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}

.set[aria-pressed='true'] {
  border-color: var(--spruce);
  box-shadow: inset 0 -4px 0 var(--spruce);
  font-weight: 700;
}

.compare {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
}

.differing {
  margin: 0.6rem 0;
  border-collapse: collapse;
}

.differing caption {
  padding: 0.2rem 0;
  text-align: left;
  white-space: nowrap;
}

.differing th,
.differing td {
  padding: 0.2rem 1.4rem 0.2rem 0;
  border-top: 1px solid var(--line);
  text-align: left;
}
</style>
