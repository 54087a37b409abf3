<script setup lang="ts">
import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import ClassTabs from '@/ui/ClassTabs.vue'
import MarkFrame from '@/ui/MarkFrame.vue'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'
import EmptyPlace from '@/ui/EmptyPlace.vue'

/** What is worth a second look this week: two short lists, skill by skill, so that one activity looks after several children at once. */
const { classId } = useAccount()
const { data: view, error } = useQuery({
  queryKey: queryKey('look-again', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/look-again', { params: { path: { classId: classId.value } } })),
})

const lists = computed(() =>
  [
    {
      name: t('Never quite sure'),
      why: t('Done alone of late, and yet not enough to call it secure.'),
      skills: view.value?.neverSure ?? [],
    },
    {
      name: t('May have faded'),
      why: t('It was there, and neither it nor anything that builds on it has been seen for long.'),
      skills: view.value?.faded ?? [],
    },
  ].filter((list) => list.skills.length),
)
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Look again') }}</h1>
      <span v-if="lists.length" class="soft">{{
        $t('What is most worth it this week: about {minutes} minutes a list', { minutes: view?.minutes })
      }}</span>
    </div>
    <ClassTabs />
    <PageError v-if="error" :error="error" />
    <EmptyPlace
      v-if="view && !lists.length"
      :what="$t('Nothing needs a second look just now.')"
      :why="
        $t(
          'What was seen once and never surely, or long ago and may have faded, is gathered here by skill: two short lists a week. It comes by itself, from what is recorded.',
        )
      "
      :to="{ name: 'anyone', params: { classId } }"
      :action="$t('Record what you see')"
    />
    <section v-for="list in lists" :key="list.name" class="list" :aria-label="list.name">
      <h2>{{ list.name }}</h2>
      <p class="soft why">{{ list.why }}</p>
      <div class="skills">
        <div v-for="skill in list.skills" :key="skill.skill" class="ruled skill">
          <div class="head">
            <h3 class="said">{{ skill.short }}</h3>
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
            </li>
          </ul>
          <details class="small">
            <summary class="soft">
              {{ $t('Why {a}', { a: skill.children.length === 1 ? $t('this child') : $t('these') }) }}
            </summary>
            <p v-for="mark in skill.children" :key="mark.childId">
              <b class="said">{{ mark.child }}</b> {{ mark.why }}
            </p>
          </details>
        </div>
      </div>
    </section>
  </div>
</template>

<style scoped>
.list {
  margin-bottom: 1.6rem;
}

/* Two beside each other where there is room. */
.skills {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(26rem, 100%), 1fr));
  gap: 0 2rem;
}

.why {
  margin: 0 0 0.4rem;
}

.skill {
  margin-bottom: 0.8rem;
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

ul {
  padding: 0;
  list-style: none;
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.6rem;
  margin: 0.2rem 0;
}

summary {
  min-height: 28px;
  cursor: pointer;
}

details p {
  margin: 0.2rem 0;
}

li a {
  white-space: nowrap;
}

li {
  display: flex;
  gap: 0.6rem;
  align-items: baseline;
  padding: 0.15rem 0;
}
</style>
