<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import PictureView from '@/mats/PictureView.vue'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

/** The shelf of mats: to lay out by hand, to see worked, to reckon with before a game. */
const { classId } = useAccount()
const { data: shelf, error } = useQuery({
  queryKey: queryKey('mats', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/mats', { params: { path: { classId: classId.value } } })),
  staleTime: 60_000,
})

const desks = ['dice', 'shakes', 'jar']
const shelves = computed(() => [
  { title: t('To show and tell'), mats: (shelf.value ?? []).filter((m) => !m.kind && !desks.includes(m.desk)) },
  { title: t('To work by hand'), mats: (shelf.value ?? []).filter((m) => m.kind) },
  { title: t('For you, before a game'), mats: (shelf.value ?? []).filter((m) => desks.includes(m.desk)) },
])
const way = (mat: Schemas['MatOnOffer']) => ({
  name: 'mat',
  params: { classId: classId.value, desk: mat.desk, kind: mat.kind ?? '' },
})
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Mats') }}</h1>
      <span class="soft">{{ $t('Pick one. It opens empty or ready laid, and goes on the board with one tap.') }}</span>
    </div>
    <PageError v-if="error" :error="error" />
    <section v-for="group in shelves" :key="group.title" class="ruled">
      <h2>{{ group.title }}</h2>
      <ul>
        <li v-for="mat in group.mats" :key="mat.name">
          <RouterLink :to="way(mat)">
            <span class="small-mat" aria-hidden="true"><PictureView :picture="mat.picture" fill /></span>
            <span>
              <b>{{ mat.name }}</b>
              <span class="soft small">{{ mat.for }}</span>
            </span>
          </RouterLink>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
section {
  margin-bottom: 1.1rem;
}

ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(17.5rem, 1fr));
  gap: 0.7rem 1.2rem;
  list-style: none;
  margin: 0.6rem 0 0;
  padding: 0;
}

a {
  display: grid;
  grid-template-columns: 7.2rem 1fr;
  gap: 0.8rem;
  align-items: center;
  padding: 0.15rem;
  color: var(--ink);
  text-decoration: none;
}

a:hover b {
  text-decoration: underline;
}

b,
a .small {
  display: block;
}

/* A small mat with its stitched edge. */
.small-mat {
  display: grid;
  height: 5rem;
  padding: 0.65rem;
  background: var(--paper-deep);
  outline: 1.5px dashed var(--spruce);
  outline-offset: -5px;
}

.small-mat > * {
  min-height: 0;
}

a:hover .small-mat {
  outline-style: solid;
}
</style>
