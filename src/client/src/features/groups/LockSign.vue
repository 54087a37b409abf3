<script setup lang="ts">
/** A peg that is in or out: what is pegged down stays when groups are asked for again. */
defineProps<{ closed?: boolean }>()
</script>

<template>
  <svg width="16" height="18" viewBox="0 0 16 18" aria-hidden="true">
    <line x1="1" y1="15.5" x2="15" y2="15.5" stroke="currentColor" stroke-width="1.5" />
    <g :transform="closed ? 'translate(0 4)' : 'translate(0 -1)'">
      <line x1="8" y1="6" x2="8" y2="11.5" stroke="currentColor" stroke-width="2" />
      <circle cx="8" cy="5" r="3.4" :fill="closed ? 'currentColor' : 'none'" stroke="currentColor" stroke-width="1.5" />
    </g>
  </svg>
</template>
