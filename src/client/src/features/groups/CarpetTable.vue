<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/app/api/client'
import { clock, shortWeekday } from '@/app/dates'
import MarkFrame from '@/ui/MarkFrame.vue'
import LockSign from './LockSign.vue'

/** One group as a table on the carpet: its aim on the table top, the children around it, a sentence of reason for each. */
const props = defineProps<{
  group: Schemas['GroupView']
  classId: number
  editable: boolean
  picked?: { id: number; name: string }
  price?: Schemas['PriceView']
  /** The answer to "why not here?", once it was asked. */
  why?: Schemas['WhyNotView']
  /** It was asked, and is being worked out. */
  looking?: boolean
  lockedChildren?: number[]
  aimLocked?: boolean
  kept?: boolean
}>()
const emit = defineEmits<{
  pick: [child: { id: number; name: string }]
  put: []
  whyNot: []
  takeWhy: []
  lockChild: [id: number]
  lockAim: []
  keep: []
}>()
const over = ref(false)

function lift(event: DragEvent, child: { id: number; name: string }) {
  event.dataTransfer?.setData('text/plain', child.name)
  if (props.picked?.id !== child.id) emit('pick', child)
}

function drop() {
  over.value = false
  if (props.price) emit('put')
}
</script>

<template>
  <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -- dragging is a shortcut: buttons do the same -->
  <article
    class="table"
    :class="{ over, target: price, run: group.run, kept }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <header class="top">
      <span class="small"
        >{{ shortWeekday(group.slot.day) }} {{ clock(group.slot.start) }} · {{ group.slot.adult }}</span
      >
      <h2 class="said">{{ group.short }}</h2>
      <span class="small">{{ group.activity }} · {{ group.slot.where.toLowerCase() }}</span>
      <span v-if="group.run" class="small held">{{ $t('held') }}</span>
    </header>
    <div v-if="editable" class="locks">
      <button type="button" class="lock" :aria-pressed="aimLocked || kept" :disabled="kept" @click="emit('lockAim')">
        <LockSign :closed="aimLocked || kept" />{{ $t('Keep the aim') }}
      </button>
      <button type="button" class="lock" :aria-pressed="kept" @click="emit('keep')">
        <LockSign :closed="kept" />{{ $t('Keep the group') }}
      </button>
    </div>
    <ul>
      <li v-for="child in group.children" :key="child.id">
        <MarkFrame v-if="child.strength != null" :strength="child.strength" class="mark" />
        <span v-if="editable" class="who">
          <button
            type="button"
            class="name said"
            :class="{ held: picked?.id === child.id }"
            draggable="true"
            :aria-pressed="picked?.id === child.id"
            @click="emit('pick', child)"
            @dragstart="lift($event, child)"
          >
            {{ child.name }}
          </button>
          <button
            type="button"
            class="lock only"
            :aria-pressed="kept || lockedChildren?.includes(child.id)"
            :disabled="kept"
            :aria-label="$t('{name} stays at this table', { name: child.name })"
            @click="emit('lockChild', child.id)"
          >
            <LockSign :closed="kept || lockedChildren?.includes(child.id)" />
          </button>
        </span>
        <b v-else class="said">{{ child.name }}</b>
      </li>
    </ul>
    <details class="whys small">
      <summary>{{ group.reason }}</summary>
      <p v-for="child in group.children" :key="child.id">
        <b class="said">{{ child.name }}</b> {{ child.reason }}
      </p>
    </details>
    <div v-if="price" class="price" :class="{ breaks: price.breaks.length }">
      <b>{{
        price.price > 0
          ? $t('Costs {price} points', { price: price.price })
          : price.price < 0
            ? $t('Gains {a} points', { a: -price.price })
            : $t('Costs nothing')
      }}</b>
      <p v-for="broken in price.breaks" :key="broken" class="warn small">
        {{ broken.endsWith('.') ? broken : `${broken}.` }}
      </p>
      <p class="small">{{ price.reason }}</p>
      <p v-if="why || looking" class="small why" role="status">{{ why?.sentence ?? $t('Looking…') }}</p>
      <div class="acts">
        <button type="button" class="button small" @click="emit('put')">
          {{ $t('Put {name} here', { name: picked?.name }) }}
        </button>
        <button v-if="why?.instead" type="button" class="button small" @click="emit('takeWhy')">
          {{ $t('Look at that set') }}
        </button>
        <button v-else-if="!why && !looking" type="button" class="button plain small" @click="emit('whyNot')">
          {{ $t('Why not here?') }}
        </button>
      </div>
    </div>
    <RouterLink
      v-if="group.sessionId && !editable"
      class="button"
      :to="{ name: 'session', params: { classId, sessionId: group.sessionId } }"
      >{{ $t('Session card') }}</RouterLink
    >
  </article>
</template>

<style scoped>
.table {
  display: flex;
  flex-direction: column;
  gap: 0.3rem;
}

/* The table top: a worn oval with the aim on it. */
.top {
  display: grid;
  justify-items: center;
  align-content: center;
  min-height: 7.2rem;
  padding: 0.6rem 1.4rem;
  border: 1.5px solid var(--ink);
  border-radius: 50% / 46%;
  background: var(--paper-deep);
  text-align: center;
  line-height: 1.2;
}

.top h2 {
  font-size: 1.2rem;
}

.run .top {
  border-style: dashed;
}

.kept .top {
  border-width: 3px;
}

.whys summary {
  min-height: 28px;
  color: var(--ink-soft);
  cursor: pointer;
}

.whys p {
  margin: 0.3rem 0;
}

.held {
  font-weight: 700;
}

.locks {
  display: flex;
  justify-content: center;
  gap: 0.4rem;
}

.lock {
  display: inline-flex;
  align-items: center;
  gap: 0.3rem;
  min-height: 34px;
  padding: 0 0.5rem;
  border: 0;
  border-radius: var(--corner);
  background: transparent;
  color: var(--ink-soft);
  font: 400 0.875rem/1 var(--body);
  cursor: pointer;
}

.lock:hover {
  background: var(--spruce-wash);
}

.lock[aria-pressed='true'] {
  color: var(--spruce);
  font-weight: 700;
}

.lock.only {
  padding: 0 0.3rem;
}

.who {
  display: flex;
  align-items: center;
}

.reason {
  margin: 0.2rem 0;
}

ul {
  list-style: none;
  margin: 0 0 0.4rem;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.5rem;
  align-items: center;
  padding: 0.28rem 0;
  border-top: 1px solid var(--line);
  line-height: 1.25;
}

.name {
  min-height: 36px;
  padding: 0 0.5rem;
  border: 1.5px solid var(--line-strong);
  border-radius: 18px;
  background: var(--card);
  color: var(--ink);
  font-size: 0.98rem;
  cursor: grab;
}

.name:hover {
  border-color: var(--spruce);
}

.name.held {
  border-color: var(--spruce);
  background: var(--spruce);
  color: #fffcf5;
}

.over.target .top {
  background: var(--spruce-wash);
  border-color: var(--spruce);
}

.price {
  padding: 0.5rem 0.7rem;
  border: 1.5px solid var(--spruce);
  border-radius: var(--corner);
  background: var(--spruce-wash);
}

.price.breaks {
  border-color: var(--brick);
  background: var(--card);
}

.price .warn::first-letter {
  text-transform: uppercase;
}

.why {
  border-top: 1px solid var(--line-strong);
  padding-top: 0.3rem;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}

.table > .button {
  align-self: start;
}
</style>
