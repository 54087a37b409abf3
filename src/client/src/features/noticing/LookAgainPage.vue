<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import ClassTabs from '@/ui/ClassTabs.vue'
import MarkFrame from '@/ui/MarkFrame.vue'

/** Marks in doubt, skill by skill, so that one activity looks after several children at once. */
const { classId } = useAccount()
const { data: view, error } = useQuery({
  queryKey: queryKey('look-again', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/look-again', { params: { path: { classId: classId.value } } })),
})
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Look again</h1>
      <span v-if="view" class="soft">{{ view.marks }} marks of {{ view.children }} children are in doubt</span>
    </div>
    <ClassTabs />
    <p v-if="error" class="warn" role="alert">{{ error.message }}</p>
    <p v-if="view && !view.marks" class="said none">Nothing is in doubt just now.</p>
    <section v-for="skill in view?.bySkill" :key="skill.skill" class="ruled">
      <div class="head">
        <h2 class="said">{{ skill.short }}</h2>
        <span class="soft">{{ skill.iCan }}</span>
        <RouterLink
          v-if="skill.activityId"
          class="end"
          :to="{ name: 'activity', params: { classId, id: skill.activityId }, query: { skill: skill.skill } }"
          >{{ skill.activity }}</RouterLink
        >
      </div>
      <ul>
        <li v-for="mark in skill.children" :key="mark.childId">
          <MarkFrame :strength="mark.strength" look-again silent class="frame" />
          <RouterLink
            class="said"
            :to="{ name: 'child', params: { classId, childId: mark.childId }, query: { skill: skill.skill } }"
            >{{ mark.child }}</RouterLink
          >
          <span class="small soft">{{ mark.why }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
section {
  max-width: 66rem;
  margin-bottom: 1rem;
}

.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.2rem 0.9rem;
}

.end {
  margin-left: auto;
}

.frame {
  flex: none;
}

.none {
  font-size: 1.2rem;
}

ul {
  padding: 0;
  list-style: none;
}

ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0 1.5rem;
}

li {
  display: flex;
  gap: 0.6rem;
  align-items: baseline;
  padding: 0.15rem 0;
}
</style>
