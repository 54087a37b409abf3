<script setup lang="ts">
import { ref, watch } from 'vue'

/** One child's guess. What is being typed stays, whatever is answered for other children meanwhile. */
const props = defineProps<{ name: string; guess: number | undefined; editable: boolean }>()
const emit = defineEmits<{ keep: [number | null] }>()

const text = ref('')
const typing = ref(false)
watch(
  () => props.guess,
  (guess) => {
    if (!typing.value) text.value = guess === undefined ? '' : String(guess)
  },
  { immediate: true },
)

function left() {
  typing.value = false
  // What is no number goes out as nought, which the server refuses with the reason.
  const guess = text.value.trim() === '' ? null : Math.trunc(Number(text.value)) || 0
  if (guess !== (props.guess ?? null)) emit('keep', guess)
}
</script>

<template>
  <label>
    <span class="said">{{ name }}</span>
    <input
      v-model="text"
      type="text"
      inputmode="numeric"
      enterkeyhint="next"
      :disabled="!editable"
      :aria-label="$t('Guess of {name}', { name })"
      @focus="typing = true"
      @blur="left"
    />
  </label>
</template>

<style scoped>
label {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 0.6rem;
  min-height: var(--target);
  border-bottom: 1px solid var(--line);
}

input[type='text'] {
  width: 4.6rem;
  text-align: center;
  font: 700 1.15rem/1 var(--child);
}
</style>
