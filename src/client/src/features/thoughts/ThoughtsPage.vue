<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { queryKey } from '@/app/keys'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

/** How Fobble thinks: what its words mean, every number in them, an example from this class, and where it is chosen. */
const { classId, current } = useAccount()
const { data: thoughts, error } = useQuery({
  queryKey: queryKey('thoughts', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/thoughts', { params: { path: { classId: classId.value } } })),
})
const chosenAt: Record<Schemas['ThoughtKind'], { name: string; label: string }> = {
  Judging: { name: 'approach', label: t('How this class works') },
  Grouping: { name: 'groups', label: t('Wishes for groups') },
  Planning: { name: 'make-plan', label: t('Plan the year') },
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('How Fobble thinks') }}</h1>
      <span class="soft">{{
        $t('What its words mean, with examples from {name}. It judges work, never a child.', { name: current?.name })
      }}</span>
    </div>
    <PageError v-if="error" :error="error" />
    <div v-if="thoughts" class="thoughts">
      <section v-for="thought in thoughts" :key="thought.title" class="ruled">
        <h2>{{ thought.title }}</h2>
        <p v-for="line in thought.says" :key="line">{{ line }}</p>
        <p v-if="thought.example" class="example">
          <template v-if="thought.example.childId">
            <RouterLink
              class="said"
              :to="{
                name: 'child',
                params: { classId, childId: thought.example.childId },
                query: { skill: thought.example.skillId },
              }"
              >{{ thought.example.child }}, {{ thought.example.skill }}</RouterLink
            >:
          </template>
          <b v-else class="said">{{ thought.example.skill }}: </b>{{ thought.example.sentence }}
        </p>
        <p v-else class="soft small">{{ $t('No example in this class yet.') }}</p>
        <details v-if="thought.numbers.length" class="small">
          <summary>{{ $t('The numbers in it') }}</summary>
          <dl>
            <template v-for="n in thought.numbers" :key="n.for">
              <dt>{{ n.value }}</dt>
              <dd>{{ n.for }}</dd>
            </template>
          </dl>
        </details>
        <RouterLink class="small" :to="{ name: chosenAt[thought.kind].name, params: { classId } }">{{
          $t('Chosen at: {label}', { label: chosenAt[thought.kind].label })
        }}</RouterLink>
      </section>
    </div>
  </div>
</template>

<style scoped>
.thoughts {
  columns: 30rem auto;
  column-gap: 2.4rem;
}

section {
  break-inside: avoid;
  margin-bottom: 1.2rem;
}

.example {
  padding-left: 0.8rem;
  border-left: 4px solid var(--spruce);
}

summary {
  min-height: 28px;
  cursor: pointer;
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.2rem 0.9rem;
}

dt {
  font-weight: 700;
}

dd {
  margin: 0;
}
</style>
