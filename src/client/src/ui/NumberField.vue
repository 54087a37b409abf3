<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'
import { computed } from 'vue'

/** A number to type, or to change by the arrow keys, within bounds; null where nothing is said. */
const model = defineModel<number | null>()
defineProps<{
  /** What it is, where no label stands around it. */
  label?: string
  min?: number
  max?: number
  /** Not only whole numbers. */
  parts?: boolean
  required?: boolean
  placeholder?: string
  disabled?: boolean
}>()
// The library tells its number whenever the field is left, changed or not.
const number = computed({
  get: () => model.value ?? null,
  set: (said: number | null) => said !== (model.value ?? null) && (model.value = said),
})
</script>

<template>
  <InputNumber
    v-model="number"
    class="number-field"
    :min="min"
    :max="max"
    :max-fraction-digits="parts ? 1 : 0"
    :use-grouping="false"
    :aria-label="label"
    :required="required"
    :placeholder="placeholder"
    :disabled="disabled"
    :pt="{ pcInputText: { root: { inputmode: parts ? 'decimal' : 'numeric' } } }"
  />
</template>

<style scoped>
.number-field :deep(input) {
  width: 4.6rem;
}
</style>
