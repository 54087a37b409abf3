<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { birthDay, moment } from '@/app/dates'
import { queryKey } from '@/app/keys'
import { t } from '@/app/language'
import { useScripts } from '@/app/scripts'
import { say, sayError } from '@/ui/notices'
import PageError from '@/ui/PageError.vue'
import NewYear from './NewYear.vue'
import OneChild from './OneChild.vue'
import RosterLine from './RosterLine.vue'
import TakeOut from './TakeOut.vue'
import WhoHasLeft from './WhoHasLeft.vue'

/** Where the school's children are: a new year, a child that moves or leaves, and records that are kept of those who have gone. */
const queries = useQueryClient()
const { today } = useAccount()
const { data: view, error } = useQuery({
  queryKey: queryKey('school-children'),
  queryFn: () => take(api.GET('/api/school/children', {})),
})
// Those of other classes are not among the class's own names.
useScripts(
  computed(() =>
    [...(view.value?.classes.flatMap((c) => c.children) ?? []), ...(view.value?.left ?? [])].map((c) => c.name),
  ),
)
const begun = computed(() => view.value?.begun)
const early = computed(() => !!view.value && today.value < view.value.next.from)

async function takeBack() {
  try {
    await take(api.DELETE('/api/school/new-year', {}))
    await queries.invalidateQueries()
    say(t('The year is taken back: every child is where it was.'))
  } catch (problem) {
    sayError(problem)
  }
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('The school’s children') }}</h1>
      <span class="soft">{{ $t('up, over, away: the record goes with the child') }}</span>
    </div>
    <PageError v-if="error" :error="error" />
    <div v-if="view" class="parts">
      <section class="ruled">
        <div v-if="begun" class="told" role="status">
          <p>
            {{
              $t('The year from {day} has begun. Until {until} it can be taken back.', {
                day: birthDay(begun.beginsOn),
                until: moment(begun.until),
              })
            }}
          </p>
          <p class="soft">
            {{
              $t(
                'Next: terms and closures on Set-up, adults on the school’s page, class lists for children new to the school. Each new class says what is still missing on its Today.',
              )
            }}
          </p>
          <button type="button" class="button" @click="takeBack">{{ $t('Take it back') }}</button>
        </div>
        <p v-else-if="early" class="soft">
          {{
            $t('The next school year begins on {day}. It can be got ready from {from} on.', {
              day: birthDay(view.next.beginsOn),
              from: birthDay(view.next.from),
            })
          }}
        </p>
        <NewYear v-else :key="[view.next.beginsOn, ...view.classes.map((c) => c.id)].join()" :view="view" />
      </section>
      <section>
        <OneChild class="ruled" :view="view" />
        <RosterLine class="ruled" />
        <TakeOut class="ruled" :view="view" />
        <WhoHasLeft v-if="view.left.length" class="ruled" :left="view.left" />
      </section>
    </div>
  </div>
</template>

<style scoped src="./school.css"></style>
