<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { addDays, dayAndMonth } from '@/app/dates'
import { useWeek } from '@/app/week'
import { say, sayError } from '@/ui/notices'
import CarpetTable from './CarpetTable.vue'
import { chosenOf, moveChild } from './moves'
import WishesPanel from './WishesPanel.vue'

const queries = useQueryClient()
const { classId, leads } = useAccount()
const { monday, path } = useWeek()
const wishes = ref<Schemas['GroupWishes']>({ minSize: 3, maxSize: 5, everyoneOnce: false })

const { data: accepted, error } = useQuery({
  queryKey: ['groups', classId, monday],
  queryFn: () => take(api.GET('/api/classes/{classId}/weeks/{day}/groups', { params: { path: path.value } })),
  enabled: computed(() => monday.value !== ''),
})

// A proposal belongs to the week it was asked for.
const proposal = ref<Schemas['GroupsView']>()
const moved = ref(false)
watch([monday, classId], () => letGo())
function letGo() {
  proposal.value = undefined
  moved.value = false
  picked.value = undefined
}

const shown = computed(() => proposal.value ?? accepted.value)
const editable = computed(() => leads.value && proposal.value !== undefined)

const ask = useMutation({
  mutationFn: () =>
    take(
      api.POST('/api/classes/{classId}/weeks/{day}/groups/proposal', {
        params: { path: path.value },
        body: wishes.value,
      }),
    ),
  onSuccess: (view) => {
    letGo()
    proposal.value = view
  },
  onError: sayError,
})

const accept = useMutation({
  mutationFn: () =>
    take(
      api.POST('/api/classes/{classId}/weeks/{day}/groups/accept', {
        params: { path: path.value },
        body: { wishes: wishes.value, groups: chosenOf(proposal.value!) },
      }),
    ),
  onSuccess: async (view) => {
    letGo()
    queries.setQueryData(['groups', classId.value, monday.value], view)
    await queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'groups' && q.queryKey[0] !== 'account' })
    say('The groups are accepted and stand in the week.')
  },
  onError: sayError,
})

// A child is picked up: the price of every other table is asked for at once, before anything is put down.
const picked = ref<{ id: number; name: string }>()
const prices = ref<Schemas['PriceView'][]>([])
async function pick(child: { id: number; name: string } | undefined) {
  prices.value = []
  picked.value = picked.value?.id === child?.id ? undefined : child
  const held = picked.value
  if (!held || !proposal.value) return
  try {
    const found = await take(
      api.POST('/api/classes/{classId}/weeks/{day}/groups/prices', {
        params: { path: path.value },
        body: { wishes: wishes.value, groups: chosenOf(proposal.value), childId: held.id },
      }),
    )
    if (picked.value === held) prices.value = found
  } catch (problem) {
    sayError(problem)
  }
}

function put(to: number | null) {
  if (!picked.value || !proposal.value) return
  const price = prices.value.find((p) => p.to === to)
  proposal.value = moveChild(proposal.value, picked.value, to, price?.reason ?? 'Put here by hand.')
  moved.value = true
  picked.value = undefined
  prices.value = []
}

// Tables that were held already are not counted by the core: its indices run over the others.
const openTables = computed(() => (shown.value?.groups ?? []).map((g, i) => ({ g, i })).filter(({ g }) => !g.run))
const indexOf = (place: number) => openTables.value.findIndex((t) => t.i === place)
const priceAt = (place: number) => prices.value.find((p) => p.to === indexOf(place))
const toNone = computed(() => prices.value.find((p) => p.to === null))
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Groups, week of {{ dayAndMonth(monday) }}</h1>
      <div class="end">
        <RouterLink class="button plain" :to="{ name: 'groups', params: { classId, day: addDays(monday, 7) } }"
          >Week after</RouterLink
        >
        <template v-if="leads">
          <button
            type="button"
            class="button"
            :class="{ main: !proposal && !accepted?.accepted }"
            :disabled="ask.isPending.value"
            @click="ask.mutate()"
          >
            {{ ask.isPending.value ? 'Looking…' : proposal || accepted?.accepted ? 'Ask again' : 'Ask for groups' }}
          </button>
          <button v-if="proposal" type="button" class="button plain" @click="letGo">Put away</button>
          <button
            v-if="proposal?.groups.length"
            type="button"
            class="button main"
            :disabled="accept.isPending.value"
            @click="accept.mutate()"
          >
            Accept these groups
          </button>
        </template>
      </div>
    </div>
    <p v-if="error" class="warn" role="alert">{{ error.message }}</p>
    <p v-if="shown" class="verdict" role="status">
      <b v-if="proposal">Proposal. </b>{{ moved ? 'Changed by hand.' : shown.verdict }}
      <span v-if="editable && !picked" class="soft">
        Pick up a name to move it; the price shows before you put it down.</span
      >
    </p>
    <p v-if="picked" class="verdict holding" role="status">
      Holding <b class="said">{{ picked.name }}</b>. Choose a table,
      <button type="button" class="button plain" @click="pick(undefined)">or leave it where it is</button>
      <button v-if="toNone" type="button" class="button small" @click="put(null)">
        No group this time ({{ toNone.price >= 0 ? `costs ${toNone.price}` : `gains ${-toNone.price}` }})
      </button>
    </p>

    <div v-if="shown" class="carpet">
      <CarpetTable
        v-for="(group, place) in shown.groups"
        :key="`${group.slot.day}-${group.slot.slotId}`"
        :group="group"
        :class-id="classId"
        :editable="editable && !group.run"
        :picked="picked"
        :price="priceAt(place)"
        @pick="pick"
        @put="put(indexOf(place))"
      />
    </div>

    <section v-if="shown?.unplaced.length && (proposal || shown.accepted)" class="ruled block">
      <h2>In no group this time</h2>
      <ul class="list">
        <li v-for="child in shown.unplaced" :key="child.id">
          <button v-if="editable" type="button" class="name said" @click="pick(child)">{{ child.name }}</button><b
            v-else
            class="said"
            >{{ child.name }}</b
          >
          {{ child.reason }}
        </li>
      </ul>
    </section>

    <section v-if="proposal?.changes.length" class="ruled block">
      <h2>What is different from the week of {{ dayAndMonth(proposal.comparedWith!) }}</h2>
      <ul class="list changes">
        <li v-for="change in proposal.changes" :key="change.childId">
          <b class="said">{{ change.name }}</b>
          <span class="way">{{
            change.from === change.to
              ? `stays on ${change.to}`
              : `${change.from ?? 'no group'} → ${change.to ?? 'no group'}`
          }}</span>
          <span class="soft">{{ change.why }}</span>
        </li>
      </ul>
    </section>

    <WishesPanel
      v-if="leads && shown"
      v-model="wishes"
      :class-id="classId"
      :wishes="shown.wishes"
      @changed="queries.invalidateQueries({ queryKey: ['groups'] })"
    />
  </div>
</template>

<style scoped>
.verdict {
  min-height: 1.6rem;
}

.holding {
  position: sticky;
  top: 0;
  z-index: 3;
  padding: 0.3rem 0.7rem;
  border: 1.5px solid var(--spruce);
  border-radius: var(--corner);
  background: var(--spruce-wash);
}

.carpet {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(17.5rem, 1fr));
  gap: 1.1rem;
  margin: 0.6rem 0 1.6rem;
}

.block {
  margin-bottom: 1.4rem;
}

.list {
  columns: 24rem auto;
  column-gap: 2rem;
  list-style: none;
  padding: 0;
}

.list li {
  break-inside: avoid;
  padding: 0.25rem 0;
}

.name {
  min-height: 36px;
  padding: 0 0.6rem;
  border: 1.5px solid var(--line-strong);
  border-radius: 18px;
  background: var(--card);
  color: var(--ink);
  font-size: 1rem;
  cursor: grab;
}

.way {
  white-space: nowrap;
}
</style>
