<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/app/api/client'
import { supportLabel, supports, type SupportValue } from '@/ui/marks'
import type { Marked } from './turns'

/** A child a row. Rows keep their height whatever is tapped, so that the next tap lands where the eye was. */
const props = defineProps<{
  number: number
  name: string
  away: boolean
  picked: boolean
  item?: Schemas['Item']
  marked: Marked[]
  now: number
}>()
const emit = defineEmits<{ record: [support: SupportValue]; undo: [id: string] }>()

const own = computed(() => props.marked.filter((m) => !m.by))
const theirs = computed(() => {
  const last = props.marked.filter((m) => m.by).at(-1)
  return last && `${last.by}: ${supportLabel(last.support).toLowerCase()}`
})
const last = computed(() => own.value.at(-1))
const open = computed(() => (last.value?.until && last.value.until > props.now ? last.value : undefined))
const times = (support: SupportValue) => own.value.filter((m) => m.support === support).length

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
  <li
    ref="row"
    class="row"
    :class="{ picked }"
    @pointerdown="from = ($event.target as Element).closest('[data-support]')"
    @pointerup="end"
    @pointercancel="from = null"
  >
    <button
      type="button"
      class="name said"
      :class="{ on: last?.support === 'Alone' }"
      data-support="Alone"
      :aria-label="`${name}: alone`"
      @click="emit('record', 'Alone')"
    >
      <span class="number" aria-hidden="true">{{ number }}</span>
      <span class="who">
        {{ name }}
        <span v-if="away" class="small away">{{ $t('marked away') }}</span>
        <span v-if="item" class="ask small">{{ item.ask }}</span>
        <span v-if="theirs" class="theirs small">{{ theirs }}</span>
      </span>
      <span class="tap small">{{ $t('alone{a}', { a: times('Alone') > 1 ? ` ×${times('Alone')}` : '' }) }}</span>
    </button>
    <button
      v-for="s in supports.slice(1)"
      :key="s.value"
      type="button"
      class="code"
      :class="{ on: last?.support === s.value }"
      :data-support="s.value"
      :aria-label="`${name}: ${s.label}`"
      @click="emit('record', s.value)"
    >
      {{ s.label }}{{ times(s.value) > 1 ? ` ×${times(s.value)}` : '' }}
    </button>
    <span class="undo">
      <button
        v-if="open"
        type="button"
        class="button"
        :aria-label="
          $t('Undo {toLowerCase} for {name}', { toLowerCase: supportLabel(open.support).toLowerCase(), name })
        "
        @click="emit('undo', open.id)"
      >
        {{ $t('Undo') }}
      </button>
    </span>
  </li>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) repeat(3, minmax(5.4rem, auto)) 4.6rem;
  gap: 6px;
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--line);
  touch-action: pan-y;
}

.row.picked {
  background: var(--spruce-wash);
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

/* What was recorded last is filled, like a counter in its cell. */
.on,
.name:active,
.code:active {
  border-color: var(--spruce);
  background: var(--spruce);
  color: #fffcf5;
}

.number {
  min-width: 1.1rem;
  font: 700 0.95rem var(--body);
}

.who {
  flex: 1;
  min-width: 0;
}

.ask {
  display: block;
  font-family: var(--body);
}

.theirs {
  float: right;
  padding: 0 0.5rem;
  border: 1px solid currentColor;
  border-radius: 10px;
  font: 400 0.8rem/1.4 var(--body);
}

.away {
  font-family: var(--body);
  text-decoration: underline;
}

.tap {
  font: 700 0.875rem var(--body);
}

.code {
  padding: 0 0.4rem;
  font: 700 0.95rem var(--body);
}

.undo {
  display: grid;
  align-items: center;
}

.undo .button {
  min-height: 56px;
  padding: 0;
}

@media (max-width: 620px) {
  .row {
    grid-template-columns: repeat(3, 1fr) 4.4rem;
  }

  .name {
    grid-column: 1 / -1;
  }
}
</style>
