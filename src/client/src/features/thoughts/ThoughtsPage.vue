<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { queryKey } from '@/app/keys'

/** How Fobble thinks: what its words mean, every number in them, an example from this class, and where it is chosen. */
const { classId, current } = useAccount()
const { data: thoughts, error } = useQuery({
  queryKey: queryKey('thoughts', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/thoughts', { params: { path: { classId: classId.value } } })),
})
const chosenAt: Record<Schemas['ThoughtKind'], { name: string; label: string }> = {
  Judging: { name: 'approach', label: 'How this class works' },
  Grouping: { name: 'groups', label: 'Wishes for groups' },
  Planning: { name: 'make-plan', label: 'Plan the year' },
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>How Fobble thinks</h1>
      <span class="soft"
        >What its words mean, with examples from {{ current?.name }}. It judges work, never a child.</span
      >
    </div>
    <p v-if="error" class="warn" role="alert">{{ error.message }}</p>
    <div v-if="thoughts" class="thoughts">
      <section v-for="t in thoughts" :key="t.title" class="ruled">
        <h2>{{ t.title }}</h2>
        <p v-for="line in t.says" :key="line">{{ line }}</p>
        <p v-if="t.example" class="example">
          <template v-if="t.example.childId">
            <RouterLink
              class="said"
              :to="{
                name: 'child',
                params: { classId, childId: t.example.childId },
                query: { skill: t.example.skillId },
              }"
              >{{ t.example.child }}, {{ t.example.skill }}</RouterLink
            >:
          </template>
          <b v-else class="said">{{ t.example.skill }}: </b>{{ t.example.sentence }}
        </p>
        <p v-else class="soft small">No example in this class yet.</p>
        <details v-if="t.numbers.length" class="small">
          <summary>The numbers in it</summary>
          <dl>
            <template v-for="n in t.numbers" :key="n.for">
              <dt>{{ n.value }}</dt>
              <dd>{{ n.for }}</dd>
            </template>
          </dl>
        </details>
        <RouterLink class="small" :to="{ name: chosenAt[t.kind].name, params: { classId } }"
          >Chosen at: {{ chosenAt[t.kind].label }}</RouterLink
        >
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
