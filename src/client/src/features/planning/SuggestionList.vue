<script setup lang="ts">
import { useAccount } from '@/app/account'
import type { Schemas } from '@/app/api/client'
import { t } from '@/app/language'

/** What the evidence and the calendar say about the plan: offered, never done by itself. */
defineProps<{
  suggestions: Schemas['SuggestionView'][]
  /** On the page where the plan is revised: what is lost is looked after there already. */
  here?: boolean
}>()
const { classId, leads } = useAccount()
type Suggestion = Schemas['SuggestionView']
const query = (s: Suggestion) => (s.skill && s.lessons ? { skill: s.skill, lessons: s.lessons } : {})
const label: Record<Suggestion['kind'], string> = {
  LostDays: t('Find another day'),
  NeedsLonger: t('Give it one more'),
  AlreadyThere: t('Make it shorter'),
  FarAhead: '',
}
</script>

<template>
  <ul v-if="suggestions.length" class="suggestions" :aria-label="$t('Worth a thought')">
    <li v-for="s in suggestions" :key="s.sentence" :class="{ small: here && s.kind === 'FarAhead' }">
      <span>{{ s.sentence }}</span>
      <span v-if="s.kind === 'FarAhead'" class="small soft said"> {{ s.children.join(', ') }}</span>
      <RouterLink
        v-if="leads && s.kind !== 'FarAhead' && !(here && s.kind === 'LostDays')"
        class="button small"
        :to="{ name: 'revise-plan', params: { classId }, query: query(s) }"
        >{{ label[s.kind] }}</RouterLink
      >
      <RouterLink
        v-else-if="s.kind === 'FarAhead' && !here"
        class="button small plain"
        :to="{ name: 'groups', params: { classId } }"
        >{{ $t('Groups') }}</RouterLink
      >
    </li>
  </ul>
</template>

<style scoped>
.suggestions {
  margin: 0 0 0.8rem;
  padding: 0;
  border-left: 4px solid var(--marigold);
  list-style: none;
}

.suggestions li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.2rem 0.7rem;
  padding: 0.15rem 0 0.15rem 0.7rem;
}
</style>
