<script setup lang="ts">
import MarkFrame from './MarkFrame.vue'

/** The children of a group, each with the mark of where it stands in the group's aim. */
defineProps<{ children: { name: string; strength: number; lookAgain: boolean }[] }>()
</script>

<template>
  <span v-if="children.length" class="child-marks" role="list">
    <span v-for="child in children" :key="child.name" role="listitem">
      <MarkFrame :strength="child.strength" :look-again="child.lookAgain" /> <span class="said">{{ child.name }}</span>
    </span>
  </span>
</template>

<style scoped>
.child-marks {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 1.1rem;
}

.child-marks > span {
  display: inline-flex;
  gap: 0.45rem;
  align-items: center;
  white-space: nowrap;
}
</style>
