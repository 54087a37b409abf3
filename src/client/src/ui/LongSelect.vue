<script setup lang="ts" generic="T extends string | number | null | undefined">
import Select from 'primevue/select'
import { computed } from 'vue'

/** One of many (children, skills, activities): opened, a few letters of it are enough. `none` stands first, for no choice. */
const props = defineProps<{
  label: string
  options: { value: T; label: string }[]
  none?: string
  disabled?: boolean
}>()
const model = defineModel<T>()
// A name and its initial never part: what joins them is typed as a space.
const shown = computed(() =>
  [...(props.none === undefined ? [] : [{ value: NONE, label: props.none }]), ...props.options].map((o) => ({
    ...o,
    typed: o.label.replaceAll('\u00a0', ' '),
  })),
)
// The library takes an option without a value for no option.
const NONE = '—'
const chosen = computed({
  get: () => (props.none !== undefined && !model.value ? NONE : model.value),
  set: (value) => (model.value = (value === NONE ? (typeof model.value === 'string' ? '' : undefined) : value) as T),
})
</script>

<template>
  <Select
    v-model="chosen"
    class="long-select"
    :options="shown"
    option-value="value"
    option-label="label"
    :aria-label="label"
    :disabled="disabled"
    :filter="shown.length > 8"
    :filter-fields="['typed']"
    :filter-placeholder="$t('A few letters')"
    auto-filter-focus
    reset-filter-on-hide
    scroll-height="18rem"
  />
</template>
