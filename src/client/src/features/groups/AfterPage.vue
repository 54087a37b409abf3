<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { dayAndMonth, shortWeekday } from '@/app/dates'
import MarkFrame from '@/ui/MarkFrame.vue'
import GroupTabs from './GroupTabs.vue'
import PageError from '@/ui/PageError.vue'
import EmptyPlace from '@/ui/EmptyPlace.vue'

/** What the group work did: strength before and after, aims reached, aims carried over. */
const { classId, leads } = useAccount()
const weeks = ref(4)
const { data: view, error } = useQuery({
  queryKey: queryKey('groups-after', classId, weeks),
  queryFn: () =>
    take(
      api.GET('/api/classes/{classId}/groups/after', {
        params: { path: { classId: classId.value }, query: { weeks: weeks.value } },
      }),
    ),
  placeholderData: keepPreviousData,
})
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('What the group work did') }}</h1>
      <div class="end">
        <label
          >{{ $t('Over the last') }}
          <select v-model="weeks" class="box">
            <option :value="2">{{ $t('2 weeks') }}</option>
            <option :value="4">{{ $t('4 weeks') }}</option>
            <option :value="8">{{ $t('8 weeks') }}</option>
            <option :value="12">{{ $t('12 weeks') }}</option>
          </select></label
        >
        <a v-if="leads" class="button" :href="`/api/classes/${classId}/groups/file`" download>{{
          $t('As a spreadsheet file')
        }}</a>
      </div>
    </div>
    <GroupTabs />
    <PageError v-if="error" :error="error" />
    <template v-if="view">
      <p role="status">
        {{ view.sentence }}
        <span class="soft">{{ $t('Three marks a child: before the day, after it, and now.') }}</span>
      </p>
      <EmptyPlace
        v-if="!view.weeks.length"
        :what="$t('No group has been held in these weeks.')"
        :why="
          $t(
            'Each group comes here once it is over: every child before it, after it and now, so that what works can be done again.',
          )
        "
        :to="{ name: 'groups', params: { classId } }"
        :action="$t('Form the groups')"
      />
      <section
        v-for="week in view.weeks"
        :key="week.monday"
        class="ruled week"
        :aria-label="$t('Week of {day}', { day: dayAndMonth(week.monday) })"
      >
        <h2>{{ $t('Week of {day}', { day: dayAndMonth(week.monday) }) }}</h2>
        <div class="groups">
          <article v-for="group in week.groups" :key="group.sessionId">
            <h3>
              <RouterLink :to="{ name: 'session', params: { classId, sessionId: group.sessionId } }">{{
                group.short
              }}</RouterLink>
              <span class="small soft">{{ shortWeekday(group.day) }}, {{ group.adult }}</span>
            </h3>
            <p class="small">{{ group.sentence }}</p>
            <table>
              <thead class="hidden-words">
                <tr>
                  <th scope="col">{{ $t('Child') }}</th>
                  <th scope="col">{{ $t('Before') }}</th>
                  <th scope="col">{{ $t('After the day') }}</th>
                  <th scope="col">{{ $t('Now') }}</th>
                  <th scope="col">{{ $t('What came of it') }}</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="child in group.children" :key="child.id">
                  <th scope="row" class="said">{{ child.name }}</th>
                  <template v-if="child.away">
                    <td colspan="4" class="soft small">{{ $t('away') }}</td>
                  </template>
                  <template v-else>
                    <td><MarkFrame :strength="child.before" /></td>
                    <td>→ <MarkFrame :strength="child.after" /></td>
                    <td class="now"><MarkFrame :strength="child.now" /></td>
                    <td class="small">
                      <b v-if="child.reached">{{ $t('reached') }}</b>
                      <template v-else-if="child.carriedOver">{{ $t('carried over') }}</template>
                      <template v-else>{{ $t('kept') }}</template>
                      <span v-if="!child.recorded" class="soft">{{ $t(', not recorded') }}</span>
                    </td>
                  </template>
                </tr>
              </tbody>
            </table>
          </article>
        </div>
      </section>
    </template>
  </div>
</template>

<style scoped>
.week {
  margin-bottom: 1.4rem;
}

.groups {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(21rem, 100%), 1fr));
  gap: 1rem 2rem;
}

h3 {
  display: flex;
  align-items: baseline;
  gap: 0.6rem;
  margin-top: 0.5rem;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th[scope='row'],
td {
  padding: 0.22rem 0.4rem 0.22rem 0;
  border-top: 1px solid var(--line);
  font-weight: 400;
  text-align: left;
  white-space: nowrap;
}

.groups td.small {
  white-space: normal;
}

.now {
  padding-left: 0.8rem;
}
</style>
