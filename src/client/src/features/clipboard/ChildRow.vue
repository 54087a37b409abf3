<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/app/api/client'
import { supportLabel, supports, type SupportValue } from '@/ui/marks'
import type { Marked } from './turns'

const props = defineProps<{
  number: number
  name: string
  away: boolean
  picked: boolean
  item?: Schemas['Item']
  marked: Marked[]
  now: number
  slips: Schemas['CardChoice'][]
  strategies: Schemas['CardChoice'][]
}>()
const emit = defineEmits<{
  record: [support: SupportValue]
  undo: [id: string]
  amend: [id: string, more: { slip?: string | null; strategy?: string | null }]
}>()

const last = computed(() => props.marked.at(-1))
const open = computed(() => (last.value?.until && last.value.until > props.now ? last.value : undefined))

// A slide begins on the name and ends on a code: the thumb need not lift in between.
const from = ref<Element | null>(null)
const row = ref<HTMLElement>()
function end(event: PointerEvent) {
  const over = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-support]')
  if (from.value && over && over !== from.value && row.value?.contains(over))
    emit('record', over.dataset.support as SupportValue)
  from.value = null
}
</script>

<template>
  <li ref="row" class="row" :class="{ picked, away }">
    <div
      class="codes"
      @pointerdown="from = ($event.target as Element).closest('[data-support]')"
      @pointerup="end"
      @pointercancel="from = null"
    >
      <button
        type="button"
        class="name said"
        data-support="Alone"
        :aria-label="`${name}: alone`"
        @click="emit('record', 'Alone')"
      >
        <span class="number" aria-hidden="true">{{ number }}</span>
        <span class="who">
          {{ name }}
          <span v-if="away" class="small warn">marked away</span>
          <span v-if="item" class="ask small">{{ item.ask }}</span>
        </span>
        <span class="tap small">alone</span>
      </button>
      <button
        v-for="s in supports.slice(1)"
        :key="s.value"
        type="button"
        class="code"
        :data-support="s.value"
        :aria-label="`${name}: ${s.label}`"
        @click="emit('record', s.value)"
      >
        {{ s.label }}
      </button>
    </div>
    <div v-if="marked.length" class="after">
      <span class="done" aria-live="polite"
        >Recorded:
        <b v-for="(m, i) in marked" :key="m.id">{{ i ? ', ' : '' }}{{ supportLabel(m.support).toLowerCase() }}</b></span
      >
      <template v-if="open">
        <button
          v-for="slip in slips"
          :key="slip.id"
          type="button"
          class="chip"
          :class="{ on: open.slip === slip.id }"
          :aria-pressed="open.slip === slip.id"
          @click="emit('amend', open.id, { slip: open.slip === slip.id ? null : slip.id })"
        >
          {{ slip.text }}
        </button>
        <button
          v-for="way in strategies"
          :key="way.id"
          type="button"
          class="chip way"
          :class="{ on: open.strategy === way.id }"
          :aria-pressed="open.strategy === way.id"
          @click="emit('amend', open.id, { strategy: open.strategy === way.id ? null : way.id })"
        >
          {{ way.text }}
        </button>
        <button type="button" class="button undo" @click="emit('undo', open.id)">
          Undo {{ supportLabel(open.support).toLowerCase() }}
        </button>
      </template>
    </div>
  </li>
</template>

<style scoped>
.row {
  padding: 0.45rem 0;
  border-bottom: 1px solid var(--line);
}

.row.picked {
  background: var(--spruce-wash);
}

.codes {
  display: grid;
  grid-template-columns: minmax(0, 1fr) repeat(3, minmax(5.6rem, auto));
  gap: 6px;
  touch-action: pan-y;
}

.name,
.code {
  min-height: 64px;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font-size: 1rem;
  cursor: pointer;
}

.name {
  display: flex;
  align-items: center;
  gap: 0.8rem;
  padding: 0.2rem 0.8rem;
  border-color: var(--ink);
  font-size: 1.4rem;
  text-align: left;
  line-height: 1.15;
}

.name:active,
.code:active {
  background: var(--spruce);
  color: #fffcf5;
}

.number {
  min-width: 1.1rem;
  color: var(--ink-soft);
  font: 700 0.95rem var(--body);
}

.who {
  flex: 1;
  min-width: 0;
}

.ask {
  display: block;
  font-family: var(--body);
  color: var(--ink-soft);
}

.name:active .ask,
.name:active .tap {
  color: inherit;
}

.tap {
  font-family: var(--body);
  color: var(--spruce);
  font-weight: 700;
}

.code {
  font: 700 0.95rem var(--body);
  padding: 0 0.5rem;
}

.after {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  padding: 0.4rem 0 0 0.2rem;
}

.done {
  margin-right: 0.4rem;
}

.chip {
  min-height: var(--target);
  padding: 0 0.8rem;
  border: 1.5px dashed var(--line-strong);
  border-radius: 22px;
  background: none;
  color: var(--ink);
  font: inherit;
  font-size: 0.92rem;
  cursor: pointer;
}

.chip.way {
  border-style: solid;
}

.chip.on {
  border-color: var(--spruce);
  border-style: solid;
  background: var(--spruce);
  color: #fffcf5;
}

.undo {
  min-height: var(--target);
  margin-left: auto;
}

@media (max-width: 620px) {
  .codes {
    grid-template-columns: repeat(3, 1fr);
  }

  .name {
    grid-column: 1 / -1;
  }
}
</style>
