<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { sayError } from '@/ui/notices'
import GuessField from './GuessField.vue'

/** A field a child, made to be gone through at a run: type the number, Enter, next child. Each guess is kept as soon as it is left. */
const props = defineProps<{
  round: Schemas['JarThere']
  children: Schemas['JarChild'][]
  editable: boolean
}>()
const queries = useQueryClient()
const { classId } = useAccount()
const list = ref<HTMLElement>()
const guessOf = (id: number) => props.round.guesses.find((g) => g.childId === id)?.guess

async function keep(childId: number, guess: number | null) {
  try {
    await take(
      api.PUT('/api/classes/{classId}/jar/{roundId}/guesses/{childId}', {
        params: { path: { classId: classId.value, roundId: props.round.id, childId } },
        body: { guess },
      }),
    )
    await queries.invalidateQueries({ queryKey: queryKey('jar') })
  } catch (problem) {
    sayError(problem)
  }
}

function next(event: KeyboardEvent) {
  const fields = [...(list.value?.querySelectorAll('input') ?? [])]
  const field = event.target as HTMLInputElement
  const following = fields[fields.indexOf(field) + 1]
  if (following) following.focus()
  else field.blur()
}
</script>

<template>
  <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -- Enter in a field goes on to the next -->
  <ul ref="list" @keydown.enter.prevent="next">
    <li v-for="child in children" :key="child.id">
      <GuessField :name="child.name" :guess="guessOf(child.id)" :editable="editable" @keep="keep(child.id, $event)" />
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11.5rem, 1fr));
  gap: 0.25rem 1.2rem;
  list-style: none;
  padding: 0;
}
</style>
