<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { representationLabel } from '@/ui/marks'
import ChangeSkill from './ChangeSkill.vue'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

/** One skill: what it needs, what it opens, who is ready, what to do with it, which standards it serves. */
const props = defineProps<{ skillId: string; map: Schemas['MapView'] }>()
const emit = defineEmits<{ go: [skill: string]; close: [] }>()
const { classId, leadsSchool } = useAccount()
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
  Autumn: t('in autumn'),
  Spring: t('in spring'),
  Summer: t('in summer'),
  Beyond: t('beyond this year'),
}
</script>

<template>
  <aside class="panel" :aria-label="skill?.short">
    <PageError v-if="error" :error="error" />
    <h2 v-if="!skill && !error">{{ map.skills.find((s) => s.id === skillId)?.short }}</h2>
    <template v-if="skill">
      <header>
        <h2>{{ skill.short }}</h2>
        <button type="button" class="button plain small" :aria-label="$t('Close')" @click="emit('close')">
          {{ $t('Close') }}
        </button>
      </header>
      <p class="said big">“{{ skill.iCan }}”</p>
      <p class="soft small">
        {{
          $t('{strand}, {seasons}. Numbers {numbers}, {lessons} lessons. Shown with {list}.', {
            strand: skill.strand,
            seasons: seasons[skill.when],
            numbers: skill.numbers,
            lessons: skill.lessons,
            list: skill.shownIn.map(representationLabel).join(', '),
          })
        }}
      </p>
      <p>
        <b>{{ $t('{has} of {children}', { has: skill.has, children: skill.children }) }}</b> {{ $t('have it.') }}
        <b>{{ skill.ready.length }}</b>
        {{ $t('ready{a}', { a: skill.ready.length ? `: ${skill.ready.join(', ')}` : '.' }) }}
      </p>
      <h3>{{ $t('Needs') }}</h3>
      <p v-if="!skill.needs.length" class="soft">{{ $t('Nothing before it.') }}</p>
      <ul v-else class="links">
        <li v-for="n in skill.needs" :key="n.id">
          <button type="button" class="link" @click="emit('go', n.id)">{{ n.short }}</button>
          <span class="soft small">{{ $t('{has} of {children}', { has: n.has, children: skill.children }) }}</span>
        </li>
      </ul>
      <h3>{{ $t('Opens') }}</h3>
      <p v-if="!skill.opens.length" class="soft">{{ $t('Nothing that builds on it is on the map.') }}</p>
      <ul v-else class="links">
        <li v-for="n in skill.opens" :key="n.id">
          <button type="button" class="link" @click="emit('go', n.id)">{{ n.short }}</button>
          <span class="soft small">{{ $t('{has} of {children}', { has: n.has, children: skill.children }) }}</span>
        </li>
      </ul>
      <h3>{{ $t('What to do') }}</h3>
      <ul class="links">
        <li v-for="a in skill.activities" :key="a.id">
          <RouterLink :to="{ name: 'activity', params: { classId, id: a.id }, query: { skill: skill.id } }">{{
            a.name
          }}</RouterLink>
        </li>
      </ul>
      <p v-if="!skill.activities.length" class="warn small">
        {{ $t('No activity serves it yet, so it is not planned. Change one in the library so that it does.') }}
      </p>
      <h3>{{ $t('Look for') }}</h3>
      <p>{{ skill.lookFor.join('. ') }}.</p>
      <h3>{{ $t('Slips that tell something') }}</h3>
      <p>{{ skill.slips.join('. ') }}.</p>
      <h3>{{ $t('Ways of doing it') }}</h3>
      <p>{{ skill.ways.join('. ') }}.</p>
      <h3>{{ $t('Words') }}</h3>
      <p class="said">{{ skill.words.join(' · ') }}</p>
      <h3>{{ $t('Standards') }}</h3>
      <p v-for="s in skill.standards" :key="s.code" class="small">
        <b>{{ s.code }}</b> {{ s.text }}
      </p>
      <template v-if="leadsSchool">
        <button v-if="!changing" type="button" class="button" @click="changing = true">
          {{ $t('Change for our school') }}
        </button>
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
