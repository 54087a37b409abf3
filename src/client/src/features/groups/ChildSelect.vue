<script setup lang="ts">
/** One of the class's children, or one of its adults. */
defineProps<{ label: string; none: string; of: { id: number; name: string }[] }>()
const model = defineModel<number>()
</script>

<template>
  <select v-model="model" class="box" :aria-label="label">
    <option :value="undefined">{{ none }}</option>
    <option v-for="one in of" :key="one.id" :value="one.id">{{ one.name }}</option>
  </select>
</template>
