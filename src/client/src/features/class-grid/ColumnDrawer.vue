<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import Drawer from 'primevue/drawer'
import { computed } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import MarkFrame from '@/ui/MarkFrame.vue'
import { t } from '@/app/language'

/** One skill across the class: who is ready for it, who has it, who is not there yet, and why. */
const props = defineProps<{ skillId: string }>()
const emit = defineEmits<{ close: [] }>()
const { classId, leads } = useAccount()
const { data: column, error } = useQuery({
  queryKey: queryKey('column', classId, () => props.skillId),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/grid/{skillId}', {
        params: { path: { classId: classId.value, skillId: props.skillId } },
      }),
    ),
})

// A group's worth of those who are ready, the nearest to having it first.
const nearest = computed(() =>
  [...(column.value?.ready ?? [])]
    .sort((a, b) => b.strength - a.strength)
    .slice(0, 5)
    .map((c) => c.id),
)
const parts = computed(() =>
  column.value
    ? [
        { of: 'ready', name: t('Ready'), children: column.value.ready },
        { of: 'has', name: t('Has it'), children: column.value.has },
        { of: 'not-yet', name: t('Not yet'), children: column.value.notYet },
      ]
    : [],
)
</script>

<template>
  <Drawer
    visible
    position="right"
    :style="{ width: 'min(27rem, 100vw)' }"
    :header="column?.short ?? ' '"
    @update:visible="emit('close')"
  >
    <p v-if="error" class="warn">{{ error.message }}</p>
    <template v-else-if="column">
      <p class="said can">{{ column.iCan }}</p>
      <p>{{ column.sentence }}</p>
      <p v-if="column.activityId">
        {{ $t('With those who are ready:') }}
        <RouterLink
          :to="{ name: 'activity', params: { classId, id: column.activityId }, query: { skill: column.skill } }"
          >{{ column.activity }}</RouterLink><span class="soft"> – {{ column.purpose }}</span>
      </p>
      <p v-if="leads" class="small">
        <RouterLink
          :to="{
            name: 'groups',
            params: { classId },
            query: { work: column.skill, children: nearest.join(',') },
          }"
          >{{ $t('Form a group of the nearest') }}</RouterLink
        >
        ·
        <RouterLink :to="{ name: 'map', params: { classId }, query: { skill: column.skill } }">{{
          $t('On the map')
        }}</RouterLink>
      </p>
      <section v-for="part in parts" :key="part.name">
        <h3>
          {{ part.name }} <span class="soft">{{ part.children.length }}</span>
        </h3>
        <ul>
          <li v-for="c in part.children" :key="c.id">
            <MarkFrame
              :strength="c.strength"
              :look-again="c.lookAgain"
              :ready="part.of === 'ready'"
              :inferred="c.guess && part.of === 'has'"
              silent
            />
            <RouterLink
              class="said"
              :to="{ name: 'child', params: { classId, childId: c.id }, query: { skill: column.skill } }"
              >{{ c.name }}</RouterLink
            >
            <span v-if="c.guess" class="small soft">{{ $t('a guess') }}</span>
            <div class="small soft">{{ c.why }}</div>
          </li>
        </ul>
      </section>
    </template>
  </Drawer>
</template>

<style scoped>
.can {
  font-size: 1.25rem;
}

h3 {
  margin-top: 0.9rem;
  padding-top: 0.4rem;
  border-top: 1px solid var(--line);
}

ul {
  padding: 0;
  list-style: none;
}

li {
  padding: 0.25rem 0;
}

li .said {
  margin: 0 0.4rem;
}
</style>
