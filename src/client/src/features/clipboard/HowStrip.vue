<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import type { Schemas } from '@/app/api/client'
import { supportLabel } from '@/ui/marks'
import type { Marked } from './turns'
import type { More } from './useTaps'

/** After a tap, for those who want to say more: which slip, which way, a note, a photo. It lies at the foot of the screen and can be ignored. */
const props = defineProps<{
  name: string
  marked: Marked
  slips: Schemas['CardChoice'][]
  strategies: Schemas['CardChoice'][]
  photos: boolean
}>()
const emit = defineEmits<{ amend: [more: More]; writing: []; photo: [file: File] }>()

const chips = computed(() => [
  ...props.slips.map((choice) => ({ ...choice, kind: 'slip' as const })),
  ...props.strategies.map((choice) => ({ ...choice, kind: 'strategy' as const })),
])

const noting = ref(false)
const note = ref('')
const field = ref<HTMLTextAreaElement>()
async function begin() {
  noting.value = true
  note.value = props.marked.note ?? ''
  emit('writing')
  await nextTick()
  field.value?.focus()
}
function done() {
  noting.value = false
  emit('amend', { note: note.value.trim() || null })
}
function taken(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) emit('photo', file)
}
</script>

<template>
  <div class="strip" role="group" :aria-label="$t('How {name} did it', { name })">
    <b class="said">{{ name }}</b> {{ supportLabel(marked.support).toLowerCase() }}
    <button
      v-for="chip in chips"
      :key="`${chip.kind} ${chip.id}`"
      type="button"
      class="chip"
      :class="[chip.kind, { on: marked[chip.kind] === chip.id }]"
      :aria-pressed="marked[chip.kind] === chip.id"
      @click="emit('amend', { [chip.kind]: marked[chip.kind] === chip.id ? null : chip.id })"
    >
      {{ chip.text }}
    </button>
    <button v-if="!noting" type="button" class="chip more" :class="{ on: marked.note }" @click="begin">
      {{ marked.note ? $t('Note taken') : $t('Note') }}
    </button>
    <label v-if="photos" class="chip more" :class="{ on: marked.photo }">
      {{ marked.photo ? $t('Photo taken') : $t('Photo of the page') }}
      <input
        type="file"
        accept="image/*"
        capture="environment"
        class="hidden-words"
        @click="emit('writing')"
        @change="taken"
      />
    </label>
    <form v-if="noting" class="note" @submit.prevent="done">
      <textarea
        ref="field"
        v-model="note"
        rows="2"
        maxlength="500"
        :aria-label="$t('Note about {name}', { name })"
        :placeholder="$t('What the child said or did')"
        @input="emit('writing')"
      />
      <button class="button main">{{ $t('Done') }}</button>
    </form>
  </div>
</template>

<style scoped>
.strip {
  position: sticky;
  bottom: var(--bar);
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin: auto -1.5rem -2.5rem;
  padding: 0.7rem 1.5rem;
  border-top: 1.5px solid var(--ink);
  background: var(--paper-deep);
}

.chip {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  padding: 0 0.9rem;
  border: 1.5px dashed var(--ink-soft);
  border-radius: 22px;
  background: var(--card);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}

.chip.strategy {
  border-style: solid;
}

.chip.more {
  border-style: solid;
  border-radius: var(--corner);
}

.chip:focus-within {
  outline: 3px solid var(--spruce);
  outline-offset: 2px;
}

.chip.on {
  border: 1.5px solid var(--spruce);
  background: var(--spruce);
  color: #fffcf5;
}

.note {
  display: flex;
  flex: 1 1 100%;
  gap: 6px;
}

.note textarea {
  flex: 1;
  min-width: 0;
  padding: 0.4rem 0.6rem;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font: 400 1.1rem/1.3 var(--child);
}
</style>
