<script setup lang="ts">
import type { Schemas } from '@/app/api/client'

/** What stands in the way of taking a file: line, column, reason. */
defineProps<{ faults: Schemas['FileFault'][] }>()
</script>

<template>
  <div v-if="faults.length" role="alert" class="faults">
    <p class="warn">
      {{ faults.length === 1 ? 'One thing stands' : `${faults.length} things stand` }} in the way. Nothing was taken.
    </p>
    <ul>
      <li v-for="(fault, i) in faults.slice(0, 12)" :key="i">
        Line {{ fault.row }}<template v-if="fault.column">, {{ fault.column }}</template
        >: {{ fault.reason }}
      </li>
    </ul>
  </div>
</template>
