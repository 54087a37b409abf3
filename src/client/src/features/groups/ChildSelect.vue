<script setup lang="ts">
import LongSelect from '@/ui/LongSelect.vue'

/** One of the class's children, or one of its adults. */
defineProps<{ label: string; none: string; of: { id: number; name: string }[] }>()
const model = defineModel<number>()
</script>

<template>
  <LongSelect
    v-model="model"
    :label="label"
    :none="none"
    :options="of.map((one) => ({ value: one.id, label: one.name }))"
  />
</template>
