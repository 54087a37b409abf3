<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { isOneOf, queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { addDays, dayAndMonth } from '@/app/dates'
import { useWeek } from '@/app/week'
import { decide } from '@/ui/changed'
import { say, sayError } from '@/ui/notices'
import { chosenOf, noLocks, type Chosen } from './board'
import GroupTabs from './GroupTabs.vue'
import TurnBoard from './TurnBoard.vue'
import { useBoard, type Board } from './useBoard'
import WishesPanel from './WishesPanel.vue'
import { t } from '@/app/language'
import EmptyPlace from '@/ui/EmptyPlace.vue'
import PageError from '@/ui/PageError.vue'

const queries = useQueryClient()
const route = useRoute()
const router = useRouter()
const { classId, leads } = useAccount()
const { monday, path } = useWeek()
const { data: accepted, error } = useQuery({
  queryKey: queryKey('groups', classId, monday),
  queryFn: () => take(api.GET('/api/classes/{classId}/weeks/{day}/groups', { params: { path: path.value } })),
  enabled: computed(() => monday.value !== ''),
})

// A week has one part, or two in each of which a child has a turn. What lies on one board counts for the other.
const lying = (board: Board): Chosen[] | undefined => board.proposal.value && chosenOf(board.proposal.value)
const first: Board = useBoard(1, accepted, () => lying(second))
const second: Board = useBoard(2, accepted, () => lying(first))
const boards = computed(() => [first, second].filter((b) => b.part.value))
const open = computed(() => boards.value.filter((b) => b.part.value!.open))
const proposed = computed(() => boards.value.filter((b) => b.proposal.value))
const formed = computed(() => proposed.value.some((b) => b.proposal.value!.groups.some((g) => !g.run)))
const asking = computed(() => boards.value.some((b) => b.ask.isPending.value))
const turns = [t('First turn'), t('Second turn')]

/** One part after the other, each beside those before it; what lies there for those still to come is asked for anew, and does not count. */
async function askAll() {
  const asked: Chosen[] = []
  const each = open.value.length ? open.value : [first]
  for (const board of each) {
    try {
      const view = await board.ask.mutateAsync(each.length > 1 ? [...asked] : undefined)
      asked.push(...chosenOf(view))
    } catch {
      // Said already.
      return
    }
  }
}

const change = () => open.value.forEach((b) => b.change())
const putAway = () => boards.value.forEach((b) => b.putAway())

// Of a part that nobody has asked about, what stands there goes on standing.
const accept = useMutation({
  mutationFn: () => {
    const groups = boards.value.flatMap((b) => lying(b) ?? (b.stands.value?.accepted ? chosenOf(b.stands.value) : []))
    let { version } = proposed.value[0]!.proposal.value!
    return decide(
      () =>
        take(
          api.POST('/api/classes/{classId}/weeks/{day}/groups/accept', {
            params: { path: path.value },
            body: { version, groups },
          }),
        ),
      async () => {
        const now = await take(api.GET('/api/classes/{classId}/weeks/{day}/groups', { params: { path: path.value } }))
        version = now.version
      },
    )
  },
  onSuccess: async (view) => {
    if (!view) return
    putAway()
    queries.setQueryData(queryKey('groups', classId.value, monday.value), view)
    await queries.invalidateQueries({ predicate: (q) => !isOneOf(q, 'groups', 'account') })
    say(t('The groups are accepted and stand in the week.'))
  },
  onError: sayError,
})

// From the first hour: asked for at once.
watch(
  [() => route.query.ask, accepted],
  ([ask, week]) => {
    if (!week || ask === undefined) return
    void router.replace({ query: {} })
    if (!week.accepted) void askAll()
  },
  { immediate: true },
)

// From the grid or a plan: some children, one skill, as soon as there is a place.
watch(
  [() => route.query.work, accepted],
  ([skill, week]) => {
    if (!week || typeof skill !== 'string' || typeof route.query.children !== 'string') return
    const board = open.value[0] ?? first
    board.locks.value = {
      ...noLocks(),
      work: route.query.children.split(',').map((id) => ({ childId: Number(id), skill })),
    }
    void router.replace({ query: {} })
    board.ask.mutate()
  },
  { immediate: true },
)
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Groups, week of {day}', { day: dayAndMonth(monday) }) }}</h1>
      <RouterLink class="button plain" :to="{ name: 'groups', params: { classId, day: addDays(monday, -7) } }">{{
        $t('Week before')
      }}</RouterLink>
      <RouterLink class="button plain" :to="{ name: 'groups', params: { classId, day: addDays(monday, 7) } }">{{
        $t('Week after')
      }}</RouterLink>
      <div class="end">
        <template v-if="leads && accepted">
          <button v-if="accepted.accepted && !proposed.length" type="button" class="button" @click="change">
            {{ $t('Change these') }}
          </button>
          <button
            type="button"
            class="button"
            :class="{ main: !proposed.length && !accepted.accepted }"
            :disabled="asking"
            @click="askAll"
          >
            {{
              asking ? $t('Looking…') : proposed.length || accepted.accepted ? $t('Ask again') : $t('Ask for groups')
            }}
          </button>
          <button v-if="proposed.length" type="button" class="button plain" @click="putAway">
            {{ $t('Put away') }}
          </button>
          <button
            v-if="formed"
            type="button"
            class="button main"
            :disabled="accept.isPending.value"
            @click="accept.mutate()"
          >
            {{ $t('Accept these groups') }}
          </button>
        </template>
      </div>
    </div>
    <GroupTabs />
    <PageError v-if="error" :error="error" />
    <p v-if="accepted?.accepted && !proposed.length" class="verdict" role="status">
      {{ accepted.verdict }}
      {{ $t('On paper:') }}
      <a :href="`/api/classes/${classId}/weeks/${monday}/groups/wall`" target="_blank">{{ $t('for the wall') }}</a>,
      <a :href="`/api/classes/${classId}/weeks/${monday}/groups/cards`" target="_blank">{{ $t('cards') }}</a>{{
        $t('. First names only.')
      }}
    </p>

    <EmptyPlace
      v-if="accepted && !accepted.accepted && !proposed.length && !asking"
      :what="accepted.verdict"
      :why="
        $t(
          'Here the children sit around the tables of the week: who is ready for the same thing, with an adult, a place and an activity, and for each a sentence why. Fobble proposes, you move and accept.',
        )
      "
    />

    <TurnBoard
      v-for="(board, i) in boards"
      :key="board.part.value!.number"
      :board="board"
      :class-id="classId"
      :leads="leads"
      :heading="boards.length > 1 ? `${turns[i]}, ${board.part.value!.name}` : undefined"
    />

    <section v-if="accepted?.accepted && accepted.unplaced.length && !proposed.length" class="ruled block">
      <h2>{{ boards.length > 1 ? $t('In no group this week') : $t('In no group this time') }}</h2>
      <ul class="in-columns">
        <li v-for="child in accepted.unplaced" :key="child.id">
          <b class="said">{{ child.name }}</b> {{ child.reason }}
        </li>
      </ul>
    </section>

    <!-- Where it will stay: what comes above it would move it away under a finger. -->
    <WishesPanel
      v-if="leads && (accepted || error)"
      :class-id="classId"
      @changed="queries.invalidateQueries({ queryKey: queryKey('groups') })"
    />
  </div>
</template>

<style scoped>
.verdict {
  min-height: 1.6rem;
}

.block {
  margin-bottom: 1.4rem;
}
</style>
