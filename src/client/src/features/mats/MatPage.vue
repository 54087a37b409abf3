<script setup lang="ts">
import { computed, defineAsyncComponent, type Component } from 'vue'
import { useRoute } from 'vue-router'

/** Opens the desk that is named in the address. */
const desks: Record<string, Component> = {
  counters: defineAsyncComponent(() => import('./CountersMat.vue')),
  sums: defineAsyncComponent(() => import('./SumsMat.vue')),
  look: defineAsyncComponent(() => import('./LookMat.vue')),
  path: defineAsyncComponent(() => import('./PathMat.vue')),
  kinds: defineAsyncComponent(() => import('./KindsMat.vue')),
  story: defineAsyncComponent(() => import('./StoryMat.vue')),
  dice: defineAsyncComponent(() => import('./DiceDesk.vue')),
  shakes: defineAsyncComponent(() => import('./ShakesDesk.vue')),
  jar: defineAsyncComponent(() => import('./JarDesk.vue')),
}
const route = useRoute()
const desk = computed(() => desks[String(route.params.desk)])
</script>

<template>
  <component :is="desk" v-if="desk" :key="`${String(route.params.desk)}-${String(route.params.kind)}`" />
  <p v-else class="page">
    {{ $t('There is no such mat.') }} <RouterLink :to="{ name: 'mats' }">{{ $t('See all mats') }}</RouterLink>
  </p>
</template>
