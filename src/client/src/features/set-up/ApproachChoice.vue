<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import PictureView from '@/mats/PictureView.vue'
import { say, sayError } from '@/ui/notices'

/** How the class fills its frames and what it calls things; cards, mats, stories and sheets follow it. */
const queries = useQueryClient()
const { classId } = useAccount()
const { data: approach } = useQuery({
  queryKey: ['approach', classId],
  queryFn: () => take(api.GET('/api/classes/{classId}/approach', { params: { path: { classId: classId.value } } })),
})

type Choice = Schemas['ApproachChoice']
const choices: { name: keyof Choice; label: string; of: [Choice[keyof Choice], string][] }[] = [
  {
    name: 'frameFill',
    label: 'Ten frames are filled',
    of: [
      ['ByFives', 'by fives'],
      ['ByPairs', 'by pairs'],
    ],
  },
  {
    name: 'frameDirection',
    label: 'and lie',
    of: [
      ['Lying', 'across'],
      ['Upright', 'upright'],
    ],
  },
  {
    name: 'onesWord',
    label: 'Single things are',
    of: [
      ['Ones', 'ones'],
      ['Units', 'units'],
    ],
  },
  {
    name: 'fewerWord',
    label: 'Of kites there are',
    of: [
      ['Fewer', 'fewer'],
      ['Less', 'less'],
    ],
  },
  {
    name: 'takeWord',
    label: 'Some go: we',
    of: [
      ['TakeAway', 'take away'],
      ['Subtract', 'subtract'],
    ],
  },
  {
    name: 'sentenceWord',
    label: '3 + 4 = 7 is',
    of: [
      ['NumberSentence', 'a number sentence'],
      ['Equation', 'an equation'],
      ['Sum', 'a sum'],
    ],
  },
]

async function choose(name: keyof Choice, value: string) {
  if (!approach.value) return
  try {
    const body = { ...approach.value.choice, [name]: value } as Choice
    await take(api.PUT('/api/classes/{classId}/approach', { params: { path: { classId: classId.value } }, body }))
    await queries.invalidateQueries()
    say('Cards, mats, stories and sheets follow it from now on.')
  } catch (problem) {
    sayError(problem)
  }
}
</script>

<template>
  <section class="ruled">
    <h2>How this class works</h2>
    <div v-if="approach" class="row">
      <PictureView :picture="approach.six" />
      <label v-for="choice in choices" :key="choice.name" class="field">
        <span>{{ choice.label }}</span>
        <select
          class="box"
          :value="approach.choice[choice.name]"
          @change="choose(choice.name, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="[value, words] in choice.of" :key="value" :value="value">{{ words }}</option>
        </select>
      </label>
    </div>
  </section>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 1.1rem;
}

.field {
  margin-block: 0.4rem;
}
</style>
