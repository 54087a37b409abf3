<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import ClassTabs from '@/ui/ClassTabs.vue'
import PageError from '@/ui/PageError.vue'
import EmptyPlace from '@/ui/EmptyPlace.vue'

/** Slips that go about in the class: who shows which, on which skill, and what helps. */
const { classId } = useAccount()
const { data: view, error } = useQuery({
  queryKey: queryKey('slips', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/slips', { params: { path: { classId: classId.value } } })),
})
// The most widespread first; the rest a tap away.
const FIRST = 8
const all = ref(false)
const shown = computed(() => (all.value ? view.value?.slips : view.value?.slips.slice(0, FIRST)) ?? [])
const times = (n: number) => (n === 1 ? '' : ` ×${n}`)
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Slips') }}</h1>
      <span v-if="view" class="soft">{{
        $t('of the last {days} school days, the most widespread first', { days: view.days })
      }}</span>
    </div>
    <ClassTabs />
    <PageError v-if="error" :error="error" />
    <EmptyPlace
      v-if="view && !view.slips.length"
      :what="$t('No slip was noted lately.')"
      :why="
        $t(
          'Where several children slip in the same way, it stands here, with what helps. On the clipboard, “not yet” asks which slip it was: one tap more.',
        )
      "
      :to="{ name: 'clipboard', params: { classId } }"
      :action="$t('To the clipboard')"
    />
    <ul class="board">
      <li v-for="slip in shown" :key="slip.skill + slip.slip">
        <div>
          <b class="slip">{{ slip.slip }}</b>
          <span class="soft"> · {{ slip.short }}</span>
          <p class="who">
            <RouterLink
              v-for="c in slip.children"
              :key="c.id"
              v-tooltip.top="$t('last on {day}', { day: dayAndMonth(c.last) })"
              class="said"
              :to="{ name: 'child', params: { classId, childId: c.id }, query: { skill: slip.skill } }"
              >{{ c.name }}{{ times(c.times) }}</RouterLink
            >
          </p>
        </div>
        <div class="helps">
          <p>{{ slip.helps[0] }}</p>
          <details v-if="slip.helps.length > 1" class="small">
            <summary>
              {{
                $t('{a} that help', {
                  a:
                    slip.helps.length === 2
                      ? $t('One more thing')
                      : $t('{a} more things', { a: slip.helps.length - 1 }),
                })
              }}
            </summary>
            <ul>
              <li v-for="help in slip.helps.slice(1)" :key="help">{{ help }}</li>
            </ul>
          </details>
        </div>
      </li>
    </ul>
    <button v-if="view && shown.length < view.slips.length" type="button" class="button" @click="all = true">
      {{ $t('Show the other {a}', { a: view.slips.length - shown.length }) }}
    </button>
    <p v-if="view?.slips.length" class="small soft">
      {{
        $t(
          'A slip is a step on the way, not a label. What stays for long, or worries you, belongs in a talk with the family and with colleagues who know about learning difficulties.',
        )
      }}
    </p>
  </div>
</template>

<style scoped>
.board {
  max-width: 74rem;
  padding: 0;
  border-top: 1.5px solid var(--ink);
  list-style: none;
}

.board > li {
  display: grid;
  grid-template-columns: minmax(16rem, 2fr) 3fr;
  gap: 0.3rem 2rem;
  padding: 0.6rem 0;
  border-bottom: 1px solid var(--line);
}

.slip {
  font-size: 1.08rem;
}

.who {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 0.8rem;
}

.helps p {
  margin: 0;
}

.helps summary {
  min-height: 28px;
  cursor: pointer;
}

@media (max-width: 760px) {
  .board > li {
    grid-template-columns: 1fr;
  }
}
</style>
