<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { representationLabel } from '@/ui/marks'
import ChangeSkill from './ChangeSkill.vue'

/** One skill: what it needs, what it opens, who is ready, what to do with it, which standards it serves. */
const props = defineProps<{ skillId: string; map: Schemas['MapView'] }>()
const emit = defineEmits<{ go: [skill: string]; close: [] }>()
const { classId, leads } = useAccount()
const changing = ref(false)
const { data: skill, error } = useQuery({
  queryKey: queryKey(
    'map',
    classId,
    'skill',
    computed(() => props.skillId),
  ),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/map/skills/{skillId}', {
        params: { path: { classId: classId.value, skillId: props.skillId } },
      }),
    ),
})
const seasons: Record<Schemas['Season'], string> = {
  Autumn: 'in autumn',
  Spring: 'in spring',
  Summer: 'in summer',
  Beyond: 'beyond this year',
}
</script>

<template>
  <aside class="panel" :aria-label="skill?.short">
    <p v-if="error" class="warn" role="alert">{{ error.message }}</p>
    <h2 v-if="!skill && !error">{{ map.skills.find((s) => s.id === skillId)?.short }}</h2>
    <template v-if="skill">
      <header>
        <h2>{{ skill.short }}</h2>
        <button type="button" class="button plain small" aria-label="Close" @click="emit('close')">Close</button>
      </header>
      <p class="said big">“{{ skill.iCan }}”</p>
      <p class="soft small">
        {{ skill.strand }}, {{ seasons[skill.when] }}. Numbers {{ skill.numbers }}, {{ skill.lessons }} lessons. Shown
        with {{ skill.shownIn.map(representationLabel).join(', ') }}.
      </p>
      <p>
        <b>{{ skill.has }} of {{ skill.children }}</b> have it. <b>{{ skill.ready.length }}</b> ready{{
          skill.ready.length ? `: ${skill.ready.join(', ')}` : '.'
        }}
      </p>
      <h3>Needs</h3>
      <p v-if="!skill.needs.length" class="soft">Nothing before it.</p>
      <ul v-else class="links">
        <li v-for="n in skill.needs" :key="n.id">
          <button type="button" class="link" @click="emit('go', n.id)">{{ n.short }}</button>
          <span class="soft small">{{ n.has }} of {{ skill.children }}</span>
        </li>
      </ul>
      <h3>Opens</h3>
      <p v-if="!skill.opens.length" class="soft">Nothing that builds on it is on the map.</p>
      <ul v-else class="links">
        <li v-for="n in skill.opens" :key="n.id">
          <button type="button" class="link" @click="emit('go', n.id)">{{ n.short }}</button>
          <span class="soft small">{{ n.has }} of {{ skill.children }}</span>
        </li>
      </ul>
      <h3>What to do</h3>
      <ul class="links">
        <li v-for="a in skill.activities" :key="a.id">
          <RouterLink :to="{ name: 'activity', params: { classId, id: a.id }, query: { skill: skill.id } }">{{
            a.name
          }}</RouterLink>
        </li>
      </ul>
      <p v-if="!skill.activities.length" class="warn small">
        No activity serves it yet, so it is not planned. Change one in the library so that it does.
      </p>
      <h3>Look for</h3>
      <p>{{ skill.lookFor.join('. ') }}.</p>
      <h3>Slips that tell something</h3>
      <p>{{ skill.slips.join('. ') }}.</p>
      <h3>Ways of doing it</h3>
      <p>{{ skill.ways.join('. ') }}.</p>
      <h3>Words</h3>
      <p class="said">{{ skill.words.join(' · ') }}</p>
      <h3>Standards</h3>
      <p v-for="s in skill.standards" :key="s.code" class="small">
        <b>{{ s.code }}</b> {{ s.text }}
      </p>
      <template v-if="leads">
        <button v-if="!changing" type="button" class="button" @click="changing = true">Change for our school</button>
        <ChangeSkill v-else :skill="skill" :map="map" @done="changing = false" />
      </template>
    </template>
  </aside>
</template>

<style scoped>
.panel {
  max-height: calc(100vh - 14rem);
  overflow: auto;
  padding: 0.3rem 0.3rem 1rem 0;
  border-top: 1.5px solid var(--ink);
}

header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

h2 {
  font-size: 1.25rem;
}

h3 {
  margin: 0.8rem 0 0.1rem;
  font-size: 0.9rem;
}

.big {
  font-size: 1.1rem;
}

.links {
  margin: 0;
  padding: 0;
  list-style: none;
}

.links li {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
}

.links a,
.link {
  display: inline-flex;
  align-items: center;
  min-height: 30px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--spruce);
  font: inherit;
  text-align: left;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}

.button {
  margin-top: 1rem;
}

header .button {
  margin: 0;
}

@media (max-width: 1000px) {
  .panel {
    max-height: none;
  }
}
</style>
