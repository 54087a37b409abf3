<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useAddress } from '@/ui/useAddress'
import { useFlash } from './useFlash'
import { t } from '@/app/language'

/**
 * The cloth that a mat lies on, and the board: the same picture over the whole screen with nothing beside it but what the adult wants
 * under it. Driven by keys and by its four corners.
 */
const props = defineProps<{
  /** Where one stands in a chain of steps; leave out where there is nothing to step through. */
  steps?: { at: number; last: number }
  /** Seconds of a flash; leave out where nothing is to be flashed. */
  flash?: number
  /** What the lower right corner of the board does where there are no steps: one of the keys, under its name. */
  corner?: { key: string; label: string }
  /** A lower cloth, where what is reckoned stands under it. */
  low?: boolean
  /** Further keys of this mat, with what they do. */
  keys?: Record<string, string>
}>()
const emit = defineEmits<{ back: []; on: []; key: [string] }>()

const { at, put } = useAddress({ board: '', under: '1' })
const board = computed(() => at.value.board === '1')
const { curtain, close, lift, flash: show } = useFlash(() => props.flash ?? 1)
const help = ref(false)
const seconds = computed(() => (props.flash ?? 1).toLocaleString(undefined, { maximumFractionDigits: 1 }))
const known = computed(() => ({
  ...(props.steps ? { '→ ←': t('step on, step back') } : {}),
  ...(props.flash ? { e: t('flash'), c: t('close or open the curtain') } : {}),
  ...props.keys,
  u: t('what stands under it, or not'),
  b: t('board on or off'),
  '?': t('these keys'),
}))

async function turnBoard(to: boolean) {
  put({ board: to ? '1' : '' })
  try {
    if (to) await document.documentElement.requestFullscreen()
    else if (document.fullscreenElement) await document.exitFullscreen()
  } catch {
    // Where a browser refuses the full screen, the board fills its window.
  }
}

const doings: Record<string, () => unknown> = {
  ArrowRight: () => props.steps && emit('on'),
  ArrowLeft: () => props.steps && emit('back'),
  e: () => props.flash && show(),
  c: () => props.flash && (curtain.value === 'open' ? close() : lift()),
  u: () => put({ under: at.value.under === '0' ? '1' : '0' }),
  b: () => turnBoard(!board.value),
  Escape: () => (help.value ? (help.value = false) : board.value && turnBoard(false)),
  '?': () => (help.value = !help.value),
}

function pressed(event: KeyboardEvent) {
  const inField = (event.target as HTMLElement).closest('input, select, textarea')
  if (inField || event.ctrlKey || event.metaKey || event.altKey) return
  const own = doings[event.key]
  if (own) own()
  else if (props.keys && event.key in props.keys) emit('key', event.key)
  else return
  event.preventDefault()
}

useEventListener(window, 'keydown', pressed)
defineExpose({ lift })
</script>

<template>
  <div class="mat" :class="{ board, low }">
    <section class="cloth" :aria-label="$t('The mat')">
      <div class="shown">
        <div v-show="curtain === 'open' || curtain === 'flash'" class="lies"><slot /></div>
        <div v-if="curtain === 'closed' || curtain === 'ready'" class="curtain" role="status">
          {{ curtain === 'ready' ? $t('Eyes up') : $t('What did you see?') }}
        </div>
      </div>
      <div v-show="curtain === 'open' && at.under !== '0'" class="under"><slot name="under" /></div>

      <template v-if="board">
        <button v-if="flash" type="button" class="corner top left" @click="curtain === 'closed' ? lift() : show()">
          {{ curtain === 'closed' ? $t('Open') : $t('Flash') }}
        </button>
        <button type="button" class="corner top right" @click="turnBoard(false)">{{ $t('Leave') }}</button>
        <button v-if="steps" type="button" class="corner bottom left" :disabled="steps.at === 0" @click="emit('back')">
          {{ $t('Back') }}
        </button>
        <button
          v-if="steps"
          type="button"
          class="corner bottom right"
          :disabled="steps.at === steps.last"
          @click="emit('on')"
        >
          {{ $t('On') }}
        </button>
        <button v-else-if="corner" type="button" class="corner bottom right" @click="emit('key', corner.key)">
          {{ corner.label }}
        </button>
      </template>
    </section>

    <div v-if="!board" class="run">
      <template v-if="steps">
        <button type="button" class="button" :disabled="steps.at === 0" @click="emit('back')">{{ $t('Back') }}</button>
        <button type="button" class="button main" :disabled="steps.at === steps.last" @click="emit('on')">
          {{ $t('On') }}
        </button>
        <span class="soft small">{{ $t('step {a} of {b}', { a: steps.at + 1, b: steps.last + 1 }) }}</span>
      </template>
      <template v-if="flash">
        <button type="button" class="button" @click="show()">{{ $t('Flash, {seconds} s', { seconds }) }}</button>
        <button type="button" class="button" @click="curtain === 'open' ? close() : lift()">
          {{ curtain === 'open' ? $t('Close the curtain') : $t('Open the curtain') }}
        </button>
      </template>
      <slot name="run" />
      <button type="button" class="button end" @click="turnBoard(true)">{{ $t('On the board') }}</button>
      <button type="button" class="button plain small" :aria-expanded="help" @click="help = !help">
        {{ $t('Keys') }}
      </button>
    </div>
    <dl v-if="help" class="keys">
      <div v-for="(what, key) in known" :key="key">
        <dt>{{ key }}</dt>
        <dd>{{ what }}</dd>
      </div>
    </dl>
  </div>
</template>

<style scoped>
/* A woven mat: a stitched edge, and a fringe on both ends. */
.cloth {
  position: relative;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-height: 24rem;
  height: min(58vh, 38rem);
  margin-inline: 12px;
  padding: 26px;
  background: var(--paper-deep);
  outline: 2px dashed var(--spruce);
  outline-offset: -13px;
}

.low .cloth {
  min-height: 15rem;
  height: 17rem;
}

.cloth::before,
.cloth::after {
  content: '';
  position: absolute;
  inset-block: 3px;
  width: 12px;
  background: repeating-linear-gradient(var(--line-strong) 0 2px, transparent 2px 8px);
}

.cloth::before {
  left: -12px;
}

.cloth::after {
  right: -12px;
}

.shown {
  min-height: 0;
  display: grid;
}

.lies {
  min-height: 0;
  min-width: 0;
  display: grid;
  padding: 0.5rem 1rem;
}

.lies :deep(svg.fill) {
  min-height: 0;
}

.curtain {
  display: grid;
  place-items: center;
  background: repeating-linear-gradient(90deg, var(--spruce) 0 34px, #17443c 34px 44px);
  color: #fffcf5;
  font: 700 2.4rem/1.2 var(--child);
}

.under {
  min-height: 3.4rem;
  padding: 0.4rem 0.6rem 0;
  font-family: var(--child);
  font-size: 1.35rem;
  text-align: center;
}

.run {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
  padding: 0.7rem 12px 0;
}

.run .button {
  min-height: var(--target);
}

.run .end {
  margin-left: auto;
}

.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.4rem;
  margin: 0.7rem 12px 0;
  padding-top: 0.5rem;
  border-top: 1px solid var(--line);
}

.keys div {
  display: flex;
  gap: 0.5rem;
}

.keys dt {
  min-width: 1.7rem;
  padding: 0 0.35rem;
  border: 1.5px solid var(--line-strong);
  border-radius: 4px;
  font-weight: 700;
  text-align: center;
}

.keys dd {
  margin: 0;
}

/* The board: readable from six metres, so its letters take a tenth of the height of the screen. */
.board .cloth {
  position: fixed;
  inset: 0;
  z-index: 40;
  height: auto;
  min-height: 0;
  margin: 0;
  padding: 34px 40px 30px;
  background: var(--card);
  outline-offset: -16px;
}

.board .cloth::before,
.board .cloth::after {
  display: none;
}

.board .under {
  min-height: 15vh;
  padding-inline: 8.5rem;
  font-size: clamp(1.9rem, 6.4vh, 4.4rem);
  line-height: 1.12;
  display: grid;
  place-content: center;
}

.board .curtain {
  font-size: clamp(3rem, 12vh, 8rem);
}

.corner {
  position: absolute;
  width: 8rem;
  height: 8rem;
  padding: 1.2rem;
  border: 0;
  background: transparent;
  color: var(--ink-soft);
  font: 700 1.1rem/1 var(--body);
  cursor: pointer;
}

.corner:hover,
.corner:focus-visible {
  background: var(--spruce-wash);
}

.corner:disabled {
  visibility: hidden;
}

.corner.top {
  top: 0;
}

.corner.bottom {
  bottom: 0;
}

.corner.left {
  left: 0;
}

.corner.right {
  right: 0;
}

.corner.top.left {
  border-bottom-right-radius: 100%;
}

.corner.top.right {
  border-bottom-left-radius: 100%;
}

.corner.bottom.left {
  border-top-right-radius: 100%;
}

.corner.bottom.right {
  border-top-left-radius: 100%;
}

.board .keys {
  position: fixed;
  z-index: 41;
  inset: auto 0 0;
  margin: 0;
  padding: 0.8rem 1.2rem;
  background: var(--card);
  border-top: 1.5px solid var(--ink);
}

@media (max-width: 640px) {
  .cloth {
    min-height: 18rem;
    padding: 20px;
  }
}
</style>
