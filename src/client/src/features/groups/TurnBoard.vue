<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import { letGoOf, locksIn, noLocks, placeOf, toggleAim, toggleKept, toggleSeat } from './board'
import CarpetTable from './CarpetTable.vue'
import ConflictList from './ConflictList.vue'
import SetsBar from './SetsBar.vue'
import type { Board } from './useBoard'

/** The tables of one part of a week, as they stand or as they are proposed. Where a week has two parts, each says which it is. */
const { board, classId, leads, heading } = defineProps<{
  board: Board
  classId: number
  leads: boolean
  heading: string | undefined
}>()
const { part, sets, current, compared, proposal, shown, locks, moved, picked, prices, why, looking } = board
const editable = computed(() => leads && proposal.value !== undefined)
const toNone = computed(() => prices.value.find((p) => p.to === null))
const locked = computed(() => locksIn(locks.value))

// Tables that were held already are no proposal.
const formed = computed(() => proposal.value?.groups.some((g) => !g.run) ?? false)

function letGo(wish: Schemas['WishView']) {
  locks.value = letGoOf(locks.value, wish)
  board.ask.mutate()
}

function countAgain(wish: Schemas['WishView']) {
  locks.value = { ...locks.value, letGo: locks.value.letGo.filter((w) => w.key !== wish.key) }
  board.ask.mutate()
}

function hasToHaveATurn(child: { id: number; name: string }) {
  locks.value = { ...locks.value, turns: [...locks.value.turns.filter((c) => c.id !== child.id), child] }
  board.ask.mutate()
}

const lockedAt = (place: string) =>
  Object.entries(locks.value.seats)
    .filter(([, at]) => at === place)
    .map(([child]) => Number(child))
</script>

<template>
  <section :aria-label="heading">
    <div v-if="heading" class="turn">
      <h2>{{ heading }}</h2>
      <button
        v-if="leads && part?.open && (proposal || shown?.accepted)"
        type="button"
        class="button plain small"
        :disabled="board.ask.isPending.value"
        @click="board.ask.mutate()"
      >
        {{ $t('Ask again for {name} only', { name: part.name }) }}
      </button>
    </div>
    <p v-if="!proposal && board.ask.isPending.value" class="soft" role="status">
      {{ $t('Looking for the best groups…') }}
    </p>
    <p v-else-if="!proposal && part?.again" class="again">{{ part.again }}</p>
    <p v-if="proposal" class="verdict" role="status">
      <b>{{ $t('Proposal.') }}</b> {{ moved ? $t('Changed by hand.') : proposal.verdict }}
      <span v-if="editable && !picked && formed" class="soft">
        {{ $t('Pick up a name to move it; the price shows before you put it down.') }}</span
      >
    </p>
    <div v-if="editable" class="asides">
      <SetsBar
        v-model="current"
        v-model:compared="compared"
        :sets="sets"
        :busy="board.others.isPending.value"
        :can-ask="formed"
        @others="board.others.mutate()"
      />
      <button
        v-if="formed && !looking && (!proposal?.provenBest || moved)"
        type="button"
        class="button plain small"
        @click="board.lookOn.mutate()"
      >
        {{ $t('Go on looking for better ones') }}
      </button>
      <span v-if="looking" class="looking" role="status">
        <progress
          :value="looking.score"
          :max="looking.bound"
          :aria-label="$t('How near the groups are to the most that can be')"
        />
        {{ $t('{score} points; no set can have more than {bound}.', { score: looking.score, bound: looking.bound }) }}
        <button type="button" class="button plain small" @click="board.stopLooking">{{ $t('Stop') }}</button>
      </span>
      <span v-if="locked" class="soft"
        >{{
          $t('{a} pegged down; asking again forms the rest anew.', {
            a: locked === 1 ? $t('One thing is') : $t('{locked} things are', { locked }),
          })
        }}
        <button type="button" class="button plain small" @click="locks = { ...noLocks(), letGo: locks.letGo }">
          {{ $t('Take the pegs out') }}
        </button></span
      >
      <span v-for="wish in locks.letGo" :key="wish.key" class="soft"
        >{{ $t('Does not count this time: {sentence}', { sentence: wish.sentence }) }}
        <button type="button" class="button plain small" @click="countAgain(wish)">
          {{ $t('Let it count again') }}
        </button></span
      >
    </div>
    <p v-if="picked" class="verdict holding" role="status">
      {{ $t('Holding') }} <b class="said">{{ picked.name }}</b>{{ $t(': choose a table,') }}
      <button type="button" class="button plain" @click="board.pick(undefined)">
        {{ $t('or leave it where it is') }}
      </button>
      <button v-if="toNone" type="button" class="button small" @click="board.put(null)">
        {{
          $t('No group this time ({a})', {
            a: toNone.price >= 0 ? $t('costs {price}', { price: toNone.price }) : $t('gains {a}', { a: -toNone.price }),
          })
        }}
      </button>
      <button
        type="button"
        class="button plain small"
        :disabled="board.without.isPending.value"
        @click="board.without.mutate(picked)"
      >
        {{ $t('What if {name} is away?', { name: picked.name }) }}
      </button>
    </p>

    <ConflictList v-if="proposal?.conflict.length" :wishes="proposal.conflict" @let-go="letGo" />

    <div v-if="shown" class="carpet">
      <CarpetTable
        v-for="group in shown.groups"
        :key="placeOf(group.slot)"
        :group="group"
        :class-id="classId"
        :editable="editable && !group.run"
        :picked="picked"
        :price="board.priceAt(placeOf(group.slot))"
        :why="why?.place === placeOf(group.slot) ? why.answer : undefined"
        :looking="why?.place === placeOf(group.slot) && !why.answer"
        :locked-children="lockedAt(placeOf(group.slot))"
        :aim-locked="locks.aims.includes(placeOf(group.slot))"
        :kept="locks.kept.includes(placeOf(group.slot))"
        @pick="board.pick"
        @put="board.put(placeOf(group.slot))"
        @why-not="board.askWhy(group.slot)"
        @take-why="board.takeWhy"
        @lock-child="(id) => (locks = toggleSeat(locks, id, placeOf(group.slot)))"
        @lock-aim="locks = toggleAim(locks, placeOf(group.slot))"
        @keep="locks = toggleKept(locks, placeOf(group.slot))"
      />
    </div>

    <section v-if="proposal?.unplaced.length && !proposal.conflict.length" class="ruled block">
      <h2>{{ heading ? $t('In no group, {name}', { name: part?.name }) : $t('In no group this time') }}</h2>
      <ul class="in-columns">
        <li v-for="child in proposal.unplaced" :key="child.id">
          <button v-if="editable" type="button" class="name said" @click="board.pick(child)">{{ child.name }}</button><b
            v-else
            class="said"
            >{{ child.name }}</b
          >
          {{ child.reason }}
          <button v-if="editable" type="button" class="button plain small" @click="hasToHaveATurn(child)">
            {{ $t('Has to have a turn') }}
          </button>
        </li>
      </ul>
    </section>

    <details v-if="proposal?.changes.length && proposal.groups.length" class="ruled block" :open="part?.number === 1">
      <summary>
        <h2>{{ $t('What is different from the week of {day}', { day: dayAndMonth(proposal.comparedWith!) }) }}</h2>
      </summary>
      <ul class="in-columns changes">
        <li v-for="change in proposal.changes" :key="change.childId">
          <b class="said">{{ change.name }}</b>{{ ' '
          }}<span class="way">{{
            change.from === change.to
              ? $t('stays on {to}', { to: change.to })
              : `${change.from ?? $t('no group')} → ${change.to ?? $t('no group')}`
          }}</span
          >{{ ' ' }}<span class="soft">{{ change.why }}</span>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.turn {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.4rem 1rem;
  border-top: 1.5px solid var(--ink);
  padding-top: 0.5rem;
}

.again {
  padding-left: 0.7rem;
  border-left: 4px solid var(--spruce);
}

.verdict {
  min-height: 1.6rem;
}

.asides {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.2rem 1rem;
}

.looking {
  display: inline-flex;
  align-items: center;
  gap: 0.6rem;
}

.looking progress {
  width: 8rem;
  accent-color: var(--spruce);
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
  grid-template-columns: repeat(auto-fill, minmax(18.5rem, 1fr));
  gap: 1.1rem;
  margin: 0.6rem 0 1.6rem;
}

.block {
  margin-bottom: 1.4rem;
}

summary {
  cursor: pointer;
}

summary h2 {
  display: inline;
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
