<script setup lang="ts">
import { computed } from 'vue'
import { markWords } from './marks'

/** Our mark for mastery: a five-cell frame filled from the left. A dot in the last cell is "kept", hatching is "look again", dots in outline are "inferred". */
const props = defineProps<{
  strength: number
  lookAgain?: boolean
  ready?: boolean
  inferred?: boolean
  silent?: boolean
}>()
const words = computed(() => markWords(props.strength, props.lookAgain, props.ready, props.inferred))
</script>

<template>
  <span
    class="mark"
    :class="[`s${strength}`, { again: lookAgain, ready: ready && strength < 4, inferred: inferred && strength === 0 }]"
    :role="silent ? undefined : 'img'"
    :aria-label="silent ? undefined : words"
  />
</template>

<style>
/* Not scoped: the grid draws hundreds of these and adds the classes itself. */
.mark {
  --filled: 0%;
  display: inline-block;
  position: relative;
  width: 42px;
  height: 11px;
  border: 1.5px solid var(--line-strong);
  border-radius: 2px;
  background:
    repeating-linear-gradient(to right, transparent 0 calc(20% - 1.5px), var(--line-strong) calc(20% - 1.5px) 20%) 0 0,
    linear-gradient(to right, var(--ink) var(--filled), transparent 0) 0 0;
  background-color: var(--card);
  vertical-align: middle;
}

.mark.ready {
  border-color: var(--ink);
}

.mark.inferred {
  background:
    radial-gradient(circle, transparent 0 1.6px, var(--ink) 1.6px 2.8px, transparent 2.8px) 0 50% / 20% 100%,
    repeating-linear-gradient(to right, transparent 0 calc(20% - 1.5px), var(--line-strong) calc(20% - 1.5px) 20%) 0 0;
  background-color: var(--card);
}

.mark.s1 {
  --filled: 20%;
}

.mark.s2 {
  --filled: 40%;
}

.mark.s3 {
  --filled: 60%;
}

.mark.s4 {
  --filled: 80%;
}

.mark.s5 {
  --filled: 100%;
}

.mark.s1,
.mark.s2,
.mark.s3,
.mark.s4,
.mark.s5 {
  border-color: var(--ink);
  background:
    repeating-linear-gradient(to right, transparent 0 calc(20% - 1.5px), var(--paper-deep) calc(20% - 1.5px) 20%) 0 0,
    linear-gradient(to right, var(--ink) var(--filled), transparent 0) 0 0;
  background-color: var(--card);
}

.mark.s5::after {
  content: '';
  position: absolute;
  right: 1.8px;
  top: 50%;
  width: 4.5px;
  height: 4.5px;
  border-radius: 50%;
  background: var(--card);
  transform: translateY(-50%);
}

.mark.again {
  background:
    repeating-linear-gradient(to right, transparent 0 calc(20% - 1.5px), var(--ink) calc(20% - 1.5px) 20%) 0 0,
    linear-gradient(to right, transparent var(--filled), var(--card) 0) 0 0,
    repeating-linear-gradient(-45deg, var(--ink) 0 1.6px, var(--card) 1.6px 4px) 0 0;
}
</style>
