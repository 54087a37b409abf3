<script setup lang="ts">
/** A number to tap up and down, or to type; whole, within bounds. */
const props = withDefaults(
  defineProps<{ modelValue: number; label: string; low?: number; high?: number; step?: number }>(),
  {
    low: 0,
    high: 999,
    step: 1,
  },
)
const emit = defineEmits<{ 'update:modelValue': [number] }>()

function set(number: number) {
  if (!Number.isNaN(number)) emit('update:modelValue', Math.min(props.high, Math.max(props.low, Math.round(number))))
}
</script>

<template>
  <span class="step" role="group" :aria-label="label">
    <button
      type="button"
      :disabled="modelValue <= low"
      :aria-label="$t('{label}: less', { label })"
      @click="set(modelValue - step)"
    >
      −
    </button>
    <input
      type="text"
      inputmode="numeric"
      :value="modelValue"
      :aria-label="label"
      @change="set(Number.parseInt(($event.target as HTMLInputElement).value, 10))"
    />
    <button
      type="button"
      :disabled="modelValue >= high"
      :aria-label="$t('{label}: more', { label })"
      @click="set(modelValue + step)"
    >
      +
    </button>
  </span>
</template>

<style scoped>
.step {
  display: inline-flex;
  width: max-content;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  overflow: hidden;
}

.step:focus-within {
  border-color: var(--spruce);
}

button {
  width: var(--target);
  min-height: var(--target);
  border: 0;
  background: var(--paper-deep);
  color: var(--spruce);
  font: 700 1.35rem/1 var(--child);
  cursor: pointer;
}

button:disabled {
  color: var(--line-strong);
  cursor: default;
}

button:focus-visible,
input:focus-visible {
  outline-offset: -3px;
}

input[type='text'] {
  width: 3.3rem;
  padding: 0;
  min-height: var(--target);
  border: 0;
  border-radius: 0;
  background: transparent;
  text-align: center;
  font: 700 1.3rem/1 var(--child);
}
</style>
